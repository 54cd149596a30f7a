// Steps that change lines point by point: clean, corners, dash.
#include <cmath>

#include "core/geometry/reshape.h"
#include "core/recipe/step.h"

namespace dotlane {
namespace {

constexpr double same_line_mm =
    0.02; ///< lines nearer than this all along are one line twice: below any tool's width

/// Whether every point of a lies on b.
bool lies_on(const Polyline& a, const Polyline& b) {
    return std::all_of(a.points.begin(), a.points.end(), [&](Point p) {
        for (std::size_t i = 0, n = b.points.size(); i + (b.closed ? 0 : 1) < n; ++i)
            if (distance_to_segment(p, b.points[i], b.points[(i + 1) % n]) <= same_line_mm) return true;
        return false;
    });
}

bool alike(const Box& a, const Box& b) {
    return std::abs(a.x0 - b.x0) <= same_line_mm && std::abs(a.y0 - b.y0) <= same_line_mm &&
           std::abs(a.x1 - b.x1) <= same_line_mm && std::abs(a.y1 - b.y1) <= same_line_mm;
}

/// Takes away contours that lie on one that came before. Returns how many.
std::size_t drop_doubled(std::vector<std::shared_ptr<WorkSet>>& sets) {
    struct Seen {
        Box box;
        const Polyline* line;
    };
    std::vector<Seen> all;
    for (const auto& set : sets)
        for (const FlatLine& line : set->lines)
            for (const Polyline& c : line.contours)
                all.push_back({bounds(c), &c});
    std::vector<std::size_t> by_left(all.size());
    for (std::size_t i = 0; i < all.size(); ++i)
        by_left[i] = i;
    std::sort(by_left.begin(), by_left.end(), [&](auto a, auto b) { return all[a].box.x0 < all[b].box.x0; });
    std::vector<bool> doubled(all.size(), false);
    for (std::size_t i = 0; i < by_left.size(); ++i)
        for (std::size_t k = i + 1; k < by_left.size(); ++k) {
            const std::size_t a = std::min(by_left[i], by_left[k]), b = std::max(by_left[i], by_left[k]);
            if (all[by_left[k]].box.x0 - all[by_left[i]].box.x0 > same_line_mm) break;
            if (doubled[a] || doubled[b] || !alike(all[a].box, all[b].box)) continue;
            if (all[a].line->closed == all[b].line->closed && lies_on(*all[a].line, *all[b].line) &&
                lies_on(*all[b].line, *all[a].line))
                doubled[b] = true;
        }
    std::size_t i = 0, count = 0;
    for (const auto& set : sets)
        for (FlatLine& line : set->lines) {
            Polylines kept;
            for (Polyline& c : line.contours)
                if (doubled[i++])
                    ++count;
                else
                    kept.push_back(c);
            line.contours = std::move(kept);
        }
    return count;
}

void settle(WorkSet& set) {
    std::erase_if(set.lines, [](const FlatLine& line) { return line.contours.empty(); });
    for (FlatLine& line : set.lines)
        line.box = bounds(line.contours);
}

} // namespace

StepOutcome run(const CleanStep& step, const StepInput& in, Progress& progress) {
    StepOutcome out;
    std::size_t crumbs = 0, slivers = 0, points_before = 0, points_after = 0, doubled = 0;
    const double least = in_mm(step.least_size);
    for (const WorkSet* set : in.of)
        out.changed.push_back(copy_of(*set));
    if (step.doubled) doubled = drop_doubled(out.changed);
    for (const auto& set : out.changed) {
        if (progress.cancelled()) return out;
        for (FlatLine& line : set->lines) {
            for (const Polyline& c : line.contours)
                points_before += c.points.size();
            Region region = area_of(line);
            if (!region.empty()) {
                const std::size_t rings = region.rings.size();
                Region kept;
                for (const Region& piece : pieces(region))
                    if (in_square_mm(area(piece)) >= least * least)
                        kept.rings.insert(kept.rings.end(), piece.rings.begin(), piece.rings.end());
                // Holes too small to weed are left filled.
                if (least > 0) kept = without_holes(kept, square_mm(least * least));
                crumbs += rings - kept.rings.size();
                if (in_mm(step.least_width) > 0) {
                    const OffsetOptions sharp{Corner::mitre};
                    const Region opened =
                        offset(offset(kept, step.least_width * -0.5, sharp), step.least_width * 0.5, sharp);
                    const Region lost = subtracted(kept, opened);
                    slivers += pieces(lost).size();
                    kept = intersected(kept, opened);
                }
                if (kept != region) {
                    const FlatLine next = line_of(kept, line);
                    line.contours = next.contours;
                }
            } else if (least > 0 && !line.contours.empty() && in_mm(length(line.contours)) < least) {
                line.contours.clear();
                ++crumbs;
            }
            for (Polyline& c : line.contours) {
                c = simplified(c, step.simplify);
                points_after += c.points.size();
            }
        }
        settle(*set);
    }
    const auto figure = [](const char* key, std::size_t n) {
        return Figure{key, "", static_cast<double>(n)};
    };
    out.report.figures = {figure("crumbs_dropped", crumbs), figure("slivers_opened", slivers),
                          figure("doubled_dropped", doubled), figure("points_before", points_before),
                          figure("points_after", points_after)};
    return out;
}

StepOutcome run(const CornersStep& step, const StepInput& in, Progress&) {
    StepOutcome out;
    int changed = 0, shortened = 0;
    for (const WorkSet* set : in.of) {
        auto next = copy_of(*set);
        for (FlatLine& line : next->lines) {
            for (Polyline& c : line.contours) {
                CornerChange done =
                    softened(c, step.radius, step.kind == CornersStep::Kind::chamfer, step.sharper_than);
                changed += done.changed, shortened += done.shortened;
                c = std::move(done.line);
            }
            line.box = bounds(line.contours);
        }
        next->worked = set->worked;
        out.changed.push_back(std::move(next));
    }
    out.report.figures = {{"corners", "", static_cast<double>(changed)}};
    if (shortened > 0)
        out.report.findings.push_back({"corners.short",
                                       Grade::hint,
                                       std::to_string(shortened) +
                                           (shortened == 1 ? " corner has" : " corners have") +
                                           " no room for the whole radius and got a smaller one.",
                                       {{"count", std::to_string(shortened)}}});
    return out;
}

StepOutcome run(const DashStep& step, const StepInput& in, Progress&) {
    StepOutcome out;
    std::size_t dashes = 0;
    Length least = mm(1e9), most;
    int gone = 0;
    for (const WorkSet* set : in.of) {
        auto next = copy_of(*set);
        for (FlatLine& line : next->lines) {
            Polylines made;
            for (const Polyline& c : line.contours) {
                Length gap;
                const Polylines parts = dashed(c, {step.dash, step.gap, step.setback}, &gap);
                gone += parts.empty();
                if (in_mm(gap) > 0) least = std::min(least, gap), most = std::max(most, gap);
                made.insert(made.end(), parts.begin(), parts.end());
            }
            dashes += made.size();
            line.contours = std::move(made);
        }
        settle(*next);
        next->worked = set->worked;
        out.changed.push_back(std::move(next));
    }
    if (dashes == 0) return refused("The lines are shorter than their setback.");
    out.report.figures = {{"dashes", "", static_cast<double>(dashes)}};
    if (in_mm(most) > 0) {
        out.report.figures.push_back({"gap_least", "mm", in_mm(least)});
        out.report.figures.push_back({"gap_most", "mm", in_mm(most)});
    }
    if (gone > 0)
        out.report.findings.push_back({"dash.gone",
                                       Grade::caution,
                                       std::to_string(gone) + (gone == 1 ? " line is" : " lines are") +
                                           " shorter than the setback and vanished.",
                                       {{"count", std::to_string(gone)}}});
    return out;
}

} // namespace dotlane
