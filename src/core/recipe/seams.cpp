#include "core/recipe/seams.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/base/parallel.h"
#include "core/geometry/region_index.h"

namespace dotlane {
namespace {

/// A place on a line, the direction it has there, and which line of which stroke it is.
struct Sample {
    Point at, along;
    std::uint32_t line, stroke;
};

constexpr double most_samples = 1e6;
constexpr double alongside = 0.8; ///< cosine of the angle between lines that lie side by side

/// A place each `step` of a line, the first half a pitch behind its beginning, so that no line but crumbs is
/// passed over.
std::vector<Sample> samples_of(const Polylines& strokes, double pitch, double step) {
    std::vector<Sample> out;
    const double bend = std::cos(std::numbers::pi / 3);
    std::uint32_t line = 0;
    for (std::uint32_t s = 0; s < strokes.size(); ++s, ++line) {
        const auto& points = strokes[s].points;
        const std::size_t n = points.size();
        Point begun{0, 0};
        double gone = step - pitch / 2; // a short line has one sample, in its middle
        for (std::size_t i = 0; i + (strokes[s].closed ? 0 : 1) < n; ++i) {
            const Point a = points[i], b = points[(i + 1) % n];
            const double way = distance(a, b);
            if (way < 1e-9) continue;
            const Point along = (b - a) * (1 / way);
            if (begun == Point{0, 0}) begun = along;
            if (dot(begun, along) < bend) ++line, begun = along, gone = std::max(gone, step - way / 2);
            double at = step - gone;
            for (; at < way; at += step)
                if (at >= 0) out.push_back({a + along * at, along, line, s});
            gone = step - (at - way);
        }
    }
    return out;
}

/// Samples by the squares of a grid: those that hold any, one after the other, and where each row's begin.
class Squares {
  public:
    Squares(const std::vector<Sample>& all, const Box& box, double side, long columns, long rows)
        : corner_{box.x0, box.y0}
        , side_(side)
        , columns_(columns)
        , rows_(rows)
        , row_(static_cast<std::size_t>(rows) + 1, 0) {
        for (const Sample& s : all)
            ++row_[static_cast<std::size_t>(row(s.at.y)) + 1];
        for (std::size_t r = 0; r + 1 < row_.size(); ++r)
            row_[r + 1] += row_[r];
        held_.resize(all.size());
        auto at = row_;
        for (std::uint32_t i = 0; i < all.size(); ++i)
            held_[at[static_cast<std::size_t>(row(all[i].at.y))]++] = {
                static_cast<std::uint32_t>(column(all[i].at.x)), i, all[i].stroke, slope_of(all[i].along)};
        in_parallel(static_cast<std::size_t>(rows), all.size(), [&](std::size_t r) {
            std::sort(held_.begin() + static_cast<std::ptrdiff_t>(row_[r]),
                      held_.begin() + static_cast<std::ptrdiff_t>(row_[r + 1]),
                      [](const Held& a, const Held& b) {
                          return a.column != b.column ? a.column < b.column : a.sample < b.sample;
                      });
        });
    }
    /// each(sample) of the nine squares about a place, but those of the same stroke and those that run
    /// across.
    template<class Each>
    void around(Point p, const Sample& s, Each each) const {
        constexpr float across = 0.66F; // a little more than the angle whose cosine is `alongside`
        const float slope = slope_of(s.along);
        const long c = column(p.x), r = row(p.y);
        const long c0 = std::max(0L, c - 1), c1 = std::min(columns_ - 1, c + 1);
        if (c0 > c1) return;
        for (long j = std::max(0L, r - 1); j <= std::min(rows_ - 1, r + 1); ++j) {
            const auto begin = held_.begin() + static_cast<std::ptrdiff_t>(row_[static_cast<std::size_t>(j)]),
                       end =
                           held_.begin() + static_cast<std::ptrdiff_t>(row_[static_cast<std::size_t>(j) + 1]);
            for (auto it =
                     std::lower_bound(begin, end, static_cast<std::uint32_t>(c0),
                                      [](const Held&h, std::uint32_t column) { return h.column < column; });
                 it != end && it->column <= static_cast<std::uint32_t>(c1); ++it)
                if (const float turn = std::abs(it->slope - slope);
                    it->stroke != s.stroke && std::min(turn, std::numbers::pi_v<float> - turn) < across)
                    each(it->sample);
        }
    }

  private:
    struct Held {
        std::uint32_t column, sample, stroke;
        float slope; ///< 0 to pi: lines have no ends here
    };
    static float slope_of(Point along) {
        const double angle = std::atan2(along.y, along.x);
        return static_cast<float>(angle < 0 ? angle + std::numbers::pi : angle);
    }
    long column(double x) const { return static_cast<long>(std::floor((x - corner_.x) / side_)); }
    long row(double y) const { return static_cast<long>(std::floor((y - corner_.y) / side_)); }

    Point corner_;
    double side_;
    long columns_, rows_;
    std::vector<std::size_t> row_;
    std::vector<Held> held_;
};

/// Upper tail of the standard normal distribution.
double beyond(double x) {
    return std::erfc(x / std::numbers::sqrt2) / 2;
}

} // namespace

std::size_t seams(const Polylines& strokes, Length spacing) {
    if (strokes.size() < 2) return 0;
    const double pitch = in_mm(spacing);
    // A sample for each spacing; of very many lines fewer, which stand for longer stretches.
    const double step = std::max(pitch, in_mm(length(strokes)) / most_samples);
    const std::vector<Sample> all = samples_of(strokes, pitch, step);
    if (all.empty()) return 0;
    Box box;
    for (const Sample& s : all)
        box.add(s.at);
    const long columns = static_cast<long>(box.width() / step) + 1,
               rows = static_cast<long>(box.height() / step) + 1;
    const Squares squares(all, box, step, columns, rows);
    const double near = 0.75 * pitch;
    // Each share finds pairs of lines for itself.
    constexpr std::size_t share = 4096; // samples
    const std::size_t shares = (all.size() + share - 1) / share;
    std::vector<std::vector<std::uint64_t>> found(shares);
    in_parallel(shares, all.size(), [&](std::size_t k) {
        std::vector<std::uint64_t>& pairs = found[k];
        const auto beside = [&](const Sample& s, Point side) {
            squares.around(side, s, [&](std::uint32_t i) {
                const Sample& o = all[i];
                if (std::abs(dot(o.along, s.along)) < alongside) return;
                const Point at = step == pitch ? o.at
                                               : o.at + o.along * std::clamp(dot(side - o.at, o.along),
                                                                             -step / 2, step / 2);
                const double across = std::abs(cross(s.along, at - s.at));
                if (distance(at, side) > near || across < 0.5 * pitch || across > 1.5 * pitch) return;
                const auto pair =
                    (static_cast<std::uint64_t>(std::min(s.line, o.line)) << 32) | std::max(s.line, o.line);
                if (pairs.empty() || pairs.back() != pair) pairs.push_back(pair);
            });
        };
        for (std::size_t i = k * share; i < std::min(all.size(), (k + 1) * share); ++i) {
            const Point across = Point{-all[i].along.y, all[i].along.x} * pitch;
            beside(all[i], all[i].at + across);
            beside(all[i], all[i].at - across);
        }
        std::sort(pairs.begin(), pairs.end());
        pairs.erase(std::unique(pairs.begin(), pairs.end()), pairs.end());
    });
    std::vector<std::uint64_t> pairs;
    for (const auto& some : found)
        pairs.insert(pairs.end(), some.begin(), some.end());
    std::sort(pairs.begin(), pairs.end());
    return static_cast<std::size_t>(std::unique(pairs.begin(), pairs.end()) - pairs.begin());
}

Length widest_gap(const Polylines& strokes, const Region& inner) {
    double out = 0;
    if (strokes.size() < 2) return {};
    const RegionIndex index(inner);
    for (std::size_t i = 0; i + 1 < strokes.size(); ++i) {
        const Polyline& line = strokes[i];
        const Point a = line.closed ? line.points.front() : line.points.back(),
                    b = strokes[i + 1].points.front();
        const double way = distance(a, b);
        if (way <= out || !index.contains(mix(a, b, 0.5)) || index.crosses(mix(a, b, 1e-6), mix(b, a, 1e-6)))
            continue;
        out = way;
    }
    return mm(out);
}

double visible_gaps(std::size_t seams, Length spacing, Length tip, Length scatter) {
    if (in_mm(scatter) <= 0 || spacing > tip) return 0;
    return static_cast<double>(seams) *
           beyond(in_mm(tip + seen_gap - spacing) / (in_mm(scatter) * std::numbers::sqrt2));
}

Length spacing_without_gaps(std::size_t seams, Length spacing, Length tip, Length scatter, double most) {
    Length out = std::min(spacing, tip);
    for (; out > mm(0.05); out -= mm(0.005)) {
        // Closer lines are more lines.
        const auto more = static_cast<std::size_t>(std::ceil(static_cast<double>(seams) * (spacing / out)));
        if (visible_gaps(more, out, tip, scatter) < most) return out;
    }
    return mm(0.05);
}

} // namespace dotlane
