#include "core/recipe/toned_lines.h"

#include <cmath>
#include <random>

#include "core/geometry/region_index.h"
#include "core/recipe/strewn.h"
#include "core/recipe/thinned.h"

namespace dotlane {
namespace {

const Region& whole_of(const FillInput& in) {
    return in.outline ? *in.outline : in.region;
}

std::vector<Point> chosen(const std::vector<Candidate>& all, const std::vector<char>& drawn) {
    std::vector<Point> out;
    for (std::size_t i = 0; i < all.size(); ++i)
        if (drawn[i]) out.push_back(all[i].a);
    return out;
}

} // namespace

std::vector<Candidate> lattice_of(const Region& region, double pitch, double stray, std::uint32_t seed,
                                  const Progress& progress) {
    const RegionIndex index(region);
    const Box box = bounds(region);
    std::mt19937 random(seed);
    const auto share = [&] { return static_cast<double>(random()) / 4294967296.0 - 0.5; };
    const double down = pitch * std::sqrt(3.0) / 2;
    std::vector<Candidate> out;
    long row = 0;
    for (double y = box.y0; y <= box.y1 && !progress.cancelled(); y += down, ++row)
        for (double x = box.x0 + (row % 2 == 0 ? 0 : pitch / 2); x <= box.x1; x += pitch) {
            const double right = share(), below = share();
            const Point p = Point{x, y} + Point{right, below} * (stray * pitch);
            if (index.contains(p)) out.push_back({{p, p}, static_cast<std::uint32_t>(out.size())});
        }
    return out;
}

FillLines toned_lines(const Polylines& lines, const FillInput& in, Progress& progress) {
    const auto candidates = candidates_of(lines, std::clamp(in_mm(in.tip), 0.2, 0.5));
    FillLines out;
    out.lines =
        kept(candidates, thinned(candidates, in_mm(in.spacing), in.tip, whole_of(in), *in.tone, progress));
    out.rows = lines.size(), out.pieces = out.lines.size();
    return out;
}

FillLines toned_dots(const FillInput& in, std::uint32_t seed, Progress& progress) {
    // Discs cover the plane up to a pitch of 0.866 of their width; these stray.
    const double pitch = 0.7 * in_mm(in.tip);
    const auto candidates = lattice_of(in.region, pitch, 0.5, seed, progress);
    std::vector<Point> dots =
        chosen(candidates, thinned(candidates, pitch, in.tip, whole_of(in), *in.tone, progress));
    if (progress.cancelled()) return {};
    short_way(dots, bounds(in.region));
    FillLines out;
    for (const Point p : dots)
        out.lines.push_back({{p}, false});
    out.rows = out.pieces = out.lines.size();
    return out;
}

} // namespace dotlane
