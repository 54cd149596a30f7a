#include "cli/verb.h"
#include "core/base/text.h"
#include "core/commands/lines.h"
#include "core/commands/making.h"
#include "core/commands/ordering.h"
#include "core/commands/project.h"
#include "core/commands/selection.h"
#include "core/opening/opening.h"
#include "core/project/format.h"

namespace dotlane::cli {
namespace {

/// Chooses lines and sends them to a lane, or changes a lane.
class LaneVerb final : public ProjectVerb {
    void options(CLI::App& app) override {
        app.add_option("--part", part_, "Part by name or number");
        auto* which = app.add_option_group("which", "Which lines");
        which->add_flag("--all", all_, "All lines of the part, those that steps made too");
        which->add_option("--colour", colour_, "Lines drawn in this colour (#rrggbb), as stroke or as fill");
        which->add_option("--line-set", set_, "Lines of this line set, by name or number");
        which->add_option("--named", named_, "Lines whose name or group in the file contains this");
        which->add_option("--inside", inside_, "Lines wholly inside this line (number)");
        which->add_option("--box", box_, "Lines wholly inside a box: left top right bottom, in mm")
            ->expected(4);
        which->require_option(0, 1);
        app.add_option("--to", tos_,
                       "Send them to this lane: plate, number or name; 'none' takes their lane away, 'aside' "
                       "sets them aside. A name that ends in .dotlane: save there instead")
            ->take_all();
        app.add_option("--action", action_,
                       "Send them to a lane with this action (made when missing), or change the lane's");
        app.add_option("--tool", tool_, "Tool of the lane (catalog id)");
        app.add_option("--pen-colour", pen_, "Colour of the pen or foil (#rrggbb)");
        app.add_option("--add", add_, "Add a lane of this action, with --tool and --pen-colour if given");
        app.add_option("--remove", remove_,
                       "Remove this lane: plate, number or name; its lines have none then");
        app.add_option("--change", change_,
                       "Change this lane instead of sending lines: plate, number or name");
        app.add_option("--repeats", repeats_, "Run its lines this many times")->check(CLI::Range(1, 8));
        app.add_option("--fold", fold_, "Fold of a score lane")->check(CLI::IsMember({"valley", "mountain"}));
        app.add_option("--start", start_, "Where its closed lines begin")
            ->check(CLI::IsMember({"anywhere", "off-corners", "top", "right", "bottom", "left"}));
        app.add_option("--overcut", overcut_, "Run closed lines on so far past their beginning");
        app.add_option("--lead-in", lead_in_, "Run the beginning of each line forth and back first, so far");
        app.add_option("--dwell", dwell_, "Seconds that the tool rests where it has landed");
        app.add_option(
               "--pieces", pieces_,
               "Which of its pieces come first: as it is 'shortest', or 'small' ones before large ones, "
               "so that nothing is cut where the stock is loose")
            ->check(CLI::IsMember({"shortest", "small"}));
        app.add_option("--split", split_, "With --change: the lines of this part get a lane of their own");
        app.add_option("--merge", merge_, "With --change: all lines of this lane go to it");
        app.add_option("--rename", rename_, "New name of the lane");
        app.add_option("--machine", machine_, "Machine of the project (catalog id)");
        app.add_option("--pass-order", order_,
                       "Order in which lanes run, by plate: D,F,S,C; 'usual' for the planner's own");
    }

    int run(Context& c) override {
        for (const std::string& to : tos_)
            if (to.ends_with(project_extension))
                c.to = to;
            else if (to_.empty())
                to_ = to;
            else
                return c.error({"cli.both", say("Lines go to one lane: give --to once."), {}});
        return ProjectVerb::run(c);
    }

    int act(Context& c, Project& project) override {
        const Catalog& catalog = c.workshop.catalog();
        ChangeProject settings;
        if (!machine_.empty()) settings.machine = machine_;
        if (!order_.empty()) {
            const auto order = lanes_named(project, order_);
            if (!order) return c.error(order.error());
            settings.pass_order = *order;
        }
        std::string settled;
        if (settings.machine || settings.pass_order) {
            const auto done = apply(settings, project, catalog);
            if (!done) return c.error(done.error());
            settled = done->said.english();
        }
        if (!tool_.empty() && !catalog.tool(tool_))
            return c.error(not_in_catalog(say("tool"), tool_, ids_of(catalog.tools)));
        for (const std::string& action : {action_, add_})
            if (!action.empty() && !action_from_name(action))
                return c.error({"cli.action",
                                say("\"%1\" is not an action. Use draw, engrave, foil, emboss, score, "
                                    "perforate, cut or print.",
                                    action),
                                {}});
        std::optional<Colour> pen;
        if (!pen_.empty() && !(pen = colour_from_hex(pen_)))
            return c.error({"cli.colour", say("\"%1\" is not a colour. Write #rrggbb.", pen_), {}});
        if (!add_.empty()) return add(c, project, pen);
        if (!remove_.empty()) return remove(c, project);
        if (!change_.empty()) return change(c, project, pen);
        if (to_.empty() && action_.empty()) {
            if (machine_.empty() && order_.empty())
                return c.error({"cli.nothing",
                                say("Say what to do: --to, --action, --add, --change, --remove, --machine "
                                    "or --pass-order."),
                                {}});
            if (c.json)
                c.print({{"done", settled}});
            else
                c.out << settled << "\n";
            return fine;
        }
        const auto part = part_named(project, part_);
        if (!part) return c.error(part.error());
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        const EvaluatedPart& evaluated = *derived->part(*part);
        const auto fills = chosen_fills(project, evaluated);
        const auto lines = fills.empty() ? chosen(project, *find(project, *part), evaluated)
                                         : Result<std::vector<LineId>>(std::vector<LineId>{});
        if (!lines) return c.error(lines.error());
        if (lines->empty() && fills.empty())
            return c.error({"cli.no-lines", say("No line answers to that. See `dot-lane-cli show`."), {}});
        const LinesOfPart what{*part, *lines, fills};
        if (to_ == "aside")
            return said(c, project, what, apply(SetLinesAside{what}, project, catalog, evaluated));
        if (!action_.empty())
            return said(c, project, what,
                        apply(SendToAction{what, *action_from_name(action_), tool_, pen}, project, catalog,
                              evaluated));
        LaneId lane;
        if (to_ != "none") {
            const auto named = lane_named(project, to_);
            if (!named) return c.error(named.error());
            lane = *named;
        }
        return said(c, project, what, apply(SendLines{what, lane}, project, catalog, evaluated));
    }

    /// What steps made whose strokes are chosen as a whole: fills.
    std::vector<LineSetId> chosen_fills(const Project& project, const EvaluatedPart& e) const {
        if (set_.empty()) return {};
        auto sets = sets_named(project, e.part, {set_});
        if (!sets) return {}; // told by `chosen`
        std::erase_if(*sets, [&](LineSetId id) {
            return !maker_of(*find(project, e.part), id) ||
                   std::any_of(e.lines.begin(), e.lines.end(),
                               [id](const FlatLine& l) { return l.set == id; });
        });
        return *sets;
    }

    int said(Context& c, const Project& project, const LinesOfPart& what, const Result<Done>& done) const {
        if (!done) return c.error(done.error());
        const std::string to = to_ == "aside" ? "set aside" : lane_words(project, done->lane).english();
        if (c.json)
            c.print({{"lines", what.lines.size()},
                     {"fills", what.sets.size()},
                     {"part", what.part.value},
                     {"name", find(project, what.part)->name},
                     {"to", to},
                     {"done", done->said}});
        else
            c.out << done->said << "\n";
        return fine;
    }

    int add(Context& c, Project& project, std::optional<Colour> pen) const {
        AddLane command{*action_from_name(add_), tool_};
        if (pen) command.colour = *pen;
        return told(c, apply(command, project, c.workshop.catalog()));
    }

    int remove(Context& c, Project& project) const {
        const auto id = lane_named(project, remove_);
        if (!id) return c.error(id.error());
        return told(c, apply(RemoveLane{*id}, project));
    }

    static int told(Context& c, const Result<Done>& done) {
        if (!done) return c.error(done.error());
        if (c.json)
            c.print({{"done", done->said}, {"lane", done->lane.value}, {"lost", done->lost}});
        else {
            c.out << done->said << "\n";
            for (const Phrase& lost : done->lost)
                c.out << "  " << lost << "\n";
        }
        return fine;
    }

    int change(Context& c, Project& project, std::optional<Colour> pen) {
        const auto id = lane_named(project, change_);
        if (!id) return c.error(id.error());
        if (!split_.empty()) {
            const auto part = part_named(project, split_);
            if (!part) return c.error(part.error());
            return told(c, apply(SplitLane{*id, *part}, project));
        }
        if (!merge_.empty()) {
            const auto from = lane_named(project, merge_);
            if (!from) return c.error(from.error());
            return told(c, apply(MergeLanes{*from, *id}, project));
        }
        ChangeLane change{*id};
        if (!action_.empty()) change.action = action_from_name(action_);
        if (!tool_.empty()) change.tool = tool_;
        if (!rename_.empty()) change.name = rename_;
        if (!fold_.empty()) change.fold = fold_ == "mountain" ? Fold::mountain : Fold::valley;
        if (repeats_ > 0) change.repeats = repeats_;
        change.colour = pen;
        for (const LineStart start : all_line_starts)
            if (start_ == key_of(start)) change.start = start;
        for (const auto& [text, length] :
             {std::pair{&overcut_, &change.overcut}, std::pair{&lead_in_, &change.lead_in}}) {
            if (text->empty()) continue;
            const auto given = length_option(project, *text);
            if (!given) return c.error(given.error());
            *length = *given;
        }
        if (dwell_) change.dwell = seconds(*dwell_);
        if (!pieces_.empty()) change.small_first = pieces_ == "small";
        const auto done = apply(change, project, c.workshop.catalog());
        if (!done) return c.error(done.error());
        const Lane& lane = *find(project, *id);
        const std::string now = lane_words(project, *id).english();
        if (c.json)
            c.print({{"to", now},
                     {"lane", id->value},
                     {"plate", plate(project, *id)},
                     {"name", lane.name},
                     {"tool", lane.tool},
                     {"action", action_name(lane.action)},
                     {"repeats", lane.repeats},
                     {"colour", to_hex(lane.colour)}});
        else
            c.out << done->said << "\n";
        return fine;
    }

    Result<std::vector<LineId>> chosen(const Project& project, const Part& part,
                                       const EvaluatedPart& e) const {
        std::vector<LineId> out;
        if (all_) { // those that steps made too
            for (const FlatLine& line : e.lines)
                out.push_back(line.id);
            return out;
        }
        if (!colour_.empty() || !named_.empty()) {
            const auto wanted = colour_from_hex(lower_case(colour_));
            if (!colour_.empty() && !wanted)
                return fail("cli.colour", say("\"%1\" is not a colour. Write #rrggbb.", colour_));
            for (const DrawnLine& line : e.drawing->lines)
                if ((wanted && (line.drawn.stroke == wanted || line.drawn.fill == wanted)) ||
                    (!named_.empty() && (line.name.find(named_) != std::string::npos ||
                                         line.group.find(named_) != std::string::npos)))
                    out.push_back(line.id);
            return out;
        }
        if (!set_.empty()) {
            const auto sets = sets_named(project, part.id, {set_});
            if (!sets) return tl::make_unexpected(sets.error());
            for (const FlatLine& line : e.lines)
                if (std::find(sets->begin(), sets->end(), line.set) != sets->end()) out.push_back(line.id);
            return out;
        }
        if (inside_ > 0 || !box_.empty()) {
            return inside_ > 0 ? lines_inside(e, LineId{inside_})
                               : lines_in_box(e, {box_[0], box_[1], box_[2], box_[3]});
        }
        return fail("cli.which",
                    say("Which lines? Use --all, --colour, --line-set, --named, --inside or --box."));
    }

    std::string part_, colour_, set_, named_, to_, action_, tool_, pen_, change_, rename_, machine_, order_,
        fold_, add_, remove_, start_, overcut_, lead_in_, pieces_, split_, merge_;
    std::optional<double> dwell_;
    std::vector<std::string> tos_;
    std::uint32_t inside_ = 0;
    std::vector<double> box_;
    int repeats_ = 0;
    bool all_ = false;
};

} // namespace

std::unique_ptr<Verb> make_lane() {
    return std::make_unique<LaneVerb>();
}

} // namespace dotlane::cli
