// Fills that a drawing came with as lines: told when the part is resized, and filled anew.
#include <cmath>
#include <numbers>
#include <sstream>

#include "core/checks/brought_fills.h"
#include "core/commands/remedies.h"
#include "core/commands/steps.h"
#include "core/opening/opening.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// Chords of rings around (x, y), with their two circles: what another program's fill looks like.
struct Rings {
    double x, y, outer, inner, spacing, angle;
    bool joined;

    std::string svg() const {
        std::ostringstream out;
        for (const double r : {outer, inner})
            if (r > 0)
                out << "<circle fill='none' stroke='#111' cx='" << x << "' cy='" << y << "' r='" << r
                    << "'/>";
        const double c = std::cos(angle), s = std::sin(angle);
        std::string d;
        int row = 0;
        for (double v = -outer + spacing / 3; v < outer; v += spacing, ++row) {
            const double far = std::sqrt(outer * outer - v * v),
                         near = std::abs(v) < inner ? std::sqrt(inner * inner - v * v) : 0;
            for (const auto& [from, to] : {std::pair{-far, near > 0 ? -near : far}, std::pair{near, far}}) {
                if (near == 0 && from >= 0) continue;
                const bool back = joined && row % 2 == 1;
                const double a = back ? to : from, b = back ? from : to;
                std::ostringstream part;
                part << (joined && inner <= 0 && row > 0 ? "L" : "M") << x + a * c - v * s << ","
                     << y + a * s + v * c << "L" << x + b * c - v * s << "," << y + b * s + v * c;
                d += part.str();
            }
        }
        if (joined)
            out << "<path fill='none' stroke='#a8462d' d='" << d << "'/>";
        else // a line each
            for (std::size_t at = 0; at < d.size();) {
                const std::size_t next = std::min(d.find('M', at + 1), d.size());
                out << "<path fill='none' stroke='#a8462d' d='" << d.substr(at, next - at) << "'/>";
                at = next;
            }
        return out.str();
    }
};

} // namespace

TEST_CASE("a fill that came as lines tells its new spacing when the part is resized") {
    Random random("fills that came as lines");
    for (int round = 0; round < 20; ++round) {
        const double outer = random.real(6, 20);
        const Rings rings{40,
                          40,
                          outer,
                          random.coin() ? outer * random.real(0.2, 0.6) : 0,
                          random.real(0.1, 0.8),
                          random.real(0, std::numbers::pi),
                          random.coin()};
        INFO("seed " << random.seed() << " round " << round << " spacing " << rings.spacing);
        Bench b = bench(rings.svg());
        CHECK_FALSE(has(b.derive()->findings, "lines.fill-resized")); // as it came
        const double scale = random.coin() ? random.real(1.05, 2.5) : random.real(0.4, 0.95);
        must(scale_part(b.project, b.part, scale));
        const auto derived = b.derive();
        const auto found = brought_fills(*derived->part(b.part));
        REQUIRE(found.size() == 1);
        // Chords are exact but for the three decimals or so that they were written with.
        CHECK(in_mm(found[0].spacing) == Approx(rings.spacing * scale).epsilon(2e-3));
        const double turned = std::remainder(in_radians(found[0].angle) - rings.angle, std::numbers::pi);
        CHECK(std::abs(turned) < 0.005);
        CHECK(found[0].outlines.size() == (rings.inner > 0 ? 2U : 1U));

        const Finding told = get(derived->findings, "lines.fill-resized");
        REQUIRE(told.remedy.code == "fill.anew");
        must(apply(MendFinding{told}, b.project, catalog(), *derived));
        const auto now = b.derive();
        CHECK_FALSE(has(now->findings, "lines.fill-resized"));
        const Part& part = *find(b.project, b.part);
        REQUIRE(part.steps.size() == 1);
        const InkReport* ink = ink_of(*now->part(b.part), part.steps[0].id);
        REQUIRE(ink);
        CHECK(in_mm(ink->spacing) == Approx(rings.spacing).epsilon(2e-3));
        // The ring's own area: the counter stays bare.
        const double r = rings.outer * scale, q = rings.inner * scale;
        CHECK(in_square_mm(ink->coverage.to_fill) ==
              Approx(std::numbers::pi * (r * r - q * q)).epsilon(5e-3));
        // The outline is run as before, the old lines are not, and nothing is lost.
        std::size_t lines = 0;
        for (const LineSet& set : part.sets) {
            lines += set.lines.size();
            if (set.name == "fill as drawn") CHECK(set.set_aside);
            if (set.name == "filled anew") CHECK_FALSE(set.set_aside);
        }
        CHECK(lines == part.source.drawing->lines.size());
    }
}

TEST_CASE("the lines of 57.1 mm that were 0.132 mm apart are told as 0.149 mm at 64.57 mm") {
    const Rings rings{40, 40, 57.1 / 2, 0, 0.132, 0.6, false};
    Bench b = bench(rings.svg());
    must(scale_part(b.project, b.part, 64.57 / 57.1));
    const Finding told = get(b.derive()->findings, "lines.fill-resized");
    CHECK(told.message.english().find("0.149 mm apart at this size, and were 0.132 mm") != std::string::npos);
}

TEST_CASE("a fill that came as lines tells its new spacing when a step resizes it, with the part's scale or "
          "without") {
    Random random("resize steps over fills that came as lines");
    for (int round = 0; round < 12; ++round) {
        const Rings rings{
            40,           40, random.real(6, 20), 0, random.real(0.1, 0.8), random.real(0, std::numbers::pi),
            random.coin()};
        const double scale = random.coin() ? 1 : random.real(0.5, 2),
                     by = random.coin() ? random.real(1.05, 2) : random.real(0.5, 0.95);
        INFO("seed " << random.seed() << " round " << round << " scale " << scale << " by " << by);
        Bench b = bench(rings.svg());
        if (scale != 1) must(scale_part(b.project, b.part, scale));
        ResizeStep step;
        step.by = ResizeStep::By::percent, step.percent = 100 * by;
        must(append_step(b.project, catalog(), b.part, step, {}, {}));
        const auto derived = b.derive();
        if (std::abs(scale * by - 1) < 0.01) continue;
        const Finding told = get(derived->findings, "lines.fill-resized");
        CHECK(number_argument(told, "spacing_mm") ==
              Approx(rings.spacing * scale * by).epsilon(2e-3).margin(6e-4));
        CHECK(number_argument(told, "drawn_mm") == Approx(rings.spacing).epsilon(2e-3).margin(6e-4));
        must(apply(MendFinding{told}, b.project, catalog(), *derived));
        const auto now = b.derive();
        CHECK_FALSE(has(now->findings, "lines.fill-resized"));
        const Part& part = *find(b.project, b.part);
        const InkReport* ink = ink_of(*now->part(b.part), part.steps.back().id);
        REQUIRE(ink);
        CHECK(in_mm(ink->spacing) == Approx(rings.spacing).epsilon(2e-3));
        const double r = rings.outer * scale * by;
        CHECK(in_square_mm(ink->coverage.to_fill) == Approx(std::numbers::pi * r * r).epsilon(5e-3));
        // Switched off again the step leaves the drawing as it came.
        if (scale == 1) {
            Bench off = bench(rings.svg());
            must(append_step(off.project, catalog(), off.part, step, {}, {}));
            find(off.project, off.part)->steps.front().on = false;
            CHECK_FALSE(has(off.derive()->findings, "lines.fill-resized"));
        }
    }
}

TEST_CASE("what is no fill is not told as one: few lines, uneven lines, a drawing of curves") {
    std::ostringstream uneven, few, curves;
    for (int i = 0; i < 30; ++i)
        uneven << "<path fill='none' stroke='#111' d='M10," << 10 + i * i * 0.08 << "h40'/>";
    for (int i = 0; i < 5; ++i)
        few << "<path fill='none' stroke='#111' d='M10," << 10 + i << "h40'/>";
    for (int i = 0; i < 40; ++i)
        curves << "<path fill='none' stroke='#111' d='M10," << 10 + i << "q20,30 40,0'/>";
    for (const auto& elements : {uneven.str(), few.str(), curves.str()}) {
        Bench b = bench(elements);
        must(scale_part(b.project, b.part, 1.5));
        CHECK_FALSE(has(b.derive()->findings, "lines.fill-resized"));
    }
}

TEST_CASE("a fill that came as lines tells its new spacing when the file is opened at another size") {
    const std::string lines = "<rect fill='none' stroke='#111' width='57.1' height='30'/>" + [] {
        std::ostringstream out;
        for (int k = 0; k < 220; ++k)
            out << "<path fill='none' stroke='#00f' d='M0," << 0.5 + 0.132 * k << "H57.1'/>";
        return out.str();
    }();
    Opened opened = must(open_drawing(svg(lines, 57.1, 30), "fine.svg", fonts()));
    settle_scale(opened, must(scale_to_width(opened, mm(64.57))).factor);
    Bench b = bench("<circle r='5' cx='9' cy='9'/>");
    b.part =
        must(apply(TakeIn{opened, gather_lanes(*opened.source.drawing, catalog())}, b.project, catalog()))
            .part;
    const auto derived = b.derive();
    CHECK(derived->part(b.part)->box.width() == Approx(64.57));
    const Finding told = get(derived->findings, "lines.fill-resized");
    CHECK(number_argument(told, "spacing_mm") ==
          Approx(0.132 * 64.57 / 57.1).margin(6e-4)); // as it is written
    CHECK(number_argument(told, "drawn_mm") == Approx(0.132).margin(6e-4));
    must(apply(MendFinding{told}, b.project, catalog(), *derived));
    CHECK_FALSE(has(b.derive()->findings, "lines.fill-resized"));
}
