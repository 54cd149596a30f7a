#include "core/workflow/placing.h"

#include <algorithm>

namespace dotlane {
namespace {

bool free_at(const Box& box, const Box& usable, const std::vector<Box>& taken, double gap) {
    constexpr double slack = 1e-6;
    if (!usable.grown(slack).contains(box)) return false;
    return std::none_of(taken.begin(), taken.end(), [&](const Box& other) {
        const Box grown = other.grown(gap - slack);
        return box.x0 < grown.x1 && box.x1 > grown.x0 && box.y0 < grown.y1 && box.y1 > grown.y0;
    });
}

/// Corners beside and below what lies there are enough: a box that can be pushed up and left ends at one.
std::optional<Point> corner_for(double w, double h, const Box& usable, const std::vector<Box>& taken,
                                double gap) {
    std::vector<double> xs{usable.x0}, ys{usable.y0};
    for (const Box& b : taken)
        xs.push_back(b.x1 + gap), ys.push_back(b.y1 + gap);
    std::optional<Point> best;
    for (const double y : ys)
        for (const double x : xs)
            if ((!best || y < best->y || (y == best->y && x < best->x)) &&
                free_at({x, y, x + w, y + h}, usable, taken, gap))
                best = Point{x, y};
    return best;
}

} // namespace

PlacementSpot free_spot(const Project& project, const Catalog& catalog, const Derived* derived,
                        SheetId sheet_id, PartId part_id, std::optional<Angle> turn, Length gap) {
    PlacementSpot spot;
    spot.turn = turn.value_or(Angle{});
    const Sheet* sheet = find(project, sheet_id);
    const EvaluatedPart* part = derived ? derived->part(part_id) : nullptr;
    const Mat* mat = sheet ? catalog.mat(sheet->mat) : nullptr;
    const Stock* stock = sheet ? catalog.stock(sheet->stock) : nullptr;
    if (!mat || !stock || !part) return spot;
    const Box usable = usable_area(*mat, *stock);
    spot.left = mm(usable.x0), spot.top = mm(usable.y0);
    std::vector<Box> taken;
    for (const Placement& p : sheet->placements)
        if (const EvaluatedPart* other = derived->part(p.part)) taken.push_back(placed_box(p, other->box));
    const std::vector<Angle> turns = turn ? std::vector{*turn} : std::vector{Angle{}, degrees(90)};
    for (const Angle t : turns) {
        const Box box = placed_box({{}, part_id, {}, {}, t, false}, part->box);
        const auto corner = corner_for(box.width(), box.height(), usable, taken, in_mm(gap));
        if (corner) return {mm(corner->x), mm(corner->y), t, true};
    }
    return spot;
}

} // namespace dotlane
