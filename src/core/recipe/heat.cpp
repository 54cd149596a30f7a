#include "core/recipe/heat.h"

#include <numbers>

#include "core/base/parallel.h"
#include "core/recipe/raster.h"

namespace dotlane {
namespace {

/// No spacing that a maker types is a multiple of it: level lines do not all meet the rows alike.
constexpr double finest = 0.03 * std::numbers::phi, most_squares = 3e7;

/// How many ways from its first (or last) point a closed line is as long as that.
std::size_t ways_within(const Polyline& line, double length, bool from_the_end) {
    const std::size_t n = line.points.size();
    double gone = 0;
    std::size_t ways = 0;
    while (ways < n && gone < length) {
        const std::size_t i = from_the_end ? n - 1 - ways : ways;
        gone += distance(line.points[i], line.points[(i + 1) % n]);
        ++ways;
    }
    return ways;
}

/// Of rows from `first_row` to before `end_row`.
void ink_rows(const Raster& raster, const Polylines& strokes, double tip, long first_row, long end_row,
              std::vector<std::uint8_t>& ink, Progress& progress) {
    const std::size_t offset = raster.at(0L, first_row);
    // Which way of the tool inked a square last: from one way to the next it is still the same going over.
    std::vector<std::uint32_t> last(raster.at(0L, end_row) - offset, 0);
    std::uint32_t way = 1;
    for (const Polyline& line : strokes) {
        if (progress.cancelled()) return;
        const std::size_t n = line.points.size();
        // A closed line comes back to where it began, and goes on there.
        const std::uint32_t first = way + 1;
        const std::size_t begin = line.closed ? ways_within(line, tip, false) : 0,
                          end_at = line.closed ? n - ways_within(line, tip, true) : n;
        for (std::size_t i = 0; i + (line.closed ? 0 : 1) < n || (n == 1 && i == 0); ++i) {
            ++way;
            const std::uint32_t beginning =
                i >= end_at && i >= begin ? first + static_cast<std::uint32_t>(begin) : 0;
            raster.mark_rows(line.points[i], line.points[(i + 1) % n], tip / 2, first_row, end_row,
                             [&](std::size_t from, std::size_t end) {
                                 for (; from < end; ++from) {
                                     std::uint32_t& by = last[from - offset];
                                     const bool goes_on = by + 1 >= way || (by >= first && by < beginning);
                                     if (!goes_on && ink[from] < Heat::twice)
                                         ink[from] = ink[from] == Heat::none ? Heat::once : Heat::twice;
                                     by = way;
                                 }
                             });
        }
        ++way; // the first of the next stroke follows on none
    }
}

} // namespace

Area Heat::of(Ink what) const {
    return square_mm(static_cast<double>(std::count(ink.begin(), ink.end(), what)) * square * square);
}

Heat heat_of(const Region& surface, const Polylines& strokes, Length tip, Progress& progress) {
    Box box;
    if (!surface.empty()) box.add(bounds(surface));
    box.add(bounds(strokes).grown(in_mm(tip) / 2));
    if (box.empty()) return {};
    const Raster raster(box, std::max(finest, std::sqrt(box.width() * box.height() / most_squares)),
                        Raster::Look::staggered);
    Heat out{box, raster.cell(), raster.columns(), raster.rows(), {}};
    out.ink.assign(raster.size(), Heat::none);
    // Rows by bands, on all cores: which of them a way inks does not depend on the others.
    const long rows = raster.rows(), bands = std::min(rows, 16L);
    in_parallel(static_cast<std::size_t>(bands), raster.size(), [&](std::size_t band) {
        const auto k = static_cast<long>(band);
        ink_rows(raster, strokes, in_mm(tip), rows * k / bands, rows * (k + 1) / bands, out.ink, progress);
    });
    if (progress.cancelled()) return {};
    // Spans that lie in the surface, and what is between them.
    std::size_t beyond = 0;
    const auto over = [&](std::size_t end) {
        for (; beyond < end; ++beyond)
            if (out.ink[beyond] != Heat::none) out.ink[beyond] = Heat::over;
    };
    raster.fill(surface, [&](std::size_t from, std::size_t end) {
        over(from);
        for (std::size_t at = from; at < end; ++at)
            if (out.ink[at] == Heat::none) out.ink[at] = Heat::bare;
        beyond = std::max(beyond, end);
    });
    over(out.ink.size());
    return out;
}

} // namespace dotlane
