#include "core/lettering/snug.h"

#include <limits>

namespace dotlane {
namespace {

constexpr double none = std::numeric_limits<double>::infinity();

/// At each level the rightmost (side 1) or leftmost (side -1) place of the area; -inf or +inf where there is
/// none.
std::vector<double> profile(const Region& region, double top, double step, std::size_t levels, double side) {
    std::vector<double> out(levels, -side * none);
    const auto take = [&](std::size_t level, double x) {
        out[level] = side > 0 ? std::max(out[level], x) : std::min(out[level], x);
    };
    for (const Ring& ring : region.rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            Point a = ring[i], b = ring[(i + 1) % ring.size()];
            if (a.y > b.y) std::swap(a, b);
            const auto first = static_cast<std::ptrdiff_t>(std::ceil((a.y - top) / step)),
                       last = static_cast<std::ptrdiff_t>(std::floor((b.y - top) / step));
            for (auto level = std::max<std::ptrdiff_t>(first, 0);
                 level <= last && level < static_cast<std::ptrdiff_t>(levels); ++level) {
                const double y = top + static_cast<double>(level) * step;
                const double t = b.y > a.y ? (y - a.y) / (b.y - a.y) : 0;
                take(static_cast<std::size_t>(level), a.x + (b.x - a.x) * t);
                if (b.y == a.y) take(static_cast<std::size_t>(level), b.x);
            }
        }
    return out;
}

Region counters_of(const Region& letter) {
    return subtracted(without_holes(letter), letter);
}

/// Whether one letter lies in a counter of the other by more than a hair.
bool enters(const Region& counters, const Region& letter) {
    return in_square_mm(area(intersected(counters, letter))) > 1e-3;
}

} // namespace

SnugFit snug_fit(const Region& left, const Region& right, Length overlap, Length step) {
    const Box a = bounds(left), b = bounds(right);
    const double top = std::max(a.y0, b.y0), bottom = std::min(a.y1, b.y1);
    if (left.empty() || right.empty() || bottom <= top) return {};
    const auto levels = static_cast<std::size_t>((bottom - top) / in_mm(step)) + 1;
    const auto edge = profile(left, top, in_mm(step), levels, 1),
               against = profile(right, top, in_mm(step), levels, -1);
    double gap = none;
    for (std::size_t i = 0; i < levels; ++i)
        if (edge[i] > -none && against[i] < none) gap = std::min(gap, against[i] - edge[i]);
    if (gap == none) return {}; // no level at which both have something
    const double shift = gap + in_mm(overlap);
    if (shift <= 0) return {true, {}};
    const Region moved = transformed(right, Affine::translation({-shift, 0}));
    if (enters(counters_of(left), moved) || enters(counters_of(moved), left)) return {};
    return {true, mm(shift)};
}

} // namespace dotlane
