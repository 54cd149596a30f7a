#include "core/project/steps/hinge.h"

#include <cmath>
#include <map>

#include "core/base/finding_kind.h"
#include "core/recipe/areas.h"
#include "core/recipe/straight.h"

namespace dotlane {
namespace {

constexpr FindingKind<Mm<1>, Mm<1>, Mm<1>> too_tight{
    "hinge.tight",
    Grade::caution,
    to_say("Bent to a radius of %1 mm the strips between the slits twist more than the stock bears; %2 mm "
           "would do, or slits of %3 mm."),
    {"radius_mm", "least_mm", "slit_mm"},
    {{{"hinge.radius", to_say("Bend it less tightly")}, {"hinge.slits", to_say("Longer slits")}}}};
constexpr FindingKind<Count> too_short{
    "hinge.short",
    Grade::caution,
    to_say("%n [fold is|folds are] too short for a slit between two bridges, and stay as they are."),
    {"count"}};

constexpr std::size_t most_slits = 50'000;

/// Slits of one row along a fold of a length: from the end of a bridge to the beginning of the next. Every
/// other row is moved so that its bridges lie before the middle of the slits beside it.
std::vector<std::pair<double, double>> row_of(double whole, double slit, double bridge, bool moved) {
    const auto n = static_cast<int>(std::max(1.0, std::floor((whole - bridge) / (slit + bridge) + 1e-9)));
    const double each = (whole - (n + 1) * bridge) / n; // made longer until they come out even
    std::vector<std::pair<double, double>> out;
    if (!moved) {
        for (int i = 0; i < n; ++i)
            out.emplace_back(bridge + i * (each + bridge), (i + 1) * (each + bridge));
        return out;
    }
    double from = 0; // beginning in the open at both ends
    for (int i = 0; i < n; ++i) {
        const double middle = bridge + each / 2 + i * (each + bridge);
        out.emplace_back(from, middle - bridge / 2);
        from = middle + bridge / 2;
    }
    out.emplace_back(from, whole);
    return out;
}

} // namespace

StepOutcome run(const HingeStep& step, const StepInput& in, Progress&) {
    const std::vector<StraightLine> folds = straight_lines(in.of);
    if (folds.empty()) return refused(say("There is no straight open line to bend along."));
    const double bend = in_radians(step.bend), radius = in_mm(step.radius), bridge = in_mm(step.bridge);
    if (!(bend > 0.08 && bend < 6.29)) return refused(say("It can be bent by 5 to 360 degrees."));
    // The middle of the stock keeps its length: that of the arc.
    const double wide = bend * radius, wished = in_mm(step.rows_apart);
    const auto strips = static_cast<std::size_t>(std::max(1.0, std::ceil(wide / wished - 1e-9)));
    const double apart = wide / static_cast<double>(strips);
    if (strips * folds.size() > most_slits)
        return refused(say("That would be more than %1 rows of slits.", most_slits));
    StepOutcome out;
    out.made.emplace();
    std::size_t shorter = 0;
    std::map<const WorkSet*, std::shared_ptr<WorkSet>> left; // without the folds that slits stand for
    double slit = in_mm(step.slit), shortest = 1e9;
    for (const StraightLine& fold : folds) {
        const double whole = distance(fold.a, fold.b);
        if (whole < 2 * bridge + 1) {
            ++shorter;
            continue;
        }
        if (whole / slit * static_cast<double>(strips) > static_cast<double>(most_slits))
            return refused(say("That would be more than %1 slits.", most_slits));
        auto& rest = left[fold.set];
        if (!rest) rest = copy_of(*fold.set);
        rest->lines[fold.line].contours[fold.contour].points.clear();
        const Point along = (fold.b - fold.a) * (1 / whole), side{-along.y, along.x};
        for (std::size_t row = 0; row <= strips; ++row) {
            const Point from = fold.a + side * (static_cast<double>(row) * apart - wide / 2);
            const auto slits = row_of(whole, slit, bridge, row % 2 == 1);
            if (row == 0) shortest = std::min(shortest, slits.front().second - slits.front().first);
            for (const auto& [a, b] : slits)
                out.made->lines.push_back(line_along({{{from + along * a, from + along * b}, false}}));
        }
    }
    if (out.made->lines.empty()) return refused(say("The folds are too short for slits and their bridges."));
    for (auto& [set, rest] : left) {
        for (FlatLine& line : rest->lines) {
            std::erase_if(line.contours, [](const Polyline& contour) { return contour.points.empty(); });
            line.area = nullptr;
        }
        settle(*rest);
        out.changed.push_back(std::move(rest));
    }
    // Each strip between two rows is a bar that is twisted over half a slit less half a bridge: of a
    // rectangular bar the strain is greatest in the middle of its long side, about twist times its short side
    // over its length (Timoshenko and Goodier, Theory of Elasticity, torsion of a narrow rectangular bar).
    const double arm = std::max(0.1, (shortest - bridge) / 2), borne = step.strain / 100;
    const double least = apart * std::min(in_mm(step.thickness), apart) / (arm * borne);
    out.report.figures = {figure("slits", out.made->lines.size()),
                          figure("rows", strips + 1),
                          {"wide", "mm", wide},
                          {"slit", "mm", shortest},
                          {"least_radius", "mm", least}};
    if (least > radius * (1 + 1e-9)) {
        // With the rows as far apart as they may come to be at another radius.
        const double most = wished * std::min(in_mm(step.thickness), wished);
        out.report.findings.push_back(
            too_tight({}, {radius}, {most / (arm * borne)}, {2 * most / (radius * borne) + bridge}));
    }
    if (shorter > 0) out.report.findings.push_back(too_short({}, Count{shorter}));
    return out;
}

bool mend(HingeStep& step, const Finding& finding, const InkReport*) {
    const auto rounded = [&](const char* key) {
        const auto value = number_argument(finding, key);
        return value ? std::ceil(*value * 10) / 10 : 0.0;
    };
    if (finding.remedy.code == "hinge.radius") {
        step.radius = mm(std::min(1000.0, rounded("least_mm") + 0.1));
        return true;
    }
    if (finding.remedy.code != "hinge.slits") return false;
    step.slit = mm(std::min(500.0, rounded("slit_mm") + 0.1));
    return true;
}

} // namespace dotlane
