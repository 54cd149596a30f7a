// The program a cutter would run, as text, and what a program comes to.
#include "core/machine/program_text.h"

#include "cli/only.h"
#include "cli/verb.h"
#include "core/base/text.h"
#include "core/commands/placing.h"
#include "core/exports/exporting.h"
#include "core/machine/totals.h"
#include "core/project/format.h"

namespace dotlane::cli {

nlohmann::json parts_json(const Program& program, const Timeline& timeline) {
    const auto times = times_of_parts(program, timeline);
    auto out = nlohmann::json::array();
    for (const ProgramPart& part : program.parts)
        if (const auto it = times.find(part.part); it != times.end())
            out.push_back({{"part", part.part.value},
                           {"name", part.name},
                           {"copies", part.placements.size()},
                           {"machine_s", in_seconds(it->second)}});
    return out;
}

namespace {

using nlohmann::json;

class ProgramVerb final : public Verb {
    void declare(CLI::App& app) override {
        app.add_option("project", project_, "The project file (.dotlane) whose program is written to stdout");
        only_.declare(app);
        app.add_option("--read", read_, "A program that was written before: show what it comes to");
    }

    int run(Context& c) override {
        if (project_.empty() == read_.empty())
            return c.error(
                {"program.what", say("Give a project to write its program, or --read PROGRAM."), {}});
        return read_.empty() ? write(c) : show(c);
    }

    int write(Context& c) {
        auto loaded = load_project(c.files, project_);
        if (!loaded) return c.error(loaded.error());
        settle_placements(*loaded, c.workshop);
        const auto left_out = only_.left_out(*loaded);
        if (!left_out) return c.error(left_out.error());
        const auto derived = planned(c, std::move(*loaded), *left_out);
        if (!derived->plan) return c.error(derived->no_plan);
        const std::string text = program_text(derived->plan->program);
        if (c.json) { // one document
            json lines = json::array();
            for (const auto line : split(text, "\n"))
                lines.push_back(json::parse(line));
            c.print_exact({{"program", std::move(lines)}});
        } else {
            c.out << text;
        }
        return blocks_export(derived->findings) ? findings : fine;
    }

    int show(Context& c) {
        const auto bytes = c.files.read(read_, default_max_bytes);
        if (!bytes) return c.error(bytes.error());
        const auto program = program_from_text(*bytes, read_);
        if (!program) return c.error(program.error());
        const Timeline timeline(*program);
        const ProgramTotals t = totals(*program, timeline);
        const json parts = parts_json(*program, timeline);
        if (c.json) {
            c.print({{"project", program->project},
                     {"machine", program->machine},
                     {"sheets", program->sheets.size()},
                     {"stops", t.stops},
                     {"passes", t.passes},
                     {"strokes", t.strokes},
                     {"machine_s", in_seconds(t.machine)},
                     {"hands_s", in_seconds(t.hands)},
                     {"tool_down_mm", in_mm(t.tool_down)},
                     {"travel_mm", in_mm(t.travel)},
                     {"parts", parts}});
            return fine;
        }
        c.out << printable(program->project) << " on the " << printable(program->machine.english()) << ": "
              << counted(program->sheets.size(), "sheet", "sheets") << ", "
              << counted(static_cast<std::size_t>(t.stops), "stop", "stops") << ", "
              << counted(static_cast<std::size_t>(t.passes), "pass", "passes") << ", "
              << counted(t.strokes, "stroke", "strokes") << "\n"
              << "machine " << spoken_seconds(in_seconds(t.machine)) << ", hands about "
              << spoken_seconds(in_seconds(t.hands)) << ", tool down " << number(in_mm(t.tool_down) / 1000, 2)
              << " m, travel " << number(in_mm(t.travel) / 1000, 2) << " m\n";
        for (const json& part : parts)
            c.out << printable(part["name"].get<std::string>()) << ": "
                  << spoken_seconds(part["machine_s"].get<double>()) << " of the machine\n";
        return fine;
    }

    Only only_;
    std::string project_, read_;
};

} // namespace

std::unique_ptr<Verb> make_program() {
    return std::make_unique<ProgramVerb>();
}

} // namespace dotlane::cli
