#include "core/recipe/hatch_scan.h"

#include <algorithm>
#include <cmath>

namespace dotlane {
namespace {

/// For what is nearly in order: a few moves for each number, or an ordinary sort after all.
void sort_nearly(std::span<double> x) {
    std::size_t moves = 8 * x.size();
    for (std::size_t i = 1; i < x.size(); ++i) {
        const double v = x[i];
        std::size_t j = i;
        for (; j > 0 && x[j - 1] > v; --j)
            x[j] = x[j - 1];
        x[j] = v;
        if (i - j > moves) return std::sort(x.begin(), x.end());
        moves -= i - j;
    }
}

} // namespace

HatchScan::HatchScan(const Region& region, const HatchOptions& options) {
    const Affine level = Affine::rotation(-in_radians(options.angle));
    Box box;
    rings.reserve(region.rings.size());
    for (const Ring& ring : region.rings) {
        Ring turned;
        turned.reserve(ring.size());
        for (const Point p : ring) {
            turned.push_back(level(p));
            box.add(turned.back());
        }
        rings.push_back(std::move(turned));
    }
    if (!box.empty()) choose_rows(box, in_mm(options.spacing), options.phase, level(options.through).y);
}

void HatchScan::choose_rows(const Box& box, double spacing, HatchOptions::Phase phase, double through) {
    rows.spacing = spacing;
    const double extent = box.height();
    if (phase == HatchOptions::Phase::centred) {
        // A hair less than the extent, so that rounding never puts a row on the very edge; a bundle that
        // fits exactly keeps its last line just inside.
        const double room = extent * (1 - 1e-12);
        const auto steps = std::floor(room / spacing);
        rows.first = box.y0 + (extent - steps * spacing) / 2;
        rows.count = static_cast<std::uint32_t>(steps) + 1;
    } else if (phase == HatchOptions::Phase::through) {
        // A line that would run along the very edge lies a hair outside, whichever side rounding puts it.
        constexpr double hair = 1e-7;
        rows.first = through + std::ceil((box.y0 + hair - through) / spacing) * spacing;
        rows.count = rows.first > box.y1 - hair
                         ? 0
                         : static_cast<std::uint32_t>((box.y1 - hair - rows.first) / spacing) + 1;
    } else {
        const double k = std::ceil(box.y0 / spacing - 0.5);
        rows.first = (k + 0.5) * spacing;
        rows.count =
            rows.first > box.y1 ? 0 : static_cast<std::uint32_t>((box.y1 - rows.first) / spacing) + 1;
    }
}

HatchEdge HatchScan::edge(const Ring& ring, std::size_t i) const {
    HatchEdge out{ring[i], ring[i + 1 == ring.size() ? 0 : i + 1]};
    if (out.a.y == out.b.y) return out;
    const double lo = std::min(out.a.y, out.b.y), hi = std::max(out.a.y, out.b.y);
    auto begin = static_cast<std::int64_t>(std::ceil((lo - rows.first) / rows.spacing));
    begin = std::max<std::int64_t>(begin, 0);
    while (begin > 0 && rows.y(static_cast<std::uint32_t>(begin - 1)) >= lo)
        --begin;
    while (begin < rows.count && rows.y(static_cast<std::uint32_t>(begin)) < lo)
        ++begin;
    std::int64_t end = begin;
    // Near the end by division, to the very row by what the rows themselves say.
    if (hi > lo)
        end = std::clamp(static_cast<std::int64_t>((hi - rows.first) / rows.spacing) - 1, begin,
                         std::max<std::int64_t>(begin, rows.count));
    while (end > begin && rows.y(static_cast<std::uint32_t>(end - 1)) >= hi)
        --end;
    while (end < rows.count && rows.y(static_cast<std::uint32_t>(end)) < hi)
        ++end;
    out.slope = (out.b.x - out.a.x) / (out.b.y - out.a.y);
    out.begin = static_cast<std::uint32_t>(begin), out.end = static_cast<std::uint32_t>(end);
    return out;
}

std::size_t HatchScan::expected() const {
    double way = 0;
    for (const Ring& ring : rings)
        for (std::size_t i = 0; i < ring.size(); ++i)
            way += std::abs(ring[i].y - ring[i + 1 == ring.size() ? 0 : i + 1].y);
    return static_cast<std::size_t>(way / rows.spacing) + rings.size();
}

void HatchScan::sweep(const std::function<void(std::uint32_t, std::span<const double>)>& each) const {
    constexpr std::uint32_t band_rows = 64;
    const std::uint32_t bands = (rows.count + band_rows - 1) / band_rows;
    // Edges in the order of the band they begin in.
    std::vector<HatchEdge> found;
    std::vector<std::uint32_t> start(bands + 1, 0);
    for (const Ring& ring : rings)
        for (std::size_t i = 0; i < ring.size(); ++i)
            if (const HatchEdge e = edge(ring, i); e.begin < e.end) {
                found.push_back(e);
                ++start[e.begin / band_rows + 1];
            }
    for (std::uint32_t b = 0; b < bands; ++b)
        start[b + 1] += start[b];
    std::vector<std::uint32_t> order(found.size());
    auto at = start;
    for (std::uint32_t i = 0; i < found.size(); ++i)
        order[at[found[i].begin / band_rows]++] = i;

    std::vector<std::uint32_t> open; // edges that meet the band
    std::vector<std::pair<double, std::uint32_t>> by_x;
    std::vector<double> x;
    std::vector<std::uint32_t> row_start(band_rows + 1);
    for (std::uint32_t b = 0; b < bands; ++b) {
        const std::uint32_t first = b * band_rows, end = std::min(rows.count, first + band_rows);
        open.insert(open.end(), order.begin() + start[b], order.begin() + start[b + 1]);
        if (open.empty()) continue;
        // From left to right, so that each row comes nearly in order.
        const double middle = rows.y(first + band_rows / 2);
        by_x.clear();
        for (const std::uint32_t i : open)
            by_x.emplace_back(found[i].x(middle), i);
        std::sort(by_x.begin(), by_x.end());
        for (std::size_t i = 0; i < open.size(); ++i)
            open[i] = by_x[i].second;
        std::fill(row_start.begin(), row_start.end(), 0);
        for (const std::uint32_t i : open)
            for (std::uint32_t k = std::max(first, found[i].begin); k < std::min(end, found[i].end); ++k)
                ++row_start[k - first + 1];
        for (std::uint32_t k = 0; k < band_rows; ++k)
            row_start[k + 1] += row_start[k];
        x.resize(row_start[band_rows]);
        auto next = row_start;
        for (const std::uint32_t i : open) {
            const HatchEdge& e = found[i];
            for (std::uint32_t k = std::max(first, e.begin); k < std::min(end, e.end); ++k)
                x[next[k - first]++] = e.x(rows.y(k));
        }
        for (std::uint32_t k = first; k < end; ++k) {
            const auto from = x.begin() + row_start[k - first], to = x.begin() + row_start[k - first + 1];
            if (from == to) continue;
            sort_nearly({from, to});
            each(k, {from, to});
        }
        std::erase_if(open, [&](std::uint32_t i) { return found[i].end <= end; });
    }
}

} // namespace dotlane
