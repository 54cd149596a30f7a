#include "core/derive/footprint.h"

#include <algorithm>

#include "core/checks/fit_checks.h"
#include "core/geometry/tangle.h"

namespace dotlane {
namespace {

/// Outlines of a shape that was drawn once and is only looked at: too tangled ones count as their boxes.
Region region_for(const Polylines& closed, FillRule rule) {
    if (crossings(closed, false, 50'000) <= 50'000) return region_of(closed, rule);
    return region_of({Polyline{flattened(rectangle(bounds(closed))).points, true}}, FillRule::nonzero);
}

} // namespace

Footprint::Footprint(std::shared_ptr<const EvaluatedPart> part, int piece, Actions actions)
    : part_(std::move(part))
    , piece_(piece)
    , actions_(std::move(actions))
    , there_(is_there(*part_, piece))
    , extent_(extent_of(*part_, piece)) {}

const std::vector<Point>& Footprint::hull() const {
    std::call_once(hull_made_, [this] { hull_ = outline_hull(*part_, piece_); });
    return hull_;
}

const Footprint::Ground& Footprint::ground() const {
    std::call_once(ground_made_, [this] {
        Polylines cuts, marks, closed_cuts, closed_marks;
        for (std::size_t r = 0; r < part_->runs.size(); ++r) {
            const RunSet& run = part_->runs[r];
            const auto action = actions_.find(run.lane);
            if (action == actions_.end() || run.ink) continue; // ink lies within its outline
            const bool parting = parts_material(action->second);
            for (const Polyline& line : lines_of(*part_, r, piece_)) {
                (parting ? cuts : marks).push_back(line);
                if (line.closed) (parting ? closed_cuts : closed_marks).push_back(line);
            }
        }
        Region material = region_for(closed_cuts, FillRule::evenodd), inked;
        if (material.empty()) inked = region_for(closed_marks, FillRule::nonzero);
        RegionIndex index(material.empty() ? inked : material);
        ground_.emplace(Ground{std::move(material), std::move(cuts), std::move(marks), std::move(inked),
                               std::move(index)});
    });
    return *ground_;
}

bool Footprint::meets(Point p, double within) const {
    if (!there_ || !extent_.box.grown(within).contains(p)) return false;
    const Ground& g = ground();
    if (g.index.contains(p)) return true;
    const auto near = [&](const Polyline& line) { return distance_to(line, p) <= within; };
    return std::any_of(g.cuts.begin(), g.cuts.end(), near) ||
           std::any_of(g.marks.begin(), g.marks.end(), near);
}

} // namespace dotlane
