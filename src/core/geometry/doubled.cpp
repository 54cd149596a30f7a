#include "core/geometry/doubled.h"

#include <algorithm>
#include <unordered_map>

namespace dotlane {
namespace {

/// Whether every point of a lies on b. Neighbours on a lie near each other on b: the search goes on, forwards
/// and backwards, from where the last point was found.
bool lies_on(const Polyline& a, const Polyline& b, double reach) {
    const std::size_t n = b.points.size(), edges = n == 1 ? 1 : b.closed ? n : n - 1;
    std::size_t last = 0;
    return std::all_of(a.points.begin(), a.points.end(), [&](Point p) {
        for (std::size_t k = 0; k <= edges / 2; ++k)
            for (const std::size_t i : {(last + k) % edges, (last + edges - k) % edges})
                if (distance_to_segment(p, b.points[i], b.points[(i + 1) % n]) <= reach)
                    return last = i, true;
        return false;
    });
}

bool alike(const Box& a, const Box& b, double reach) {
    return std::abs(a.x0 - b.x0) <= reach && std::abs(a.y0 - b.y0) <= reach &&
           std::abs(a.x1 - b.x1) <= reach && std::abs(a.y1 - b.y1) <= reach;
}

} // namespace

std::vector<std::ptrdiff_t> doubles_of(const std::vector<const Polyline*>& lines, Length reach) {
    const double r = in_mm(reach), cell = 8 * r;
    // By the middles of their boxes, which alike lines nearly share; only first ones are kept to compare
    // with, so that a thousand copies cost a thousand comparisons.
    std::unordered_map<std::uint64_t, std::vector<std::size_t>> cells;
    std::vector<Box> boxes(lines.size());
    std::vector<std::ptrdiff_t> out(lines.size(), -1);
    const auto key = [](long long x, long long y) {
        return static_cast<std::uint64_t>(x) * 0x9e3779b97f4a7c15ULL ^ static_cast<std::uint64_t>(y);
    };
    for (std::size_t i = 0; i < lines.size(); ++i) {
        boxes[i] = bounds(*lines[i]);
        if (boxes[i].empty()) continue;
        const Point middle = boxes[i].centre();
        const auto cx = std::llround(middle.x / cell), cy = std::llround(middle.y / cell);
        for (long long x = cx - 1; x <= cx + 1 && out[i] < 0; ++x)
            for (long long y = cy - 1; y <= cy + 1 && out[i] < 0; ++y) {
                const auto it = cells.find(key(x, y));
                if (it == cells.end()) continue;
                for (const std::size_t k : it->second)
                    if (lines[k]->closed == lines[i]->closed && alike(boxes[i], boxes[k], r) &&
                        lies_on(*lines[i], *lines[k], r) && lies_on(*lines[k], *lines[i], r)) {
                        out[i] = static_cast<std::ptrdiff_t>(k);
                        break;
                    }
            }
        if (out[i] < 0) cells[key(cx, cy)].push_back(i);
    }
    return out;
}

} // namespace dotlane
