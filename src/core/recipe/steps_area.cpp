// Steps that work on areas: join, outline, cut out, fill holes, pieces.
#include <set>

#include "core/base/text.h"
#include "core/recipe/step.h"

namespace dotlane {
namespace {

struct Areas {
    std::vector<Region> each;           ///< one for each closed line
    std::vector<const FlatLine*> lines; ///< they came from
    int open = 0;                       ///< lines that bound no area
};

Areas areas_of(const std::vector<const WorkSet*>& sets) {
    Areas out;
    for (const WorkSet* set : sets)
        for (const FlatLine& line : set->lines) {
            Region area = area_of(line);
            if (area.empty()) {
                ++out.open;
                continue;
            }
            out.each.push_back(std::move(area));
            out.lines.push_back(&line);
        }
    return out;
}

Figure figure(const char* key, std::size_t n) {
    return {key, "", static_cast<double>(n)};
}

void tell_open(StepReport& report, int open, const char* did) {
    if (open == 0) return;
    const std::string n = std::to_string(open);
    report.findings.push_back({"step.open-lines",
                               Grade::caution,
                               n + (open == 1 ? " open line bounds" : " open lines bound") + " no area and " +
                                   (open == 1 ? "was" : "were") + " not " + did + ".",
                               {{"count", n}, {"did", did}}});
}

/// The line among those that went into a piece that stands for it: the first that touches it.
const FlatLine& stands_for(const Region& piece, const Areas& areas) {
    const Box box = bounds(piece);
    for (std::size_t i = 0; i < areas.each.size(); ++i)
        if (box.meets(areas.lines[i]->box) && box.contains(areas.each[i].rings.front().front()))
            return *areas.lines[i];
    return *areas.lines.front();
}

/// The closed lines of a set replaced one by one; open ones stay.
template<class Change>
std::shared_ptr<WorkSet> each_area(const WorkSet& set, Change change) {
    auto out = copy_of(set);
    out->lines.clear();
    for (const FlatLine& line : set.lines) {
        const Region area = area_of(line);
        if (area.empty())
            out->lines.push_back(line);
        else if (const Region next = change(area, line); next == area)
            out->lines.push_back(line); // as it was drawn
        else if (!next.empty())
            out->lines.push_back(line_of(next, line));
    }
    return out;
}

} // namespace

StepOutcome run(const JoinStep& step, const StepInput& in, Progress& progress) {
    const Areas areas = areas_of(in.of);
    if (areas.each.empty()) return refused("There are no closed lines to join.");
    Region whole;
    if (step.fill_overlaps) {
        whole = united(areas.each);
    } else {
        Polylines all;
        for (const Region& area : areas.each)
            for (const Ring& ring : area.rings)
                all.push_back({ring, true});
        whole = region_of(all, FillRule::evenodd);
    }
    int counters = 0;
    std::size_t before = 0;
    for (const Region& area : areas.each) {
        counters += hole_count(area);
        before += pieces(area).size();
    }
    StepOutcome out;
    if (progress.cancelled()) return out;
    const std::vector<Region> joined = pieces(whole);
    const std::set<const FlatLine*> bound(areas.lines.begin(), areas.lines.end());
    // The outline goes to the first set that gave something; what is open stays where it is.
    for (const WorkSet* set : in.of) {
        auto next = copy_of(*set);
        next->lines.clear();
        for (const FlatLine& line : set->lines)
            if (!bound.contains(&line)) next->lines.push_back(line);
        out.changed.push_back(std::move(next));
    }
    for (std::size_t i = 0; i < in.of.size(); ++i) {
        const auto& lines = in.of[i]->lines;
        if (lines.size() == out.changed[i]->lines.size()) continue;
        for (const Region& piece : joined)
            out.changed[i]->lines.push_back(line_of(piece, stands_for(piece, areas)));
        break;
    }
    const int kept = hole_count(whole);
    out.report.figures = {figure("pieces_before", before),
                          figure("pieces_after", joined.size()),
                          {"counters_before", "", static_cast<double>(counters)},
                          {"counters_after", "", static_cast<double>(kept)}};
    tell_open(out.report, areas.open, "joined");
    if (kept < counters) {
        const std::string n = std::to_string(counters - kept);
        out.report.findings.push_back({"join.counters",
                                       Grade::caution,
                                       n + (counters - kept == 1 ? " counter is" : " counters are") +
                                           " filled by joining: letters cover one another there.",
                                       {{"count", n}}});
    }
    if (joined.size() > 1) {
        // A dot that is left behind falls out of the sheet as a crumb.
        double largest = 0;
        for (const Region& piece : joined)
            largest = std::max(largest, in_square_mm(area(piece)));
        int small = 0;
        for (const Region& piece : joined)
            small += in_square_mm(area(piece)) < largest / 20;
        if (small > 0)
            out.report.findings.push_back(
                {"join.left-behind",
                 Grade::hint,
                 std::to_string(small) + (small == 1 ? " small piece does" : " small pieces do") +
                     " not touch the rest: dots and accents will come off on their own.",
                 {{"count", std::to_string(small)}}});
    }
    return out;
}

StepOutcome run(const OutlineStep& step, const StepInput& in, Progress& progress) {
    const Areas areas = areas_of(in.of);
    if (areas.each.empty()) return refused("There are no closed lines to outline.");
    Region base = united(areas.each);
    const int holes = hole_count(base);
    if (step.outer_only)
        base = without_holes(base);
    else if (in_mm(step.fill_holes_under) > 0)
        base = without_holes(base, square_mm(in_mm(step.fill_holes_under) * in_mm(step.fill_holes_under)));
    OffsetOptions options;
    options.corner = step.corners == OutlineStep::Corners::round    ? Corner::round
                     : step.corners == OutlineStep::Corners::mitred ? Corner::mitre
                                                                    : Corner::bevel;
    options.mitre_limit = step.mitre_limit;
    StepOutcome out;
    out.made.emplace();
    const double sign = in_mm(step.distance) < 0 ? -1 : 1;
    int empty = 0;
    Area covered;
    for (int ring = 0; ring < step.rings; ++ring) {
        if (progress.cancelled()) return out;
        Region grown = offset(base, step.distance + step.gap * (sign * ring), options);
        if (step.outer_only) grown = without_holes(grown); // growing closes bays into new holes
        if (grown.empty()) {
            ++empty;
            continue;
        }
        if (ring == 0) covered = area(grown);
        const auto parts = pieces(grown);
        for (const Region& piece : parts) {
            FlatLine line = line_of(piece, *areas.lines.front());
            line.filled = false;
            out.made->lines.push_back(std::move(line));
        }
    }
    if (out.made->lines.empty()) return refused("Nothing is left at this distance: the lines are too thin.");
    out.report.figures = {figure("lines", out.made->lines.size()),
                          {"area", "mm2", in_square_mm(covered)},
                          {"holes_before", "", static_cast<double>(holes)},
                          {"holes_after", "", static_cast<double>(hole_count(base))}};
    tell_open(out.report, areas.open, "outlined");
    if (empty > 0)
        out.report.findings.push_back(
            {"outline.empty",
             Grade::caution,
             "Nothing is left for " + std::to_string(empty) + " of " + std::to_string(step.rings) + " rings.",
             {{"count", std::to_string(empty)}}});
    return out;
}

StepOutcome run(const CutOutStep& step, const StepInput& in, Progress& progress) {
    const Areas cutters = areas_of(in.by);
    if (cutters.each.empty()) return refused("What is to be cut out has no closed lines.");
    const Region cutter = offset(united(cutters.each), step.margin);
    StepOutcome out;
    int gone = 0, touched = 0;
    for (const WorkSet* set : in.of) {
        if (progress.cancelled()) return out;
        if (std::find(in.by.begin(), in.by.end(), set) != in.by.end()) continue;
        out.changed.push_back(each_area(*set, [&](const Region& area, const FlatLine& line) {
            const bool meets = bounds(cutter).meets(line.box);
            if (!meets && step.keep == CutOutStep::Keep::rest) return area;
            const Region left =
                step.keep == CutOutStep::Keep::rest ? subtracted(area, cutter) : intersected(area, cutter);
            gone += left.empty();
            ++touched;
            return left;
        }));
        // Open lines end where the other area begins.
        auto& lines = out.changed.back()->lines;
        for (FlatLine& line : lines) {
            if (!area_of(line).empty()) continue;
            const Region keep = step.keep == CutOutStep::Keep::overlap
                                    ? cutter
                                    : subtracted(region_of(Shape{{rectangle(line.box.grown(1))}}), cutter);
            line.contours = clipped(line.contours, keep);
            line.box = bounds(line.contours);
        }
        std::erase_if(lines, [](const FlatLine& line) { return line.contours.empty(); });
    }
    if (touched == 0)
        out.report.findings.push_back(
            {"cut-out.misses", Grade::caution, "What is to be cut out touches none of the lines.", {}});
    out.report.figures = {figure("lines_gone", static_cast<std::size_t>(gone))};
    return out;
}

StepOutcome run(const FillHolesStep& step, const StepInput& in, Progress&) {
    StepOutcome out;
    std::optional<Area> under;
    if (step.under) under = square_mm(in_mm(*step.under) * in_mm(*step.under));
    int before = 0, after = 0;
    for (const WorkSet* set : in.of)
        out.changed.push_back(each_area(*set, [&](const Region& area, const FlatLine&) {
            before += hole_count(area);
            Region filled = without_holes(area, under);
            after += hole_count(filled);
            return filled;
        }));
    out.report.figures = {{"holes_before", "", static_cast<double>(before)},
                          {"holes_after", "", static_cast<double>(after)}};
    return out;
}

Finding no_piece(std::size_t number, std::size_t count) {
    return {"pieces.none",
            Grade::caution,
            "There is no piece " + std::to_string(number) + ": there are " + std::to_string(count) + ".",
            {{"piece", std::to_string(number)}}};
}

StepOutcome run(const ApartStep& step, const StepInput&, Progress&) {
    // Where pieces lie is no matter of the lines: it is seen when all steps are done (arrangements.h).
    const auto groups = piece_groups(step.together);
    return groups ? StepOutcome{} : refused(groups.error().message);
}

StepOutcome run(const PiecesStep& step, const StepInput& in, Progress&) {
    const auto dropped = piece_numbers(step.drop);
    if (!dropped) return refused(dropped.error().message);
    const Areas areas = areas_of(in.of);
    if (areas.each.empty()) return refused("There are no closed lines to take apart.");
    struct Piece {
        Region region;
        const FlatLine* line;
        std::size_t set;
    };
    std::vector<Piece> all;
    StepOutcome out;
    for (std::size_t s = 0; s < in.of.size(); ++s) {
        auto next = copy_of(*in.of[s]);
        next->lines.clear();
        for (const FlatLine& line : in.of[s]->lines) {
            const Region region = area_of(line);
            if (region.empty()) next->lines.push_back(line);
            for (Region& piece : pieces(region))
                all.push_back({std::move(piece), &line, s});
        }
        out.changed.push_back(std::move(next));
    }
    std::stable_sort(all.begin(), all.end(), [](const Piece& a, const Piece& b) {
        const Box x = bounds(a.region), y = bounds(b.region);
        return std::tie(x.x0, x.y0) < std::tie(y.x0, y.y0);
    });
    std::size_t kept = 0;
    for (std::size_t i = 0; i < all.size(); ++i) {
        const bool keep =
            std::find(dropped->begin(), dropped->end(), static_cast<int>(i) + 1) == dropped->end();
        out.report.pieces.push_back({all[i].region, keep});
        if (!keep) continue;
        ++kept;
        out.changed[all[i].set]->lines.push_back(line_of(all[i].region, *all[i].line));
    }
    for (const int n : *dropped)
        if (n > static_cast<int>(all.size()))
            out.report.findings.push_back(no_piece(static_cast<std::size_t>(n), all.size()));
    out.report.figures = {figure("pieces_before", all.size()), figure("pieces_after", kept)};
    return out;
}

} // namespace dotlane
