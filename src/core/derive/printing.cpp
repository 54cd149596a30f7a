#include "core/derive/printing.h"

#include <algorithm>
#include <unordered_map>

#include "core/base/text.h"
#include "core/derive/findings.h"

namespace dotlane {
namespace {

// What most desk printers take and leave blank: common practice, without source.
constexpr double widest_page = 216, longest_page = 356, blank_edge = 4;
constexpr double mark_arm = 2;

bool bounds_area(const FlatLine& line) {
    return std::any_of(line.contours.begin(), line.contours.end(),
                       [](const Polyline& contour) { return contour.closed; });
}

/// Filled as a page of a book is; everything else that is made is printed as lines.
bool solid(const Part& part, LineSetId id) {
    if (const LineSet* set = find(part, id))
        return set->role == role::letters || set->role.starts_with(role::traced);
    const Step* maker = maker_of(part, id);
    return maker && lettering_in(maker->what);
}

using DrawnLines = std::unordered_map<std::uint32_t, const DrawnLine*>;

Drawn ink_of(const Part& part, const DrawnLines& drawn_lines, const FlatLine& line, const Lane& lane,
             Length tip) {
    Drawn ink;
    const auto drawn = drawn_lines.find(line.id.value);
    const bool own = find(part, line.set) && drawn != drawn_lines.end();
    if (own && !is_made(part) && (drawn->second->drawn.fill || drawn->second->drawn.stroke)) {
        ink = drawn->second->drawn;
        ink.stroke_width = ink.stroke_width * part.scale;
        for (double& dash : ink.dashes_mm)
            dash *= part.scale;
        ink.dash_offset_mm *= part.scale;
        return ink;
    }
    if (bounds_area(line) && solid(part, line.set)) {
        // The lines of a traced level are named by the colour that was found in the picture.
        ink.fill = own ? colour_from_hex(drawn->second->name).value_or(lane.colour) : lane.colour;
    } else {
        ink.stroke = lane.colour;
        ink.stroke_width = tip;
    }
    return ink;
}

/// Whether the line belongs to the arrangement that lies there.
bool lies_in(const EvaluatedPart& part, int piece, const FlatLine& line) {
    if (piece == 0) return true;
    for (std::size_t r = 0; r < part.runs.size(); ++r)
        if (part.runs[r].set == line.set && !part.runs[r].ink) {
            const Polylines& there = lines_of(part, r, piece);
            if (std::find(there.begin(), there.end(), line.contours.front()) != there.end()) return true;
        }
    return false;
}

void add_picture(const PrintedPicture& printed, const Part& part, const EvaluatedPart& evaluated,
                 const PlacedPart& placed, std::vector<PrintPicture>& out) {
    PrintPicture picture{printed.from.bytes,
                         printed.from.width,
                         placed.to_sheet * Affine::scaling(part.scale, part.scale),
                         {},
                         {},
                         0};
    std::vector<Point> there; // points of what lies in this arrangement
    for (const FlatLine& line : evaluated.lines)
        if (printed.sets.contains(line.set) && bounds_area(line) &&
            lies_in(evaluated, placed.placement.piece, line)) {
            picture.lines += line.contours.size();
            there.push_back(line.contours.front().points.front());
        }
    for (const auto& [region, to] :
         {std::pair{&printed.areas->art, &picture.art}, std::pair{&printed.areas->whole, &picture.whole}})
        for (const Region& piece : pieces(*region)) {
            // A point of an outline may lie a rounding outside of what it bounds.
            const Region grown = offset(piece, mm(0.01));
            if (std::none_of(there.begin(), there.end(), [&](Point p) { return contains(grown, p); }))
                continue;
            for (const Ring& ring : piece.rings)
                to->push_back(transformed(Polyline{ring, true}, placed.to_sheet));
        }
    out.push_back(std::move(picture));
}

} // namespace

std::vector<PrintShape> printed_shapes(const Project& project, const Catalog& catalog,
                                       const EvaluatedPart& evaluated, int piece, const Affine& to) {
    std::vector<PrintShape> out;
    // Asked at every painting, where most projects print nothing.
    if (std::all_of(project.lanes.begin(), project.lanes.end(),
                    [](const Lane& l) { return row(l.action).run; }))
        return out;
    const Part& part = *find(project, evaluated.part);
    const auto lane_of = [&](LineSetId id) -> const Lane* {
        const LineSet* set = find(part, id);
        const Step* maker = maker_of(part, id);
        if (set ? set->set_aside : !maker || maker->aside) return nullptr;
        const Lane* lane = find(project, set ? set->lane : maker->lane);
        return lane && !row(lane->action).run ? lane : nullptr;
    };
    const auto tip = [&](const Lane& lane) {
        const Tool* tool = catalog.tool(lane.tool);
        return tool ? tool->tip : mm(0.25);
    };
    const auto pictured = printed_picture(project, part, evaluated);
    const auto add = [&](const Polylines& contours, FillRule rule, Drawn ink) {
        PrintShape shape{{}, rule, std::move(ink)};
        for (const Polyline& contour : contours)
            shape.contours.push_back(transformed(contour, to));
        shape.drawn.nib = nib_under(to, shape.drawn.nib);
        out.push_back(std::move(shape));
    };
    DrawnLines drawn; // of the lines as their file has them
    for (const FlatLine& line : evaluated.lines) {
        const Lane* lane = line.contours.empty() ? nullptr : lane_of(line.set);
        if (!lane || !lies_in(evaluated, piece, line)) continue;
        if (pictured && pictured->sets.contains(line.set) && bounds_area(line)) continue;
        if (drawn.empty())
            for (const DrawnLine& d : evaluated.drawing->lines)
                drawn.emplace(d.id.value, &d);
        Drawn ink = ink_of(part, drawn, line, *lane, tip(*lane));
        if (evaluated.worked.contains(line.set)) ink.nib = Drawn{}.nib; // how a step turned it is not known
        add(line.contours, line.rule, std::move(ink));
    }
    for (std::size_t r = 0; r < evaluated.runs.size(); ++r) {
        const RunSet& run = evaluated.runs[r];
        const Lane* lane = run.ink ? find(project, run.lane) : nullptr;
        if (!lane || row(lane->action).run) continue;
        Drawn ink;
        ink.stroke = lane->colour, ink.stroke_width = tip(*lane);
        ink.cap = LineCap::round, ink.join = LineJoin::round;
        for (const Polyline& stroke : lines_of(evaluated, r, piece))
            add({stroke}, FillRule::nonzero, ink);
    }
    return out;
}

namespace {

/// A free place for the check square: below, right, then anywhere, off the edge that is not printed.
std::optional<Box> free_square(const ProgramSheet& sheet, const std::vector<Box>& taken) {
    const double side = in_mm(print_square), edge = blank_edge + 2, step = 4;
    const Box& page = sheet.stock_area;
    const auto free = [&](const Box& box) {
        return std::none_of(taken.begin(), taken.end(), [&](const Box& b) { return b.meets(box); });
    };
    for (double y = page.y1 - edge - side; y >= page.y0 + edge; y -= step)
        for (double x = page.x0 + edge; x + side <= page.x1 - edge; x += step)
            if (const Box box{x, y, x + side, y + side}; free(box.grown(2))) return box;
    return std::nullopt;
}

/// The free place for a mark that is nearest to a corner, away from those that are there.
std::optional<Point> mark_near(Point corner, const Box& reach, const std::vector<Box>& taken,
                               const std::vector<Point>& others) {
    constexpr double step = 4, clear = 1, apart = 30;
    std::optional<Point> best;
    for (double y = reach.y0; y < reach.y1 + step; y += step)
        for (double x = reach.x0; x < reach.x1 + step; x += step) {
            const Point p{std::min(x, reach.x1), std::min(y, reach.y1)};
            if (best && distance(p, corner) >= distance(*best, corner)) continue;
            const Box box = Box{p.x, p.y, p.x, p.y}.grown(mark_arm + clear);
            if (std::any_of(taken.begin(), taken.end(), [&](const Box& b) { return b.meets(box); }) ||
                std::any_of(others.begin(), others.end(), [&](Point o) { return distance(o, p) < apart; }))
                continue;
            best = p;
        }
    return best;
}

/// Left on top, right on top, left below, right below.
std::vector<Polyline> marks_of(const ProgramSheet& sheet, const std::vector<Box>& taken) {
    std::vector<Polyline> out;
    std::vector<Point> places;
    // Where a printer prints, as well.
    const Box page = sheet.stock_area.grown(-(blank_edge + mark_arm)), &reach = sheet.usable;
    const Box u{std::max(reach.x0, page.x0), std::max(reach.y0, page.y0), std::min(reach.x1, page.x1),
                std::min(reach.y1, page.y1)};
    if (u.x0 >= u.x1 || u.y0 >= u.y1) return out;
    for (const Point corner : {Point{u.x0, u.y0}, Point{u.x1, u.y0}, Point{u.x0, u.y1}, Point{u.x1, u.y1}})
        if (const auto p = mark_near(corner, u, taken, places)) {
            places.push_back(*p);
            out.push_back({{{p->x - mark_arm, p->y}, {p->x + mark_arm, p->y}}, false});
            out.push_back({{{p->x, p->y - mark_arm}, {p->x, p->y + mark_arm}}, false});
        }
    return out;
}

} // namespace

std::optional<PrintedPicture> printed_picture(const Project& project, const Part& part,
                                              const EvaluatedPart& evaluated) {
    auto from = traced_from(part.source.spec);
    if (!from) return {};
    for (const Step& step : part.steps) {
        const auto report = evaluated.reports.find(step.id);
        if (report == evaluated.reports.end() || !report->second->printed) continue;
        PrintedPicture out{std::move(*from), &*report->second->printed, {}};
        for (const LineSet& set : part.sets) {
            const Lane* lane = set.set_aside ? nullptr : find(project, set.lane);
            if (lane && !row(lane->action).run &&
                (step.of.empty() || std::find(step.of.begin(), step.of.end(), set.id) != step.of.end()))
                out.sets.insert(set.id);
        }
        if (out.sets.empty()) return {};
        return out;
    }
    return {};
}

std::optional<PrintSheet> print_sheet(const Catalog& catalog, const Project& scope, const LaidSheet& laid,
                                      const ProgramSheet& sheet) {
    PrintSheet out{sheet, {}, {}, {}, {}};
    std::vector<Box> taken;
    for (const PlacedPart& placed : laid.parts) {
        const EvaluatedPart& part = placed.footprint->part();
        const Part& own = *find(scope, part.part);
        if (const auto pictured = printed_picture(scope, own, part))
            add_picture(*pictured, own, part, placed, out.pictures);
        for (PrintShape& shape :
             printed_shapes(scope, catalog, part, placed.placement.piece, placed.to_sheet))
            out.shapes.push_back(std::move(shape));
        taken.push_back(placed.box);
    }
    if (out.shapes.empty() && out.pictures.empty()) return std::nullopt;
    out.marks = marks_of(sheet, taken);
    out.square = free_square(sheet, taken);
    return out;
}

Findings check_print(const PrintSheet& print) {
    Findings out;
    const FindingPlace place{{}, print.sheet.sheet, {}, {}, {}};
    const Box& page = print.sheet.stock_area;
    const double narrow = std::min(page.width(), page.height()), wide = std::max(page.width(), page.height());
    if (narrow > widest_page || wide > longest_page)
        out.push_back(sheet_findings::print_page(place, print.sheet.name, {page.width()}, {page.height()},
                                                 print.sheet.stock, {widest_page}, {longest_page}));
    Box all;
    for (const PrintShape& shape : print.shapes)
        all.add(bounds(shape.contours));
    for (const PrintPicture& picture : print.pictures)
        all.add(bounds(picture.whole));
    const double near = std::min({all.x0 - page.x0, all.y0 - page.y0, page.x1 - all.x1, page.y1 - all.y1});
    if (near < blank_edge)
        out.push_back(
            sheet_findings::print_edge(place, print.sheet.name, {std::max(near, 0.0)}, {blank_edge}));
    return out;
}

} // namespace dotlane
