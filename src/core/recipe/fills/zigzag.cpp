#include "core/project/fills/zigzag.h"

#include <cmath>

#include "core/geometry/region_index.h"
#include "core/recipe/hatch.h"
#include "core/recipe/pattern.h"

namespace dotlane {
namespace {

/// A line with a part of it for each slanted or level leg: from which point to the next one.
struct Legs {
    Polyline line;
    std::vector<std::size_t> at;
};

/// From the start of one level line straight to the start of the next, where that stays inside.
Legs slanted(const Polyline& line, const RegionIndex& index, double spacing) {
    const auto& p = line.points;
    const auto level = [&](std::size_t i) {
        return i + 1 < p.size() && std::abs(p[i].y - p[i + 1].y) < 1e-9 &&
               std::abs(p[i].x - p[i + 1].x) > 1e-9;
    };
    Legs out;
    for (std::size_t i = 0; i < p.size();) {
        out.line.points.push_back(p[i]);
        if (!level(i)) {
            ++i;
            continue;
        }
        out.at.push_back(out.line.points.size() - 1);
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
    options.least = in.least;
    if (in.phase == FillPhase::corner)
        options.phase = HatchOptions::Phase::through, options.through = level({in.anchor.x0, in.anchor.y0});
    NetMaker maker(turned.rings);
    std::uint32_t row = 0;
    add_rows(maker, turned, options, row);
    // Legs lead from line to line also where each is a stroke of its own.
    FillInput tied = in.within(turned);
    if (in.ends == FillEnds::apart) tied.ends = FillEnds::joined;
    FillLines rows = ended(maker.done(), tied, progress);
    FillLines out{{}, rows.rows, rows.pieces};
    const RegionIndex index(turned);
    for (const Polyline& line : rows.lines) {
        const Legs legs = slanted(line, index, in_mm(options.spacing));
        const auto& points = legs.line.points;
        if (in.ends != FillEnds::apart) out.lines.push_back(transformed(legs.line, back));
        for (const std::size_t i : legs.at)
            if (in.ends == FillEnds::apart && i + 1 < points.size())
                out.lines.push_back({{back(points[i]), back(points[i + 1])}, false});
    }
    return out;
}

} // namespace dotlane
