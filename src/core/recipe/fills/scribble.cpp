#include "core/project/fills/scribble.h"

#include <cmath>
#include <numbers>
#include <random>

#include "core/geometry/region_index.h"
#include "core/recipe/fill.h"
#include "core/recipe/hatch.h"
#include "core/recipe/toned_lines.h"

namespace dotlane {
namespace {

/// Smooth noise along a line: a few waves whose lengths have no common measure.
class Wander {
  public:
    Wander(std::mt19937& random, double wave) {
        for (const double ratio : {1.0, 1.618, 2.718}) {
            // Not std::uniform_real_distribution, whose numbers differ from library to library.
            const double phase = static_cast<double>(random()) / 4294967296.0 * 2 * std::numbers::pi;
            waves_[count_++] = {2 * std::numbers::pi / (wave * ratio), phase};
        }
    }
    double at(double along) const {
        double sum = 0;
        for (const auto& [turn, phase] : waves_)
            sum += std::sin(along * turn + phase);
        return sum / 2;
    }

  private:
    std::pair<double, double> waves_[3];
    std::size_t count_ = 0;
};

Polyline strayed(const Polyline& line, const RegionIndex& index, double spacing, double wild,
                 std::mt19937& random, const Progress& progress) {
    const Wander right(random, 2.3 * spacing), down(random, 2.9 * spacing);
    const double step = 0.35 * spacing;
    Polyline out{{line.points.front()}, false};
    double along = 0;
    Point last = line.points.front();
    const auto to = [&](Point p) {
        const Point stray = Point{right.at(along), down.at(along)} * (wild * spacing);
        for (const double share : {1.0, 0.5, 0.25}) {
            const Point q = p + stray * share;
            if (!index.contains(q) || index.crosses(p, q) || index.crosses(out.points.back(), q)) continue;
            out.points.push_back(q);
            last = p;
            return;
        }
        // Back to the calm line, which never leaves the region, and along it.
        if (index.crosses(out.points.back(), p)) out.points.push_back(last);
        out.points.push_back(p);
        last = p;
    };
    for (std::size_t i = 0; i + 1 < line.points.size(); ++i) {
        if (progress.cancelled()) break;
        const Point a = line.points[i], b = line.points[i + 1];
        const double way = distance(a, b);
        const int parts = std::max(1, static_cast<int>(std::ceil(way / step)));
        for (int k = 1; k <= parts; ++k) {
            along += way / parts;
            to(a + (b - a) * (static_cast<double>(k) / parts));
        }
    }
    return out;
}

} // namespace

FillLines fill(const ScribbleFill& style, const FillInput& in, Progress& progress) {
    if (in.tone)
        return toned_scribble(in, style.wild / 100, static_cast<std::uint32_t>(style.seed), progress);
    HatchOptions options;
    options.spacing = in.spacing, options.angle = in.angle, options.ends = FillEnds::one_stroke;
    HatchResult calm = hatch(in.region, options, progress);
    FillLines out{{}, calm.rows, calm.pieces};
    const RegionIndex index(in.region);
    std::mt19937 random(static_cast<std::uint32_t>(style.seed));
    for (const Polyline& line : calm.lines) {
        if (progress.cancelled()) break;
        out.lines.push_back(strayed(line, index, in_mm(in.spacing), style.wild / 100, random, progress));
    }
    return out;
}

} // namespace dotlane
