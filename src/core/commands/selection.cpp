#include "core/commands/selection.h"

#include <unordered_set>
#include <utility>

#include "core/geometry/region_index.h"

namespace dotlane {
namespace {

bool inside(const FlatLine& line, Point p) {
    int winding = 0;
    for (const Polyline& c : line.contours)
        if (c.closed && ring_contains(c.points, p))
            winding += line.rule == FillRule::evenodd ? 1 : signed_area_mm2(c.points) > 0 ? 1 : -1;
    return line.rule == FillRule::evenodd ? winding % 2 != 0 : winding != 0;
}

} // namespace

std::optional<LineId> line_at(const EvaluatedPart& evaluated, Point at, Length reach) {
    std::optional<LineId> best, filled;
    double least = in_mm(reach), filled_size = 1e300;
    for (auto it = evaluated.lines.rbegin(); it != evaluated.lines.rend(); ++it) {
        if (!it->box.grown(in_mm(reach)).contains(at)) continue;
        for (const Polyline& c : it->contours)
            if (const double d = distance_to(c, at); d < least) least = d, best = it->id;
        const DrawnLine* drawn = find(*evaluated.drawing, it->id);
        const double size = it->box.width() * it->box.height();
        if (drawn && drawn->drawn.fill && size < filled_size && inside(*it, at))
            filled = it->id, filled_size = size;
    }
    return best ? best : filled;
}

LaneId lane_for_letter(const Project& project, const EvaluatedPart& evaluated,
                       const std::vector<LineId>& lines, Action action) {
    std::vector<LaneId> lanes;
    for (const Lane& lane : project.lanes)
        if (lane.action == action) lanes.push_back(lane.id);
    const Part* part = find(project, evaluated.part);
    if (lanes.empty() || !part) return {};
    const std::unordered_set<LineId> chosen(lines.begin(), lines.end());
    std::optional<LaneId> shared;
    const auto take = [&](LaneId own) { return std::exchange(shared, own).value_or(own) == own; };
    for (const LineSet& set : part->sets)
        for (const LineId line : set.lines)
            if (chosen.contains(line) && !take(set.set_aside ? LaneId{} : set.lane)) return lanes.front();
    for (const FlatLine& line : evaluated.lines) {
        if (!chosen.contains(line.id) || !evaluated.worked.contains(line.set)) continue;
        const LineSet* set = find(*part, line.set);
        const Step* step = maker_of(*part, line.set);
        const bool aside = set ? set->set_aside : step && step->aside;
        if (!take(aside ? LaneId{} : set ? set->lane : step ? step->lane : LaneId{})) return lanes.front();
    }
    const auto at = std::find(lanes.begin(), lanes.end(), shared.value_or(LaneId{}));
    return at == lanes.end() || at + 1 == lanes.end() ? lanes.front() : *(at + 1);
}

std::vector<LineId> lines_in_box(const EvaluatedPart& evaluated, const Box& box) {
    std::vector<LineId> out;
    for (const FlatLine& line : evaluated.lines)
        if (!line.box.empty() && box.contains(line.box)) out.push_back(line.id);
    return out;
}

std::vector<LineId> lines_of_same_colour(const EvaluatedPart& evaluated, LineId like) {
    std::vector<LineId> out;
    const DrawnLine* wanted = find(*evaluated.drawing, like);
    if (!wanted) return out;
    const bool bare = !wanted->drawn.stroke && !wanted->drawn.fill;
    for (const DrawnLine& line : evaluated.drawing->lines)
        if (line.drawn.stroke == wanted->drawn.stroke && line.drawn.fill == wanted->drawn.fill &&
            (!bare || line.group == wanted->group))
            out.push_back(line.id);
    return out;
}

std::vector<LineId> lines_inside(const EvaluatedPart& evaluated, LineId outline) {
    std::vector<LineId> out;
    const FlatLine* around = nullptr;
    for (const FlatLine& line : evaluated.lines)
        if (line.id == outline) around = &line;
    if (!around) return out;
    // Its outer edges count: what lies in a hole of the outline still lies inside the outline.
    Polylines rings = around->contours;
    for (Polyline& ring : rings)
        if (signed_area_mm2(ring.points) < 0) std::reverse(ring.points.begin(), ring.points.end());
    const Region region = region_of(rings, FillRule::nonzero);
    if (region.empty()) return out;
    const Box box = bounds(region);
    const RegionIndex index(region);
    for (const FlatLine& line : evaluated.lines) {
        if (line.id == outline || !box.contains(line.box)) continue;
        if (std::all_of(line.contours.begin(), line.contours.end(),
                        [&](const Polyline& c) { return index.contains(c); }))
            out.push_back(line.id);
    }
    return out;
}

} // namespace dotlane
