#include "core/project/fills/bricks.h"

#include <algorithm>
#include <cmath>

#include "core/recipe/lattice.h"

namespace dotlane {
namespace {

/// How far the course is shifted, as a share of a brick.
double shift_of(BricksFill::Bond bond, long course) {
    const auto turn = [&](long n) {
        return static_cast<double>(((course % n) + n) % n) / static_cast<double>(n);
    };
    switch (bond) {
    case BricksFill::Bond::running:
        return turn(2);
    case BricksFill::Bond::third:
        return turn(3);
    case BricksFill::Bond::stacked:
        break;
    }
    return 0;
}

} // namespace

FillLines fill(const BricksFill& style, const FillInput& in, Progress& progress) {
    const Frame frame = frame_of(in);
    const double high = in_mm(in.spacing), wide = in_mm(style.brick);
    const Span courses = span_of(frame.box.y0, frame.box.y1, high),
               across = span_of(frame.box.x0, frame.box.x1, wide);
    const auto joint = [&](long course, long i) {
        return (static_cast<double>(i) + shift_of(style.bond, course)) * wide;
    };
    if (style.edge == FillEdge::whole) {
        std::vector<Ring> cells;
        for (long k = courses.first; k < courses.last; ++k)
            for (long i = across.first; i < across.last; ++i) {
                const double x = joint(k, i), y = static_cast<double>(k) * high;
                // Corners of the bricks above and below are corners of this one too: shared sides are one.
                Ring cell{{x, y}};
                const auto corners = [&](long other, double at, bool back) {
                    std::vector<double> between;
                    for (long j = i - 1; j <= i + 2; ++j)
                        if (const double c = joint(other, j); c > x + 1e-6 && c < x + wide - 1e-6)
                            between.push_back(c);
                    std::sort(between.begin(), between.end());
                    if (back) std::reverse(between.begin(), between.end());
                    for (const double c : between)
                        cell.push_back({c, at});
                };
                corners(k - 1, y, false);
                cell.push_back({x + wide, y});
                cell.push_back({x + wide, y + high});
                corners(k + 1, y + high, true);
                cell.push_back({x, y + high});
                cells.push_back(std::move(cell));
            }
        return whole_cells(cells, frame, in, progress);
    }
    std::vector<PatternLine> lines;
    for (long k = courses.first; k <= courses.last; ++k) {
        const double y = static_cast<double>(k) * high;
        // Every joint that meets the course is a point of it, so that strokes can branch off there.
        std::vector<double> xs{frame.box.x0 - wide, frame.box.x1 + wide};
        for (long i = across.first; i <= across.last; ++i)
            for (const long course : {k - 1, k})
                if (const double x = joint(course, i); x > xs[0] && x < xs[1]) xs.push_back(x);
        std::sort(xs.begin(), xs.end());
        xs.erase(std::unique(xs.begin(), xs.end()), xs.end());
        PatternLine course{{}, static_cast<std::uint32_t>(k - courses.first)};
        for (const double x : xs)
            course.line.points.push_back({x, y});
        lines.push_back(std::move(course));
        for (long i = across.first; k < courses.last && i <= across.last; ++i) {
            const double x = joint(k, i);
            lines.push_back({{{{x, y}, {x, static_cast<double>(k + 1) * high}}, false},
                             static_cast<std::uint32_t>(courses.count() + k - courses.first),
                             false});
        }
    }
    return woven(std::move(lines), frame, in, progress);
}

} // namespace dotlane
