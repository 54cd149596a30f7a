#include <charconv>

#include "cli/verb.h"
#include "core/base/text.h"
#include "core/commands/placing.h"
#include "core/project/edits.h"

namespace dotlane::cli {
namespace {

class Arrange final : public ProjectVerb {
    void options(CLI::App& app) override {
        app.add_option("--sheet", sheet_, "Sheet by name or number");
        app.add_option("--only", only_,
                       "Placed parts by number, such as 12,14; all of the sheet when missing");
        app.add_option("--across", across_, "Line up: left, middle or right");
        app.add_option("--down", down_, "Line up: top, middle or bottom");
        app.add_option("--with", with_,
                       "What they are lined up with: reach, stock, others, or a placed part");
        app.add_option("--spread", spread_,
                       "With equal gaps: across or down; the outermost stay, or go to the "
                       "edges of --with reach or stock");
        app.add_option("--turn", turn_, "All as one, clockwise, in degrees");
        app.add_flag("--mirror", mirror_, "All as one, left to right");
        app.add_flag("--group", group_, "From now on they are moved together");
        app.add_flag("--ungroup", ungroup_, "Each by itself again");
    }

    int act(Context& c, Project& project) override {
        const auto sheet = sheet_named(project, sheet_);
        if (!sheet) return c.error(sheet.error());
        const auto ids = chosen(*find(project, *sheet));
        if (!ids) return c.error(ids.error());
        if (group_ || ungroup_)
            if (const auto ok = group_ ? group_placements(project, *ids) : ungroup_placements(project, *ids);
                !ok)
                return c.error(ok.error());
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        auto all = lying(project, *derived, *ids);
        const auto move = [&](const std::vector<Placement>& to) -> Result<void> {
            if (const auto ok = change_placements(project, to); !ok) return ok;
            all = lying(project, *derived, *ids);
            return {};
        };
        const auto ok = work(project, *derived, *sheet, all, move);
        return ok ? report(c, project, *sheet, *ids, told(project, *sheet, ids->size()))
                  : c.error(ok.error());
    }

    /// What was done, in the order in which it is.
    std::string told(const Project& project, SheetId sheet, std::size_t n) const {
        std::string out;
        const auto add = [&](const std::string& words) { out += (out.empty() ? "" : ", ") + words; };
        if (group_) add("grouped");
        if (ungroup_) add("each by itself again");
        if (!turn_.empty()) add("turned by " + turn_ + " degrees");
        if (mirror_) add("mirrored");
        const std::string with = with_.empty() ? "reach" : with_;
        if (!across_.empty()) add("lined up " + across_ + " with " + with);
        if (!down_.empty()) add("lined up " + down_ + " with " + with);
        if (!spread_.empty()) add("spread " + spread_);
        return out.empty() ? out
                           : counted(n, "placed part", "placed parts") + " on " + find(project, sheet)->name +
                                 ": " + out + ".";
    }

    template<class Move>
    Result<void> work(const Project& project, const Derived& derived, SheetId sheet, std::vector<Lying>& all,
                      const Move& move) const {
        if (!turn_.empty()) {
            const auto by = parse_angle(turn_);
            if (!by) return tl::make_unexpected(by.error());
            if (const auto ok = move(turned(all, *by)); !ok) return ok;
        }
        if (mirror_)
            if (const auto ok = move(mirrored(all)); !ok) return ok;
        const auto frame = frame_of(project, derived, sheet, all);
        if (!frame) return tl::make_unexpected(frame.error());
        const auto across = word(across_, {"", "left", "middle", "right"}, "--across"),
                   down = word(down_, {"", "top", "middle", "bottom"}, "--down"),
                   spread = word(spread_, {"across", "down"}, "--spread");
        if (!across) return tl::make_unexpected(across.error());
        if (!down) return tl::make_unexpected(down.error());
        if (*across > 0 || *down > 0)
            if (const auto ok =
                    move(aligned(all, *frame, static_cast<Across>(*across), static_cast<Down>(*down)));
                !ok)
                return ok;
        if (spread_.empty()) return {};
        if (!spread) return tl::make_unexpected(spread.error());
        const bool on_sheet = with_ == "reach" || with_ == "stock";
        const auto places =
            distributed(all, static_cast<Way>(*spread), on_sheet ? std::optional(*frame) : std::nullopt);
        return places ? move(*places) : tl::make_unexpected(places.error());
    }

    /// The place of a word among those that are known.
    static Result<int> word(const std::string& text, const std::vector<std::string>& known,
                            const char* option) {
        const auto it = std::find(known.begin(), known.end(), text);
        if (it != known.end()) return static_cast<int>(it - known.begin());
        std::string list;
        for (const std::string& k : known)
            if (!k.empty()) list += (list.empty() ? "" : ", ") + k;
        return fail("cli.word", say("%1 takes one of %2, not \"%3\".", as_is(option), list, text));
    }

    Result<std::vector<PlacementId>> chosen(const Sheet& sheet) const {
        std::vector<PlacementId> out;
        if (only_.empty()) {
            for (const Placement& p : sheet.placements)
                out.push_back(p.id);
            return out;
        }
        for (const auto text : split(only_, ", ")) {
            const auto id = placed_number(sheet, text);
            if (!id) return tl::make_unexpected(id.error());
            out.push_back(*id);
        }
        return with_groups(sheet, out);
    }

    static Result<PlacementId> placed_number(const Sheet& sheet, std::string_view text) {
        std::uint32_t number = 0;
        const auto [end, bad] = std::from_chars(text.data(), text.data() + text.size(), number);
        const bool there = bad == std::errc() && end == text.data() + text.size() &&
                           std::any_of(sheet.placements.begin(), sheet.placements.end(),
                                       [&](const Placement& p) { return p.id.value == number; });
        if (!there)
            return fail("cli.unknown", say("There is no placed part \"%1\" on %2. See `dot-lane-cli show`.",
                                           text, sheet.name));
        return PlacementId{number};
    }

    Result<Box> frame_of(const Project& project, const Derived& derived, SheetId id,
                         const std::vector<Lying>& all) const {
        const LaidSheet& laid = *derived.sheet(id);
        if (with_.empty() || with_ == "reach") return laid.usable;
        if (with_ == "stock") return laid.stock;
        if (with_ == "others") return box_of(all);
        const auto one = placed_number(*find(project, id), with_);
        if (!one) return tl::make_unexpected(one.error());
        return box_of(lying(project, derived, {*one}));
    }

    static int report(Context& c, const Project& project, SheetId sheet, const std::vector<PlacementId>& ids,
                      const std::string& done) {
        if (!c.json && !done.empty()) c.out << done << "\n";
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        nlohmann::json placed = nlohmann::json::array();
        for (const Lying& one : lying(project, *derived, ids)) {
            placed.push_back({{"id", one.placement.id.value},
                              {"left_mm", one.box.x0},
                              {"top_mm", one.box.y0},
                              {"group", one.placement.group}});
            if (!c.json)
                c.out << one.placement.id.value << " at " << to_text(mm(one.box.x0), project.unit) << ", "
                      << to_text(mm(one.box.y0), project.unit)
                      << (one.placement.group ? ", group " + std::to_string(one.placement.group) : "")
                      << "\n";
        }
        Findings mine;
        for (const Finding& f : derived->findings)
            if (f.place.sheet == sheet) mine.push_back(f);
        if (c.json)
            c.print({{"done", done}, {"placed", placed}, {"findings", to_json(mine)}});
        else
            print_findings(c.out, mine);
        return count(mine, Grade::error) > 0 ? findings : fine;
    }

    std::string sheet_, only_, across_, down_, with_, spread_, turn_;
    bool mirror_ = false, group_ = false, ungroup_ = false;
};

} // namespace

std::unique_ptr<Verb> make_arrange() {
    return std::make_unique<Arrange>();
}

} // namespace dotlane::cli
