#include "core/project/steps/relief.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/edge_grid.h"
#include "core/recipe/areas.h"
#include "core/recipe/evaluate.h"

namespace dotlane {
namespace {

constexpr double hollow = 0.5;         ///< radians by which an outline turns in a hollow corner
constexpr double flattened_by = 0.005; ///< mm, of round holes

struct Edge {
    Point a, b;
    std::size_t line; ///< of the open lines
};

/// Where folds meet: one place for all that lie within reach of each other.
struct Meeting {
    Point at, along; ///< `along`: one of the folds
};

void add_corners(const std::vector<const WorkSet*>& sets, std::vector<Point>& out) {
    for (const WorkSet* set : sets)
        for (const FlatLine& line : set->lines)
            for (const Ring& ring : area_of(line).rings)
                for (std::size_t i = 0, n = ring.size(); i < n; ++i) {
                    const Point in = ring[i] - ring[(i + n - 1) % n], on = ring[(i + 1) % n] - ring[i];
                    if (std::atan2(cross(in, on), dot(in, on)) < -hollow) out.push_back(ring[i]);
                }
}

/// The crossing of two edges, or the middle between an end of one and the other, when they are in reach.
std::optional<Point> meeting_of(const Edge& e, const Edge& f, double reach) {
    const Point u = e.b - e.a, v = f.b - f.a, w = f.a - e.a;
    const double d = cross(u, v);
    if (std::abs(d) > 1e-9 * length(u) * length(v)) {
        const double s = cross(w, v) / d, t = cross(w, u) / d;
        const double slack_s = reach / length(u), slack_t = reach / length(v);
        if (s >= -slack_s && s <= 1 + slack_s && t >= -slack_t && t <= 1 + slack_t) return e.a + u * s;
        return std::nullopt;
    }
    for (const Point p : {e.a, e.b}) // one goes on where the other ends: no corner, so no relief
        for (const Point q : {f.a, f.b})
            if (distance(p, q) <= reach) return std::nullopt;
    return std::nullopt;
}

FlatLine hole_at(const Meeting& m, const ReliefStep& step) {
    const double size = in_mm(step.size);
    if (step.form == ReliefStep::Form::round)
        return line_along({flattened(ellipse(m.at, size / 2, size / 2), mm(flattened_by))});
    const double wide = size / 4, angle = std::atan2(m.along.y, m.along.x);
    const Contour slot = rounded_rectangle({-size / 2, -wide / 2, size / 2, wide / 2}, wide / 2, wide / 2);
    const Affine to = Affine::translation(m.at) * Affine::rotation(angle);
    return line_along({transformed(flattened(slot, mm(flattened_by)), to)});
}

} // namespace

StepOutcome run(const ReliefStep& step, const StepInput& in, Progress& progress) {
    std::vector<Edge> edges;
    std::size_t lines = 0;
    for (const WorkSet* set : in.of)
        for (const FlatLine& line : set->lines)
            for (const Polyline& contour : line.contours) {
                if (contour.closed || contour.points.size() < 2) continue;
                for (std::size_t i = 1; i < contour.points.size(); ++i)
                    edges.push_back({contour.points[i - 1], contour.points[i], lines});
                ++lines;
            }
    if (edges.empty()) return refused(say("There are no open lines, which folds are."));
    const double reach = in_mm(step.reach);
    std::vector<GridEdge> all;
    for (std::size_t i = 0; i < edges.size(); ++i)
        all.push_back({edges[i].a, edges[i].b, i});
    const EdgeGrid grid(std::move(all));
    std::vector<Meeting> found;
    for (std::size_t i = 0; i < edges.size(); ++i) {
        if (progress.cancelled()) return {};
        Box box;
        box.add(edges[i].a), box.add(edges[i].b);
        box = box.grown(2 * reach + 1e-6);
        std::vector<std::size_t> near;
        grid.each_near(box, [&](const GridEdge& e) {
            if (e.of > i && edges[e.of].line != edges[i].line) near.push_back(e.of);
        });
        std::sort(near.begin(), near.end());
        near.erase(std::unique(near.begin(), near.end()), near.end());
        for (const std::size_t k : near)
            if (const auto at = meeting_of(edges[i], edges[k], reach))
                found.push_back({*at, edges[i].b - edges[i].a});
    }
    const std::size_t crossings = found.size();
    if (step.edges) {
        std::vector<Point> corners;
        add_corners(in.of, corners);
        add_corners(in.rest, corners);
        for (const Edge& edge : edges)
            for (const Point corner : corners)
                if (std::min(distance(edge.a, corner), distance(edge.b, corner)) <= reach)
                    found.push_back({corner, edge.b - edge.a});
    }
    // What several pairs of folds find lies in one hole. (Each within reach of the hole's own middle: along a
    // chain of near ones the last would have none.)
    const double same = std::max(reach, in_mm(step.size) / 2 - flattened_by);
    std::vector<Meeting> holes;
    for (const Meeting& meeting : found)
        if (std::none_of(holes.begin(), holes.end(),
                         [&](const Meeting& hole) { return distance(hole.at, meeting.at) <= same; }))
            holes.push_back(meeting);
    StepOutcome out;
    out.made.emplace();
    for (const Meeting& hole : holes)
        out.made->lines.push_back(hole_at(hole, step));
    if (out.made->lines.empty()) return refused(say("No two of these lines meet, so nothing needs relief."));
    out.report.figures = {figure("holes", out.made->lines.size()), figure("crossings", crossings)};
    return out;
}

} // namespace dotlane
