#include "cli/inked.h"
#include "core/base/text.h"
#include "core/commands/inking.h"
#include "core/commands/steps.h"
#include "core/recipe/heat.h"

namespace dotlane::cli {

using nlohmann::json;

namespace {

std::string styles() {
    std::string out;
    for (const FillKind& kind : fill_kinds())
        out += (out.empty() ? "" : ", ") + std::string(kind.key);
    return out;
}

class Fill final : public ProjectVerb {
    void options(CLI::App& app) override {
        app.add_option("--part", part_, "Part by name or number");
        app.add_option("--step", step_,
                       "Change this fill (number) instead of adding one; the only one when it is looked at");
        app.add_option("--line-set", sets_,
                       "Line sets to fill, by name or number; several may be given; all with closed lines "
                       "when left out");
        app.add_option("--lane", lane_,
                       "Lane that receives the fill; when left out the line set's own if it marks, "
                       "else the first that does");
        app.add_option("--style", style_, "How its lines run: " + styles() + "; parallel when left out");
        app.add_option(
            "--spacing", spacing_,
            "Between neighbouring lines, such as 0.4mm; or auto: 0.85 of the tip, or by the style");
        app.add_option("--angle", angle_, "Of the lines, in degrees; 35, or 0 for a pattern, when left out");
        app.add_option("--inset", inset_, "From the edge, or 'auto' for half the tip");
        app.add_option(
            "--ends", ends_,
            "apart: a lift after each line; joined: ends joined along the edge; one-stroke: one stroke a "
            "piece; joined when left out");
        app.add_flag("--joined,!--separate", joined_, "The same as --ends joined and --ends apart");
        app.add_option("--set", pairs_, "Any other number of the fill, such as phase=piece");
        app.add_flag("--alternate,!--one-way", alternate_,
                     "Every other line backwards (the default), or all the same way");
        app.add_option(
            "--tone", tone_,
            "A PNG or JPEG picture: the fill is as dark as it is (parallel, contour, stipple, scribble)");
        app.add_option("--best", best_,
                       "Turn it to the angle with the fewest lifts, the best coverage, or the least time")
            ->check(CLI::IsMember({"fewest-lifts", "no-corner", "fastest"}));
        app.add_option(
            "--press", press_,
            "A place on the part, such as 20mm,35mm: the piece there is filled alone, or beside those "
            "pressed before; again: no longer");
        app.add_flag("--alternatives", alternatives_,
                     "Tell what it would come to in other ways; nothing is changed");
        app.add_flag("--heat", heat_, "Tell how much is inked once, twice, not at all, and over the edge");
        app.add_flag("--keep-outline", keep_outline_, "Run the outline as well; otherwise it is set aside");
        app.add_flag("--off,!--on", off_, "Switch the fill off or on");
        app.add_flag("--remove", remove_, "Remove the fill");
        off_option_ = app.get_option("--off");
        joined_option_ = app.get_option("--joined");
        alternate_option_ = app.get_option("--alternate");
    }

    int act(Context& c, Project& project) override {
        const auto part_id = part_named(project, part_);
        if (!part_id) return c.error(part_id.error());
        const Part& part = *find(project, *part_id);
        Step step{{}, true, {}, step_kind("fill")->fresh};
        // What is only looked at is the one fill that there is; what is changed is named.
        const bool changed = remove_ || off_option_->count() > 0;
        if (step_ == 0 && (changed || alternatives_ || heat_)) {
            const auto fills = [](const Step& s) { return kind_of(s.what).inks; };
            if (changed || std::count_if(part.steps.begin(), part.steps.end(), fills) != 1)
                return c.error({"cli.which",
                                say("Which fill? Say --step and its number; `dot-lane-cli show` lists them."),
                                {}});
            step_ = std::find_if(part.steps.begin(), part.steps.end(), fills)->id.value;
        }
        if (step_ > 0) {
            bool found = false;
            for (const Step& s : part.steps)
                if (s.id.value == step_ && kind_of(s.what).inks) step = s, found = true;
            if (!found)
                return c.error({"cli.unknown", say("There is no fill %1 in \"%2\".", step_, part.name), {}});
            if (remove_) {
                const auto removed = apply(RemoveStep{*part_id, step.id}, project);
                if (!removed) return c.error(removed.error());
                if (c.json) c.print({{"done", removed->said}, {"step", step.id.value}, {"on", false}});
                if (!c.json) c.out << removed->said << "\n";
                return fine;
            }
        }
        const auto sets = sets_named(project, *part_id, sets_);
        if (!sets) return c.error(sets.error());
        if (step_ == 0) {
            const auto derived = c.workshop.derive(std::make_shared<Project>(project));
            const auto added = apply(AddStep{*part_id, step.what, *sets}, project, c.workshop.catalog(),
                                     *derived->part(*part_id));
            if (!added) return c.error(added.error());
            step = *find(*find(project, *part_id), added->step);
            if (keep_outline_)
                if (const auto ok = apply(TreatSources{*part_id, step.id, {}, false}, project); !ok)
                    return c.error(ok.error());
        } else if (!sets->empty()) {
            step.of = *sets;
        }
        if (const auto ok = read_numbers(project, step); !ok) return c.error(ok.error());
        const ChangeStep change{*part_id, step.id, step.what, step.on, {}, step.lane, step.of};
        if (const auto ok = apply(change, project, c.workshop.catalog()); !ok) return c.error(ok.error());
        if (!tone_.empty()) {
            const auto bytes = c.files.read(tone_, default_max_bytes);
            if (!bytes) return c.error(bytes.error());
            if (const auto ok = apply(ToneFill{*part_id, step.id, *bytes}, project, c.workshop.catalog());
                !ok)
                return c.error(ok.error());
        }
        if (!press_.empty())
            if (const int code = press(c, project, *part_id, step.id); code != fine) return code;
        if (!best_.empty())
            if (const int code = turn(c, project, *part_id, step.id); code != fine) return code;
        return report(c, project, *part_id, step.id);
    }

    int press(Context& c, Project& project, PartId part, StepId step) const {
        const auto at = place_option(project, press_);
        if (!at) return c.error(at.error());
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        const auto done =
            apply(PressFill{part, step, *at}, project, c.workshop.catalog(), *derived->part(part));
        if (!done) return c.error(done.error());
        if (!c.json) c.out << done->said << "\n";
        return fine;
    }

    /// Says what was found.
    int turn(Context& c, Project& project, PartId part, StepId step) const {
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        const AngleGoal goal = best_ == "fastest"     ? AngleGoal::fastest
                               : best_ == "no-corner" ? AngleGoal::no_corner
                                                      : AngleGoal::fewest_lifts;
        const auto done =
            apply(TurnFill{part, step, goal}, project, c.workshop.catalog(), *derived->part(part));
        if (!done) return c.error(done.error());
        if (!c.json) c.out << done->said << "\n";
        return fine;
    }

    Result<void> read_numbers(const Project& project, Step& step) const {
        if (!lane_.empty()) {
            const auto lane = lane_named(project, lane_);
            if (!lane) return tl::make_unexpected(lane.error());
            step.lane = *lane;
        }
        if (off_option_->count() > 0) step.on = !off_;
        std::vector<std::string> pairs;
        const auto set = [&](const char* key, const std::string& value) {
            if (!value.empty()) pairs.push_back(key + value);
        };
        set("style=", style_);
        set("spacing=", spacing_);
        set("angle=", angle_);
        set("inset=", inset_);
        if (joined_option_->count() > 0) set("ends=", joined_ ? "joined" : "apart");
        set("ends=", ends_);
        if (alternate_option_->count() > 0) set("alternate=", alternate_ ? "yes" : "no");
        pairs.insert(pairs.end(), pairs_.begin(), pairs_.end());
        return set_fields(step.what, pairs, project);
    }

    int report(Context& c, const Project& project, PartId part_id, StepId step_id) const {
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        const EvaluatedPart& evaluated = *derived->part(part_id);
        const Part& part = *find(project, part_id);
        const auto fill = inked(c, project, evaluated, part, *find(part, step_id));
        if (!fill) {
            if (c.json)
                c.print({{"step", step_id.value}, {"on", false}});
            else
                c.out << "fill " << step_id.value << " is off\n";
            return fine;
        }
        if (!fill->report.refused.empty()) return c.error({"fill.empty", fill->report.refused, {}});
        json out = fill_json(*fill);
        if (!c.json) print_fill(c.out, *fill);
        if (heat_) out["heat"] = tell_heat(c, *fill);
        if (alternatives_) out["alternatives"] = tell_alternatives(c, *fill);
        if (c.json) c.print(out);
        return fine;
    }

    static json tell_heat(Context& c, const Inked& fill) {
        Heat heat;
        if (const RunSet* run = ink_run(fill.evaluated, fill.step.id); run && fill.report.surface)
            heat = heat_of(*fill.report.surface, run->lines, fill.report.tip);
        json out;
        constexpr std::pair<Heat::Ink, const char*> kinds[] = {
            {Heat::once, "once"}, {Heat::twice, "twice"}, {Heat::bare, "bare"}, {Heat::over, "over"}};
        for (const auto& [ink, key] : kinds) {
            const double size = in_square_mm(heat.of(ink));
            out[std::string(key) + "_mm2"] = size;
            if (!c.json) c.out << "  " << key << ": " << number(size, 2) << " mm2\n";
        }
        return out;
    }

    static json tell_alternatives(Context& c, const Inked& fill) {
        json out = json::array();
        for (const FillOption& o : options_for(fill.project, fill.catalog, fill.evaluated, fill.step.id)) {
            const InkReport& r = *o.ink;
            const Landing landing = landing_of(fill.project, fill.catalog, r);
            const std::string name = said_of(o).english();
            out.push_back({{"name", name},
                           {"style", r.style},
                           {"coverage", r.coverage.covered_percent / 100},
                           {"overspill", r.coverage.overspill_percent / 100},
                           {"widest_gap_mm", in_mm(r.widest_gap)},
                           {"lifts", r.lifts},
                           {"strokes", r.runs},
                           {"length_mm", in_mm(r.length)},
                           {"time_s", in_seconds(o.time)},
                           {"visible_gaps", landing.gaps}});
            if (!c.json)
                c.out << "  " << name << ": inked " << number(r.coverage.covered_percent, 1) << " %, "
                      << counted(r.lifts, "lift", "lifts") << ", " << number(in_mm(r.length) / 1000, 2)
                      << " m, " << spoken_seconds(in_seconds(o.time)) << ", about " << number(landing.gaps, 0)
                      << " gaps to be seen\n";
        }
        return out;
    }

    std::string part_, lane_, tone_, best_, press_, style_, spacing_, angle_, inset_, ends_;
    std::vector<std::string> sets_, pairs_;
    std::uint32_t step_ = 0;
    bool joined_ = true, alternate_ = true, keep_outline_ = false, off_ = false, remove_ = false,
         alternatives_ = false, heat_ = false;
    CLI::Option *off_option_ = nullptr, *joined_option_ = nullptr, *alternate_option_ = nullptr;
};

} // namespace

std::unique_ptr<Verb> make_fill() {
    return std::make_unique<Fill>();
}

} // namespace dotlane::cli
