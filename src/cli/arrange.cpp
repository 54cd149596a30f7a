#include <charconv>

#include "cli/verb.h"
#include "core/base/text.h"
#include "core/commands/arranging.h"

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
        app.add_option("--right", right_, "Moved to the right by");
        app.add_option("--below", below_, "Moved down by");
        app.add_flag("--copy", copy_, "Once more, in the same arrangement, where there is room");
        app.add_flag("--off", off_, "Off the sheet");
    }

    int act(Context& c, Project& project) override {
        const auto sheet = sheet_named(project, sheet_);
        if (!sheet) return c.error(sheet.error());
        const auto ids = chosen(*find(project, *sheet));
        if (!ids) return c.error(ids.error());
        const auto answers = work(c, project, *sheet, {*ids});
        return answers ? report(c, project, *sheet, *answers) : c.error(answers.error());
    }

    /// Grouped, moved, turned, mirrored, lined up, spread, copied, taken off: in this order, all or none of
    /// it.
    Result<std::vector<Done>> work(Context& c, Project& project, SheetId sheet, const Placed& all) const {
        std::vector<Done> out;
        const auto frame = frame_of(*find(project, sheet));
        if (!frame) return tl::make_unexpected(frame.error());
        std::shared_ptr<const Derived> derived;
        const auto give = [&](const auto& command) -> Result<void> {
            const auto& catalog = c.workshop.catalog();
            auto done = [&] {
                if constexpr (requires { apply(command, project, catalog, *derived); }) {
                    if (!derived) derived = c.workshop.derive(std::make_shared<Project>(project));
                    return apply(command, project, catalog, *derived);
                } else
                    return apply(command, project);
            }();
            if (!done) return tl::make_unexpected(done.error());
            out.push_back(std::move(*done));
            return {};
        };
        Result<void> ok;
        const auto when = [&](bool wanted, const auto& command) {
            if (ok && wanted) ok = give(command);
        };
        when(group_, GroupPlaced{all});
        when(ungroup_, UngroupPlaced{all});
        const auto right = by_length(project, right_), below = by_length(project, below_);
        if (!right) return tl::make_unexpected(right.error());
        if (!below) return tl::make_unexpected(below.error());
        when(!right_.empty() || !below_.empty(), ShiftPlaced{all, *right, *below});
        const auto by = turn_.empty() ? Result<Angle>(Angle{}) : parse_angle(turn_);
        if (!by) return tl::make_unexpected(by.error());
        when(!turn_.empty(), TurnPlaced{all, *by});
        when(mirror_, MirrorPlaced{all});
        const auto across = word(across_, {"", "left", "middle", "right"}, "--across"),
                   down = word(down_, {"", "top", "middle", "bottom"}, "--down"),
                   spread = word(spread_, {"", "across", "down"}, "--spread");
        for (const auto* one : {&across, &down, &spread})
            if (!*one) return tl::make_unexpected(one->error());
        when(*across > 0 || *down > 0,
             LineUp{all, frame->with, frame->lead, static_cast<Across>(*across), static_cast<Down>(*down)});
        const bool on_sheet = with_ == "reach" || with_ == "stock";
        when(*spread > 0,
             Spread{all, *spread == 1 ? Way::across : Way::down, on_sheet ? frame->with : Frame::others});
        when(copy_, CopyPlaced{all});
        when(off_, TakeOff{all});
        if (!ok) return tl::make_unexpected(ok.error());
        return out;
    }

    static Result<Length> by_length(const Project& project, const std::string& text) {
        return text.empty() ? Result<Length>(Length{}) : length_option(project, text);
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

    struct With {
        Frame with = Frame::reach;
        PlacementId lead = {};
    };
    Result<With> frame_of(const Sheet& sheet) const {
        if (with_.empty() || with_ == "reach") return With{};
        if (with_ == "stock") return With{Frame::stock};
        if (with_ == "others") return With{Frame::others};
        return placed_number(sheet, with_).map([](PlacementId one) { return With{Frame::lead, one}; });
    }

    /// What was done, and where all that was asked for lies now: copies, when there are some.
    int report(Context& c, const Project& project, SheetId sheet, const std::vector<Done>& answers) const {
        std::string said;
        for (const Done& done : answers)
            said += (said.empty() ? "" : " ") + done.said.english();
        if (!c.json && !said.empty()) c.out << said << "\n";
        std::vector<PlacementId> ids;
        if (!answers.empty())
            ids = answers.back().placements;
        else if (const auto all = chosen(*find(project, sheet)))
            ids = *all;
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
            c.print({{"done", said}, {"placed", placed}, {"findings", to_json(mine)}});
        else
            print_findings(c.out, mine);
        return count(mine, Grade::error) > 0 ? findings : fine;
    }

    std::string sheet_, only_, across_, down_, with_, spread_, turn_, right_, below_;
    bool mirror_ = false, group_ = false, ungroup_ = false, copy_ = false, off_ = false;
};

} // namespace

std::unique_ptr<Verb> make_arrange() {
    return std::make_unique<Arrange>();
}

} // namespace dotlane::cli
