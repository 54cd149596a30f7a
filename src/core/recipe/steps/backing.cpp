#include "core/project/steps/backing.h"

#include <algorithm>
#include <cmath>

#include "core/base/finding_kind.h"
#include "core/base/sets.h"
#include "core/geometry/nearest_edge.h"
#include "core/recipe/areas.h"
#include "core/recipe/evaluate.h"

namespace dotlane {
namespace {

constexpr FindingKind<Count, Mm<1>> backing_apart{
    "backing.apart",
    Grade::caution,
    to_say("The backing is %n [piece|pieces]: the nearest of them are %2 mm apart."),
    {"pieces", "nearest_mm"},
    {{{"backing.reach", to_say("Tie them")}}}};

/// Where two pieces come nearest.
struct Near {
    std::uint32_t a, b; ///< by index
    Point from, to;
    double far;
};

/// From corners of each to the edge of the other: the least distance is taken at a corner of one of them.
Near nearest_places(const std::vector<Region>& all, const std::vector<std::unique_ptr<NearestEdge>>& edges,
                    std::uint32_t a, std::uint32_t b) {
    Near out{a, b, {}, {}, 1e300};
    for (const auto& [i, k] : {std::pair{a, b}, std::pair{b, a}})
        for (const Point p : all[i].rings.front()) {
            const Point q = edges[k]->to(p);
            if (const double d = distance(p, q); d < out.far) out.from = p, out.to = q, out.far = d;
        }
    return out;
}

struct Tied {
    Region region;
    std::size_t ties = 0;
    double nearest = 0; ///< of what is left apart, mm
};

/// The shortest ways between pieces become bars, as long as they are in reach and join what is apart.
Tied tied(const Region& region, Length reach, Length width, Progress& progress) {
    const std::vector<Region> all = pieces(region);
    Tied out{region};
    std::vector<std::unique_ptr<NearestEdge>> edges;
    std::vector<Box> boxes;
    for (const Region& piece : all) {
        edges.push_back(std::make_unique<NearestEdge>(piece));
        boxes.push_back(bounds(piece));
    }
    const auto each_pair = [&](auto each) {
        for (std::uint32_t a = 0; a < all.size() && !progress.cancelled(); ++a)
            for (std::uint32_t b = a + 1; b < all.size(); ++b)
                each(a, b, gap(boxes[a], boxes[b]));
    };
    std::vector<Near> ways;
    each_pair([&](std::uint32_t a, std::uint32_t b, double least) {
        if (least <= in_mm(reach)) ways.push_back(nearest_places(all, edges, a, b));
    });
    std::sort(ways.begin(), ways.end(), [](const Near& x, const Near& y) { return x.far < y.far; });
    Sets together(all.size());
    std::vector<Region> bars{region};
    for (const Near& way : ways) {
        if (way.far > in_mm(reach) || !together.unite(way.a, way.b)) continue;
        // Round ends that reach into both pieces by half the width.
        bars.push_back(stroked({Polyline{{way.from, way.to}, false}}, width));
        ++out.ties;
    }
    if (out.ties > 0) out.region = united(bars);
    double nearest = 1e300; // of what is still apart
    each_pair([&](std::uint32_t a, std::uint32_t b, double least) {
        if (least < nearest && together.of(a) != together.of(b))
            nearest = std::min(nearest, nearest_places(all, edges, a, b).far);
    });
    if (nearest < 1e300) out.nearest = nearest;
    return out;
}

} // namespace

StepOutcome run(const BackingStep& step, const StepInput& in, Progress& progress) {
    const Areas areas = areas_of(in.of);
    if (areas.each.empty()) return refused(say("There are no closed lines to lay a backing below."));
    const Region art = covered(areas);
    const int holes = hole_count(art);
    Region rim = in_mm(step.distance) > 0 ? offset(art, step.distance) : art;
    if (progress.cancelled()) return {};
    const std::size_t before = pieces(rim).size();
    const auto fill = [&](const Region& region) {
        return step.all_holes
                   ? without_holes(region)
                   : without_holes(region, square_mm(in_mm(step.holes_under) * in_mm(step.holes_under)));
    };
    Tied all = tied(fill(rim), step.reach, step.tie, progress);
    if (progress.cancelled()) return {};
    // Points are opened first, but for the art's own, which stay covered; then bays are closed, those beside
    // such points too.
    if (in_mm(step.smooth) > 0) {
        all.region = united(offset(offset(all.region, -step.smooth), step.smooth), art);
        // What the flattening of arcs takes off the art's points is given back.
        all.region = united(offset(offset(all.region, step.smooth), -step.smooth), art);
    }
    all.region = fill(all.region);
    StepOutcome out;
    out.made.emplace();
    const std::vector<Region> made = pieces(all.region);
    for (const Region& piece : made) {
        FlatLine line = line_of(piece, *areas.lines.front());
        line.filled = false;
        out.made->lines.push_back(std::move(line));
    }
    out.report.figures = {figure("pieces_before", before),
                          figure("pieces", made.size()),
                          figure("ties", all.ties),
                          {"holes_before", "", static_cast<double>(holes)},
                          {"holes_after", "", static_cast<double>(hole_count(all.region))},
                          {"least_feature", "mm", 2 * in_mm(step.smooth)},
                          {"area", "mm2", in_square_mm(area(all.region))}};
    tell_open(out.report, areas.open, say("backed"));
    if (made.size() > 1) {
        Box where;
        for (const Region& piece : made)
            where.add(bounds(piece));
        Finding finding = backing_apart({}, Count{made.size()}, {all.nearest});
        finding.place.box = place_of(where);
        out.report.findings.push_back(with_remedies_if(all.nearest > 0, std::move(finding)));
    }
    return out;
}

bool mend(BackingStep& step, const Finding& finding, const InkReport*) {
    if (finding.remedy.code != "backing.reach") return false;
    const auto nearest = number_argument(finding, "nearest_mm");
    if (nearest) step.reach = mm(std::min(500.0, *nearest + 0.1));
    return nearest.has_value();
}

} // namespace dotlane
