#include "core/exports/run_sheet.h"

#include <algorithm>
#include <set>

#include "core/base/text.h"
#include "core/catalog/mats.h"
#include "core/exports/accounts.h"
#include "core/exports/text_picture.h"

namespace dotlane {
namespace {

constexpr double long_run_s = 600; ///< beyond, a computer that falls asleep would stop the machine

RunSheetPicture picture_of(const Derived& derived, const LaidSheet& laid, const ProgramSheet& sheet) {
    RunSheetPicture out{laid.sheet,
                        say("%1: %2 on the %3", sheet.name, sheet.stock, sheet.mat),
                        {},
                        {},
                        laid.mat_width,
                        laid.mat_height,
                        laid.stock};
    std::vector<Phrase> mirrored;
    for (const PlacedPart& placed : laid.parts) {
        if (derived.left_out.parts.contains(placed.placement.part)) continue;
        const int number = static_cast<int>(out.parts.size()) + 1;
        Phrase name = as_is(find(*derived.project, placed.placement.part)->name);
        if (placed.placement.piece > 0) name = say("%1, piece %2", name, placed.placement.piece);
        if (const double turn = in_degrees(placed.placement.turn); std::abs(turn) > 1e-9)
            name = say("%1, turned by %2 degrees", name, dotlane::number(turn, 2));
        if (placed.placement.mirrored) {
            name = say("%1, mirrored", name);
            mirrored.push_back(as_is(std::to_string(number)));
        }
        out.parts.push_back({number, std::move(name), placed.box});
    }
    if (mirrored.empty())
        out.notes.push_back(
            say("Worked from the front: the good side of the stock lies up. Nothing is mirrored."));
    else if (mirrored.size() == out.parts.size())
        out.notes.push_back(
            say("Worked from behind: the good side of the stock lies down. Everything is mirrored."));
    else
        out.notes.push_back(say("Mirrored, so worked from behind: %1. The others are worked from the front: "
                                "mind which side lies up.",
                                joined(mirrored, ", ")));
    return out;
}

Phrase lies_where(const Program& program, const StopMove& stop) {
    std::vector<Phrase> out;
    for (const ProgramSheet& sheet : program.sheets)
        if (sheet.sheet == stop.sheet) out.push_back(say("%1 is in the machine", sheet.name));
    if (out.empty()) out.push_back(say("the machine is empty"));
    for (std::size_t s = 0; s < stop.holds.size() && s < program.slots.size(); ++s)
        out.push_back(
            say("%1: %2", program.slots[s], stop.holds[s].empty() ? say("nothing") : stop.holds[s]));
    return say("Then %1.", joined(out, "; "));
}

/// "To be cut to size: 2 pieces of foil, 95 mm x 40 mm, for "Invitation"": of all that lies on the sheets.
void add_needs(const Derived& derived, const Catalog& catalog, std::vector<Phrase>& out) {
    const Project& project = *derived.project;
    const Machine* machine = catalog.machine(project.machine);
    const auto text = [&](Length l) { return to_text(l, project.unit); };
    for (const Part& part : project.parts) {
        const EvaluatedPart* evaluated = derived.part(part.id);
        // Of a part that lies apart, its first piece stands for the rest.
        const int first = evaluated && !evaluated->apart.empty() ? evaluated->apart.front().number : 0;
        std::size_t copies = 0;
        for (const Sheet& sheet : project.sheets)
            if (!derived.left_out.sheets.contains(sheet.id) && !derived.left_out.parts.contains(part.id))
                copies += static_cast<std::size_t>(
                    std::count_if(sheet.placements.begin(), sheet.placements.end(), [&](const Placement& p) {
                        return p.part == part.id && (p.piece == 0 || p.piece == first);
                    }));
        if (copies == 0 || !evaluated) continue;
        std::vector<std::pair<Phrase, std::size_t>> sizes;
        std::set<std::string> bought;
        for (const auto& [step, report] : evaluated->reports)
            for (const Needed& n : report->needs) {
                const LineSet* of = find(part, n.of);
                const Phrase what = of ? say("%1 (%2)", n.what, of->name) : n.what;
                Phrase size = say("%1, %2 x %3", what, text(n.width), text(n.height));
                if (n.on_mat && machine) {
                    const Mat* mat = mat_that_holds(catalog, *machine, n.width, n.height);
                    size = mat ? say("%1 (which the mat \"%2\" holds)", size, word(*mat))
                               : say("%1 (which no mat of this machine holds in one piece)", size);
                }
                if (n.cloth && bought.insert(what.english()).second)
                    out.push_back(
                        say_n(n.cloth->copies,
                              "To be bought for %n [copy|copies] of \"%1\": %2, %3 of cloth %4 wide.",
                              part.name, what, text(n.cloth->length), text(n.cloth->width)));
                const auto same = std::find_if(sizes.begin(), sizes.end(),
                                               [&](const auto& known) { return known.first == size; });
                if (same == sizes.end())
                    sizes.emplace_back(size, copies);
                else
                    same->second += copies;
            }
        for (const auto& [size, count] : sizes)
            out.push_back(
                say_n(count, "To be cut to size: %n [piece|pieces] of %1, for \"%2\".", size, part.name));
    }
}

} // namespace

RunSheet make_run_sheet(const Derived& derived, const Catalog& catalog, const PrintFiles& prints) {
    RunSheet out;
    const Plan& plan = *derived.plan;
    const Program& program = plan.program;
    out.title = derived.project->name;
    out.subtitle = say("Run sheet for the %1", program.machine);
    const PlanTotals& t = plan.totals;
    out.totals = {{say("Machine"), spoken_seconds(in_seconds(t.machine))},
                  {say("Hands on"), spoken_seconds(in_seconds(t.hands))},
                  {say("Stops"), std::to_string(t.stops)},
                  {say("Passes"), std::to_string(t.passes)},
                  {say("Sheets"), std::to_string(t.sheets)},
                  {say("Cost"), number(t.cost, 2)}};
    if (in_seconds(t.meanwhile) > 0)
        out.totals.insert(out.totals.begin() + 2,
                          {say("while it runs"), spoken_seconds(in_seconds(t.meanwhile))});
    out.lines = words(account(derived));
    if (!derived.left_out.empty())
        out.before.push_back(say("Not of this run: %1.", words(derived.left_out, *derived.project)));
    if (in_seconds(plan.timeline.total()) > long_run_s)
        out.before.push_back(
            say("Keep the computer awake: the run takes %1, and the machine stops when the computer sleeps.",
                spoken_seconds(in_seconds(plan.timeline.total()))));
    add_needs(derived, catalog, out.before);
    std::set<std::string> cautions; // of the catalog
    std::set<SheetId> shown;
    for (std::size_t m = 0; m < program.moves.size(); ++m) {
        RunSheetRow row;
        row.time = spoken_seconds(in_seconds(plan.timeline.spans()[m].time));
        if (const auto* stop = std::get_if<StopMove>(&program.moves[m])) {
            row.stop = true;
            row.number = stop->number;
            row.title = say("Stop %1", stop->number);
            auto print = program.prints.begin();
            for (const HandStep& step : stop->steps) {
                row.lines.push_back({step.text, step.kind == HandStep::Kind::care});
                if (step.kind != HandStep::Kind::print || print == program.prints.end()) continue;
                if (const auto file = prints.find((print++)->sheet.sheet); file != prints.end())
                    row.lines.back().text = say("%1 File: %2", row.lines.back().text, file->second);
            }
            row.lies = lies_where(program, *stop);
            if (stop->sheet && shown.insert(stop->sheet).second) row.sheet = stop->sheet;
        } else {
            const auto& pass = std::get<PassMove>(program.moves[m]);
            row.number = pass.number;
            row.colour = pass.colour;
            row.title = say("%1  %2 with the %3 (%4)", pass.plate, word(pass.action), pass.tool, pass.slot);
            const std::string metres = number(in_mm(length(pass.strokes)) / 1000, 2);
            row.lines.push_back(
                {pass.repeats > 1 ? say_n(pass.strokes.size(), "%n [stroke|strokes], %1 m, all run %2 times",
                                          metres, pass.repeats)
                                  : say_n(pass.strokes.size(), "%n [stroke|strokes], %1 m", metres)});
            if (Phrase set = words(pass.setting); !set.empty()) row.lines.push_back({std::move(set)});
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
    for (const std::string& caution : cautions)
        out.cautions.push_back(as_word("Catalog", caution));
    out.cautions.push_back(
        say("Stay near a running machine and keep room in front of and behind it for the mat."));
    out.cautions.push_back(
        say("The machine's and materials' own manuals and your local rules come before this sheet."));
    for (const Finding& f : derived.findings)
        if (f.grade != Grade::hint)
            out.findings.push_back(say("%1: %2", as_word("Grade", grade_name(f.grade)), f.message));
    for (const Reason& r : plan.reasons)
        out.reasons.push_back(r.sentence);
    return out;
}

std::string to_text(const RunSheet& s, const Derived& derived, const Speaker& speak) {
    std::string out = s.title + "\n" + speak(s.subtitle) + "\n\n";
    if (!s.overridden.empty()) out += "! " + speak(s.overridden) + "\n\n";
    for (const auto& [name, value] : s.totals)
        out += speak(name) + ": " + value + "\n";
    out += speak(say("Lines: %1", s.lines)) + "\n\n";
    for (const Phrase& line : s.before)
        out += "[ ] " + speak(line) + "\n\n";
    for (const std::string& line : board_picture(derived, speak))
        out += line + "\n";
    out += "\n";
    const auto add_picture = [&](const RunSheetPicture& picture) {
        out += "\n      " + speak(picture.title) + "\n";
        for (const std::string& line : sheet_picture(picture))
            out += "      " + line + "\n";
        for (const RunSheetPart& part : picture.parts)
            out += "      " + std::to_string(part.number) + "  " + speak(part.name) + "\n";
        for (const Phrase& note : picture.notes)
            out += "      " + speak(note) + "\n";
        out += "\n";
    };
    std::set<SheetId> shown;
    for (const RunSheetRow& row : s.rows) {
        out += (row.stop ? "[ ] " : "    ") + speak(row.title) + ", " + row.time + "\n";
        for (const RunSheetLine& line : row.lines)
            out += (line.care ? "      ! " : "      - ") + speak(line.text) + "\n";
        if (!row.lies.empty()) out += "      " + speak(row.lies) + "\n";
        for (const RunSheetPicture& picture : s.pictures)
            if (row.sheet && picture.sheet == row.sheet && shown.insert(row.sheet).second)
                add_picture(picture);
    }
    for (const RunSheetPicture& picture : s.pictures)
        if (!shown.contains(picture.sheet)) add_picture(picture);
    const auto list = [&](const Phrase& heading, const std::vector<Phrase>& items) {
        if (items.empty()) return;
        out += "\n" + speak(heading) + "\n";
        for (const Phrase& item : items)
            out += "  - " + speak(item) + "\n";
    };
    list(say("Findings that stand"), s.findings);
    list(say("Take care"), s.cautions);
    list(say("Why this order"), s.reasons);
    std::vector<Phrase> files;
    for (const std::string& file : s.files)
        files.push_back(as_is(file));
    list(say("Files"), files);
    return printable(out);
}

} // namespace dotlane
