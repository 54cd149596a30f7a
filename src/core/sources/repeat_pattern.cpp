#include <numbers>

#include "core/base/finding_kind.h"
#include "core/base/text.h"
#include "core/geometry/reshape.h"
#include "core/sources/parts.h"

namespace dotlane {
namespace {

constexpr FindingKind<Mm<2>> narrow_web{
    "pattern.web",
    Grade::caution,
    to_say("Only %1 mm are left between two motifs: film and card tear below about 2 mm."),
    {"web_mm"}};

using Motif = RepeatPattern::Motif;
constexpr int most_motifs = 20000; ///< more cannot be weeded, and would only make the window slow

std::vector<Point> star(int points) {
    std::vector<Point> out;
    for (int i = 0; i < 2 * points; ++i) {
        const double a = std::numbers::pi * (i - 0.5 * points) / points, r = i % 2 == 0 ? 1 : 0.42;
        out.push_back({r * std::cos(a), r * std::sin(a)});
    }
    return out;
}

/// Any size; fitted below.
Contour drawn(const RepeatPattern& pattern) {
    switch (pattern.motif) {
    case Motif::star:
        return sources::polygon(star(pattern.points));
    case Motif::disc:
        return ellipse({0, 0}, 1, 1);
    case Motif::square:
        return rectangle({-1, -1, 1, 1});
    case Motif::diamond:
        return sources::polygon({{0, -1}, {0.7, 0}, {0, 1}, {-0.7, 0}});
    case Motif::hexagon: {
        std::vector<Point> corners;
        for (int i = 0; i < 6; ++i)
            corners.push_back({std::cos(std::numbers::pi * i / 3), std::sin(std::numbers::pi * i / 3)});
        return sources::polygon(corners);
    }
    case Motif::heart: {
        Contour c{{0, 1}, {}, true};
        c.cubic_to({-0.5, 0.6}, {-1, 0.25}, {-1, -0.3});
        c.arc_to(0.5, 0.5, 0, false, true, {0, -0.3});
        c.arc_to(0.5, 0.5, 0, false, true, {1, -0.3});
        c.cubic_to({1, 0.25}, {0.5, 0.6}, {0, 1});
        return c;
    }
    case Motif::drop: {
        Contour c{{0, -1}, {}, true};
        c.cubic_to({0.15, -0.6}, {0.6, 0}, {0.6, 0.4});
        c.arc_to(0.6, 0.6, 0, false, true, {-0.6, 0.4});
        c.cubic_to({-0.6, 0}, {-0.15, -0.6}, {0, -1});
        return c;
    }
    case Motif::part:
        break;
    }
    return {};
}

/// Of this size across, its box's middle at the origin.
Shape motif_of(const RepeatPattern& pattern, const Borrowed* part, double size) {
    Shape c;
    if (pattern.motif == Motif::part)
        for (const Region& area : part->areas)
            for (Contour& ring : sources::shape_of(area).contours)
                c.contours.push_back(std::move(ring));
    else
        c.contours.push_back(drawn(pattern));
    const Box box = bounds(c);
    return transformed(c, Affine::scaling(size / box.width(), size / box.width()) *
                              Affine::translation({-box.centre().x, -box.centre().y}));
}

double distance_between(const Polylines& a, const Polylines& b) {
    double least = 1e300;
    const auto from_one = [&](const Polyline& points, const Polyline& edges) {
        for (const Point p : points.points)
            for (std::size_t i = 0, n = edges.points.size(); i < n; ++i)
                least = std::min(least, distance_to_segment(p, edges.points[i], edges.points[(i + 1) % n]));
    };
    for (const Polyline& x : a)
        for (const Polyline& y : b)
            from_one(x, y), from_one(y, x);
    return least;
}

struct Grid {
    PatternCount count;
    double pitch = 0, row_pitch = 0;
    std::vector<Point> middles;
    Shape motif;
};

Result<Grid> grid_of(const RepeatPattern& p, const Borrowed* part) {
    if (p.motif == Motif::part)
        if (const auto ok = sources::needs(part, to_say("outline")); !ok)
            return tl::make_unexpected(ok.error());
    const double w = in_mm(p.width) - 2 * in_mm(p.margin), h = in_mm(p.height) - 2 * in_mm(p.margin),
                 g = in_mm(p.gap);
    if (w <= 0 || h <= 0) return fail("source.pattern", say("The margins leave nothing of the sheet."));
    Grid grid;
    const double size = p.wanted > 0 ? (w + g) / p.wanted - g : in_mm(p.size);
    if (size < 1)
        return fail("source.pattern",
                    say("%1 across at this gap would be %2 mm wide: at least 1 mm is needed.", p.wanted,
                        number(std::max(size, 0.0), 2)));
    grid.motif = motif_of(p, part, size);
    const double tall = bounds(grid.motif).height();
    grid.pitch = size + g;
    grid.row_pitch = p.rows == RepeatPattern::Rows::hexagonal ? grid.pitch * std::sqrt(3) / 2 : tall + g;
    // n things of width w with gap g fit W when n <= (W + g) / (w + g); a hair's rounding must not cost one.
    const auto fit = [](double room, double pitch) {
        return static_cast<int>(std::floor(room / pitch + 1e-9));
    };
    grid.count.across = fit(w + g, grid.pitch);
    grid.count.rows = h < tall ? 0 : 1 + fit(h - tall, grid.row_pitch);
    grid.count.size = mm(size);
    if (grid.count.across < 1 || grid.count.rows < 1)
        return fail("source.pattern", say("Not one motif of this size fits the sheet."));
    if (static_cast<double>(grid.count.across) * grid.count.rows > most_motifs)
        return fail("source.pattern", say("That would be more than %1 motifs.", most_motifs));
    const bool shifted = p.rows != RepeatPattern::Rows::straight;
    const double used = grid.count.across * grid.pitch - g;
    // Odd rows are shifted by half a pitch and hold one fewer where they would overrun.
    const int odd = used + grid.pitch / 2 <= w + 1e-9 ? grid.count.across : grid.count.across - 1;
    const double wide = shifted && odd == grid.count.across ? used + grid.pitch / 2 : used;
    const double left = in_mm(p.margin) + (w - wide) / 2,
                 top = in_mm(p.margin) + (h - tall - (grid.count.rows - 1) * grid.row_pitch) / 2;
    for (int row = 0; row < grid.count.rows; ++row) {
        const bool moved = shifted && row % 2 == 1;
        for (int i = 0; i < (moved ? odd : grid.count.across); ++i)
            grid.middles.push_back({left + size / 2 + i * grid.pitch + (moved ? grid.pitch / 2 : 0),
                                    top + tall / 2 + row * grid.row_pitch});
    }
    grid.count.total = static_cast<int>(grid.middles.size());
    // Only what bounds the motif comes near its neighbours.
    Polylines one;
    if (p.motif == Motif::part)
        for (const Ring& ring : without_holes(region_of(grid.motif, mm(0.02))).rings)
            one.push_back(simplified({ring, true}, mm(0.02)));
    else
        one = flattened(grid.motif, mm(0.02));
    double web = 1e300;
    const auto against = [&](Point by) {
        web = std::min(web, distance_between(one, transformed(one, Affine::translation(by))));
    };
    if (grid.count.across > 1) against({grid.pitch, 0});
    if (grid.count.rows > 1) {
        against({shifted ? grid.pitch / 2 : 0, grid.row_pitch});
        if (shifted) against({-grid.pitch / 2, grid.row_pitch});
        if (shifted && grid.count.rows > 2) against({0, 2 * grid.row_pitch});
    }
    grid.count.web = mm(web > 1e299 ? 0 : web);
    return grid;
}

} // namespace

Result<PatternCount> count_of(const RepeatPattern& pattern) {
    return grid_of(pattern, nullptr).map([](const Grid& g) { return g.count; });
}

Result<SourceLines> make(const RepeatPattern& pattern, const MakeInput& in) {
    using namespace sources;
    const Borrowed* motif = in.borrowed;
    const auto grid = grid_of(pattern, motif);
    if (!grid) return tl::make_unexpected(grid.error());
    Lines lines;
    if (pattern.frame)
        lines.add(role::outline, rectangle({0, 0, in_mm(pattern.width), in_mm(pattern.height)}));
    for (const Point at : grid->middles)
        lines.add(role::motif, transformed(grid->motif, Affine::translation(at)));
    const PatternCount& n = grid->count;
    lines.figure("across", "", n.across);
    lines.figure("rows", "", n.rows);
    lines.figure("in_all", "", n.total);
    lines.figure("size", "mm", in_mm(n.size));
    if (n.total > 1) lines.figure("web", "mm", in_mm(n.web));
    // Common practice: webs of at least 2 to 3 mm in stencil film.
    if (n.total > 1 && in_mm(n.web) < 2) lines.tell(narrow_web({}, {in_mm(n.web)}));
    return lines.take();
}

} // namespace dotlane
