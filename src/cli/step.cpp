// Steps of a recipe: added, changed, moved, switched, removed.
#include "cli/fields.h"
#include "cli/verb.h"
#include "core/base/text.h"
#include "core/commands/steps.h"

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
        app.add_option("--press", press_, "As a press on the bench at this place, such as 20mm,35mm");
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
        std::vector<Done> done;
        const auto did = [&](const Result<Done>& answer) {
            if (answer) done.push_back(*answer);
            return answer.map([](const Done&) {});
        };
        StepId id{step_};
        if (!kind_.empty()) {
            const auto added = add(c, project, *part);
            if (!added) return c.error(added.error());
            id = added->step;
        }
        if (!find(*find(project, *part), id)) {
            if (step_ > 0) return c.error({"cli.unknown", say("There is no step %1.", step_), {}});
            if (asks_for_change())
                return c.error(
                    {"cli.which",
                     say("Which step? Say --step and its number; `dot-lane-cli step PROJECT` lists them."),
                     {}});
            return list(c, project, *part, done);
        }
        if (remove_) {
            if (const auto ok = did(apply(RemoveStep{*part, id}, project)); !ok) return c.error(ok.error());
            return list(c, project, *part, done);
        }
        const auto change = changed(project, *part, id);
        if (!change) return c.error(change.error());
        if (*change) {
            const auto answer = apply(**change, project, c.workshop.catalog());
            if (!answer) return c.error(answer.error());
            if (kind_.empty()) done.push_back(*answer);
        }
        if (!press_.empty()) {
            const auto place = place_option(project, press_);
            if (!place) return c.error(place.error());
            const auto derived = c.workshop.derive(std::make_shared<Project>(project));
            const PressStep press{*part, id, *place};
            if (const auto ok = did(apply(press, project, c.workshop.catalog(), *derived->part(*part))); !ok)
                return c.error(ok.error());
        }
        // A step that was added with numbers of its own is told once, as it came to be.
        if (!kind_.empty()) done.push_back(added_step(project, *part, id));
        if (!sources_.empty()) {
            TreatSources treat{*part, id};
            if (sources_ == "run" || sources_ == "aside") {
                treat.aside = sources_ == "aside";
            } else {
                const auto lane = lane_named(project, sources_);
                if (!lane) return c.error(lane.error());
                treat.lane = *lane;
            }
            if (const auto ok = did(apply(treat, project)); !ok) return c.error(ok.error());
        }
        if (move_to_ > 0)
            if (const auto ok = did(apply(MoveStep{*part, id, move_to_ - 1}, project)); !ok)
                return c.error(ok.error());
        return list(c, project, *part, done);
    }

    bool asks_for_change() const {
        return remove_ || !press_.empty() || off_option_->count() > 0 || aside_option_->count() > 0 ||
               move_to_ > 0 || !lane_.empty() || !sources_.empty() || !of_.empty() || !by_.empty() ||
               !pairs_.empty();
    }

    Result<Done> add(Context& c, Project& project, PartId part) const {
        const StepKind* kind = step_kind(kind_);
        if (!kind) return fail("cli.unknown", say("There is no step \"%1\". %2", kind_, steps_help()));
        const auto of = sets_named(project, part, of_), by = sets_named(project, part, by_);
        if (!of) return tl::make_unexpected(of.error());
        if (!by) return tl::make_unexpected(by.error());
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        return apply(AddStep{part, kind->fresh, *of, *by}, project, c.workshop.catalog(),
                     *derived->part(part));
    }

    /// What the options change; nothing when they change nothing.
    Result<std::optional<ChangeStep>> changed(const Project& project, PartId part, StepId id) const {
        ChangeStep out{part, id};
        bool any = false;
        if (!pairs_.empty()) {
            StepWhat what = find(*find(project, part), id)->what;
            if (const auto ok = set_fields(what, pairs_, project); !ok)
                return tl::make_unexpected(ok.error());
            out.what = what, any = true;
        }
        if (!lane_.empty()) {
            const auto lane = lane_named(project, lane_);
            if (!lane) return tl::make_unexpected(lane.error());
            out.lane = *lane, any = true;
        }
        const auto sets = [&](const std::vector<std::string>& named,
                              std::optional<std::vector<LineSetId>>& into) -> Result<void> {
            if (!kind_.empty() || named.empty()) return {};
            const auto found = sets_named(project, part, named);
            if (!found) return tl::make_unexpected(found.error());
            into = *found, any = true;
            return {};
        };
        if (const auto ok = sets(of_, out.of); !ok) return tl::make_unexpected(ok.error());
        if (const auto ok = sets(by_, out.by); !ok) return tl::make_unexpected(ok.error());
        if (off_option_->count() > 0) out.on = !off_, any = true;
        if (aside_option_->count() > 0) out.aside = aside_, any = true;
        if (!any) return std::optional<ChangeStep>();
        return std::optional(out);
    }

    static int list(Context& c, const Project& project, PartId id, const std::vector<Done>& done) {
        nlohmann::json said = nlohmann::json::array();
        for (const Done& one : done) {
            said.push_back(one.said);
            if (!c.json) c.out << one.said << "\n";
            for (const Phrase& lost : one.lost) {
                said.push_back(lost);
                if (!c.json) c.out << "  " << lost << "\n";
            }
        }
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
                     {"refused", known ? report->second->refused.english() : ""}});
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
        if (c.json) c.print({{"done", said}, {"steps", all}, {"findings", to_json(e.findings)}});
        if (!c.json) print_findings(c.out, e.findings);
        return blocks_export(e.findings) ? findings : fine;
    }

    std::string part_, kind_, lane_, sources_;
    std::string press_;
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
