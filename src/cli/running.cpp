#include <cmath>

#include "cli/only.h"
#include "cli/verb.h"
#include "core/base/text.h"
#include "core/commands/remedies.h"
#include "core/exports/accounts.h"
#include "core/exports/exporting.h"
#include "core/run/rehearsal.h"
#include "present/pdf.h"

namespace dotlane::cli {
namespace {

using nlohmann::json;

class Check final : public ProjectVerb {
    bool changes() const override { return true; } // with --mend; otherwise nothing differs
    void options(CLI::App& app) override {
        app.add_option("--mend", mend_,
                       "Apply the remedy of this code (see --json) to the first finding that has it");
        app.add_option("--part", part_, "Only findings of this part, by name or number");
    }
    int act(Context& c, Project& project) override {
        auto derived = c.workshop.derive(std::make_shared<Project>(project));
        PartId only;
        if (!part_.empty()) {
            const auto named = part_named(project, part_);
            if (!named) return c.error(named.error());
            only = *named;
        }
        if (!mend_.empty()) {
            if (const auto ok = mend(c, project, *derived, only); !ok) return c.error(ok.error());
            derived = c.workshop.derive(std::make_shared<Project>(project));
        }
        Findings list;
        for (const Finding& f : derived->findings)
            if (!only || f.place.part == only) list.push_back(f);
        const int errors = count(list, Grade::error);
        if (c.json)
            c.print({{"errors", errors}, {"findings", to_json(list)}});
        else if (list.empty())
            c.out << "nothing found\n";
        else
            print_findings(c.out, list, &project);
        return errors > 0 ? findings : fine;
    }

    Result<Done> mend(Context& c, Project& project, const Derived& derived, PartId only) const {
        for (Finding f : derived.findings) {
            if (only && f.place.part != only) continue;
            std::vector<Remedy> all{f.remedy};
            all.insert(all.end(), f.more.begin(), f.more.end());
            for (const Remedy& remedy : all)
                if (remedy.code == mend_) {
                    f.remedy = remedy;
                    return apply(MendFinding{f}, project, c.workshop.catalog(), derived);
                }
        }
        return fail("cli.unknown", say("No finding has the remedy \"%1\". See check --json.", mend_));
    }

    std::string mend_, part_;
};

/// Whose the stroke is that is being run, or that the tool is on its way to; null at stops and on the way
/// home.
const StrokeOf* drawn_at(const Plan& plan, const MachineState& s) {
    const auto* pass = std::get_if<PassMove>(&plan.program.moves[s.move]);
    const std::size_t run = plan.timeline.entries()[s.entry].stroke;
    return pass && run < runs(*pass) ? &stroke_of(*pass, run).of : nullptr;
}

class Rehearse final : public ProjectVerb {
    bool changes() const override { return false; }
    void options(CLI::App& app) override {
        app.add_option("--at", at_, "Only the state at this time, in seconds");
        only_.declare(app);
    }
    int act(Context& c, Project& project) override {
        const auto left_out = only_.left_out(project);
        if (!left_out) return c.error(left_out.error());
        const auto derived = planned(c, project, *left_out);
        if (!derived->plan) return c.error(derived->no_plan);
        const Plan& plan = *derived->plan;
        std::vector<double> times;
        if (at_ && !(std::isfinite(*at_) && *at_ >= 0))
            return c.error({"rehearse.time", say("--at takes a time in seconds, from 0."), {}});
        if (at_)
            times.push_back(*at_);
        else
            for (const MoveSpan& span : plan.timeline.spans())
                times.push_back(in_seconds(span.start));
        json states = json::array();
        Rehearsal rehearsal(plan.program, plan.timeline);
        for (const double t : times) {
            rehearsal.to(seconds(t));
            const MachineState s = rehearsal.machine();
            const auto* pass = std::get_if<PassMove>(&plan.program.moves[s.move]);
            const char* kinds[] = {"stop", "travel", "lower", "stroke", "lift"};
            states.push_back({{"time_s", std::min(t, in_seconds(plan.timeline.total()))},
                              {"run", spoken(rehearsal.run().state())},
                              {"operation", rehearsal.run().at()},
                              {"operations", rehearsal.run().operations().size()},
                              {"doing", kinds[static_cast<int>(s.kind)]},
                              {"move", s.move + 1},
                              {"x_mm", s.at.x},
                              {"y_mm", s.at.y},
                              {"tool_down", s.tool_down},
                              {"strokes_done", s.strokes_done},
                              {"strokes", pass ? runs(*pass) : 0},
                              {"pass", pass ? pass->plate : ""}});
            if (const StrokeOf* of = drawn_at(plan, s)) {
                states.back()["draws"] = spoken(plan.program, *of);
                states.back()["part"] = of->part.value, states.back()["placement"] = of->placement.value,
                states.back()["line_set"] = of->line_set.value;
            }
        }
        if (c.json)
            c.print({{"total_s", in_seconds(plan.timeline.total())}, {"states", states}});
        else {
            for (const json& s : states) {
                const long t = std::lround(s["time_s"].get<double>());
                c.out << t / 60 << ":" << (t % 60 < 10 ? "0" : "") << t % 60 << "  ";
                if (s["pass"].get<std::string>().empty())
                    c.out << "hands: stop";
                else
                    c.out << s["pass"].get<std::string>() << "  " << s["doing"].get<std::string>()
                          << (s.contains("draws") ? " " + s["draws"].get<std::string>() : "") << ", stroke "
                          << s["strokes_done"] << " of " << s["strokes"];
                c.out << ", carriage at " << number(s["x_mm"], 1) << ", " << number(s["y_mm"], 1) << " mm\n";
            }
            c.out << "total " << spoken_seconds(in_seconds(plan.timeline.total())) << "\n";
        }
        return blocks_export(derived->findings) ? findings : fine;
    }
    std::optional<double> at_;
    Only only_;
};

class Export final : public ProjectVerb {
    bool changes() const override { return false; }
    void options(CLI::App& app) override {
        app.add_option("--to", folder_, "Folder for the files; made when missing")->required();
        app.add_flag("--override-errors", override_,
                     "Export although error findings stand; the run sheet says so");
        only_.declare(app);
    }
    int act(Context& c, Project& project) override {
        const auto left_out = only_.left_out(project);
        if (!left_out) return c.error(left_out.error());
        const auto derived = planned(c, project, *left_out);
        const auto done = export_folder(*derived, c.workshop.catalog(), c.files, folder_,
                                        {override_, present::pdf_painter()});
        if (!done) return c.error(done.error());
        if (c.json)
            c.print({{"folder", folder_},
                     {"files", done->files},
                     {"removed", done->removed},
                     {"left", done->changed}});
        else {
            for (const std::string& f : done->files)
                c.out << folder_ << "/" << f << "\n";
            for (const std::string& f : done->removed)
                c.out << "removed, no longer right: " << f << "\n";
            for (const std::string& f : done->changed)
                c.out << "left, no longer right, but changed by somebody: " << f << "\n";
        }
        return blocks_export(derived->findings) ? findings : fine;
    }
    std::string folder_;
    Only only_;
    bool override_ = false;
};

} // namespace

std::unique_ptr<Verb> make_check() {
    return std::make_unique<Check>();
}
std::unique_ptr<Verb> make_rehearse() {
    return std::make_unique<Rehearse>();
}
std::unique_ptr<Verb> make_export() {
    return std::make_unique<Export>();
}

} // namespace dotlane::cli
