#include "core/exports/run_sheet.h"

#include <algorithm>
#include <set>

#include "core/base/text.h"
#include "core/exports/accounts.h"
#include "core/exports/text_picture.h"

namespace dotlane {
namespace {

constexpr double long_run_s = 600; ///< beyond, a computer that falls asleep would stop the machine

std::string join(const std::vector<std::string>& words, const char* between) {
    std::string out;
    for (const std::string& word : words)
        out += (out.empty() ? "" : between) + word;
    return out;
}

RunSheetPicture picture_of(const Derived& derived, const LaidSheet& laid, const ProgramSheet& sheet) {
    RunSheetPicture out{laid.sheet,
                        sheet.name + ": " + sheet.stock + " on the " + sheet.mat,
                        {},
                        {},
                        laid.mat_width,
                        laid.mat_height,
                        laid.stock};
    std::vector<std::string> mirrored;
    for (const PlacedPart& placed : laid.parts) {
        const int number = static_cast<int>(out.parts.size()) + 1;
        std::string name = find(*derived.project, placed.placement.part)->name;
        if (placed.placement.piece > 0) name += ", piece " + std::to_string(placed.placement.piece);
        if (const double turn = in_degrees(placed.placement.turn); std::abs(turn) > 1e-9)
            name += ", turned by " + dotlane::number(turn, 2) + " degrees";
        if (placed.placement.mirrored) {
            name += ", mirrored";
            mirrored.push_back(std::to_string(number));
        }
        out.parts.push_back({number, std::move(name), placed.box});
    }
    if (mirrored.empty())
        out.notes.emplace_back(
            "Worked from the front: the good side of the stock lies up. Nothing is mirrored.");
    else if (mirrored.size() == out.parts.size())
        out.notes.emplace_back(
            "Worked from behind: the good side of the stock lies down. Everything is mirrored.");
    else
        out.notes.push_back("Mirrored, so worked from behind: " + join(mirrored, ", ") +
                            ". The others are worked from the front: mind which side lies up.");
    return out;
}

std::string lies_where(const Program& program, const StopMove& stop) {
    std::vector<std::string> out;
    for (const ProgramSheet& sheet : program.sheets)
        if (sheet.sheet == stop.sheet) out.push_back(sheet.name + " is in the machine");
    if (out.empty()) out.emplace_back("the machine is empty");
    for (std::size_t s = 0; s < stop.holds.size() && s < program.slots.size(); ++s)
        out.push_back(program.slots[s] + ": " + (stop.holds[s].empty() ? "nothing" : stop.holds[s]));
    return "Then " + join(out, "; ") + ".";
}

} // namespace

RunSheet make_run_sheet(const Derived& derived, const Catalog& catalog, const PrintFiles& prints) {
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
    out.lines = words(account(derived));
    if (in_seconds(plan.timeline.total()) > long_run_s)
        out.before.push_back("Keep the computer awake: the run takes " +
                             spoken_seconds(in_seconds(plan.timeline.total())) +
                             ", and the machine stops when the computer sleeps.");
    std::set<std::string> cautions;
    std::set<SheetId> shown;
    for (std::size_t m = 0; m < program.moves.size(); ++m) {
        RunSheetRow row;
        row.time = spoken_seconds(in_seconds(plan.timeline.spans()[m].time));
        if (const auto* stop = std::get_if<StopMove>(&program.moves[m])) {
            row.stop = true;
            row.number = stop->number;
            row.title = "Stop " + std::to_string(stop->number);
            auto print = program.prints.begin();
            for (const HandStep& step : stop->steps) {
                row.lines.push_back({step.text, step.kind == HandStep::Kind::care});
                if (step.kind != HandStep::Kind::print || print == program.prints.end()) continue;
                if (const auto file = prints.find((print++)->sheet.sheet); file != prints.end())
                    row.lines.back().text += " File: " + file->second;
            }
            row.lies = lies_where(program, *stop);
            if (stop->sheet && shown.insert(stop->sheet).second) row.sheet = stop->sheet;
        } else {
            const auto& pass = std::get<PassMove>(program.moves[m]);
            row.number = pass.number;
            row.colour = pass.colour;
            row.title = pass.plate + "  " + action_name(pass.action) + " with the " + pass.tool + " (" +
                        pass.slot + ")";
            row.lines.push_back(
                {counted(pass.strokes.size(), "stroke", "strokes") + ", " +
                 number(in_mm(length(pass.strokes)) / 1000, 2) + " m" +
                 (pass.repeats > 1 ? ", all run " + std::to_string(pass.repeats) + " times" : "")});
            if (const Lane* lane = find(*derived.project, pass.lane))
                if (const Tool* tool = catalog.tool(lane->tool); tool && !tool->caution.empty())
                    cautions.insert(tool->caution);
        }
        out.rows.push_back(std::move(row));
    }
    const auto add_picture = [&](const ProgramSheet& sheet) {
        const LaidSheet* laid = derived.sheet(sheet.sheet);
        if (laid && std::none_of(out.pictures.begin(), out.pictures.end(),
                                 [&](const RunSheetPicture& p) { return p.sheet == sheet.sheet; }))
            out.pictures.push_back(picture_of(derived, *laid, sheet));
    };
    for (const ProgramSheet& sheet : program.sheets)
        add_picture(sheet);
    for (const PrintSheet& print : program.prints) // those that are only printed
        add_picture(print.sheet);
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

std::string to_text(const RunSheet& s, const Derived& derived) {
    std::string out = s.title + "\n" + s.subtitle + "\n\n";
    if (!s.overridden.empty()) out += "! " + s.overridden + "\n\n";
    for (const auto& [name, value] : s.totals)
        out += name + ": " + value + "\n";
    out += "Lines: " + s.lines + "\n\n";
    for (const std::string& line : s.before)
        out += "[ ] " + line + "\n\n";
    for (const std::string& line : board_picture(derived))
        out += line + "\n";
    out += "\n";
    const auto add_picture = [&](const RunSheetPicture& picture) {
        out += "\n      " + picture.title + "\n";
        for (const std::string& line : sheet_picture(picture))
            out += "      " + line + "\n";
        for (const RunSheetPart& part : picture.parts)
            out += "      " + std::to_string(part.number) + "  " + part.name + "\n";
        for (const std::string& note : picture.notes)
            out += "      " + note + "\n";
        out += "\n";
    };
    std::set<SheetId> shown;
    for (const RunSheetRow& row : s.rows) {
        out += (row.stop ? "[ ] " : "    ") + row.title + ", " + row.time + "\n";
        for (const RunSheetLine& line : row.lines)
            out += (line.care ? "      ! " : "      - ") + line.text + "\n";
        if (!row.lies.empty()) out += "      " + row.lies + "\n";
        for (const RunSheetPicture& picture : s.pictures)
            if (row.sheet && picture.sheet == row.sheet && shown.insert(row.sheet).second)
                add_picture(picture);
    }
    for (const RunSheetPicture& picture : s.pictures)
        if (!shown.contains(picture.sheet)) add_picture(picture);
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
