#include "core/recipe/strewn.h"

#include <algorithm>
#include <cmath>
#include <random>

#include "core/geometry/region_index.h"

namespace dotlane {
namespace {

class Thrower {
  public:
    Thrower(const Region& region, const RegionIndex& index, double least, std::uint32_t seed)
        : index_(index)
        , box_(bounds(region))
        , least_(least)
        , cell_(least / std::sqrt(2.0))
        , random_(seed) {
        columns_ = static_cast<long>(box_.width() / cell_) + 1,
        rows_ = static_cast<long>(box_.height() / cell_) + 1;
        held_.assign(static_cast<std::size_t>(columns_ * rows_), none);
    }

    std::vector<Point> thrown(const Progress& progress) {
        std::vector<Square> open;
        for (long r = 0; r < rows_; ++r)
            for (long c = 0; c < columns_; ++c)
                open.push_back(
                    {{box_.x0 + static_cast<double>(c) * cell_, box_.y0 + static_cast<double>(r) * cell_}});
        // Beyond this depth squares are far smaller than what a pen can tell apart.
        double side = cell_;
        for (int depth = 0; depth < 9 && !open.empty(); ++depth, side /= 2) {
            const std::size_t throws = open.size() * 2;
            for (std::size_t k = 0; k < throws && !open.empty(); ++k) {
                if (k % 4096 == 0 && progress.cancelled()) return {};
                const std::size_t i = random_() % open.size();
                const Point p = open[i].corner + Point{share() * side, share() * side};
                if (!fits(p)) continue;
                held_[cell(p)] = static_cast<std::uint32_t>(points_.size());
                points_.push_back(p);
                open[i] = open.back();
                open.pop_back();
            }
            std::vector<Square> next;
            for (const Square& s : open)
                for (const Point d :
                     {Point{0, 0}, Point{side / 2, 0}, Point{0, side / 2}, Point{side / 2, side / 2}})
                    if (!covered(s.corner + d, side / 2)) next.push_back({s.corner + d});
            open = std::move(next);
        }
        return std::move(points_);
    }

  private:
    static constexpr std::uint32_t none = ~0U;
    struct Square {
        Point corner;
    };
    double share() { return static_cast<double>(random_()) / 4294967296.0; }
    std::size_t cell(Point p) const {
        const long c = std::clamp(static_cast<long>((p.x - box_.x0) / cell_), 0L, columns_ - 1),
                   r = std::clamp(static_cast<long>((p.y - box_.y0) / cell_), 0L, rows_ - 1);
        return static_cast<std::size_t>(r * columns_ + c);
    }
    template<class Each>
    bool any_near(Point p, Each each) const {
        const long c = static_cast<long>((p.x - box_.x0) / cell_),
                   r = static_cast<long>((p.y - box_.y0) / cell_);
        for (long j = std::max(0L, r - 2); j <= std::min(rows_ - 1, r + 2); ++j)
            for (long i = std::max(0L, c - 2); i <= std::min(columns_ - 1, c + 2); ++i)
                if (const std::uint32_t k = held_[static_cast<std::size_t>(j * columns_ + i)];
                    k != none && each(points_[k]))
                    return true;
        return false;
    }
    bool fits(Point p) const {
        if (any_near(p, [&](Point q) { return distance(p, q) < least_; })) return false;
        return index_.contains(p);
    }
    /// By one point, or with no part of the region in it.
    bool covered(Point corner, double side) const {
        const Point middle = corner + Point{side / 2, side / 2};
        return any_near(
                   middle,
                   [&](Point q) {
                       const double x = std::max(std::abs(q.x - corner.x), std::abs(q.x - corner.x - side)),
                                    y = std::max(std::abs(q.y - corner.y), std::abs(q.y - corner.y - side));
                       return x * x + y * y < least_ * least_;
                   }) ||
               outside(corner, side);
    }
    bool outside(Point a, double side) const {
        const Point b = a + Point{side, 0}, c = a + Point{side, side}, d = a + Point{0, side};
        for (const Point p : {a, b, c, d})
            if (index_.contains(p)) return false;
        return !index_.crosses(a, b) && !index_.crosses(b, c) && !index_.crosses(c, d) &&
               !index_.crosses(d, a);
    }

    const RegionIndex& index_;
    Box box_;
    double least_, cell_;
    long columns_ = 1, rows_ = 1;
    std::vector<std::uint32_t> held_;
    std::vector<Point> points_;
    std::mt19937 random_;
};

std::uint64_t hilbert(std::uint32_t x, std::uint32_t y) {
    std::uint64_t out = 0;
    for (std::uint32_t s = 1U << 15; s > 0; s /= 2) {
        const bool right = x & s, low = y & s;
        out += static_cast<std::uint64_t>(s) * s * ((3U * right) ^ static_cast<unsigned>(low));
        if (low) continue;
        if (right) x = (s - 1) - (x & (s - 1)), y = (s - 1) - (y & (s - 1));
        std::swap(x, y);
    }
    return out;
}

} // namespace

void short_way(std::vector<Point>& points, const Box& box) {
    const double side = std::max({box.width(), box.height(), 1e-9});
    std::vector<std::pair<std::uint64_t, Point>> keyed;
    for (const Point p : points)
        keyed.emplace_back(hilbert(static_cast<std::uint32_t>((p.x - box.x0) / side * 65535),
                                   static_cast<std::uint32_t>((p.y - box.y0) / side * 65535)),
                           p);
    std::stable_sort(keyed.begin(), keyed.end(),
                     [](const auto& a, const auto& b) { return a.first < b.first; });
    for (std::size_t i = 0; i < points.size(); ++i)
        points[i] = keyed[i].second;
}

std::vector<Point> strewn(const Region& region, std::size_t count, std::uint32_t seed, Progress& progress) {
    if (region.empty() || count == 0) return {};
    const double hexagonal =
        std::sqrt(2 * in_square_mm(area(region)) / (std::sqrt(3.0) * static_cast<double>(count)));
    const RegionIndex index(region);
    std::vector<Point> out;
    // At the edge there is room for more, so the first throw nearly always has enough.
    for (const double share : {0.77, 0.755, 0.74, 0.72, 0.702}) {
        out = Thrower(region, index, share * hexagonal, seed).thrown(progress);
        if (out.size() >= count || progress.cancelled()) break;
    }
    std::mt19937 random(seed);
    while (out.size() > count) {
        const std::size_t i = random() % out.size();
        out[i] = out.back();
        out.pop_back();
    }
    short_way(out, bounds(region));
    return out;
}

} // namespace dotlane
