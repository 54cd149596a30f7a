#include "core/project/steps/clean.h"

#include <limits>

#include "core/geometry/doubled.h"
#include "core/geometry/ends.h"
#include "core/geometry/narrow.h"
#include "core/geometry/reshape.h"
#include "core/recipe/step.h"

namespace dotlane {
namespace {

/// Takes away contours that lie on one that came before. Returns how many.
std::size_t drop_doubled(std::vector<std::shared_ptr<WorkSet>>& sets) {
    std::vector<const Polyline*> all;
    for (const auto& set : sets)
        for (const FlatLine& line : set->lines)
            for (const Polyline& c : line.contours)
                all.push_back(&c);
    const auto doubles = doubles_of(all);
    std::size_t i = 0, count = 0;
    for (const auto& set : sets)
        for (FlatLine& line : set->lines) {
            Polylines kept;
            for (const Polyline& c : line.contours)
                if (doubles[i++] >= 0)
                    ++count;
                else
                    kept.push_back(c);
            if (kept.size() == line.contours.size()) continue;
            line.contours = std::move(kept);
            line.area = nullptr;
        }
    return count;
}

/// Open ends of a set that nearly meet. Returns how many pairs were joined.
int join_ends(WorkSet& set, Length reach) {
    Polylines all;
    std::vector<std::size_t> owner;
    for (std::size_t i = 0; i < set.lines.size(); ++i)
        for (Polyline& c : set.lines[i].contours)
            all.push_back(std::move(c)), owner.push_back(i);
    JoinedEnds joined = joined_ends(all, reach);
    for (FlatLine& line : set.lines)
        line.contours.clear(), line.area = nullptr;
    for (std::size_t i = 0; i < joined.lines.size(); ++i)
        set.lines[owner[joined.from[i]]].contours.push_back(std::move(joined.lines[i]));
    return joined.joined;
}

/// Takes away where the lines of a set leave less than `least` between them. Lines that bound such a place
/// together, as an outline and its hole do, become one. Returns how many places there were.
std::size_t open_narrow(WorkSet& set, Length least) {
    struct Closed {
        Region area;
        std::size_t line;
    };
    std::vector<Closed> closed;
    Polylines rings;
    for (std::size_t i = 0; i < set.lines.size(); ++i)
        if (Region area = area_of(set.lines[i]); !area.empty()) {
            for (const Ring& ring : area.rings)
                rings.push_back({ring, true});
            closed.push_back({std::move(area), i});
        }
    const NarrowPlaces found = narrow_places(region_of(rings, FillRule::evenodd), least, {},
                                             std::numeric_limits<std::size_t>::max());
    for (const NarrowPlace& place : found.places) {
        const Region around = offset(place.area, mm(0.05));
        Polylines together;
        Closed* first = nullptr;
        for (Closed& one : closed) {
            if (!bounds(one.area).meets(bounds(around)) || intersected(one.area, around).empty()) continue;
            for (Ring& ring : one.area.rings)
                together.push_back({std::move(ring), true});
            one.area.rings.clear();
            if (!first) first = &one;
        }
        if (first) first->area = subtracted(region_of(together, FillRule::evenodd), place.area);
    }
    if (!found.places.empty())
        for (const Closed& one : closed) {
            FlatLine& line = set.lines[one.line];
            if (!one.area.empty() && one.area == area_of(line)) continue;
            line = line_of(one.area, line);
        }
    settle(set);
    return found.places.size();
}

} // namespace

StepOutcome run(const CleanStep& step, const StepInput& in, Progress& progress) {
    StepOutcome out;
    std::size_t crumbs = 0, slivers = 0, points_before = 0, points_after = 0, doubled = 0;
    const double least = in_mm(step.least_size);
    for (const WorkSet* set : in.of)
        out.changed.push_back(copy_of(*set));
    if (step.doubled) doubled = drop_doubled(out.changed);
    int joined = 0;
    if (in_mm(step.close) > 0)
        for (const auto& set : out.changed) {
            joined += join_ends(*set, step.close);
            settle(*set);
        }
    for (const auto& set : out.changed) {
        if (progress.cancelled()) return out;
        for (FlatLine& line : set->lines) {
            for (const Polyline& c : line.contours)
                points_before += c.points.size();
            Region region = area_of(line);
            if (!region.empty()) {
                const std::size_t rings = region.rings.size();
                Region kept;
                for (const Region& piece : pieces(region))
                    if (in_square_mm(area(piece)) >= least * least)
                        kept.rings.insert(kept.rings.end(), piece.rings.begin(), piece.rings.end());
                // Holes too small to weed are left filled.
                if (least > 0) kept = without_holes(kept, square_mm(least * least));
                crumbs += rings - kept.rings.size();
                if (kept != region) {
                    const FlatLine next = line_of(kept, line);
                    line.contours = next.contours;
                }
            } else if (least > 0 && !line.contours.empty() && in_mm(length(line.contours)) < least) {
                line.contours.clear();
                ++crumbs;
            }
            line.area = nullptr;
        }
        settle(*set);
        if (in_mm(step.least_width) > 0) slivers += open_narrow(*set, step.least_width);
        for (FlatLine& line : set->lines) {
            line.area = nullptr;
            for (Polyline& c : line.contours) {
                c = simplified(c, step.simplify);
                points_after += c.points.size();
            }
        }
        settle(*set);
    }
    const auto figure = [](const char* key, std::size_t n) {
        return Figure{key, "", static_cast<double>(n)};
    };
    out.report.figures = {
        figure("crumbs_dropped", crumbs),       figure("slivers_opened", slivers),
        figure("doubled_dropped", doubled),     figure("ends_joined", static_cast<std::size_t>(joined)),
        figure("points_before", points_before), figure("points_after", points_after)};
    return out;
}

} // namespace dotlane
