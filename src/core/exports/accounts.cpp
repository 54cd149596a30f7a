#include "core/exports/accounts.h"

#include <algorithm>

namespace dotlane {
namespace {

std::size_t contours_of(const EvaluatedPart& part, LineSetId set) {
    std::size_t n = 0;
    for (const FlatLine& line : part.lines)
        if (line.set == set) n += line.contours.size();
    return n;
}

/// Of one copy of a part: what is kept from every file, by the maker's wish or for want of a lane.
void add_kept_back(const Project& project, const EvaluatedPart& evaluated, LineAccount& out) {
    const Part& part = *find(project, evaluated.part);
    for (const LineSet& set : part.sets) {
        if (set.set_aside)
            out.aside += contours_of(evaluated, set.id);
        else if (!set.lane)
            out.no_lane += contours_of(evaluated, set.id);
    }
    for (const Step& step : part.steps) {
        if (!step.on || !step.result || !(step.aside || !step.lane)) continue;
        (step.aside ? out.aside : out.no_lane) += contours_of(evaluated, step.result);
    }
}

} // namespace

LineAccount account(const Derived& derived) {
    LineAccount out;
    const Project& project = *derived.project;
    if (derived.plan) {
        for (const Move& move : derived.plan->program.moves)
            if (const auto* pass = std::get_if<PassMove>(&move)) out.run += pass->strokes.size();
        for (const PrintSheet& print : derived.plan->program.prints) {
            for (const PrintPicture& picture : print.pictures)
                out.printed += picture.lines;
            for (const PrintShape& shape : print.shapes)
                out.printed += shape.contours.size();
        }
    }
    for (const LaidSheet& sheet : derived.sheets)
        for (const PlacedPart& placed : sheet.parts) {
            const NotThisRun& left = derived.left_out;
            const bool whole =
                left.sheets.contains(sheet.sheet) || left.parts.contains(placed.placement.part);
            const EvaluatedPart& evaluated = *derived.part(placed.placement.part);
            for (std::size_t r = 0; r < evaluated.runs.size(); ++r)
                if (whole || left.lanes.contains(evaluated.runs[r].lane))
                    out.left_out += lines_of(evaluated, r, placed.placement.piece).size();
        }
    for (const Part& part : project.parts) {
        const EvaluatedPart& evaluated = *derived.part(part.id);
        // Lines that are kept back belong to no piece: they count with each whole copy, and once with its
        // pieces.
        std::size_t whole = 0;
        std::set<int> pieces;
        for (const LaidSheet& sheet : derived.sheets)
            for (const PlacedPart& placed : sheet.parts)
                if (placed.placement.part == part.id) {
                    if (placed.placement.piece == 0)
                        ++whole;
                    else
                        pieces.insert(placed.placement.piece);
                }
        for (std::size_t i = 0; i < whole + (pieces.empty() ? 0 : 1); ++i)
            add_kept_back(project, evaluated, out);
        if (whole > 0) continue;
        for (std::size_t r = 0; r < evaluated.runs.size(); ++r) {
            std::size_t there = 0;
            for (const int piece : pieces)
                there += lines_of(evaluated, r, piece).size();
            out.unplaced += evaluated.runs[r].lines.size() - std::min(there, evaluated.runs[r].lines.size());
        }
    }
    return out;
}

Phrase words(const NotThisRun& left_out, const Project& project) {
    std::vector<Phrase> out;
    for (const Sheet& sheet : project.sheets)
        if (left_out.sheets.contains(sheet.id)) out.push_back(as_is(sheet.name));
    for (const Part& part : project.parts)
        if (left_out.parts.contains(part.id)) out.push_back(say("\"%1\"", part.name));
    for (const Lane& lane : project.lanes)
        if (left_out.lanes.contains(lane.id)) out.push_back(say("lane %1", plate(project, lane.id)));
    return joined(out, ", ");
}

Phrase words(const LineAccount& a) {
    std::vector<Phrase> out;
    const auto add = [&](std::size_t n, const char* what) {
        if (n > 0) out.push_back(say_n(n, what));
    };
    add(a.run, to_say("%n run"));
    add(a.printed, to_say("%n printed"));
    add(a.left_out, to_say("%n left out of this run"));
    add(a.aside, to_say("%n set aside"));
    add(a.no_lane, to_say("%n without a lane"));
    add(a.unplaced, to_say("%n on no sheet"));
    return out.empty() ? say("none") : joined(out, ", ");
}

} // namespace dotlane
