// Offsets. Each ring is moved by itself, which costs a sweep over its own edges only; then pieces that have
// grown into each other are united.
#include <algorithm>
#include <cmath>

#include "core/base/parallel.h"
#include "core/geometry/arrangement.h"
#include "core/geometry/clusters.h"
#include "core/geometry/moved_edges.h"
#include "core/geometry/reshape.h"

namespace dotlane {
namespace {

namespace cl = ClipperLib;

/// Rings without their tails: beside them Clipper leaves up to a third of what it should cover.
cl::Paths clean_paths(cl::Paths rings) {
    for (cl::Path& ring : rings)
        ring = without_tails(ring);
    std::erase_if(rings, [](const cl::Path& ring) { return ring.size() < 3; });
    return rings;
}

/// Clipper divides a corner into as many chords as fit, rounded, and the last takes what is left: up to one
/// and a half times the others, which lies 1.5 * 1.5 times as far from the arc.
double arc_tolerance(Length flatness) {
    return std::max(in_mm(flatness) / 2.25, 1e-4) * grid_per_mm;
}

/// Where rings wind positively.
Region positive(const cl::Paths& rings) {
    std::size_t points = 0;
    for (const cl::Path& ring : rings)
        points += ring.size();
    Region out;
    if (points >= arranged_from / 2) // on fewer a sweep is as fast, and this is part of much already
        if (const auto paths =
                outlined({rings, {}}, {}, [](const Windings& winding) { return winding[0] > 0; })) {
            add_from_grid(*paths, Lay::upright, out);
            return out;
        }
    cl::Clipper clipper;
    clipper.AddPaths(rings, cl::ptSubject, true);
    cl::Paths paths;
    clipper.Execute(cl::ctUnion, paths, cl::pftPositive, cl::pftPositive);
    add_from_grid(paths, Lay::upright, out);
    return out;
}

/// `fine`: part of much, where Clipper's own offsets would take too long.
Region offset_once(const Region& region, double by, const OffsetOptions& options, bool fine) {
    const bool round = options.corner == Corner::round;
    const Lay lay = fine ? Lay::upright : lay_for(bounds(region));
    const cl::Paths rings = clean_paths(paths_of(region, lay));
    cl::Paths paths;
    if (fine) {
        const MovedEdges move(by * grid_per_mm, round ? std::nullopt : std::optional(options.mitre_limit),
                              arc_tolerance(options.flatness));
        for (const cl::Path& ring : rings)
            paths.push_back(move(ring));
        return positive(paths);
    }
    cl::ClipperOffset offsetter(options.mitre_limit, arc_tolerance(options.flatness));
    offsetter.AddPaths(rings, round ? cl::jtRound : cl::jtMiter, cl::etClosedPolygon);
    offsetter.Execute(paths, by * grid_per_mm);
    Region out;
    add_from_grid(paths, lay, out);
    return out;
}

/// What a ring of positive area encloses, grown or shrunk.
Region offset_ring(Ring ring, double by, const OffsetOptions& options, bool fine) {
    Region out{{std::move(ring)}};
    if (const Box box = bounds(out); fine && std::min(box.width(), box.height()) < -2 * by) return {};
    if (options.corner == Corner::mitre) return offset_once(out, by, options, fine);
    // Every edge of a fine outline moved far crosses all its neighbours' ways, at a cost that grows with the
    // square of their number. Round offsets add up, so the way is gone in strides that double: after the
    // first, what is finer than it has vanished.
    const auto points = static_cast<double>(out.rings[0].size());
    double left = std::abs(by), stride = left;
    if (points > 500)
        stride = std::min(left, std::max(0.2, (fine ? 12 : 3) * in_mm(perimeter(out)) / points));
    for (; left > 0 && !out.empty(); stride *= 2) {
        const double now = left <= stride * 1.5 ? left : stride;
        out = offset_once(out, by < 0 ? -now : now, options, fine);
        left -= now;
        if (left > 0) // corners rounded again and again would pile up points
            for (Ring& each : out.rings)
                each = simplified({std::move(each), true}, options.flatness).points;
    }
    return out;
}

/// The piece's outer ring and its holes move towards each other or apart: a hole grows by what its
/// surroundings lose.
Region offset_piece(const Region& piece, double by, const OffsetOptions& options, bool fine) {
    Region out = offset_ring(piece.rings[0], by, options, fine);
    std::vector<Region> holes(piece.rings.size() - 1);
    in_parallel(holes.size(), point_count(piece), [&](std::size_t i) {
        const Ring& ring = piece.rings[i + 1];
        holes[i] = offset_ring(Ring(ring.rbegin(), ring.rend()), -by, options, fine);
    });
    if (holes.empty() || out.empty()) return out;
    if (by < 0) return subtracted(out, united(holes));
    for (const Region& hole : holes) // smaller than they were, so clear of each other and of the outer ring
        for (const Ring& ring : hole.rings)
            out.rings.emplace_back(ring.rbegin(), ring.rend());
    return out;
}

/// Every edge moved outwards, corners cut straight across, inner corners led through the corner itself: what
/// winds positively around a point is then the grown area.
Region grown_bevelled(const Region& region, double by) {
    std::vector<Ring> raw;
    for (const Ring& ring : region.rings) {
        Ring moved;
        const std::size_t n = ring.size();
        const auto normal = [&](std::size_t i) {
            const Point v = ring[(i + 1) % n] - ring[i];
            const double l = length(v);
            return l > 0 ? Point{v.y / l, -v.x / l} : Point{};
        };
        for (std::size_t i = 0; i < n; ++i) {
            const Point in = normal((i + n - 1) % n), out = normal(i);
            moved.push_back(ring[i] + in * by);
            if (cross(in, out) < 0) moved.push_back(ring[i]);
            moved.push_back(ring[i] + out * by);
        }
        raw.push_back(std::move(moved));
    }
    return wound(raw);
}

} // namespace

Region offset(const Region& region, Length by, const OffsetOptions& options) {
    if (in_mm(by) == 0) return region;
    if (options.corner == Corner::bevel) {
        if (in_mm(by) > 0) return grown_bevelled(region, in_mm(by));
        // What is lost is what the surroundings gain.
        const Box around = bounds(region);
        if (around.empty()) return {};
        const Region frame{{frame_around(around, 2 * std::abs(in_mm(by)) + 1)}};
        return subtracted(region, grown_bevelled(subtracted(frame, region), -in_mm(by)));
    }
    const std::vector<Region> all = pieces(region);
    std::vector<Region> moved(all.size());
    std::vector<std::size_t> points;
    for (const Region& piece : all)
        points.push_back(point_count(piece));
    const bool fine = point_count(region) >= arranged_from;
    in_parallel(points, [&](std::size_t i) { moved[i] = offset_piece(all[i], in_mm(by), options, fine); });
    if (in_mm(by) > 0) return united(moved);
    Region out; // what has shrunk stays clear of the rest
    for (Region& piece : moved)
        std::move(piece.rings.begin(), piece.rings.end(), std::back_inserter(out.rings));
    return out;
}

Region without_hairs(const Region& region) {
    const Lay lay = lay_for(bounds(region));
    cl::Paths rings = clean_paths(paths_of(region, lay));
    cl::SimplifyPolygons(rings, cl::pftPositive);
    Region out;
    add_from_grid(rings, lay, out);
    return out;
}

Region stroked(const Polylines& lines, Length width, Length flatness) {
    std::vector<ClusterRing> rings;
    for (const Polyline& line : lines)
        if (!line.points.empty()) rings.push_back({&line.points, line.closed});
    Region out;
    // Strokes that may meet go together: Clipper's own offsetter unites as it goes, which keeps crossings
    // between them from being counted twice.
    for (const Cluster& cluster : clusters(rings, in_mm(width) + 2 / grid_per_mm)) {
        cl::ClipperOffset offsetter(2, arc_tolerance(flatness));
        const Lay lay = lay_for(cluster.box);
        for (const std::uint32_t i : cluster.rings)
            offsetter.AddPath(to_grid(*rings[i].points, lay), cl::jtRound,
                              rings[i].closed ? cl::etClosedLine : cl::etOpenRound);
        cl::Paths paths;
        offsetter.Execute(paths, in_mm(width) / 2 * grid_per_mm);
        add_from_grid(paths, lay, out);
    }
    return out;
}

} // namespace dotlane
