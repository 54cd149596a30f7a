#include "core/project/steps/pop_up.h"

#include <cmath>

#include "core/base/finding_kind.h"
#include "core/recipe/areas.h"
#include "core/recipe/evaluate.h"
#include "core/recipe/straight.h"

namespace dotlane {
namespace {

constexpr FindingKind<Mm<1>, Percent> sticks_out{
    "pop-up.out",
    Grade::caution,
    to_say(
        "Closed, the pop-up reaches %1 mm from the fold and sticks out of the card; at %2 % of its size it "
        "would stay inside."),
    {"reach_mm", "percent"},
    {{{"pop-up.fit", to_say("Make it fit")}}}};
constexpr FindingKind<> no_room{
    "pop-up.none",
    Grade::caution,
    to_say("There is no room for the pop-up at this place of the fold: it lies outside the card."),
    {},
    {{{"pop-up.middle", to_say("Move it to the middle")}}}};

StraightLine longest_fold(const std::vector<const WorkSet*>& sets) {
    StraightLine out;
    for (const StraightLine& line : straight_lines(sets))
        if (!out.set || distance(line.a, line.b) > distance(out.a, out.b) + 1e-6) out = line;
    // From the left, or from the top: the back panel lies above it, or to its right.
    if (out.set && (out.b.x < out.a.x - 1e-9 || (std::abs(out.b.x - out.a.x) < 1e-9 && out.b.y < out.a.y)))
        std::swap(out.a, out.b);
    return out;
}

/// Where it lies on the open card, and what it covers when the card is closed. mm along the fold from the
/// pop-up's middle, and off the fold, towards the back panel.
struct Plan {
    Polylines slits, valleys, mountains;
    std::vector<Polyline> closed; ///< on either panel: to be inside the card
    double from, to;              ///< of the fold line, that is no fold of the card there
    double reach, rise;           ///< off the fold, closed; off the base, open at 90 degrees
};

Polyline straight(Point a, Point b) {
    return {{a, b}, false};
}

/// A box is a parallelogram at every angle, whatever its height and depth, so it always closes flat.
Plan box_plan(double w, double h, double d) {
    Plan p;
    const double x = w / 2, up = h, down = -d, top = h - d;
    p.slits = {straight({-x, up}, {-x, down}), straight({x, up}, {x, down})};
    p.valleys = {straight({-x, up}, {x, up}), straight({-x, down}, {x, down})};
    p.mountains = {straight({-x, top}, {x, top})};
    for (const double side : {1.0, -1.0}) // what stands out lies between both panels
        p.closed.push_back({{{-x, 0}, {x, 0}, {x, side * (h + d)}, {-x, side * (h + d)}}, true});
    p.from = -x, p.to = x;
    p.reach = h + d, p.rise = h;
    return p;
}

/// A beak: a slit across the fold, and folds from its ends to a point of the fold. With the angle a between
/// fold and creases, the spine of the beak makes equal angles with both, so it closes flat at 2 a.
Plan v_plan(double c, double a) {
    Plan p;
    const Point tip{-a / 2, 0};
    const double s = a / 2, angle = std::atan2(c, a), t = c / a;
    p.slits = {straight({s, c}, {s, -c})};
    p.valleys = {straight(tip, {s, c}), straight(tip, {s, -c})};
    p.mountains = {straight(tip, {s, 0})};
    for (const double side : {1.0, -1.0}) {
        const Point laid = tip + Point{a * std::cos(2 * angle), side * a * std::sin(2 * angle)};
        p.closed.push_back({{tip, {s, side * c}, laid}, true});
    }
    p.from = -s, p.to = s;
    p.reach = std::max(c, a * std::sin(2 * angle));
    // Open at 90 degrees the spine has the same share y of both panels' directions: y = 2 t / (t^2 + 2).
    p.rise = a * 2 * t / (t * t + 2) * std::sqrt(2.0);
    return p;
}

Plan plan_of(const PopUpStep& step, double size) {
    const double w = in_mm(step.width) * size, h = in_mm(step.height) * size;
    return step.form == PopUpStep::Form::box ? box_plan(w, h, in_mm(step.depth) * size) : v_plan(w, h);
}

bool fits(const Plan& plan, const Affine& to, const Region& card) {
    for (Polyline area : plan.closed) {
        area = transformed(area, to);
        if (signed_area_mm2(area.points) < 0) std::reverse(area.points.begin(), area.points.end());
        // A hundredth of a square millimetre is no more than the flattening of the card's curves.
        if (in_square_mm(dotlane::area(subtracted(region_of({area}, FillRule::nonzero), card))) > 0.01)
            return false;
    }
    return true;
}

/// The greatest share of its size at which it stays inside, 0: at none.
double fitting_share(const PopUpStep& step, const Affine& to, const Region& card) {
    double low = 0, high = 1;
    for (int i = 0; i < 12; ++i) {
        const double middle = (low + high) / 2;
        (fits(plan_of(step, middle), to, card) ? low : high) = middle;
    }
    return low;
}

std::vector<FlatLine> lines_at(const Polylines& lines, const Affine& to) {
    std::vector<FlatLine> out;
    for (const Polyline& line : lines)
        out.push_back(line_along({transformed(line, to)}));
    return out;
}

} // namespace

StepOutcome run(const PopUpStep& step, const StepInput& in, Progress&) {
    const StraightLine fold = longest_fold(in.of);
    if (!fold.set) return refused(say("There is no straight fold line to put it on."));
    const Areas areas = areas_of(in.of);
    const double whole = distance(fold.a, fold.b);
    const Point along = (fold.b - fold.a) * (1 / whole), up{along.y, -along.x};
    const Point middle = mix(fold.a, fold.b, step.at / 100);
    const Affine to{along.x, along.y, up.x, up.y, middle.x, middle.y};
    const Plan plan = plan_of(step, 1);
    StepOutcome out;
    out.made.emplace();
    out.made->lines = lines_at(plan.slits, to);
    out.also = {{role::fold, lines_at(plan.valleys, to)}, {role::mountain, lines_at(plan.mountains, to)}};
    // The card does not fold where the pop-up does.
    auto next = copy_of(*fold.set);
    FlatLine& line = next->lines[fold.line];
    const double start = whole * step.at / 100;
    Polylines rest;
    for (const auto& [from, end] : {std::pair{0.0, start + plan.from}, std::pair{start + plan.to, whole}})
        if (end - from > 0.01) rest.push_back(straight(fold.a + along * from, fold.a + along * end));
    line.contours.erase(line.contours.begin() + static_cast<std::ptrdiff_t>(fold.contour));
    line.contours.insert(line.contours.end(), rest.begin(), rest.end());
    line.area = nullptr;
    settle(*next);
    out.changed.push_back(std::move(next));
    double slits = 0;
    for (const Polyline& slit : plan.slits)
        slits += in_mm(length(slit));
    out.report.figures = {{"rise", "mm", plan.rise}, {"reach", "mm", plan.reach}, {"slits", "mm", slits}};
    if (!areas.each.empty()) { // the lines say where the card ends
        const Region card = covered(areas);
        if (!fits(plan, to, card)) {
            const double share = fitting_share(step, to, card);
            Finding finding =
                share > 0.02 ? sticks_out({}, {plan.reach}, {std::floor(share * 1000) / 10}) : no_room({});
            Box where;
            for (const Polyline& area : plan.closed)
                where.add(bounds(transformed(area, to)));
            finding.place.box = place_of(where);
            out.report.findings.push_back(std::move(finding));
        }
    }
    return out;
}

bool mend(PopUpStep& step, const Finding& finding, const InkReport*) {
    if (finding.remedy.code == "pop-up.middle") return step.at = 50, true;
    if (finding.remedy.code != "pop-up.fit") return false;
    const auto percent = number_argument(finding, "percent");
    if (!percent) return false;
    for (Length* size : {&step.width, &step.height, &step.depth})
        *size = mm(std::max(1.0, std::floor(in_mm(*size) * *percent / 10) / 10));
    return true;
}

} // namespace dotlane
