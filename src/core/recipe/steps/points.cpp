#include "core/project/steps/points.h"

#include <cmath>

#include "core/base/finding_kind.h"
#include "core/base/text.h"
#include "core/geometry/point_grid.h"
#include "core/geometry/reshape.h"
#include "core/recipe/areas.h"

namespace dotlane {
namespace {

constexpr FindingKind<Count> crowded{
    "points.crowded",
    Grade::hint,
    to_say("%n [place was|places were] left out: [it|they] would have lain on others, where lines come close "
           "or turn sharply."),
    {"count"}};
constexpr FindingKind<Mm<2>, Mm<2>> overlap{
    "points.overlap",
    Grade::caution,
    to_say(
        "At %1 mm from middle to middle, what is %2 mm across would overlap: every place is as far from the "
        "next as it is wide."),
    {"spacing_mm", "size_mm"},
    {{{"points.spacing", to_say("Space them wider")}}}};

constexpr double most = 200'000;

/// Along a line, at its ends too when it is open.
std::vector<Point> along(const Polyline& line, double spacing) {
    const double whole = in_mm(length(line));
    const auto gaps =
        static_cast<std::size_t>(std::max(line.closed ? 1.0 : 0.0, std::round(whole / spacing)));
    if (gaps == 0) return {mix(line.points.front(), line.points.back(), 0.5)};
    std::vector<Point> out;
    for (const PlaceOnLine& place : evenly_along(line, gaps))
        out.push_back(place.at);
    return out;
}

/// Rows of a hexagonal packing, moved to where most of them find room.
std::vector<Point> over(const Region& room, double spacing, Progress& progress) {
    const Box box = bounds(room);
    const double high = spacing * std::sqrt(3.0) / 2;
    std::vector<Point> best;
    for (int down = 0; down < 4 && !progress.cancelled(); ++down) {
        // Along each row only what lies in the room is looked at, however large the box around it is.
        const double first = box.y0 + high * down / 4;
        Polylines rows;
        for (double y = first; y <= box.y1; y += high)
            rows.push_back({{{box.x0 - 1, y}, {box.x1 + 1, y}}, false});
        const Polylines inside = clipped(rows, room);
        for (int right = 0; right < 4 && !progress.cancelled(); ++right) {
            std::vector<Point> out;
            for (const Polyline& run : inside) {
                const auto [a, b] = std::minmax({run.points.front().x, run.points.back().x});
                const double y = run.points.front().y;
                const bool odd = std::llround((y - first) / high) % 2 != 0;
                const double phase = box.x0 + spacing * (right / 4.0 + (odd ? 0.5 : 0));
                for (double k = std::ceil((a - phase) / spacing - 1e-9); phase + k * spacing <= b + 1e-9; ++k)
                    out.push_back({phase + k * spacing, y});
            }
            if (out.size() > best.size()) best = std::move(out);
        }
    }
    return best;
}

} // namespace

StepOutcome run(const PointsStep& step, const StepInput& in, Progress& progress) {
    const double size = in_mm(step.size), spacing = std::max(in_mm(step.spacing), size);
    const Areas areas = areas_of(in.of);
    std::vector<Point> places;
    int open = 0;
    if (step.over == PointsStep::Over::areas) {
        if (areas.each.empty()) return refused(say("There are no closed lines to put places in."));
        open = areas.open;
        const Region art = covered(areas);
        const Region room = offset(art, -(step.inset + step.size / 2));
        if (room.empty()) return refused(say("The areas are too small for places of this size."));
        const double count = in_square_mm(area(room)) / (spacing * spacing * std::sqrt(3.0) / 2);
        if (count > most)
            return refused(say("That would be more than %1 places. A spacing of %2 mm would do.",
                               static_cast<std::size_t>(most),
                               number(spacing * std::sqrt(count / most) + 0.005, 2)));
        for (const Region& piece : pieces(room)) {
            if (progress.cancelled()) return {};
            const std::vector<Point> some = over(piece, spacing, progress);
            places.insert(places.end(), some.begin(), some.end());
        }
    } else {
        Polylines lines;
        for (const WorkSet* set : in.of) {
            lines.insert(lines.end(), set->strokes.begin(), set->strokes.end());
            for (const FlatLine& line : set->lines) {
                const Region area = in_mm(step.inset) > 0 ? area_of(line) : Region{};
                const Polylines row = area.empty() ? line.contours : edge_of(offset(area, -step.inset));
                lines.insert(lines.end(), row.begin(), row.end());
            }
        }
        const double count = in_mm(length(lines)) / spacing;
        if (count > most)
            return refused(say("That would be more than %1 places. A spacing of %2 mm would do.",
                               static_cast<std::size_t>(most), number(spacing * count / most + 0.005, 2)));
        for (const Polyline& line : lines) {
            if (line.points.empty()) continue;
            const std::vector<Point> some = along(line, spacing);
            places.insert(places.end(), some.begin(), some.end());
        }
    }
    PointGrid<std::size_t> grid(2 * spacing);
    StepOutcome out;
    out.made.emplace();
    std::size_t left = 0;
    double least = 1e9;
    for (const Point p : places) {
        double nearest = 1e9;
        grid.near(p, [&](std::size_t, double d) { nearest = std::min(nearest, d); });
        if (nearest < size - 1e-6) {
            ++left;
            continue;
        }
        least = std::min(least, nearest);
        grid.add(p, out.made->lines.size());
        out.made->lines.push_back(step.mark == PointsStep::Mark::marks
                                      ? line_along({{{p}, false}})
                                      : line_along({flattened(ellipse(p, size / 2, size / 2), mm(0.005))}));
    }
    const std::size_t kept = out.made->lines.size();
    if (kept == 0) return refused(say("There is no room for a place."));
    out.report.figures = {figure("places", kept), figure("left_out", left)};
    if (least < 1e8) out.report.figures.push_back({"closest", "mm", least});
    if (in_mm(step.spacing) < size) out.report.findings.push_back(overlap({}, {in_mm(step.spacing)}, {size}));
    if (left > 0) out.report.findings.push_back(crowded({}, Count{left}));
    tell_open(out.report, open, say("filled with places"));
    return out;
}

bool mend(PointsStep& step, const Finding& finding, const InkReport*) {
    if (finding.remedy.code != "points.spacing") return false;
    step.spacing = mm(in_mm(step.size) * 1.1);
    return true;
}

} // namespace dotlane
