#include "core/recipe/bridge_ways.h"

#include <algorithm>
#include <cmath>
#include <iterator>
#include <limits>
#include <numbers>

#include "core/base/parallel.h"
#include "core/base/sets.h"
#include "core/geometry/edge_grid.h"

namespace dotlane {
namespace {

constexpr double anywhere = std::numeric_limits<double>::infinity();

/// A way across the opening.
struct Way {
    Point a, b;
    std::size_t from = 0, to = 0; ///< rings of the opening
    double cost = 0, angle = 0;   ///< angle: of `a` as seen from the island's middle
    Point middle() const { return (a + b) * 0.5; }
};

/// The cheapest way out of a heap from one of its rings, as far as it was looked for.
struct Out {
    double least = 0; ///< nothing costs less that is not `way`
    std::optional<Way> way;
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
    Opening(const Region& region, const RegionIndex& index, const BridgeWishes& wishes)
        : region_(region)
        , wishes_(wishes)
        , width_(in_mm(wishes.width))
        , index_(index) {
        for (const Ring& ring : region.rings) {
            rings_.push_back(&ring);
            corners_.push_back(corners_of(ring));
            boxes_.push_back(bounds(Polyline{ring, true}));
        }
        edges_ = EdgeGrid(edges_of(rings_)), rim_ = EdgeGrid(edges_of({rings_[0]}));
        ways_.resize(rings_.size());
        to_rim_.resize(rings_.size());
        out_.resize(rings_.size());
        held_.resize(rings_.size());
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
    /// shortest way to what is not of it is looked for. The smallest heap goes first, so that no island is
    /// looked at more often than its heap has doubled.
    void tie_heaps(Sets& together, Progress& progress) {
        heap_of_.resize(rings_.size());
        std::vector<std::vector<std::size_t>> heaps(rings_.size()); // by their least ring
        std::vector<char> stuck(rings_.size());                     // nothing leads out of it
        for (std::size_t k = 0; k < rings_.size(); ++k)
            heaps[heap_of_[k] = together.of(index_of(k))].push_back(k);
        while (!progress.cancelled()) {
            std::size_t smallest = 0;
            for (std::size_t k = 1; k < rings_.size(); ++k)
                if (!heaps[k].empty() && !stuck[k] &&
                    (smallest == 0 || heaps[k].size() < heaps[smallest].size()))
                    smallest = k;
            if (smallest == 0) return;
            const auto way = out_of(heaps[smallest]);
            if (!way) {
                stuck[smallest] = 1;
                continue;
            }
            take(*way, together, false);
            const auto [into, from] = std::minmax(smallest, heap_of_[way->to]);
            std::vector<std::size_t> both;
            std::ranges::merge(heaps[into], heaps[from], std::back_inserter(both));
            for (const std::size_t k : heaps[from])
                heap_of_[k] = into;
            heaps[from].clear(), heaps[into] = std::move(both);
            stuck[into] = 0;
        }
    }

    /// The cheapest way out of a heap. Looked for near by first, as nothing costs less than its length, and
    /// only where the boxes of what is not of the heap are so near. Heaps only grow: what was found from a
    /// ring, or not found, holds until the way leads to its own heap.
    std::optional<Way> out_of(const std::vector<std::size_t>& heap) {
        std::optional<Way> best;
        const double widest = boxes_[0].width() + boxes_[0].height();
        for (double reach = usual_reach_; !best || best->cost > reach; reach *= 2) {
            for (const std::size_t of : heap) {
                const double within = best ? std::min(reach, best->cost) : reach;
                Out& out = out_[of];
                const bool known = out.way && !same_heap(out.way->to, of) && out.way->cost <= out.least;
                if (!known) {
                    if (out.least >= within) continue;
                    out = out_from(of, within);
                }
                const std::optional<Way>& way = out.way;
                if (way && distance(way->a, way->b) <= within && (!best || way->cost < best->cost))
                    best = way;
            }
            if (reach > widest) break;
        }
        if (best) usual_reach_ = std::max(3 * width_, best->cost); // the next one will hardly be nearer
        return best;
    }
    bool same_heap(std::size_t a, std::size_t b) const { return heap_of_[a] == heap_of_[b]; }

    /// The cheapest way from a ring to what is not of its heap, no longer than `within`.
    Out out_from(std::size_t of, double within) {
        Out out{within, {}};
        std::vector<Box> near; // what is so near
        for (std::size_t k = 1; k < rings_.size(); ++k)
            if (const Box box = boxes_[k].grown(within); !same_heap(k, of) && box.meets(boxes_[of]))
                near.push_back(box);
        const bool rim = to_rim(of) <= within;
        if (near.empty() && !rim) return out;
        each_place(of, [&](Point p) {
            const auto reaches = [p](const Box& box) { return box.contains(p); };
            if (!rim && std::none_of(near.begin(), near.end(), reaches)) return;
            const double look = out.way ? std::min(within, out.way->cost) : within;
            const auto way = shortest(
                of, p, look, [&](const GridEdge& e) { return !same_heap(e.of, of); }, &out.least);
            if (way && (!out.way || way->cost < out.way->cost)) out.way = way;
        });
        if (out.way) out.least = std::min(out.least, out.way->cost);
        return out;
    }

    /// At least so far is the opening's own edge from a ring.
    double to_rim(std::size_t ring) {
        if (!to_rim_[ring]) {
            const Box& box = boxes_[ring];
            rim_.each_nearest(
                box.centre(), anywhere, [](const GridEdge&) { return true; },
                [&](const GridEdge&, Point, double off) {
                    to_rim_[ring] = off - length(Point{box.width(), box.height()}) / 2;
                    return true;
                });
        }
        return *to_rim_[ring];
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
        if (!index_.contains(p + (q - p) * 0.5) || edges_.crosses(p, q)) return std::nullopt;
        Way out{a, b, from, to, length, 0};
        if (length < width_) out.cost = 2 * width_ - length; // the opening would hardly be seen there
        out.cost *= 1 + 3 * near_corner(from, a) + 3 * near_corner(to, b);
        const Point middle = boxes_[from].centre();
        out.angle = std::atan2(a.y - middle.y, a.x - middle.x);
        return out;
    }

    /// From between two spikes hardly anything is in sight: of the edges that are nearest only so many are
    /// tried. `least` becomes no more than how far off the last of them was.
    template<class Wanted>
    std::optional<Way> shortest(std::size_t from, Point a, double within, const Wanted& wanted,
                                double* least = nullptr) const {
        std::optional<Way> way;
        int tries = 4;
        edges_.each_nearest(a, within, wanted, [&](const GridEdge& e, Point b, double off) {
            way = way_to(from, a, b, e.of);
            if (way || --tries > 0) return way.has_value();
            if (least) *least = std::min(*least, off);
            return true;
        });
        return way;
    }
    std::optional<Way> shortest_from(std::size_t from, Point a) const {
        return shortest(from, a, anywhere, [from](const GridEdge& e) { return e.of != from; });
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
            edges_.each_along(a, far, [&](const GridEdge& e) {
                const Point d = e.b - e.a;
                const double across = cross(u, d);
                if (across == 0) return;
                const double at = cross(e.a - a, d) / across, on = cross(e.a - a, u) / across;
                if (at > 1e-3 && at < nearest && on >= 0 && on <= 1) nearest = at, to = e.of;
            });
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

    /// By their cost, unless they are to stand evenly around.
    std::vector<Way> ways_from(std::size_t ring) const {
        std::vector<Way> out;
        const bool along = wishes_.place == BridgeWishes::Place::along;
        each_place(ring, [&](Point p) {
            if (const auto found = along ? straight_from(ring, p) : shortest_from(ring, p))
                out.push_back(*found);
        });
        if (wishes_.place != BridgeWishes::Place::balanced)
            std::stable_sort(out.begin(), out.end(),
                             [](const Way& a, const Way& b) { return a.cost < b.cost; });
        return out;
    }

    /// The way across that is nearest to a place.
    std::optional<Way> way_at(Point p) const {
        std::optional<Way> way;
        edges_.each_nearest(
            p, anywhere, [](const GridEdge& e) { return e.of > 0; },
            [&](const GridEdge& e, Point on, double) {
                // Where the maker has put it the shortest way is meant, whatever the others do.
                way = shortest_from(e.of, on);
                return true;
            });
        return way;
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
        const std::vector<Point>& known = held_[way.from];
        return std::all_of(taken.begin(), taken.end(), [&](const Way& t) { return far(t.middle()); }) &&
               std::all_of(known.begin(), known.end(), far);
    }

    std::vector<Way> cheapest(std::size_t ring, int count) const {
        std::vector<Way> out;
        const double around = in_mm(length(Polyline{*rings_[ring], true}));
        for (double share = 2; std::ssize(out) < count && share < 20; share *= 2)
            for (const Way& way : ways_[ring]) {
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
    const RegionIndex& index_;
    std::vector<const Ring*> rings_;
    std::vector<std::vector<Point>> corners_;
    std::vector<Box> boxes_;
    double usual_reach_ = 3 * width_;           ///< within which ways out of heaps are looked for first
    std::vector<std::optional<double>> to_rim_; ///< once it was asked for
    std::vector<std::size_t> heap_of_;          ///< each ring's, by the heap's least
    std::vector<Out> out_;                      ///< of each ring
    EdgeGrid edges_, rim_;                      ///< of all rings, and of ring 0
    std::vector<std::vector<Way>> ways_;        ///< from each island
    std::vector<std::vector<Point>> held_;      ///< middles of the bridges at each ring
    std::vector<Bridge> bridges_;
};

} // namespace

int bridges_by_size(Length perimeter) {
    const double around = in_mm(perimeter);
    return std::clamp(static_cast<int>(std::lround(around / 40)), around < 25 ? 1 : 2, 8);
}

std::vector<Bridge> bridges_across(const Region& opening, const RegionIndex& index,
                                   const BridgeWishes& wishes, const std::vector<Point>& by_hand,
                                   std::vector<Box>& loose, Progress& progress) {
    return Opening(opening, index, wishes).bridges(by_hand, loose, progress);
}

} // namespace dotlane
