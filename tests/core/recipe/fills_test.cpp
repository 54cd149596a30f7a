// The step "Fill": what its settings do, by counts and identities that can be worked out by hand.
#include <cmath>
#include <numbers>

#include "core/commands/filling.h"
#include "core/commands/remedies.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

struct Filling {
    Bench b;
    StepId id;
    std::shared_ptr<const Derived> derived;

    Filling(const std::string& elements, const FillStep& step)
        : b(bench(elements)) {
        std::vector<LineSetId> sets;
        for (const LineSet& s : find(b.project, b.part)->sets)
            sets.push_back(s.id);
        id = must(fill_sets(b.project, catalog(), b.part, step, sets));
        set(step);
    }
    void set(const FillStep& step) {
        for (Step& s : find(b.project, b.part)->steps)
            if (s.id == id) s.what = step;
    }
    const InkReport& ink() {
        derived = b.derive();
        return *ink_of(*derived->part(b.part), id);
    }
    /// The strokes that are run.
    const Polylines& strokes() {
        derived = b.derive();
        for (const RunSet& run : derived->part(b.part)->runs)
            if (run.step == id) return run.lines;
        static const Polylines none;
        return none;
    }
    bool found(const char* code) {
        derived = b.derive();
        return has(derived->part(b.part)->findings, code);
    }
};

FillStep with(FillStyle style, std::optional<Length> spacing = {}, FillEnds ends = FillEnds::apart) {
    FillStep out;
    out.style = std::move(style), out.spacing = spacing, out.ends = ends;
    out.angle = {};
    return out;
}

constexpr const char* square60 = "<path fill='#a8832d' d='M20,20 h60 v60 h-60 Z'/>";
constexpr const char* o_and_i = // an O with its counter, and an i whose dot is apart
    "<path fill='#a8832d' d='M10,10 h30 v30 h-30 Z M18,18 v14 h14 v-14 Z'/>"
    "<path fill='#a8832d' d='M50,20 h6 v20 h-6 Z M50,10 h6 v6 h-6 Z'/>";

} // namespace

TEST_CASE("a grid of 10 on 60 x 60 from the corner: lines at 10 to 50, 600 mm, 36 cells") {
    FillStep step = with(GridFill{}, mm(10));
    step.phase = FillPhase::corner, step.inset = mm(0);
    Filling f(square60, step);
    CHECK(in_mm(f.ink().length) == Approx(600).margin(1e-3));
    CHECK(f.ink().cells == 36);
    CHECK(f.ink().edge_cells == 0);
    CHECK(f.ink().runs == 10);
    for (const Polyline& line : f.strokes())
        for (const Point p : line.points)
            for (const double v : {p.x - 20, p.y - 20})
                CHECK(std::abs(v / 10 - std::round(v / 10)) < 1e-6);
    // One stroke: ten lines and the ways between them along the edge.
    step.ends = FillEnds::one_stroke;
    f.set(step);
    CHECK(f.ink().runs == 1);
    CHECK(f.ink().lifts == 0);
    // Turned by 45 degrees the edge runs through cells: whole ones are fewer, and none is lost.
    step.angle = degrees(45);
    f.set(step);
    CHECK(f.ink().cells < 36);
    CHECK(f.ink().cells + f.ink().edge_cells > 36);
}

TEST_CASE("only whole cells: each side once, all inside") {
    FillStep step = with(GridFill{FillEdge::whole}, mm(10));
    step.phase = FillPhase::corner, step.inset = mm(0.5);
    Filling f(square60, step);
    // Cells at the edge would touch it: 16 stay, with 5 lines of 40 mm each way.
    CHECK(f.ink().cells == 16);
    CHECK(in_mm(f.ink().length) == Approx(400));
    CHECK(in_mm(length(f.strokes())) == Approx(400));
    step.style = HexagonsFill{FillEdge::whole};
    step.spacing = mm(6);
    f.set(step);
    const auto& ink = f.ink();
    // V - E + F = 1 of a plane piece: sides lie between 3 and 6 for each cell.
    CHECK(ink.cells > 40);
    const double sides = in_mm(ink.length) / (6 / std::sqrt(3.0));
    CHECK(sides > 3.0 * static_cast<double>(ink.cells));
    CHECK(sides < 4.0 * static_cast<double>(ink.cells));
    for (const FillStyle& style : {FillStyle(BricksFill{mm(9), BricksFill::Bond::third, FillEdge::whole}),
                                   FillStyle(TrianglesFill{FillEdge::whole})}) {
        step.style = style;
        step.ends = FillEnds::one_stroke;
        f.set(step);
        CHECK(f.ink().cells > 20);
        CHECK(f.ink().runs == 1); // all cells hang together here
    }
}

TEST_CASE("ruled: lines within margins, with helpers") {
    FillStep step = with(RuledFill{mm(5), mm(7), mm(10), mm(5), 0}, mm(8));
    step.inset = mm(0);
    Filling f(square60, step);
    // From 10 to 55 in steps of 8: six lines of 48 mm.
    CHECK(f.ink().runs == 6);
    CHECK(in_mm(f.ink().length) == Approx(6 * 48));
    const Box box = bounds(f.strokes());
    CHECK(box.x0 == Approx(25));
    CHECK(box.x1 == Approx(73));
    CHECK(box.y0 == Approx(30));
    std::get<RuledFill>(step.style).helper = 50;
    f.set(step);
    CHECK(f.ink().runs == 12);
    std::get<RuledFill>(step.style).left = mm(100);
    f.set(step);
    CHECK(f.found("fill.empty"));
}

TEST_CASE("waves, scales and spirals have the length that their curves have") {
    FillStep step = with(WavesFill{mm(8), mm(2)}, mm(3));
    step.inset = mm(0);
    Filling f("<path fill='#a8832d' d='M10,10 h80 v60 h-80 Z'/>", step);
    // An arc of y = sin(x) is longer than its chord by 1.21600 (complete elliptic integral E(-1),
    // DLMF 19.2.8, from memory); here amplitude times turn is 2 pi / 8.
    double arc = 0;
    const double k = 2 * std::numbers::pi / 8;
    for (int i = 0; i < 100000; ++i)
        arc += std::sqrt(1 + std::pow(k * std::cos(k * (i + 0.5) * 8e-5), 2)) * 8e-5;
    std::size_t whole = 0;
    for (const Polyline& line : f.strokes())
        if (bounds(line).width() > 79.99) {
            ++whole;
            CHECK(in_mm(length(line)) == Approx(10 * arc).epsilon(1e-3));
        }
    CHECK(whole >= 17);
    step.style = SpiralFill{SpiralFill::Course::round, {50, 50}};
    step.spacing = mm(1);
    f.set(step);
    // A line 1 mm from its neighbours covers as many mm2 as it is long.
    CHECK(in_mm(f.ink().length) == Approx(80 * 60).epsilon(0.01));
    step.style = ContourFill{};
    f.set(step);
    // Rings of a rectangle w x h at k mm: 2 (w + h) - 8 k.
    double rings = 0;
    for (int i = 0; i < 30; ++i)
        rings += 2 * (80 + 60) - 8.0 * i;
    CHECK(in_mm(f.ink().length) == Approx(rings).epsilon(0.02));
    step.ends = FillEnds::one_stroke;
    f.set(step);
    CHECK(f.ink().runs == 1);
}

TEST_CASE("spacing and angle follow the style and the tip until they are typed") {
    FillStep step;
    CHECK(in_mm(step.spaced(mm(0.4))) == Approx(0.34)); // tip less 15 %
    step.of_tip = 200;
    CHECK(in_mm(step.spaced(mm(0.4))) == Approx(0.8));
    CHECK(in_mm(step.spaced(mm(0.01))) == Approx(0.05)); // never below what a fill may have
    step.style = HexagonsFill{};
    CHECK(in_mm(step.spaced(mm(0.4))) == Approx(HexagonsFill::row.open_mm));
    step.spacing = mm(3);
    CHECK(in_mm(step.spaced(mm(0.4))) == Approx(3));
}

TEST_CASE("no piece is lost silently: an i-dot has its own line, a pattern tells what it passes beside") {
    FillStep step = with(ParallelFill{}, mm(9));
    step.inset = mm(0.25);
    Filling f(o_and_i, step);
    std::vector<Region> pieces_of_i;
    CHECK(f.ink().left_out.empty());
    std::size_t dot = 0;
    for (const Polyline& line : f.strokes())
        dot += bounds(line).y1 < 16.1 && bounds(line).x0 > 49;
    CHECK(dot >= 1);
    step = with(GridFill{}, mm(40));
    f.set(step);
    CHECK(f.found("fill.missed"));
    CHECK_FALSE(f.ink().left_out.empty());
    for (const LeftOut& l : f.ink().left_out)
        CHECK(l.why == LeftOut::Why::edge);
    CHECK(mend(step, Finding{.remedy = {.code = "fill.each-piece"}}, nullptr));
    f.set(step);
    CHECK_FALSE(f.found("fill.missed")); // each has a line through its middle
}

TEST_CASE("places, surfaces and overlaps choose what is filled") {
    const auto to_fill = [](Filling& f) { return in_square_mm(f.ink().coverage.to_fill); };
    FillStep step = with(ParallelFill{}, mm(1));
    Filling f(o_and_i, step);
    const double o = 30 * 30 - 14 * 14, stem = 6 * 20, dot = 6 * 6;
    CHECK(to_fill(f) == Approx(o + stem + dot));
    // The box is 46 x 30 from 10, 10: the dot's middle lies at 43 / 46 and 3 / 30 of it.
    step.only = "93.5 10; 10 10";
    f.set(step);
    CHECK(to_fill(f) == Approx(o + dot));
    REQUIRE(f.ink().left_out.size() == 1);
    CHECK(f.ink().left_out[0].why == LeftOut::Why::unchosen);
    CHECK(f.ink().left_out[0].box.y0 == Approx(20).margin(0.01));
    step.only = "over there";
    f.set(step);
    CHECK(f.found("fill.places"));
    step.only.clear();
    step.surface = FillStep::Surface::between; // counters: what outlines hold that is not filled
    f.set(step);
    CHECK(to_fill(f) == Approx(o + stem + dot)); // outlines less what lies within them
    step.surface = FillStep::Surface::within;
    f.set(step);
    CHECK(to_fill(f) == Approx(14 * 14));
    // Two petals in a circle, all lines of their own.
    const char* flower = "<rect fill='#a8832d' x='10' y='10' width='60' height='40'/>"
                         "<rect fill='#a8832d' x='20' y='20' width='10' height='10'/>"
                         "<rect fill='#a8832d' x='25' y='25' width='10' height='10'/>";
    step.surface = FillStep::Surface::inside;
    Filling petals(flower, step);
    CHECK(to_fill(petals) == Approx(2400));
    step.surface = FillStep::Surface::within;
    petals.set(step);
    CHECK(to_fill(petals) == Approx(175));
    step.surface = FillStep::Surface::between;
    petals.set(step);
    CHECK(to_fill(petals) == Approx(2400 - 175));
    step.surface = FillStep::Surface::inside;
    step.rule = FillStep::Rule::even_odd;
    petals.set(step);
    CHECK(to_fill(petals) == Approx(2400 - 175 + 25)); // where the petals overlap it is three deep
}

TEST_CASE("thin limbs run along their middle, where asked for") {
    // A broad head with a thin tail of 0.3 mm, for a tip of 0.5.
    FillStep step = with(ParallelFill{});
    Filling f("<path fill='#a8832d' d='M10,10 h10 v10 h-5 v30 h-0.3 v-30 h-4.7 Z'/>"
              "<path fill='#a8832d' d='M40,10 h0.2 v30 h-0.2 Z'/>",
              step);
    const double before = f.ink().coverage.covered_percent;
    CHECK(f.found("fill.too-thin"));
    CHECK(f.ink().left_out.size() == 1); // the second line
    step.centre_lines = true;
    f.set(step);
    CHECK(f.ink().centre_lines >= 2);
    CHECK(f.ink().coverage.covered_percent > before + 5);
    CHECK(f.ink().coverage.covered_percent > 97);
    CHECK_FALSE(f.found("fill.too-thin"));
}

TEST_CASE("corners are no limbs: a lift for each would cost more than they are worth") {
    FillStep step = with(ParallelFill{});
    step.centre_lines = true, step.ends = FillEnds::one_stroke;
    // A star whose points are 33 degrees sharp.
    Filling star("<path fill='#a8832d' d='M60,10 66,30 86,30 70,42 76,62 60,50 44,62 50,42 34,30 54,30 Z'/>",
                 step);
    CHECK(star.ink().centre_lines == 0);
    CHECK(star.ink().runs == 1);
    CHECK(star.ink().coverage.covered_percent > 98);
    // What is 10 degrees sharp loses 2.6 mm of its point, and is worth it.
    Filling wedge("<path fill='#a8832d' d='M10,10 h50 l-50,8.816 Z'/>", step);
    CHECK(wedge.ink().centre_lines >= 1);
    // Between two blocks, however short: the letter would be in two.
    Filling neck("<path fill='#a8832d' d='M10,10 h9 v4 h0.7 v-4 h9 v9 h-9 v-4.7 h-0.7 v4.7 h-9 Z'/>", step);
    CHECK(neck.ink().centre_lines == 1);
    CHECK(neck.ink().runs == 3);
}

TEST_CASE("the edge, repeats, order, short lines and room around others") {
    FillStep step = with(ParallelFill{}, mm(2));
    step.inset = mm(1);
    Filling f(o_and_i, step);
    const double plain = in_mm(f.ink().length);
    const std::size_t runs = f.ink().runs;
    step.boundary = true;
    f.set(step);
    CHECK(f.ink().runs == runs + 4); // the O's two edges, the stem, the dot
    // 4 x 28 + 4 x 16 (round corners around the counter) + 2 (4 + 18) + 4 x 4
    CHECK(in_mm(f.ink().length) - plain == Approx(112 + 56 + 2 * std::numbers::pi + 44 + 16).epsilon(2e-3));
    step.boundary = false, step.repeats = 3;
    f.set(step);
    CHECK(in_mm(f.ink().length) == Approx(3 * plain));
    CHECK(f.ink().runs == runs); // one object, deeper
    CHECK(f.ink().lifts == runs - 1);
    step.repeats = 1, step.order = FillStep::Order::top_down;
    f.set(step);
    double last = -1e300;
    for (const Polyline& line : f.strokes()) {
        CHECK(bounds(line).y0 >= last - 1e-9);
        last = bounds(line).y0;
    }
    step.order = FillStep::Order::by_piece;
    f.set(step);
    int changes = 0;
    bool right = false;
    for (const Polyline& line : f.strokes()) {
        const bool now = bounds(line).x0 > 45;
        changes += now != right, right = now;
    }
    CHECK(changes == 1); // all of the O, then all of the i
    step.order = FillStep::Order::as_drawn, step.least = mm(5);
    f.set(step);
    for (const Polyline& line : f.strokes())
        CHECK(in_mm(length(line)) >= 5);
    // A pattern's lines keep off the second line set.
    Bench b = bench(
        "<path fill='#a8832d' d='M20,20 h60 v60 h-60 Z'/><path fill='none' stroke='#111' d='M0,50 h100'/>");
    const auto lines = b.lines();
    const LineSetId square = must(gather(b.project, b.part, {lines[0]}, "square"));
    FillStep clear = with(ParallelFill{}, mm(0.5));
    clear.clear = mm(4), clear.inset = mm(0);
    const StepId id = must(fill_sets(b.project, catalog(), b.part, clear, {square}));
    for (Step& s : find(b.project, b.part)->steps)
        if (s.id == id) s.what = clear;
    const auto d = b.derive();
    CHECK(in_square_mm(ink_of(*d->part(b.part), id)->coverage.to_fill) == Approx(60 * 52));
}

TEST_CASE("absurd fills are refused with the spacing that would do") {
    for (const FillKind& kind : fill_kinds()) {
        FillStep step = with(kind.fresh, mm(0.05));
        step.inset = mm(0);
        Bench b = bench("<path fill='#a8832d' d='M0,0 h9000 v9000 h-9000 Z'/>", 9000, 9000, false);
        step.spacing = mm(0.05);
        const LineSetId set = find(b.project, b.part)->sets.front().id;
        const StepId id = must(fill_sets(b.project, catalog(), b.part, step, {set}));
        for (Step& s : find(b.project, b.part)->steps)
            if (s.id == id) s.what = step;
        if (kind.dense == 0) continue; // lines alone: 180,000 of them, which can be drawn
        const auto d = b.derive();
        INFO(kind.key);
        const InkReport& ink = *ink_of(*d->part(b.part), id);
        REQUIRE_FALSE(ink.refused.empty());
        CHECK(in_english(ink.refused).find("would do") != std::string::npos);
        CHECK(ink.runs == 0);
    }
}

TEST_CASE("odd outlines: crossed, doubled, tiny, without area, huge, open") {
    const char* odd[] = {
        "<path fill='#a8832d' d='M10,10 L40,40 L40,10 L10,40 Z'/>",               // crosses itself
        "<path fill='#a8832d' d='M10,10 h20 v20 h-20 Z M10,10 h20 v20 h-20 Z'/>", // twice
        "<path fill='#a8832d' d='M10,10 h0.01 v0.01 h-0.01 Z'/>",                 // tiny
        "<path fill='#a8832d' d='M10,10 h20 h-20 Z'/>",                           // no area
        "<path fill='none' stroke='#a8832d' d='M10,10 h20 v20'/>",                // open
        "<path fill='#a8832d' d='M10,10 h30 v30 h-30 Z M15,15 h20 v20 h-20 Z M20,20 h10 v10 h-10 "
        "Z'/>", // deep
    };
    for (const char* elements : odd)
        for (const FillKind& kind : fill_kinds())
            for (const FillEnds ends : {FillEnds::apart, FillEnds::joined, FillEnds::one_stroke}) {
                Bench b = bench(elements, 100, 100, false);
                FillStep step = with(kind.fresh, {}, ends);
                const auto id =
                    fill_sets(b.project, catalog(), b.part, step, {find(b.project, b.part)->sets.front().id});
                if (!id) continue; // there is nothing to fill, and it was said
                const auto d = b.derive();
                const InkReport* ink = ink_of(*d->part(b.part), *id);
                INFO(elements << " " << kind.key);
                REQUIRE(ink);
                CHECK((ink->runs > 0 || !ink->refused.empty()));
            }
}
