// Parts that are computed: made, and their numbers changed.
#include "cli/fields.h"
#include "cli/verb.h"
#include "core/base/text.h"
#include "core/checks/fit_checks.h"
#include "core/commands/making.h"
#include "core/commands/parts.h"
#include "core/project/format.h"

namespace dotlane::cli {
namespace {

std::string kinds_help() {
    std::string out = "What to make:";
    for (const SourceKind& kind : source_kinds())
        out += std::string("\n  ") + kind.key + ": " + kind.about;
    return out;
}

class MakeVerb final : public Verb {
    void declare(CLI::App& app) override {
        app.footer(kinds_help());
        app.add_option("project", path_, "The project file (.dotlane); made when it does not exist")
            ->required();
        app.add_option("kind", kind_, "What to make; `dot-lane-cli kinds source` lists their numbers")
            ->required();
        app.add_option("--step", steps_,
                       "A step that it begins with, on all its lines; several may be given");
        app.add_option("--set", pairs_, "A number or choice, such as width=105mm; several may be given");
        app.add_option("--name", name_, "Name of the part");
        app.add_option("--stack", stack_, "So many layers, each on the one before")->check(CLI::Range(1, 20));
        app.add_option("--quantity", quantity_, "How many are wanted")->check(CLI::Range(1, 9999));
    }

    bool writes() const override { return true; }

    int run(Context& c) override {
        const SourceKind* kind = source_kind(kind_);
        if (!kind)
            return c.error({"cli.unknown", say("There is no kind \"%1\". %2", kind_, kinds_help()), {}});
        return change_project(c, path_, true, [&](Project& project) { return act(c, project, *kind); });
    }

    int act(Context& c, Project& project, const SourceKind& kind) const {
        SourceSpec spec = kind.fresh;
        if (const auto ok = set_fields(spec, pairs_, project); !ok) return c.error(ok.error());
        const auto done = made(c, project, std::move(spec));
        if (!done) return c.error(done.error());
        if (quantity_ > 0)
            for (const PartId part : done->parts)
                if (const auto ok = apply(WantPart{part, quantity_}, project); !ok)
                    return c.error(ok.error());
        int worst = fine;
        for (const PartId part : done->parts)
            worst = std::max(worst,
                             report_part(c, project, part, part == done->part ? done->said.english() : ""));
        return worst;
    }

    Result<Done> made(Context& c, Project& project, SourceSpec spec) const {
        const auto* layer = std::get_if<Layer>(&spec);
        if (stack_ > 0 && !layer)
            return fail("layers.kind", say("Only layers are stacked: leave --stack out."));
        if (layer && !steps_.empty())
            return fail("layers.kind",
                        say("Layers begin without steps: leave --step out, and add steps after."));
        if (layer)
            return apply(AddLayers{*layer, std::max(1, stack_), name_, layer->of}, project,
                         c.workshop.catalog(), c.workshop.fonts());
        std::vector<StepWhat> steps;
        for (const std::string& key : steps_) {
            const StepKind* kind = step_kind(key);
            if (!kind) return fail("cli.unknown", say("\"%1\" is no step. See dot-lane-cli kinds.", key));
            steps.push_back(kind->fresh);
        }
        return apply(MakePart{std::move(spec), name_, {}, std::move(steps)}, project, c.workshop.catalog(),
                     c.workshop.fonts());
    }

    std::string path_, kind_, name_;
    std::vector<std::string> pairs_, steps_;
    int quantity_ = 0, stack_ = 0;
};

class SourceVerb final : public ProjectVerb {
    void options(CLI::App& app) override {
        app.add_option("--part", part_, "Part by name or number");
        app.add_option("--set", pairs_, "A number or choice, such as width=105mm; several may be given");
    }

    int act(Context& c, Project& project) override {
        const auto id = part_named(project, part_);
        if (!id) return c.error(id.error());
        SourceSpec spec = find(project, *id)->source.spec;
        if (std::holds_alternative<FromFile>(spec))
            return c.error(
                {"source.file", say("This part comes from a file: it has no numbers to set."), {}});
        if (pairs_.empty() && !c.json) print_fields(c.out, [&](Fields& f) { fields(spec, f); });
        const auto numbers = [&] { return fields_json([&](Fields& f) { fields(spec, f); }); };
        const nlohmann::json before = numbers();
        if (const auto ok = set_fields(spec, pairs_, project); !ok) return c.error(ok.error());
        std::string done;
        const nlohmann::json now = numbers();
        for (const auto& [key, value] : now.items())
            if (!before.contains(key) || before[key] != value) {
                const bool length = key.ends_with("_mm");
                done += (done.empty() ? "Changed \"" + find(project, *id)->name + "\": " : ", ") +
                        (length ? key.substr(0, key.size() - 3) : key) + " " +
                        (before.contains(key) ? words(before[key]) + " to " : "") + words(value) +
                        (length && value.is_number() ? " mm" : "");
            }
        if (const auto ok =
                apply(ChangeSource{*id, std::move(spec)}, project, c.workshop.catalog(), c.workshop.fonts());
            !ok)
            return c.error(ok.error());
        return report_part(c, project, *id,
                           pairs_.empty() ? std::string()
                           : done.empty() ? "Nothing changed."
                                          : done + ".");
    }

    static std::string words(const nlohmann::json& value) {
        return value.is_number_float() ? number(value.get<double>(), 4)
               : value.is_string()     ? "\"" + value.get<std::string>() + "\""
                                       : value.dump();
    }

    std::string part_;
    std::vector<std::string> pairs_;
};

} // namespace

int report_part(Context& c, const Project& project, PartId id, const std::string& done) {
    if (!c.json && !done.empty()) c.out << done << "\n";
    const auto derived = c.workshop.derive(std::make_shared<Project>(project));
    const EvaluatedPart& e = *derived->part(id);
    const Part& part = *find(project, id);
    SourceSpec spec = part.source.spec;
    if (c.json) {
        nlohmann::json roles = nlohmann::json::array();
        for (const LineSet& set : part.sets)
            roles.push_back({{"line_set", set.id.value}, {"role", set.role}, {"lane", set.lane.value}});
        c.print({{"done", done},
                 {"part", id.value},
                 {"name", part.name},
                 {"width_mm", e.box.width()},
                 {"height_mm", e.box.height()},
                 {"lines", e.lines.size()},
                 {"numbers", fields_json([&](Fields& f) { fields(spec, f); })},
                 {"figures", figures_json(e.figures)},
                 {"line_sets", roles},
                 {"findings", to_json(e.findings)}});
    } else {
        c.out << "\"" << part.name << "\" (" << id.value << "): " << to_text(mm(e.box.width()), project.unit)
              << " x " << to_text(mm(e.box.height()), project.unit) << ", " << e.lines.size()
              << (e.lines.size() == 1 ? " line\n" : " lines\n");
        print_figures(c.out, e.figures);
        if (const auto* card = std::get_if<FoldedCard>(&part.source.spec)) {
            const auto fits = envelopes_for(c.workshop.catalog(), card->width, card->height);
            for (const EnvelopeFit& fit : fits)
                c.out << "    fits envelope " << fit.envelope->name << (fit.tight ? ", tightly" : "") << "\n";
            for (const SheetFit& fit : fits_of(project, c.workshop.catalog(), e))
                c.out << "    fits stock " << fit_words(fit, project.unit) << "\n";
        }
        print_findings(c.out, e.findings);
    }
    return blocks_export(e.findings) ? findings : fine;
}

std::unique_ptr<Verb> make_make() {
    return std::make_unique<MakeVerb>();
}
std::unique_ptr<Verb> make_source() {
    return std::make_unique<SourceVerb>();
}

} // namespace dotlane::cli
