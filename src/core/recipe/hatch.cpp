#include "core/recipe/hatch.h"

#include <algorithm>
#include <cmath>

#include "core/recipe/hatch_scan.h"
#include "core/recipe/line_joins.h"
#include "core/recipe/one_stroke.h"

namespace dotlane {
namespace {

/// An end in the order of its row: its x beside its index, so that rows are sorted and read without looking
/// up ends that lie far apart in memory.
struct InRow {
    double x;
    std::uint32_t end;
};

/// Ends in ring order, lines from row to row.
LineNet net_of(const HatchScan& scan) {
    LineNet net;
    net.ends.reserve(scan.expected());
    const HatchRows& rows = scan.rows;
    std::vector<std::uint32_t> row_start(rows.count + 1, 0);
    for (const Ring& ring : scan.rings) {
        for (std::uint32_t i = 0; i < ring.size(); ++i) {
            const HatchEdge e = scan.edge(ring, i);
            const bool down = e.b.y > e.a.y;
            for (std::uint32_t n = 0; n < e.end - e.begin; ++n) {
                const std::uint32_t row = down ? e.begin + n : e.end - 1 - n;
                const double y = rows.y(row);
                net.ends.push_back({{e.x(y), y}, i, row});
                ++row_start[row + 1];
            }
        }
        net.ring_start.push_back(static_cast<std::uint32_t>(net.ends.size()));
    }
    for (std::uint32_t k = 0; k < rows.count; ++k)
        row_start[k + 1] += row_start[k];
    std::vector<InRow> by_row(net.ends.size());
    auto at = row_start;
    for (std::uint32_t i = 0; i < net.ends.size(); ++i)
        by_row[at[net.ends[i].row]++] = {net.ends[i].at.x, i};
    net.mate.resize(net.ends.size());
    net.order.reserve(net.ends.size() / 2);
    for (std::uint32_t k = 0; k < rows.count; ++k) {
        std::sort(by_row.begin() + row_start[k], by_row.begin() + row_start[k + 1],
                  [](const InRow& a, const InRow& b) { return a.x < b.x; });
        for (std::uint32_t j = row_start[k]; j + 1 < row_start[k + 1]; j += 2) {
            const std::uint32_t a = by_row[j].end, b = by_row[j + 1].end;
            net.mate[a] = b, net.mate[b] = a;
            net.order.push_back(a);
        }
    }
    net.rings = scan.rings;
    return net;
}

} // namespace

HatchResult hatch(const Region& region, const HatchOptions& options, Progress& progress) {
    HatchResult out;
    DOTLANE_CHECK(in_mm(options.spacing) > 0);
    const HatchScan scan(region, options);
    if (scan.rows.count == 0) return out;
    const Affine back = Affine::rotation(in_radians(options.angle));
    double filled = 0;
    if (options.ends != FillEnds::apart) {
        const LineNet net = net_of(scan);
        if (progress.cancelled()) return out;
        std::uint32_t row = ~0U;
        for (const std::uint32_t end : net.order) {
            ++out.pieces;
            filled += net.ends[net.mate[end]].at.x - net.ends[end].at.x;
            if (net.ends[end].row != row) ++out.rows, row = net.ends[end].row;
        }
        out.lines = options.ends == FillEnds::joined ? joined(net, options.reach) : one_stroke(net, progress);
        for (Polyline& line : out.lines)
            for (Point& p : line.points)
                p = back(p);
    } else {
        out.lines.reserve(scan.expected() / 2);
        scan.sweep([&](std::uint32_t k, std::span<const double> x) {
            ++out.rows;
            const double y = scan.rows.y(k);
            const bool backwards = options.alternate && k % 2 == 1;
            const std::size_t pieces = x.size() / 2;
            out.pieces += pieces;
            for (std::size_t n = 0; n < pieces; ++n) {
                const std::size_t j = 2 * (backwards ? pieces - 1 - n : n);
                filled += x[j + 1] - x[j];
                Point a{x[j], y}, b{x[j + 1], y};
                if (backwards) std::swap(a, b);
                out.lines.push_back({{back(a), back(b)}, false});
            }
        });
    }
    out.filled = mm(filled);
    return out;
}

void add_rows(NetMaker& to, const Region& region, const HatchOptions& options, std::uint32_t& row) {
    const HatchScan scan(region, options);
    const Affine back = Affine::rotation(in_radians(options.angle));
    const HatchRows& rows = scan.rows;
    struct Met {
        double x;
        std::uint32_t row, ring, edge;
    };
    std::vector<Met> met;
    met.reserve(scan.expected());
    for (std::uint32_t r = 0; r < scan.rings.size(); ++r)
        for (std::uint32_t i = 0; i < scan.rings[r].size(); ++i) {
            const HatchEdge e = scan.edge(scan.rings[r], i);
            for (std::uint32_t k = e.begin; k < e.end; ++k)
                met.push_back({e.x(rows.y(k)), k, r, i});
        }
    std::sort(met.begin(), met.end(),
              [](const Met& a, const Met& b) { return a.row != b.row ? a.row < b.row : a.x < b.x; });
    const double least = in_mm(options.least);
    for (std::size_t j = 0; j + 1 < met.size(); j += 2) {
        const Met &a = met[j], &b = met[j + 1];
        if (b.x - a.x < least && a.ring == b.ring) continue; // ends on each ring stay even
        const double y = rows.y(a.row);
        to.add({back({a.x, y}), a.ring, a.edge}, {back({b.x, y}), b.ring, b.edge}, row + a.row);
    }
    row += rows.count;
}

} // namespace dotlane
