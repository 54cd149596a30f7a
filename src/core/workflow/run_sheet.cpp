#include "core/workflow/run_sheet.h"

#include <algorithm>
#include <set>

#include "core/base/text.h"

namespace dotlane {

RunSheet make_run_sheet(const Derived& derived, const Catalog& catalog) {
    RunSheet out;
    const Plan& plan = *derived.plan;
    const Program& program = plan.program;
    out.title = derived.project->name;
    out.subtitle = "Run sheet for the " + program.machine;
    const PlanTotals& t = plan.totals;
    out.totals = {{"Machine", spoken_seconds(in_seconds(t.machine))},
                  {"Hands on", spoken_seconds(in_seconds(t.hands))},
                  {"Stops", std::to_string(t.stops)},
                  {"Passes", std::to_string(t.passes)},
                  {"Sheets", std::to_string(t.sheets)},
                  {"Cost", number(t.cost, 2)}};
    std::set<std::string> cautions;
    for (std::size_t m = 0; m < program.moves.size(); ++m) {
        RunSheetRow row;
        row.time = spoken_seconds(in_seconds(plan.timeline.spans()[m].time));
        if (const auto* stop = std::get_if<StopMove>(&program.moves[m])) {
            row.stop = true;
            row.number = stop->number;
            row.title = "Stop " + std::to_string(stop->number);
            for (const HandStep& step : stop->steps)
                if (step.kind != HandStep::Kind::care) row.lines.push_back(step.text);
        } else {
            const auto& pass = std::get<PassMove>(program.moves[m]);
            row.number = pass.number;
            row.colour = pass.colour;
            row.title = pass.plate + "  " + action_name(pass.action) + " with the " + pass.tool + " (" +
                        pass.slot + ")";
            row.lines.push_back(
                std::to_string(pass.strokes.size()) + " strokes, " +
                number(in_mm(length(pass.strokes)) / 1000, 2) + " m" +
                (pass.repeats > 1 ? ", all run " + std::to_string(pass.repeats) + " times" : ""));
            if (const Lane* lane = find(*derived.project, pass.lane))
                if (const Tool* tool = catalog.tool(lane->tool); tool && !tool->caution.empty())
                    cautions.insert(tool->caution);
        }
        out.rows.push_back(std::move(row));
    }
    out.cautions.assign(cautions.begin(), cautions.end());
    out.cautions.emplace_back(
        "Stay near a running machine and keep room in front of and behind it for the mat.");
    out.cautions.emplace_back(
        "The machine's and materials' own manuals and your local rules come before this sheet.");
    for (const Finding& f : derived.findings)
        if (f.grade != Grade::hint)
            out.findings.push_back(std::string(grade_name(f.grade)) + ": " + f.message);
    for (const Reason& r : plan.reasons)
        out.reasons.push_back(r.sentence);
    return out;
}

std::string to_text(const RunSheet& s) {
    std::string out = s.title + "\n" + s.subtitle + "\n\n";
    if (!s.overridden.empty()) out += "! " + s.overridden + "\n\n";
    for (const auto& [name, value] : s.totals)
        out += name + ": " + value + "\n";
    out += "\n";
    for (const RunSheetRow& row : s.rows) {
        out += (row.stop ? "[ ] " : "    ") + row.title + ", " + row.time + "\n";
        for (const std::string& line : row.lines)
            out += "      - " + line + "\n";
    }
    const auto list = [&](const char* heading, const std::vector<std::string>& items) {
        if (items.empty()) return;
        out += std::string("\n") + heading + "\n";
        for (const std::string& item : items)
            out += "  - " + item + "\n";
    };
    list("Findings that stand", s.findings);
    list("Why this order", s.reasons);
    list("Take care", s.cautions);
    list("Files", s.files);
    return printable(out);
}

} // namespace dotlane
