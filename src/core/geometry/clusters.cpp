#include "core/geometry/clusters.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <memory>
#include <numeric>
#include <optional>

namespace dotlane {
namespace {

/// Whether the segment meets the box (or might, by a rounding error).
bool meets(Point a, Point b, const Box& box) {
    if (std::max(a.x, b.x) < box.x0 || std::min(a.x, b.x) > box.x1 || std::max(a.y, b.y) < box.y0 ||
        std::min(a.y, b.y) > box.y1)
        return false;
    // All corners on one side of the line through both ends: clear of it.
    const Point d = b - a;
    int left = 0, right = 0;
    for (const Point c : {Point{box.x0, box.y0}, {box.x1, box.y0}, {box.x1, box.y1}, {box.x0, box.y1}}) {
        const double side = cross(d, c - a);
        left += side >= 0, right += side <= 0;
    }
    return left > 0 && right > 0;
}

/// The edges of one ring by height.
class Slabs {
  public:
    Slabs(const ClusterRing& ring, const Box& box)
        : points_(*ring.points)
        , y0_(box.y0) {
        const std::size_t n = points_.size(), edges = ring.closed ? n : n - 1;
        // Few enough that edges from top to bottom do not stand in all of a great number.
        double way = 0;
        for (std::size_t i = 0; i < edges; ++i)
            way += std::abs(points_[(i + 1) % n].y - points_[i].y);
        const double crossed = 1 + way / std::max(box.height(), 1e-9); // edges at one height, on average
        slabs_.resize(std::clamp<std::size_t>(
            static_cast<std::size_t>(4 * static_cast<double>(edges) / crossed), 1, edges / 4 + 1));
        height_ = std::max(box.height() / static_cast<double>(slabs_.size()), 1e-9);
        for (std::uint32_t i = 0; i < edges; ++i) {
            const double a = points_[i].y, b = points_[(i + 1) % n].y;
            for (std::size_t s = at(std::min(a, b)); s <= at(std::max(a, b)); ++s)
                slabs_[s].push_back(i);
        }
    }
    bool near(const Box& box) const {
        for (std::size_t s = at(box.y0); s <= at(box.y1); ++s)
            for (const std::uint32_t i : slabs_[s])
                if (meets(points_[i], points_[(i + 1) % points_.size()], box)) return true;
        return false;
    }
    /// Of a closed ring, around a point that is not on it.
    int winding(Point p) const {
        int turns = 0;
        for (const std::uint32_t i : slabs_[at(p.y)]) {
            const Point a = points_[i], b = points_[(i + 1) % points_.size()];
            if ((a.y <= p.y) == (b.y <= p.y)) continue;
            const double side = cross(b - a, p - a);
            if (a.y <= p.y && side > 0) ++turns;
            if (b.y <= p.y && side < 0) --turns;
        }
        return turns;
    }

  private:
    std::size_t at(double y) const {
        const double k = (y - y0_) / height_;
        return k <= 0 ? 0 : std::min(static_cast<std::size_t>(k), slabs_.size() - 1);
    }
    const std::vector<Point>& points_;
    std::vector<std::vector<std::uint32_t>> slabs_;
    double y0_, height_;
};

class Clustering {
  public:
    Clustering(const std::vector<ClusterRing>& rings, double reach, Known known)
        : rings_(rings)
        , reach_(reach)
        , clean_(known == Known::clean)
        , parent_(rings.size())
        , slabs_(rings.size()) {
        std::iota(parent_.begin(), parent_.end(), 0U);
        for (const ClusterRing& ring : rings)
            boxes_.push_back(bounds(Polyline{*ring.points, ring.closed}));
    }

    std::vector<Cluster> run() {
        pair_up();
        if (clean_)
            while (take_in_between())
                ;
        std::vector<Cluster> out;
        std::vector<std::uint32_t> index(rings_.size(), ~0U);
        for (std::uint32_t i = 0; i < rings_.size(); ++i) {
            std::uint32_t& at = index[find(i)];
            if (at == ~0U) at = static_cast<std::uint32_t>(out.size()), out.emplace_back();
            out[at].rings.push_back(i);
            out[at].box.add(boxes_[i]);
            out[at].mixed |= rings_[i].kind != rings_[out[at].rings.front()].kind;
        }
        // What winds around one ring of a cluster winds around all of it.
        for (Nested& n : nested_) {
            Cluster& cluster = out[index[find(n.inner)]];
            const int kind = rings_[n.outer].kind;
            if (!rings_[n.outer].closed || cluster.rings.front() != n.inner || find(n.inner) == find(n.outer))
                continue;
            if (clean_ && !cluster.mixed && kind == rings_[n.inner].kind) continue;
            cluster.around[kind] += winding(n);
        }
        return out;
    }

  private:
    std::uint32_t find(std::uint32_t i) {
        while (parent_[i] != i)
            i = parent_[i] = parent_[parent_[i]];
        return i;
    }
    const Slabs& slabs(std::uint32_t i) {
        if (!slabs_[i]) slabs_[i] = std::make_unique<Slabs>(rings_[i], boxes_[i]);
        return *slabs_[i];
    }
    static bool within(const Box& inner, const Box& outer) {
        return inner.x0 > outer.x0 && inner.x1 < outer.x1 && inner.y0 > outer.y0 && inner.y1 < outer.y1;
    }

    struct Nested { ///< by their boxes
        std::uint32_t inner, outer;
        std::optional<int> turns; ///< of the outer ring around the inner one, once somebody has asked
    };
    int winding(Nested& n) {
        if (!n.turns) { // around the middle of an edge: corners may touch
            const auto& points = *rings_[n.inner].points;
            n.turns = slabs(n.outer).winding(mix(points[0], points[1 % points.size()], 0.5));
        }
        return *n.turns;
    }

    /// Clean rings of one kind are not compared, so one of them may lie between two rings of a cluster and
    /// wind around one but not the other. It belongs to the cluster too. True when there was such a one.
    bool take_in_between() {
        std::vector<std::uint32_t> size(rings_.size(), 0);
        for (std::uint32_t i = 0; i < rings_.size(); ++i)
            ++size[find(i)];
        std::map<std::pair<std::uint32_t, std::uint32_t>, std::uint32_t> inside; // by cluster and outer ring
        for (Nested& n : nested_)
            if (const std::uint32_t root = find(n.inner); size[root] > 1 && root != find(n.outer))
                inside[{root, n.outer}] += winding(n) != 0;
        bool any = false;
        for (const auto& [where, count] : inside)
            if (count > 0 && count < size[where.first]) {
                parent_[find(where.second)] = find(where.first);
                any = true;
            }
        return any;
    }

    void pair_up() {
        std::vector<std::uint32_t> order(rings_.size()), open;
        std::iota(order.begin(), order.end(), 0U);
        std::sort(order.begin(), order.end(),
                  [&](std::uint32_t a, std::uint32_t b) { return boxes_[a].x0 < boxes_[b].x0; });
        for (const std::uint32_t i : order) {
            const Box mine = boxes_[i].grown(reach_);
            std::erase_if(open, [&](std::uint32_t o) { return boxes_[o].x1 < mine.x0; });
            for (const std::uint32_t o : open)
                if (mine.y0 <= boxes_[o].y1 && boxes_[o].y0 <= mine.y1) pair(i, o);
            open.push_back(i);
        }
    }
    void pair(std::uint32_t a, std::uint32_t b) {
        if (clean_ && rings_[a].kind == rings_[b].kind) {
            if (boxes_[b].contains(boxes_[a])) nested_.push_back({a, b, {}});
            if (boxes_[a].contains(boxes_[b])) nested_.push_back({b, a, {}});
            return;
        }
        if (within(boxes_[b].grown(reach_), boxes_[a])) std::swap(a, b);
        if (!within(boxes_[a].grown(reach_), boxes_[b])) {
            parent_[find(a)] = find(b);
        } else if (find(a) != find(b)) {
            if (slabs(b).near(boxes_[a].grown(reach_)))
                parent_[find(a)] = find(b);
            else
                nested_.push_back({a, b, {}});
        }
    }

    const std::vector<ClusterRing>& rings_;
    double reach_;
    bool clean_;
    std::vector<std::uint32_t> parent_;
    std::vector<std::unique_ptr<Slabs>> slabs_;
    std::vector<Box> boxes_;
    std::vector<Nested> nested_;
};

} // namespace

std::size_t nested_pairs(const std::vector<ClusterRing>& rings, std::size_t most) {
    std::vector<Box> boxes, open;
    for (const ClusterRing& ring : rings)
        boxes.push_back(bounds(Polyline{*ring.points, ring.closed}));
    std::sort(boxes.begin(), boxes.end(), [](const Box& a, const Box& b) { return a.x0 < b.x0; });
    std::size_t count = 0;
    for (const Box& box : boxes) {
        std::erase_if(open, [&](const Box& o) { return o.x1 < box.x0; });
        for (const Box& o : open)
            if (o.contains(box) && ++count > most) return count;
        open.push_back(box);
    }
    return count;
}

std::vector<Cluster> clusters(const std::vector<ClusterRing>& rings, double reach, Known known) {
    return Clustering(rings, reach, known).run();
}

} // namespace dotlane
