// Steps of a recipe: added, changed, moved, switched, removed.
#include "cli/fields.h"
#include "cli/verb.h"
#include "core/base/text.h"
#include "core/workflow/making.h"

namespace dotlane::cli {
namespace {

std::string steps_help() {
    std::string out = "Steps:";
    for (const StepKind& kind : step_kinds())
        out += std::string("\n  ") + kind.key + ": " + kind.about;
    return out;
}

class StepVerb final : public ProjectVerb {
    void options(CLI::App& app) override {
        app.footer(steps_help());
        app.add_option("--part", part_, "Part by name or number");
        app.add_option("--add", kind_, "Add a step of this kind");
        app.add_option("--step", step_, "Change this step (number)");
        app.add_option("--of", of_, "Line sets it works on, by name, number or plate; all when left out");
        app.add_option("--by", by_, "The second choice, such as what is cut out");
        app.add_option("--set", pairs_, "A number or choice, such as distance=3mm; several may be given");
        app.add_option("--lane", lane_, "Lane of the lines it makes");
        app.add_option("--sources", sources_,
                       "What becomes of the line sets it works on: run, aside, or a lane to send them to");
        app.add_option("--move-to", move_to_, "Its place in the recipe, 1 the first")
            ->check(CLI::Range(1, 1000));
        app.add_flag("--off,!--on", off_, "Switch it off or on");
        app.add_flag("--aside,!--run", aside_, "The lines it makes are only for later steps, or are run");
        app.add_flag("--remove", remove_, "Remove it");
        off_option_ = app.get_option("--off");
        aside_option_ = app.get_option("--aside");
    }

    int act(Context& c, Project& project) override {
        const auto part = part_named(project, part_);
        if (!part) return c.error(part.error());
        StepId id{step_};
        if (!kind_.empty()) {
            const auto added = add(c, project, *part);
            if (!added) return c.error(added.error());
            id = *added;
        }
        if (!find(*find(project, *part), id)) {
            if (step_ > 0)
                return c.error({"cli.unknown", "There is no step " + std::to_string(step_) + ".", {}});
            if (asks_for_change())
                return c.error(
                    {"cli.which",
                     "Which step? Say --step and its number; `dot-lane-cli step PROJECT` lists them.",
                     {}});
            return list(c, project, *part);
        }
        if (remove_) {
            if (const auto ok = remove_maker(project, *part, id); !ok) return c.error(ok.error());
            return list(c, project, *part);
        }
        if (const auto ok = change(project, *part, id); !ok) return c.error(ok.error());
        if (!sources_.empty())
            if (const auto ok = change_sources(project, *part, id); !ok) return c.error(ok.error());
        if (move_to_ > 0)
            if (const auto ok = move_step(project, *part, id, move_to_ - 1); !ok) return c.error(ok.error());
        return list(c, project, *part);
    }

    bool asks_for_change() const {
        return remove_ || off_option_->count() > 0 || aside_option_->count() > 0 || move_to_ > 0 ||
               !lane_.empty() || !sources_.empty() || !of_.empty() || !by_.empty() || !pairs_.empty();
    }

    Result<StepId> add(Context& c, Project& project, PartId part) const {
        const StepKind* kind = step_kind(kind_);
        if (!kind) return fail("cli.unknown", "There is no step \"" + kind_ + "\". " + steps_help());
        const auto of = sets_named(project, part, of_), by = sets_named(project, part, by_);
        if (!of) return tl::make_unexpected(of.error());
        if (!by) return tl::make_unexpected(by.error());
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        return append_step(project, c.workshop.catalog(), *derived->part(part), kind->fresh, *of, *by);
    }

    Result<void> change_sources(Project& project, PartId part, StepId id) const {
        const std::vector<LineSetId> of = find(*find(project, part), id)->of;
        for (const LineSetId set : of) {
            if (sources_ == "run" || sources_ == "aside") {
                if (const auto ok = set_aside(project, part, set, sources_ == "aside"); !ok) return ok;
                continue;
            }
            const auto lane = lane_named(project, sources_);
            if (!lane) return tl::make_unexpected(lane.error());
            if (const auto ok = set_lane(project, part, set, *lane); !ok) return ok;
        }
        return {};
    }

    Result<void> change(Project& project, PartId part, StepId id) const {
        Step step = *find(*find(project, part), id);
        if (const auto ok = set_fields(step.what, pairs_, project); !ok) return ok;
        if (!lane_.empty()) {
            const auto lane = lane_named(project, lane_);
            if (!lane) return tl::make_unexpected(lane.error());
            step.lane = *lane;
        }
        if (kind_.empty() && !of_.empty()) {
            const auto of = sets_named(project, part, of_);
            if (!of) return tl::make_unexpected(of.error());
            step.of = *of;
        }
        if (kind_.empty() && !by_.empty()) {
            const auto by = sets_named(project, part, by_);
            if (!by) return tl::make_unexpected(by.error());
            step.by = *by;
        }
        if (off_option_->count() > 0) step.on = !off_;
        if (aside_option_->count() > 0) step.aside = aside_;
        return change_step(project, part, step);
    }

    static int list(Context& c, const Project& project, PartId id) {
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        const EvaluatedPart& e = *derived->part(id);
        nlohmann::json all = nlohmann::json::array();
        int n = 0;
        for (Step step : find(project, id)->steps) {
            const auto report = e.reports.find(step.id);
            const bool known = report != e.reports.end();
            const StepKind& kind = kind_of(step.what);
            if (c.json) {
                all.push_back(
                    {{"step", step.id.value},
                     {"kind", kind.key},
                     {"on", step.on},
                     {"lane", step.lane.value},
                     {"result", step.result.value},
                     {"numbers", fields_json([&](Fields& f) { fields(step.what, f); })},
                     {"figures", known ? figures_json(report->second->figures) : nlohmann::json::object()},
                     {"refused", known ? report->second->refused : ""}});
                continue;
            }
            c.out << ++n << ". " << kind.name << " (" << step.id.value << ")" << (step.on ? "" : ", off");
            if (step.result) c.out << ", makes line set " << step.result.value;
            c.out << "\n";
            if (known && !report->second->refused.empty())
                c.out << "    " << report->second->refused << "\n";
            else if (known)
                print_figures(c.out, report->second->figures);
        }
        if (!c.json && n == 0) c.out << "\"" << find(project, id)->name << "\" has no steps.\n";
        if (c.json) c.print({{"steps", all}, {"findings", to_json(e.findings)}});
        if (!c.json) print_findings(c.out, e.findings);
        return blocks_export(e.findings) ? findings : fine;
    }

    std::string part_, kind_, lane_, sources_;
    std::vector<std::string> of_, by_, pairs_;
    std::uint32_t step_ = 0;
    int move_to_ = 0;
    bool off_ = false, aside_ = false, remove_ = false;
    CLI::Option *off_option_ = nullptr, *aside_option_ = nullptr;
};

} // namespace

std::unique_ptr<Verb> make_step() {
    return std::make_unique<StepVerb>();
}

} // namespace dotlane::cli
