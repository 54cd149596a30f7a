#include "core/recipe/webs.h"

#include <map>
#include <optional>

#include "core/base/parallel.h"
#include "core/geometry/edge_grid.h"
#include "core/geometry/narrow.h"
#include "core/geometry/region_index.h"

namespace dotlane {
namespace {

/// Whether a cut from a corner of an edge to a point `q` of its side `to` takes off no more than a few
/// corners' worth that lies between two lines as far apart as `narrow`, as where a spike ends.
bool parts_a_crumb(const Ring& ring, std::size_t from, std::size_t to, Point q, double narrow) {
    constexpr std::size_t few = 16;
    const std::size_t n = ring.size(), ahead = (to + n - from) % n, back = n - ahead - 1; // corners between
    if (std::min(ahead, back) > few) return false;
    const Point p = ring[from], middle = (p + q) * 0.5;
    const auto between = [&](std::size_t k) {
        return ahead < back ? ring[(from + 1 + k) % n] : ring[(to + 1 + k) % n];
    };
    Point tip = middle;
    for (std::size_t k = 0; k < std::min(ahead, back); ++k)
        if (distance(middle, between(k)) > distance(middle, tip)) tip = between(k);
    const double far = distance(middle, tip);
    if (far == 0) return true;
    const Point u = (tip - middle) * (1 / far);
    double low = std::min(cross(u, p - middle), cross(u, q - middle)), high = -low;
    for (std::size_t k = 0; k < std::min(ahead, back); ++k) {
        const double off = cross(u, between(k) - middle);
        low = std::min(low, off), high = std::max(high, off);
    }
    return high - low <= narrow;
}

} // namespace

std::vector<Web> webs(const Region& openings, const Box& sheet, Length least, Progress& progress) {
    std::vector<Web> out;
    if (openings.empty()) return out;
    std::vector<const Ring*> rings;
    for (const Ring& ring : openings.rings)
        rings.push_back(&ring);
    Ring edge;
    if (!sheet.empty()) {
        edge = {{sheet.x0, sheet.y0}, {sheet.x1, sheet.y0}, {sheet.x1, sheet.y1}, {sheet.x0, sheet.y1}};
        rings.push_back(&edge);
    }
    const EdgeGrid edges(edges_of(rings));
    const RegionIndex index(openings);
    std::vector<double> areas;
    for (const Ring* ring : rings)
        areas.push_back(signed_area_mm2(*ring));
    // Of rings that touch: an opening beside another, or within an island. What touches its own island only
    // narrows itself.
    const auto apart_by_nothing = [&](std::size_t a, std::size_t b) {
        if (!sheet.empty() && std::max(a, b) + 1 == rings.size()) return true;
        if ((areas[a] < 0) == (areas[b] < 0)) return areas[a] >= 0;
        return areas[a] + areas[b] < 0; // the island is the larger
    };
    // The least distance of two edges is taken at an end of one of them.
    std::map<std::pair<std::size_t, std::size_t>, Web> narrow;
    std::optional<Web> narrowest;
    for (std::size_t r = 0; r < rings.size(); ++r) {
        for (const Point p : *rings[r]) {
            if (progress.cancelled()) return out;
            const double look = std::max(in_mm(least), narrowest ? in_mm(narrowest->width) : 1e9);
            int tries = 6; // for the narrowest web, where it is wide enough: any that is not is looked for
            edges.each_nearest(
                p, look, [r](const GridEdge& e) { return e.of != r; },
                [&](const GridEdge& e, Point q, double width) {
                    const Point inset = (q - p) * std::min(0.01, 1e-3 / std::max(width, 1e-9));
                    if (width < 1e-6 ? !apart_by_nothing(r, e.of)
                                     : index.contains((p + q) * 0.5) || index.crosses(p + inset, q - inset))
                        return mm(width) >= least && --tries == 0; // across an opening
                    const Web web{p, q, mm(width), r, e.of};
                    if (!narrowest || web.width < narrowest->width) narrowest = web;
                    if (web.width >= least) return true;
                    const auto [known, fresh] = narrow.try_emplace(std::minmax(r, e.of), web);
                    if (!fresh && web.width < known->second.width) known->second = web;
                    return true;
                });
        }
    }
    if (narrowest) out.push_back(*narrowest);
    for (const auto& [pair, web] : narrow)
        if (!(web.a == narrowest->a && web.b == narrowest->b)) out.push_back(web);
    return out;
}

std::vector<Point> webs_under(const Region& openings, Length width) {
    constexpr double strip = 10; // times as far along the edge as across
    // Edges by their number, from all rings, with the way along the ring to their first end.
    std::vector<GridEdge> all = edges_of(openings);
    std::vector<std::size_t> ring(all.size());
    std::vector<double> along(all.size()), around(openings.rings.size());
    std::vector<std::size_t> last_of(openings.rings.size()); // edge of each ring
    for (std::size_t i = 0; i < all.size(); ++i) {
        double& way = around[ring[i] = all[i].of];
        along[i] = way;
        way += distance(all[i].a, all[i].b);
        last_of[ring[i]] = i;
        all[i].of = i;
    }
    const RegionIndex index(openings);
    const EdgeGrid edges(all);
    constexpr std::size_t share = 2000;
    std::vector<std::vector<Point>> found((all.size() + share - 1) / share);
    in_parallel(found.size(), all.size(), [&](std::size_t part) {
        for (std::size_t i = part * share; i < std::min(all.size(), (part + 1) * share); ++i) {
            const Point p = all[i].a;
            const std::size_t before = along[i] == 0 ? last_of[ring[i]] : i - 1;
            const auto other = [&](const GridEdge& e) { return e.of != i && e.of != before; };
            edges.each_nearest(p, in_mm(width), other, [&](const GridEdge& e, Point q, double across) {
                if (ring[e.of] == ring[i]) {
                    const double way = std::abs(along[e.of] + distance(e.a, q) - along[i]);
                    if (std::min(way, around[ring[i]] - way) <= strip * across) return false;
                    const Ring& own = openings.rings[ring[i]];
                    const std::size_t first = last_of[ring[i]] + 1 - own.size();
                    if (parts_a_crumb(own, i - first, e.of - first, q, 2 * in_mm(width))) return false;
                }
                if (across > 1e-6 && index.contains((p + q) * 0.5)) return false;
                found[part].push_back((p + q) * 0.5);
                return true;
            });
        }
    });
    std::vector<Point> out;
    for (const std::vector<Point>& some : found)
        out.insert(out.end(), some.begin(), some.end());
    return out;
}

Region widened(const Region& openings, const Box& sheet, Length least, Progress& progress) {
    const Box edge = sheet.empty() ? bounds(openings).grown(3 * in_mm(least)) : sheet;
    const Region material = subtracted(region_of(Shape{{rectangle(edge)}}), openings);
    std::vector<Region> more;
    for (const NarrowPlace& place : narrow_places(material, least, {}, 200'000, progress).places)
        if (place.kind == NarrowPlace::Kind::neck)
            more.push_back(offset(place.area, (least - place.width) / 2 + mm(0.01)));
    Region out = more.empty() ? openings : subtracted(openings, united(more));
    // Where corners come near each other no strip has a length: a disc keeps them apart, again where that
    // left the next place.
    for (int round = 0; round < 12 && !progress.cancelled(); ++round) {
        more.clear();
        for (const Web& web : webs(out, sheet, least, progress))
            if (web.width < least - mm(0.005))
                more.push_back(region_of(Shape{
                    {ellipse((web.a + web.b) * 0.5, in_mm(least) / 2 + 0.01, in_mm(least) / 2 + 0.01)}}));
        if (more.empty()) break;
        out = subtracted(out, united(more));
    }
    return out;
}

Region thinned_out(const Region& openings, const Box& sheet, Length least, Progress& progress) {
    std::vector<Region> all = pieces(openings);
    for (bool again = true; again && !progress.cancelled();) {
        again = false;
        Region region;
        std::vector<std::size_t> of; // each ring's piece
        for (std::size_t i = 0; i < all.size(); ++i)
            for (const Ring& ring : all[i].rings)
                region.rings.push_back(ring), of.push_back(i);
        std::vector<Web> narrow = webs(region, sheet, least, progress);
        std::erase_if(narrow, [&](const Web& web) { return web.width >= least - mm(0.005); });
        std::vector<std::size_t> near(all.size());
        for (const Web& web : narrow)
            for (const std::size_t ring : {web.from, web.to})
                if (ring < of.size()) ++near[of[ring]];
        std::vector<char> gone(all.size());
        for (const Web& web : narrow) {
            const bool edge = web.from >= of.size() || web.to >= of.size();
            const std::size_t a = of[std::min(web.from, web.to)],
                              b = edge ? a : of[std::max(web.from, web.to)];
            if (gone[a] || gone[b] || (a == b && !edge)) continue; // within one opening it is an island's
            const bool first = near[a] != near[b] ? near[a] > near[b] : area(all[a]) < area(all[b]);
            gone[first ? a : b] = 1, again = true;
        }
        std::vector<Region> left;
        for (std::size_t i = 0; i < all.size(); ++i)
            if (!gone[i]) left.push_back(std::move(all[i]));
        all = std::move(left);
    }
    return united(all);
}

Region spread_by(const Region& openings, Point middle, double share) {
    if (share <= 0) return openings;
    const std::vector<Region> all = pieces(openings);
    std::vector<Box> boxes;
    for (const Region& piece : all)
        boxes.push_back(bounds(piece));
    std::vector<Region> moved;
    for (std::size_t i = 0; i < all.size(); ++i) {
        std::size_t with = i; // the largest that it lies within
        for (std::size_t k = 0; k < all.size(); ++k)
            if (boxes[k].contains(boxes[with]) && k != with &&
                ring_contains(all[k].rings.front(), all[i].rings.front().front()))
                with = k;
        moved.push_back(transformed(all[i], Affine::translation((boxes[with].centre() - middle) * share)));
    }
    return united(moved);
}

std::optional<double> spread_share(const Region& openings, Point middle, Length least, Progress& progress) {
    const auto enough = [&](double share) {
        const std::vector<Web> found = webs(spread_by(openings, middle, share), {}, least, progress);
        return found.empty() || found.front().width >= least;
    };
    if (enough(0)) return 0;
    double low = 0, high = 0.05;
    while (high < 2 && !enough(high) && !progress.cancelled())
        low = high, high *= 2;
    if (high >= 2) return std::nullopt;
    for (int i = 0; i < 8 && !progress.cancelled(); ++i) {
        const double half = (low + high) / 2;
        (enough(half) ? high : low) = half;
    }
    return high;
}

} // namespace dotlane
