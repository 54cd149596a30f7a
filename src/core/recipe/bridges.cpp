#include "core/recipe/bridges.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "core/base/parallel.h"
#include "core/base/sets.h"
#include "core/geometry/edge_tree.h"
#include "core/geometry/narrow.h"
#include "core/geometry/nearest_edge.h"
#include "core/geometry/region_index.h"
#include "core/recipe/bridge_strips.h"

namespace dotlane {
namespace {

constexpr Length crumb = mm(0.1);  ///< what is left between two bridges and narrower is none
constexpr Length hair = mm(0.05);  ///< half of what is too narrow to hold anything
constexpr double least_left = 0.1; ///< share of an opening, below which it counts as closed

/// A way across the opening.
struct Way {
    Point a, b;
    std::size_t from = 0, to = 0; ///< rings of the opening
    double cost = 0, angle = 0;   ///< angle: of `a` as seen from the island's middle
    Point middle() const { return (a + b) * 0.5; }
};

/// Corners that turn by more than 30 degrees.
std::vector<Point> corners_of(const Ring& ring) {
    std::vector<Point> out;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point before = ring[i] - ring[(i + ring.size() - 1) % ring.size()],
                    after = ring[(i + 1) % ring.size()] - ring[i];
        if (std::abs(std::atan2(cross(before, after), dot(before, after))) > std::numbers::pi / 6)
            out.push_back(ring[i]);
    }
    return out;
}

std::uint32_t index_of(std::size_t i) {
    return static_cast<std::uint32_t>(i);
}

/// One connected opening with islands in it: ring 0 bounds it, the others are the islands' edges.
class Opening {
  public:
    Opening(const Region& region, const BridgeWishes& wishes)
        : region_(region)
        , wishes_(wishes)
        , width_(in_mm(wishes.width))
        , index_(region) {
        for (const Ring& ring : region.rings) {
            rings_.push_back(&ring);
            corners_.push_back(corners_of(ring));
            boxes_.push_back(bounds(Polyline{ring, true}));
        }
        tree_ = tree_of(rings_);
        ways_.resize(rings_.size());
    }

    /// Bridges that hold all islands as far as there is a way; the others are told by `loose`.
    std::vector<Bridge> bridges(const std::vector<Point>& by_hand, std::vector<Box>& loose,
                                Progress& progress) {
        in_parallel(rings_.size() - 1, point_count(region_) * 40, [&](std::size_t k) {
            if (!progress.cancelled()) ways_[k + 1] = ways_from(k + 1);
        });
        if (progress.cancelled()) return {};
        Sets together(rings_.size());
        std::vector<char> by_maker(rings_.size(), 0);
        for (const Point p : by_hand) {
            const auto way = way_at(p);
            if (!way) continue;
            by_maker[way->from] = 1;
            take(*way, together, true);
        }
        for (std::size_t k = 1; k < rings_.size(); ++k)
            if (!by_maker[k])
                for (const Way& way : chosen(k))
                    take(way, together, false);
        // What still hangs loose is tied by the cheapest ways; where the wished direction leads nowhere, by
        // any.
        tie(together);
        tie_heaps(together, progress);
        for (std::size_t k = 1; k < rings_.size(); ++k)
            if (together.of(index_of(k)) != together.of(0)) loose.push_back(boxes_[k]);
        return std::move(bridges_);
    }

    const RegionIndex& index() const { return index_; }

  private:
    void tie(Sets& together) {
        std::vector<const Way*> all;
        for (const auto& from : ways_)
            for (const Way& way : from)
                all.push_back(&way);
        std::stable_sort(all.begin(), all.end(),
                         [](const Way* a, const Way* b) { return a->cost < b->cost; });
        for (const Way* way : all)
            if (together.of(index_of(way->from)) != together.of(index_of(way->to)))
                take(*way, together, false);
    }

    /// Islands that are nearest to one another hang together and on nothing else: from all of such a heap the
    /// shortest way to what is not of it is looked for.
    void tie_heaps(Sets& together, Progress& progress) {
        for (bool tied = true; tied && !progress.cancelled();) {
            tied = false;
            for (std::size_t k = 1; k < rings_.size(); ++k) {
                const std::uint32_t heap = together.of(index_of(k));
                if (heap == together.of(0)) continue;
                const auto best = out_of(heap, together);
                if (!best) continue;
                take(*best, together, false);
                tied = true;
            }
        }
    }

    /// The cheapest way out of a heap. Looked for near by first, as nothing costs less than its length.
    std::optional<Way> out_of(std::uint32_t heap, Sets& together) {
        const auto other = [&](const RingEdge& e) { return together.of(index_of(e.second)) != heap; };
        std::optional<Way> best;
        const double widest = boxes_[0].width() + boxes_[0].height();
        for (double reach = 3 * width_; !best || best->cost > reach; reach *= 2) {
            for (std::size_t of = 1; of < rings_.size(); ++of)
                if (together.of(index_of(of)) == heap)
                    each_place(of, [&](Point p) {
                        const double within = best ? std::min(reach, best->cost) : reach;
                        const auto way =
                            shortest(of, p,
                                     bgi::nearest(to_boost(p), 4) && bgi::intersects(around(p, within)) &&
                                         bgi::satisfies(other));
                        if (way && (!best || way->cost < best->cost)) best = way;
                    });
            if (reach > widest) break;
        }
        return best;
    }

    void take(const Way& way, Sets& together, bool by_hand) {
        together.unite(index_of(way.from), index_of(way.to));
        held_[way.from].push_back(way.middle()), held_[way.to].push_back(way.middle());
        bridges_.push_back({way.a, way.b, wishes_.width, by_hand});
    }

    double near_corner(std::size_t ring, Point p) const {
        double nearest = 1e300;
        for (const Point c : corners_[ring])
            nearest = std::min(nearest, distance(c, p));
        return std::max(0.0, 1 - nearest / (1.5 * width_));
    }

    /// None when it leaves the opening.
    std::optional<Way> way_to(std::size_t from, Point a, Point b, std::size_t to) const {
        const double length = distance(a, b);
        if (length < 1e-6) return std::nullopt;
        const Point u = (b - a) * (1 / length);
        const double inset = std::min(1e-3, length / 4);
        const Point p = a + u * inset, q = b - u * inset;
        if (!index_.contains(p + (q - p) * 0.5) || index_.crosses(p, q)) return std::nullopt;
        Way out{a, b, from, to, length, 0};
        if (length < width_) out.cost = 2 * width_ - length; // the opening would hardly be seen there
        out.cost *= 1 + 3 * near_corner(from, a) + 3 * near_corner(to, b);
        const Point middle = boxes_[from].centre();
        out.angle = std::atan2(a.y - middle.y, a.x - middle.x);
        return out;
    }

    /// `near`: what the R-tree is asked, nearest first.
    template<class Near>
    std::optional<Way> shortest(std::size_t from, Point a, const Near& near) const {
        for (auto it = tree_.qbegin(near); it != tree_.qend(); ++it)
            if (auto way = way_to(from, a, nearest_on(it->first, a), it->second)) return way;
        return std::nullopt;
    }
    std::optional<Way> shortest_from(std::size_t from, Point a) const {
        const auto other = [from](const RingEdge& e) { return e.second != from; };
        return shortest(from, a, bgi::nearest(to_boost(a), 4) && bgi::satisfies(other));
    }

    /// In the wished direction or against it, to the first edge that is met.
    std::optional<Way> straight_from(std::size_t from, Point a) const {
        std::optional<Way> best;
        for (const double side : {1.0, -1.0}) {
            const double angle = in_radians(wishes_.along);
            const Point u = Point{std::cos(angle), std::sin(angle)} * side;
            const Point far = a + u * (boxes_[0].width() + boxes_[0].height());
            if (!index_.contains(a + u * 1e-3)) continue;
            double nearest = 1e300;
            std::size_t to = 0;
            for (auto it = tree_.qbegin(bgi::intersects(BoostSegment(to_boost(a + u * 1e-3), to_boost(far))));
                 it != tree_.qend(); ++it) {
                const Point s{it->first.first.x(), it->first.first.y()},
                    d{it->first.second.x() - s.x, it->first.second.y() - s.y};
                const double across = cross(u, d);
                if (across == 0) continue;
                const double at = cross(s - a, d) / across;
                if (at > 0 && at < nearest) nearest = at, to = it->second;
            }
            if (nearest == 1e300 || to == from) continue;
            if (auto way = way_to(from, a, a + u * nearest, to); way && (!best || way->cost < best->cost))
                best = way;
        }
        return best;
    }

    /// Places along an island's edge, evenly.
    template<class Each>
    void each_place(std::size_t ring, Each each) const {
        const double around = in_mm(length(Polyline{*rings_[ring], true}));
        const int count = std::clamp(static_cast<int>(around / 1.5), std::max(24, 10 * wished(ring)), 240);
        const double step = around / count;
        double ahead = step / 2;
        const Ring& r = *rings_[ring];
        for (std::size_t i = 0; i < r.size(); ++i) {
            const Point a = r[i], b = r[(i + 1) % r.size()];
            const double way = distance(a, b);
            for (; ahead < way; ahead += step)
                each(a + (b - a) * (ahead / way));
            ahead -= way;
        }
    }

    std::vector<Way> ways_from(std::size_t ring) const {
        std::vector<Way> out;
        const bool along = wishes_.place == BridgeWishes::Place::along;
        each_place(ring, [&](Point p) {
            if (const auto found = along ? straight_from(ring, p) : shortest_from(ring, p))
                out.push_back(*found);
        });
        return out;
    }

    /// The way across that is nearest to a place.
    std::optional<Way> way_at(Point p) const {
        const auto nearest = tree_.qbegin(bgi::nearest(to_boost(p), 1) &&
                                          bgi::satisfies([](const RingEdge& e) { return e.second > 0; }));
        if (nearest == tree_.qend()) return std::nullopt;
        // Where the maker has put it the shortest way is meant, whatever the others do.
        return shortest_from(nearest->second, nearest_on(nearest->first, p));
    }

    int wished(std::size_t ring) const {
        return wishes_.each > 0 ? wishes_.each : bridges_by_size(length(Polyline{*rings_[ring], true}));
    }

    /// As many as the island is to have, less those that others have to it already.
    std::vector<Way> chosen(std::size_t ring) {
        const std::vector<Way>& ways = ways_[ring];
        const int count = wished(ring) - static_cast<int>(held_[ring].size());
        if (ways.empty() || count <= 0) return {};
        return wishes_.place == BridgeWishes::Place::balanced ? balanced(ways, count) : cheapest(ring, count);
    }

    bool apart(const std::vector<Way>& taken, const Way& way, double least) const {
        const auto far = [&](Point p) { return distance(p, way.middle()) >= least; };
        const auto known = held_.find(way.from);
        return std::all_of(taken.begin(), taken.end(), [&](const Way& t) { return far(t.middle()); }) &&
               (known == held_.end() || std::all_of(known->second.begin(), known->second.end(), far));
    }

    std::vector<Way> cheapest(std::size_t ring, int count) const {
        std::vector<Way> ways = ways_[ring], out;
        std::stable_sort(ways.begin(), ways.end(),
                         [](const Way& a, const Way& b) { return a.cost < b.cost; });
        const double around = in_mm(length(Polyline{*rings_[ring], true}));
        for (double share = 2; std::ssize(out) < count && share < 20; share *= 2)
            for (const Way& way : ways) {
                if (std::ssize(out) == count) break;
                if (apart(out, way, std::max(2 * width_, around / (share * std::max(count, 2)))))
                    out.push_back(way);
            }
        return out;
    }

    /// Evenly around the middle, turned so that they cost least.
    std::vector<Way> balanced(const std::vector<Way>& ways, int count) const {
        constexpr int turns = 60;
        const double pitch = 2 * std::numbers::pi / count;
        std::vector<Way> best;
        double least = 1e300;
        for (int t = 0; t < turns; ++t) {
            std::vector<Way> these;
            double cost = 0;
            for (int k = 0; k < count && cost < least; ++k) {
                const double wished = pitch * (k + static_cast<double>(t) / turns);
                const Way* way = nullptr;
                double dear = 1e300;
                for (const Way& w : ways) {
                    double turn = w.angle - wished; // above -3 pi
                    while (turn < -std::numbers::pi)
                        turn += 2 * std::numbers::pi;
                    const double off = turn / (pitch / 2);
                    if (std::abs(off) > 1) continue;
                    if (const double c = w.cost * (1 + 2 * off * off);
                        c < dear && apart(these, w, 2 * width_))
                        dear = c, way = &w;
                }
                if (way) these.push_back(*way);
                cost += way ? dear : 1e6; // no way on that side
            }
            // Where all turns are alike, upright looks best.
            const double off =
                std::abs(std::remainder(pitch * t / turns - std::numbers::pi / 2, pitch)) / pitch;
            cost *= 1 + 0.1 * off;
            if (cost < least && !these.empty()) least = cost, best = std::move(these);
        }
        return best;
    }

    const Region& region_;
    const BridgeWishes& wishes_;
    double width_;
    RegionIndex index_;
    std::vector<const Ring*> rings_;
    std::vector<std::vector<Point>> corners_;
    std::vector<Box> boxes_;
    EdgeTree tree_;
    std::vector<std::vector<Way>> ways_;             ///< from each island
    std::map<std::size_t, std::vector<Point>> held_; ///< middles of the bridges at each ring
    std::vector<Bridge> bridges_;
};

/// Without islands that are narrower than twice that, as drawings and roundings have them: they fall out
/// unseen.
Region without_crumbs(Region region, Length by) {
    std::erase_if(region.rings, [by](const Ring& ring) {
        return signed_area_mm2(ring) < 0 &&
               !is_wider_than(region_of({Polyline{ring, true}}, FillRule::nonzero), by * 2);
    });
    return region;
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
    Opening across(opening, wishes);
    out.bridges = across.bridges(by_hand, out.loose, progress);
    std::vector<Region> strips(out.bridges.size());
    std::optional<NearestEdge> edges;
    if (wishes.sides == BridgeWishes::Sides::stroke) edges.emplace(opening);
    const Crops near(opening);
    const NearestEdge* const follow = edges ? &*edges : nullptr;
    in_parallel(strips.size(), point_count(opening) * 10, [&](std::size_t i) {
        if (!progress.cancelled()) strips[i] = taken_by(out.bridges[i], near, across.index(), follow);
    });
    if (progress.cancelled()) return out;
    Polylines edges_of_strips;
    for (Region& strip : strips)
        for (Ring& ring : strip.rings)
            edges_of_strips.push_back({std::move(ring), true});
    for (Region& piece : pieces(subtracted(drawn, region_of(edges_of_strips, FillRule::nonzero))))
        if (is_wider_than(piece, crumb))
            out.left.rings.insert(out.left.rings.end(), piece.rings.begin(), piece.rings.end());
    out.closed = area(out.left) < area(opening) * least_left;
    return out;
}

} // namespace

int bridges_by_size(Length perimeter) {
    const double around = in_mm(perimeter);
    return std::clamp(static_cast<int>(std::lround(around / 40)), around < 25 ? 1 : 2, 8);
}

namespace {

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
    std::size_t points = 0;
    for (const Region& opening : all) {
        boxes.push_back(bounds(opening));
        points += point_count(opening);
    }
    for (const Region& piece : pieces(openings)) {
        const Box box = bounds(piece);
        for (std::size_t i = 0; i < all.size(); ++i)
            if (boxes[i].contains(box) && contains(all[i], piece.rings.front().front())) {
                drawn[i].rings.insert(drawn[i].rings.end(), piece.rings.begin(), piece.rings.end());
                break;
            }
    }
    in_parallel(all.size(), points * 10, [&](std::size_t i) {
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
    in_parallel(wide.size(), points, [&](std::size_t i) { wide[i] = wide_enough(out.bridges[i], edges); });
    for (std::size_t i = 0; i < wide.size(); ++i)
        if (!wide[i]) {
            Box box;
            box.add(out.bridges[i].a), box.add(out.bridges[i].b);
            out.narrow.push_back(box);
        }
    // The proof: material around and between the openings, counted anew from what is left of them. Their
    // edges the other way round, with a frame around, are those of the material.
    Region material = offset(out.openings, hair, {Corner::mitre, 2});
    for (Ring& ring : material.rings)
        std::reverse(ring.begin(), ring.end());
    const Box frame = bounds(material).grown(1);
    material.rings.push_back(
        {{frame.x0, frame.y0}, {frame.x1, frame.y0}, {frame.x1, frame.y1}, {frame.x0, frame.y1}});
    for (const Region& piece : pieces(material))
        out.pieces_of_sheet += is_wider_than(piece, hair * 2);
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
