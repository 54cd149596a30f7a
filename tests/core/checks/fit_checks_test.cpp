// Fits are against what the chosen machine reaches, turned by any angle.
#include <algorithm>

#include "core/checks/fit_checks.h"
#include "core/commands/remedies.h"

#include "core/commands/making.h"
#include "core/project/edits.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

std::vector<Point> plate(double w, double h) {
    return {{0, 0}, {w, 0}, {w, h}, {0, h}};
}

/// J. E. Wetzel, Rectangles in Rectangles, Mathematics Magazine 73 (2000): p x q, p >= q, lies in a x b,
/// a >= b, if and only if p <= a and q <= b, or p > a, q <= b and ((a+b)/(p+q))^2 + ((a-b)/(p-q))^2 >= 2.
double wetzel(double p, double q, double a, double b) {
    return std::pow((a + b) / (p + q), 2) + std::pow((a - b) / (p - q), 2);
}

struct FitTable {
    Workshop workshop{catalog()};
    Project project = workshop.new_project("fits");
    std::shared_ptr<const Derived> derive() { return workshop.derive(std::make_shared<Project>(project)); }
    PartId card(double w, double h) {
        FoldedCard card;
        card.width = mm(w), card.height = mm(h);
        return must(make_part(project, catalog(), workshop.fonts(), card));
    }
    PartId label(double w, double h, Label::Edge edge = Label::Edge::plain) {
        Label label;
        label.edge = edge, label.width = mm(w), label.height = mm(h);
        return must(make_part(project, catalog(), workshop.fonts(), label));
    }
    void mend(const Finding& finding) {
        const auto derived = derive();
        must(apply(MendFinding{finding}, project, catalog(), *derived));
    }
};

} // namespace

TEST_CASE("rectangles fit in rectangles as Wetzel's theorem says") {
    Random random("rectangles");
    INFO("seed " << random.seed());
    int fit = 0, not_fit = 0, angled = 0;
    // Until enough of all kinds have come; one in twenty fits at an angle.
    for (int i = 0; i < 20'000 && (i < 2000 || std::min({fit, not_fit, angled}) <= 100); ++i) {
        const double a = random.real(50, 300), b = random.real(30, a), p = random.real(a, a * 1.5),
                     q = random.real(1, b);
        const double w = wetzel(p, q, a, b);
        if (std::abs(w - 2) < 1e-4) continue; // ranges of angles below the resolution
        const auto found = fit_within(plate(p, q), b, a);
        INFO(p << " x " << q << " in " << a << " x " << b << ": " << w);
        CHECK(found.has_value() == (w > 2));
        (found ? fit : not_fit)++;
        if (!found || found->way != FitWay::angled) continue;
        ++angled;
        for (const Angle at : {found->from, found->best, found->to}) {
            const double c = std::abs(std::cos(in_radians(at))), s = std::abs(std::sin(in_radians(at)));
            CHECK(p * c + q * s <= b + 1e-5);
            CHECK(p * s + q * c <= a + 1e-5);
        }
    }
    CHECK(fit > 100);
    CHECK(not_fit > 100);
    CHECK(angled > 100);
}

TEST_CASE("300 x 100 mm fits 297.9 x 297.9 turned by 38 to 52 degrees, 305 x 100 297.9 x 301 by 40 to 51") {
    // 300 cos t + 100 sin t = 316.23 cos(t - 18.435 deg) <= 297.9 from 38.03 degrees on; by symmetry
    // to 51.97.
    const auto square = fit_within(plate(300, 100), 297.9, 297.9);
    REQUIRE(square);
    CHECK(in_degrees(square->from) == Approx(38.03).margin(0.02));
    CHECK(in_degrees(square->to) == Approx(51.97).margin(0.02));
    CHECK(in_degrees(square->best) == Approx(45).margin(0.02));
    // 320.98 cos(t - 18.153 deg) <= 297.9 from 40.02 degrees on, 320.98 sin(t + 18.153 deg) <= 301 to 51.53.
    const auto mat = fit_within(plate(305, 100), 297.9, 301);
    REQUIRE(mat);
    CHECK(in_degrees(mat->from) == Approx(40.02).margin(0.02));
    CHECK(in_degrees(mat->to) == Approx(51.53).margin(0.02));
    CHECK(fit_within(plate(297.9, 301), 297.9, 301)->way == FitWay::straight);
    CHECK(fit_within(plate(300, 100), 297.9, 301)->way == FitWay::quarter);
    CHECK_FALSE(fit_within(plate(301.1, 300), 297.9, 301));
}

TEST_CASE("fits are against what the machine reaches, not against the stock's size") {
    FitTable t;
    t.project.machine = "one-slot"; // without the long mat
    // A base of 300 mm fits a stock of 304.8 only across, as the tool reaches 297.9 x 301 mm of it.
    const PartId base = t.label(300, 100);
    const auto fits = fits_of(t.project, catalog(), *t.derive()->part(base));
    REQUIRE_FALSE(fits.empty());
    for (const SheetFit& fit : fits)
        CHECK(fit.turned.way == FitWay::quarter);
    CHECK(fit_words(fits[0], LengthUnit::mm).english() == "304.8 mm x 304.8 mm, turned");
    t.project.parts.clear();
    t.label(305, 100); // no way but askew
    const auto derived = t.derive();
    const Finding& told = get(derived->findings, "part.turn");
    CHECK(told.message.english().find("turned by 40.1 to 51.5 degrees") != std::string::npos);
    t.mend(told);
    REQUIRE(t.project.sheets.size() == 1);
    const auto after = t.derive();
    CHECK_FALSE(has(after->findings, "part.turn"));
    CHECK_FALSE(has(after->findings, "sheet.outside"));
    const PlacedPart& placed = after->sheets.front().parts.front();
    CHECK(after->sheets.front().usable.contains(placed.outline));
}

TEST_CASE("what was placed so that it runs out is turned where it lies, also mirrored") {
    for (const bool mirrored : {false, true}) {
        FitTable t;
        t.project.machine = "one-slot";
        const PartId card = t.label(305, 100);
        const SheetId sheet = add_sheet(t.project, "one", "cream-card-12x12", "mat-12x12-standard");
        must(place(t.project, sheet, {{}, card, mm(3), mm(20), {}, mirrored}));
        const auto derived = t.derive();
        const Finding& told = get(derived->findings, "sheet.outside");
        CHECK(told.message.english().find("It fits turned by") != std::string::npos);
        t.mend(told);
        CHECK_FALSE(has(t.derive()->findings, "sheet.outside"));
        CHECK(t.project.sheets[0].placements[0].mirrored == mirrored);
    }
}

TEST_CASE("what is turned to fit is what runs out: its neighbours stay where they lie") {
    FitTable t;
    t.project.machine = "one-slot";
    const PartId strip = t.label(305, 20);
    const SheetId sheet = add_sheet(t.project, "one", "cream-card-12x12", "mat-12x12-standard");
    const auto lay = [&](double top, double turn) {
        Placement p;
        p.part = strip, p.left = mm(4), p.top = mm(top), p.turn = degrees(turn);
        return must(place(t.project, sheet, p));
    };
    const PlacementId good = lay(5, 45), first = lay(20, 0), second = lay(60, 0);
    const auto at = [&](PlacementId id) { return *find_placement(t.project, id); };
    const Placement before_good = at(good), before_first = at(first), before_second = at(second);
    // Of the two findings that of the first strip is pressed.
    Finding told;
    const auto derived = t.derive();
    for (const Finding& f : derived->findings)
        if (f.code == "sheet.outside" && std::abs(f.place.box.y0 - 20) < 0.01) told = f;
    REQUIRE(told.remedy.code == "part.turn-to-fit");
    t.mend(told);
    CHECK(at(good) == before_good);
    CHECK(at(second) == before_second);
    CHECK_FALSE(at(first) == before_first);
}

TEST_CASE("a round thing turned askew is as wide as before: its lines count, not its box") {
    FitTable t;
    const PartId oval = t.label(290, 290, Label::Edge::oval);
    const SheetId sheet = add_sheet(t.project, "one", "cream-card-12x12", "mat-12x12-standard");
    Placement p;
    p.part = oval, p.turn = degrees(45);
    must(place(t.project, sheet, p));
    Finding out = get(t.derive()->findings, "sheet.outside");
    CHECK(out.remedy.code == "sheet.bring-in");
    t.mend(out);
    CHECK_FALSE(has(t.derive()->findings, "sheet.outside"));
    CHECK(in_degrees(t.project.sheets[0].placements[0].turn) == Approx(45));
}

TEST_CASE("a card that fits nowhere is offered in panels with a glued hinge, which fit") {
    FitTable t;
    t.project.machine = "one-slot";
    const PartId card = t.card(250, 250);
    Finding told = get(t.derive()->findings, "part.too-large");
    CHECK(told.remedy.code == "card.panels");
    CHECK(told.message.english().find("297.9 x 301") != std::string::npos);
    t.mend(told);
    const auto derived = t.derive();
    CHECK_FALSE(has(derived->findings, "part.too-large"));
    const EvaluatedPart& made = *derived->part(card);
    REQUIRE(made.apart.size() == 2);
    CHECK(made.apart[0].box.width() == Approx(265)); // 250 and a hinge of 15
    CHECK(made.apart[1].box.width() == Approx(250));
    CHECK(made.apart[0].box.height() == Approx(250));
    // Folded along the line, the panel is as large as the other one, and the hinge lies behind it.
    const auto fold = std::find_if(made.lines.begin(), made.lines.end(), [](const FlatLine& l) {
        return l.contours.size() == 1 && !l.contours[0].closed;
    });
    REQUIRE(fold != made.lines.end());
    CHECK(fold->box.x0 == Approx(250));
    // Larger panels than the machine reaches are not offered.
    FitTable large;
    large.project.machine = "one-slot";
    large.card(320, 320);
    CHECK(get(large.derive()->findings, "part.too-large").remedy.code.empty());
}
