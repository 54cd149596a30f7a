#include "core/recipe/bridges.h"

#include <algorithm>
#include <iterator>
#include <optional>

#include "core/base/parallel.h"
#include "core/geometry/narrow.h"
#include "core/geometry/nearest_edge.h"
#include "core/geometry/point_grid.h"
#include "core/recipe/bridge_strips.h"
#include "core/recipe/bridge_ways.h"
#include "core/recipe/webs.h"

namespace dotlane {
namespace {

constexpr Length crumb = mm(0.1);  ///< what is left between two bridges and narrower is none
constexpr Length hair = mm(0.05);  ///< half of what is too narrow to hold anything
constexpr double least_left = 0.1; ///< share of an opening, below which it counts as closed

/// Without islands that are narrower than twice that, as drawings and roundings have them: they fall out
/// unseen.
Region without_crumbs(Region region, Length by) {
    std::erase_if(region.rings, [by](const Ring& ring) {
        return signed_area_mm2(ring) < 0 &&
               !is_wider_than(region_of({Polyline{ring, true}}, FillRule::nonzero), by * 2);
    });
    return region;
}

/// Those in which a disc of that width finds room.
std::vector<Region> wider(std::vector<Region> all, Length width) {
    std::vector<std::size_t> costs;
    for (const Region& region : all)
        costs.push_back(point_count(region) * 5);
    std::vector<char> room(all.size());
    in_parallel(costs, [&](std::size_t i) { room[i] = is_wider_than(all[i], width); });
    std::vector<Region> out;
    for (std::size_t i = 0; i < all.size(); ++i)
        if (room[i]) out.push_back(std::move(all[i]));
    return out;
}

/// An opening whose islands hang on bridges.
struct Held {
    Region left;
    std::vector<Bridge> bridges;
    std::vector<Box> loose;
    bool closed = false;
};

/// `drawn`: what there was of it before it was grown by a hair.
Held held(const Region& opening, const Region& drawn, const BridgeWishes& wishes,
          const std::vector<Point>& by_hand, Progress& progress) {
    if (opening.rings.size() == 1) return {drawn, {}, {}, false};
    Held out;
    const RegionIndex index(opening);
    out.bridges = bridges_across(opening, index, wishes, by_hand, out.loose, progress);
    std::vector<Region> strips(out.bridges.size());
    std::optional<NearestEdge> edges;
    if (wishes.sides == BridgeWishes::Sides::stroke) edges.emplace(opening);
    const Crops near(opening);
    const NearestEdge* const follow = edges ? &*edges : nullptr;
    in_parallel(strips.size(), point_count(opening) * 10, [&](std::size_t i) {
        if (!progress.cancelled()) strips[i] = taken_by(out.bridges[i], near, index, follow);
    });
    if (progress.cancelled()) return out;
    Polylines edges_of_strips;
    for (Region& strip : strips)
        for (Ring& ring : strip.rings)
            edges_of_strips.push_back({std::move(ring), true});
    for (Region& piece :
         wider(pieces(subtracted(drawn, region_of(edges_of_strips, FillRule::nonzero))), crumb))
        std::move(piece.rings.begin(), piece.rings.end(), std::back_inserter(out.left.rings));
    out.closed = area(out.left) < area(opening) * least_left;
    return out;
}

Bridged bridged_once(const Region& openings, const BridgeWishes& wishes, Progress& progress) {
    Bridged out;
    // What hangs on by a point, or a hair, hangs on nothing.
    const std::vector<Region> all = pieces(without_crumbs(offset(openings, hair, {Corner::mitre, 2}), hair));
    // Each place of the maker's belongs to the opening with the island edge that is nearest to it.
    std::vector<std::vector<Point>> by_hand(all.size());
    for (const Point p : wishes.by_hand) {
        double nearest = 1e300;
        std::size_t of = all.size();
        for (std::size_t i = 0; i < all.size(); ++i)
            for (std::size_t r = 1; r < all[i].rings.size(); ++r)
                if (const double d = distance_to(Polyline{all[i].rings[r], true}, p); d < nearest)
                    nearest = d, of = i;
        if (of < all.size()) by_hand[of].push_back(p);
    }
    std::vector<Held> each(all.size());
    std::vector<Region> drawn(all.size());
    std::vector<Box> boxes;
    std::vector<std::size_t> costs;
    for (const Region& opening : all) {
        boxes.push_back(bounds(opening));
        costs.push_back(point_count(opening) * 10);
    }
    for (const Region& piece : pieces(openings)) {
        const Box box = bounds(piece);
        for (std::size_t i = 0; i < all.size(); ++i)
            if (boxes[i].contains(box) && contains(all[i], piece.rings.front().front())) {
                drawn[i].rings.insert(drawn[i].rings.end(), piece.rings.begin(), piece.rings.end());
                break;
            }
    }
    in_parallel(costs, [&](std::size_t i) {
        if (!progress.cancelled()) each[i] = held(all[i], drawn[i], wishes, by_hand[i], progress);
    });
    if (progress.cancelled()) return out;
    Region left; // of openings that do not overlap
    for (std::size_t i = 0; i < all.size(); ++i) {
        out.islands += all[i].rings.size() - 1;
        out.loose.insert(out.loose.end(), each[i].loose.begin(), each[i].loose.end());
        if (each[i].closed) out.closed.push_back(bounds(all[i]).grown(-in_mm(hair)));
        left.rings.insert(left.rings.end(), each[i].left.rings.begin(), each[i].left.rings.end());
        out.bridges.insert(out.bridges.end(), each[i].bridges.begin(), each[i].bridges.end());
    }
    out.openings = without_crumbs(std::move(left), hair * 2.1);
    if (progress.cancelled() || out.openings.empty()) return out;
    const NearestEdge edges(out.openings);
    std::vector<char> wide(out.bridges.size());
    in_parallel(wide.size(), point_count(out.openings),
                [&](std::size_t i) { wide[i] = wide_enough(out.bridges[i], edges); });
    for (std::size_t i = 0; i < wide.size(); ++i)
        if (!wide[i]) {
            Box box;
            box.add(out.bridges[i].a), box.add(out.bridges[i].b);
            out.narrow.push_back(box);
        }
    // The proof: material around and between the openings, counted anew from what is left of them. What hangs
    // on by a point, or a hair, hangs on nothing here either: it is opened there.
    Shape opened;
    opened.rule = FillRule::nonzero;
    PointGrid<char> known(in_mm(hair)); // by every point of a strip that is longer than wide
    for (const Point p : webs_under(out.openings, hair * 2)) {
        bool near = false;
        known.near(p, [&](char, double) { near = true; });
        if (near) continue;
        known.add(p, 0);
        Box box;
        box.add(p);
        opened.contours.push_back(rectangle(box.grown(in_mm(hair) * 2)));
    }
    Region material = opened.contours.empty() ? out.openings : united(out.openings, region_of(opened));
    // Their edges the other way round, with a frame around, are those of the material.
    for (Ring& ring : material.rings)
        std::reverse(ring.begin(), ring.end());
    const Box frame = bounds(material).grown(1);
    material.rings.push_back(
        {{frame.x0, frame.y0}, {frame.x1, frame.y0}, {frame.x1, frame.y1}, {frame.x0, frame.y1}});
    out.pieces_of_sheet = wider(pieces(material), hair * 4).size();
    return out;
}

} // namespace

Bridged bridged(const Region& openings, const BridgeWishes& wishes, Progress& progress) {
    Bridged out = bridged_once(openings, wishes, progress);
    // Bridges cut one another's ways now and then, where islands are smaller than a bridge is wide: what
    // hangs loose after all gets one more.
    BridgeWishes more = wishes;
    more.each = 1, more.by_hand.clear(), more.place = BridgeWishes::Place::shortest;
    for (int again = 0; again < 3 && out.pieces_of_sheet > 1 && !progress.cancelled(); ++again) {
        Bridged next = bridged_once(out.openings, more, progress);
        if (next.bridges.empty()) break;
        next.bridges.insert(next.bridges.begin(), out.bridges.begin(), out.bridges.end());
        next.islands = out.islands;
        next.closed.insert(next.closed.begin(), out.closed.begin(), out.closed.end());
        next.narrow.insert(next.narrow.begin(), out.narrow.begin(), out.narrow.end());
        out = std::move(next);
    }
    return out;
}

} // namespace dotlane
