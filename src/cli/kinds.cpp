// What can be made and worked with, and what there is to do it with: no project is needed.
#include "cli/fields.h"
#include "cli/verb.h"
#include "core/base/text.h"

namespace dotlane::cli {
namespace {

using json = nlohmann::json;

struct Described {
    const char* group;
    const char *key, *name, *about;
    const char* wanted; ///< the heading under which it is offered
    std::function<void(Fields&)> members;
};

std::vector<Described> all_kinds() {
    std::vector<Described> out;
    for (const SourceKind& kind : all_source_kinds())
        out.push_back({"source", kind.key, kind.name, kind.about, title(kind.wanted),
                       [spec = kind.fresh](Fields& f) mutable { fields(spec, f); }});
    for (const StepKind& kind : step_kinds()) {
        out.push_back({"step", kind.key, kind.name, kind.about, title(kind.wanted),
                       [what = kind.fresh](Fields& f) mutable { fields(what, f); }});
        if (!kind.inks) continue;
        for (const FillKind& style : fill_kinds()) {
            StepWhat what = kind.fresh;
            const auto ok = set_fields(what, {std::string("style=") + style.key}, Project{});
            DOTLANE_CHECK(ok);
            out.push_back({"fill", style.key, style.name, style.about, title(kind.wanted),
                           [what](Fields& f) mutable { fields(what, f); }});
        }
    }
    return out;
}

class KindsVerb final : public Verb {
    void declare(CLI::App& app) override {
        app.add_option("group", group_,
                       "source (what parts are made from), step or fill (its styles); all when left out")
            ->check(CLI::IsMember({"source", "step", "fill"}));
        app.add_option("name", name_, "One kind of the group");
    }

    int run(Context& c) override {
        json list = json::array();
        std::string names;
        for (const Described& kind : all_kinds()) {
            if (!group_.empty() && group_ != kind.group) continue;
            names += (names.empty() ? "" : ", ") + std::string(kind.key);
            if (!name_.empty() && !same_word(name_, kind.key)) continue;
            list.push_back({{"group", kind.group},
                            {"kind", kind.key},
                            {"name", kind.name},
                            {"about", kind.about},
                            {"wanted", kind.wanted},
                            {"fields", described_json(kind.members)}});
            if (c.json) continue;
            c.out << kind.group << " " << kind.key << ": " << kind.about << "\n";
            print_fields(c.out, kind.members);
        }
        if (list.empty())
            return c.error(
                {"cli.unknown", say("There is no %1 \"%2\". There are: %3.", group_, name_, names), {}});
        if (c.json) c.print({{"kinds", list}});
        return fine;
    }

    std::string group_, name_;
};

class CatalogVerb final : public Verb {
    void declare(CLI::App& app) override {
        app.add_option("list", list_, "stocks, mats, machines or tools; all when left out")
            ->check(CLI::IsMember({"stocks", "mats", "machines", "tools"}));
    }

    int run(Context& c) override {
        const Catalog& catalog = c.workshop.catalog();
        json out = json::object();
        const auto wanted = [&](const char* list) { return list_.empty() || list_ == list; };
        const auto size = [](Length width, Length height) {
            return number(in_mm(width), 1) + " x " + number(in_mm(height), 1) + " mm";
        };
        if (wanted("stocks"))
            for (const Stock& s : catalog.stocks)
                add(c, out, "stocks", s.id, s.name,
                    size(s.width, s.height) + ", " + number(in_mm(s.thickness), 2) + " mm thick, " +
                        number(s.grams_per_m2, 0) + " g/m2",
                    {{"width_mm", in_mm(s.width)},
                     {"height_mm", in_mm(s.height)},
                     {"thickness_mm", in_mm(s.thickness)},
                     {"grams_per_m2", s.grams_per_m2}});
        if (wanted("mats"))
            for (const Mat& m : catalog.mats)
                add(c, out, "mats", m.id, m.name,
                    size(m.width, m.height) + ", the tool reaches " +
                        size(mm(m.usable.width()), mm(m.usable.height())),
                    {{"width_mm", in_mm(m.width)},
                     {"height_mm", in_mm(m.height)},
                     {"usable_width_mm", m.usable.width()},
                     {"usable_height_mm", m.usable.height()}});
        if (wanted("machines"))
            for (const Machine& m : catalog.machines)
                add(c, out, "machines", m.id, m.name,
                    counted(m.slots.size(), "holder", "holders") + ", stock up to " +
                        number(in_mm(m.max_thickness), 2) + " mm",
                    {{"holders", m.slots.size()},
                     {"mats", m.mats},
                     {"max_thickness_mm", in_mm(m.max_thickness)}});
        if (wanted("tools"))
            for (const Tool& t : catalog.tools) {
                std::vector<std::string> actions;
                std::string words;
                for (const Action action : t.actions) {
                    actions.emplace_back(action_name(action));
                    words += (words.empty() ? "" : ", ") + actions.back();
                }
                add(c, out, "tools", t.id, t.name, words + "; a mark of " + number(in_mm(t.tip), 2) + " mm",
                    {{"actions", actions}, {"tip_mm", in_mm(t.tip)}});
            }
        if (c.json) c.print(out);
        return fine;
    }

    static void add(Context& c, json& out, const char* list, const std::string& id, const std::string& name,
                    const std::string& words, json figures) {
        if (!c.json) {
            if (!out.contains(list)) c.out << list << "\n";
            std::string padded = id;
            padded.resize(std::max<std::size_t>(padded.size(), 24), ' ');
            c.out << "  " << padded << " " << name << ": " << words << "\n";
        }
        figures["id"] = id;
        figures["name"] = name;
        out[list].push_back(std::move(figures));
    }

    std::string list_;
};

} // namespace

std::unique_ptr<Verb> make_kinds() {
    return std::make_unique<KindsVerb>();
}
std::unique_ptr<Verb> make_catalog() {
    return std::make_unique<CatalogVerb>();
}

} // namespace dotlane::cli
