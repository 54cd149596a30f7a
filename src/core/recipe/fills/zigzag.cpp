#include "core/project/fills/zigzag.h"

#include <cmath>

#include "core/geometry/region_index.h"
#include "core/recipe/hatch.h"
#include "core/recipe/pattern.h"

namespace dotlane {
namespace {

/// From the start of one level line straight to the start of the next, where that stays inside.
Polyline slanted(const Polyline& line, const RegionIndex& index, double spacing) {
    const auto& p = line.points;
    const auto level = [&](std::size_t i) {
        return i + 1 < p.size() && std::abs(p[i].y - p[i + 1].y) < 1e-9 &&
               std::abs(p[i].x - p[i + 1].x) > 1e-9;
    };
    Polyline out;
    for (std::size_t i = 0; i < p.size();) {
        out.points.push_back(p[i]);
        if (!level(i)) {
            ++i;
            continue;
        }
        std::size_t next = i + 1;
        double way = 0;
        while (next < p.size() && !(level(next) && std::abs(p[next].y - p[i].y) > spacing / 4) &&
               way < 4 * spacing) {
            if (next + 1 < p.size()) way += distance(p[next], p[next + 1]);
            ++next;
        }
        const bool found = next < p.size() && level(next) && std::abs(p[next].y - p[i].y) < 1.5 * spacing;
        if (found && !index.crosses(p[i], p[next]) && index.contains((p[i] + p[next]) * 0.5))
            i = next;
        else
            ++i;
    }
    return out;
}

} // namespace

FillLines fill(const ZigzagFill&, const FillInput& in, Progress& progress) {
    // Worked level, where rows can be told from ways along the edge.
    const Affine level = Affine::rotation(-in_radians(in.angle)),
                 back = Affine::rotation(in_radians(in.angle));
    const Region turned = transformed(in.region, level);
    HatchOptions options;
    options.spacing = in.spacing / 2; // its points on one side are the spacing apart
    options.ends = in.ends, options.least = in.least;
    if (in.phase == FillPhase::corner)
        options.phase = HatchOptions::Phase::through, options.through = level({in.anchor.x0, in.anchor.y0});
    HatchResult rows = hatch(turned, options, progress);
    FillLines out{{}, rows.rows, rows.pieces};
    if (in.ends == FillEnds::apart) {
        // Every line slants to where the next one begins.
        for (Polyline& line : rows.lines)
            out.lines.push_back(transformed(line, back));
        return out;
    }
    const RegionIndex index(turned);
    for (const Polyline& line : rows.lines)
        out.lines.push_back(transformed(slanted(line, index, in_mm(options.spacing)), back));
    return out;
}

} // namespace dotlane
