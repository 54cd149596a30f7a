#include "core/recipe/bridge_strips.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace dotlane {
namespace {

/// How far the strip has to go on at an end, so that both its corners are in material; where that is thinner
/// than the bridge is wide, only as far as it is thick.
double reach_of(Point end, Point u, double width, const RegionIndex& index) {
    const Point side = Point{-u.y, u.x} * (width / 2);
    double out = width / 16;
    for (double beyond = width / 8; beyond <= 3 * width; beyond += width / 8) {
        const Point p = end + u * beyond;
        if (index.contains(p)) break; // on the far side of the material
        out = beyond;
        if (!index.contains(p + side) && !index.contains(p - side)) break;
    }
    return out;
}

/// By how much one side leaves the bridge for each mm along it, from where the bridge is narrowest. Beside
/// the bridge's middle the ways square to the stroke are the more askew the farther off they lie: by least
/// squares over several, as one alone depends on which chord of a curve is nearest. Positive: the side opens
/// towards `b`.
double opening_of(const Bridge& bridge, Point u, Point side, const RegionIndex& index,
                  const NearestEdge& edges) {
    constexpr double most = 1; // 45 degrees: what is beyond is no stroke's side but a corner
    constexpr int places = 8;
    const double half = in_mm(bridge.width) / 2, length = distance(bridge.a, bridge.b);
    const Point middle = (bridge.a + bridge.b) * 0.5;
    double askew = 0, weight = 0;
    for (int i = 1; i <= places; ++i) {
        const double off = std::max(half, length * 0.4) * i / places;
        const Point p = middle + side * off;
        if (!index.contains(p)) break;
        const Point across = p - edges.to(p);
        const double along = dot(across, u), aside = dot(across, side);
        if (std::abs(aside) > most * std::abs(along)) break;
        askew += off * aside / along, weight += off * off;
    }
    if (weight == 0 || std::abs(askew / weight) < 1e-6) return 0;
    // From the middle to where this side would meet the bridge's axis: no nearer than makes the wide end
    // three times as wide as the narrow one.
    const double meets = std::max(weight / std::abs(askew), length);
    return std::copysign(half / (meets - length / 2), askew);
}

/// Whether a strip across meets its opening in one piece: its ends lie in material, and each of its sides
/// goes into the opening and out of it once, both beside its middle.
bool meets_once(const Ring& strip, Point middle, Point to_side, const RegionIndex& index) {
    const std::size_t half = strip.size() / 2;
    const auto crossed = [&](std::size_t from, std::size_t to) {
        std::size_t out = 0;
        for (std::size_t i = from; i < to; ++i)
            out += index.crossings(strip[i], strip[(i + 1) % strip.size()]);
        return out;
    };
    return !index.contains(strip[0]) && !index.contains(strip[half]) && crossed(half - 1, half) == 0 &&
           crossed(strip.size() - 1, strip.size()) == 0 && crossed(0, half - 1) == 2 &&
           crossed(half, strip.size() - 1) == 2 && !index.crosses(middle - to_side, middle + to_side);
}

} // namespace

Region taken_by(const Bridge& bridge, const Crops& opening, const RegionIndex& index,
                const NearestEdge* follow) {
    const double width = in_mm(bridge.width), length = distance(bridge.a, bridge.b);
    const Point u = (bridge.b - bridge.a) * (1 / length), side{-u.y, u.x};
    const Point a = bridge.a - u * reach_of(bridge.a, u * -1, width, index),
                b = bridge.b + u * reach_of(bridge.b, u, width, index);
    const auto half_at = [&](double slope, Point p) {
        const double at = dot(p - bridge.a, u);
        return width / 2 + std::max(0.0, slope > 0 ? slope * at : slope * (at - length));
    };
    std::array<double, 2> slope{};
    if (follow)
        slope = {opening_of(bridge, u, side, index, *follow),
                 opening_of(bridge, u, side * -1, index, *follow)};
    // Not convex where only one end opens: the points where the strip is narrowest are among its corners.
    const Ring r{a + side * half_at(slope[0], a),
                 bridge.a + side * half_at(slope[0], bridge.a),
                 bridge.b + side * half_at(slope[0], bridge.b),
                 b + side * half_at(slope[0], b),
                 b - side * half_at(slope[1], b),
                 bridge.b - side * half_at(slope[1], bridge.b),
                 bridge.a - side * half_at(slope[1], bridge.a),
                 a - side * half_at(slope[1], a)};
    const Point middle = (bridge.a + bridge.b) * 0.5;
    const Region whole = region_of({Polyline{r, true}}, FillRule::nonzero);
    if (meets_once(r, middle, side * (width / 2), index)) return whole;
    const Region here = opening.near(bounds(Polyline{r, true}).grown(width));
    const std::vector<Region> met = pieces(intersected(whole, here));
    if (met.size() == 1) return whole;
    for (const Region& piece : met)
        // A little into the material at its ends, or the grid would leave hairs open there.
        if (contains(piece, middle)) return intersected(whole, offset(piece, mm(0.02)));
    return {};
}

bool wide_enough(const Bridge& bridge, const NearestEdge& edges) {
    constexpr int places = 8;
    for (int i = 0; i <= places; ++i) {
        const Point p = bridge.a + (bridge.b - bridge.a) * (static_cast<double>(i) / places);
        // The grid of regions, and ends of strips that are a thousandth short.
        if (distance(p, edges.to(p)) < in_mm(bridge.width) / 2 - 0.005) return false;
    }
    return true;
}

} // namespace dotlane
