#include "cli/verb.h"
#include "core/base/text.h"
#include "core/commands/steps.h"

namespace dotlane::cli {
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
        app.add_option("--step", step_, "Change this fill (number) instead of adding one");
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
        if (step_ == 0 && (remove_ || off_option_->count() > 0))
            return c.error({"cli.which",
                            say("Which fill? Say --step and its number; `dot-lane-cli show` lists them."),
                            {}});
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
        if (const auto ok = apply(change, project); !ok) return c.error(ok.error());
        return report(c, project, *part_id, step.id);
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

    static int report(Context& c, const Project& project, PartId part, StepId step) {
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        const InkReport* ink = ink_of(*derived->part(part), step);
        if (!ink) {
            if (c.json)
                c.print({{"step", step.value}, {"on", false}});
            else
                c.out << "fill " << step.value << " is off\n";
            return fine;
        }
        const InkReport& r = *ink;
        if (!r.refused.empty()) return c.error({"fill.empty", r.refused, {}});
        if (c.json)
            c.print(fill_json(*find(*find(project, part), step), *find(project, part), r));
        else
            print_fill(c.out, *find(*find(project, part), step), r);
        return fine;
    }

    std::string part_, lane_, style_, spacing_, angle_, inset_, ends_;
    std::vector<std::string> sets_, pairs_;
    std::uint32_t step_ = 0;
    bool joined_ = true, alternate_ = true, keep_outline_ = false, off_ = false, remove_ = false;
    CLI::Option *off_option_ = nullptr, *joined_option_ = nullptr, *alternate_option_ = nullptr;
};

} // namespace

std::unique_ptr<Verb> make_fill() {
    return std::make_unique<Fill>();
}

} // namespace dotlane::cli
