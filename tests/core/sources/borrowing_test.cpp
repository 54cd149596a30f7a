// Sources and steps that take another part's outline: their arithmetic, and that they follow when it changes.
#include <numbers>

#include "core/commands/making.h"
#include "core/geometry/reshape.h"
#include "core/project/format.h"
#include "core/sources/make.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;
using std::numbers::pi;

namespace {

Borrowed lent(const Region& region) {
    return {without_holes(region), without_holes(region), {region}};
}
Region disc_region(double r, Point at = {}) {
    return region_of(Shape{{ellipse(at, r, r)}}, mm(0.001));
}
Result<SourceLines> made_of(const SourceSpec& spec, const Borrowed& of) {
    return make_lines(spec, fonts(), &of);
}
Region area_in(const SourceLines& lines, const std::string& role) {
    std::vector<Region> all;
    for (const DrawnLine& line : lines.drawing->lines)
        if (line.group == role) all.push_back(region_of(line.shape));
    return united(all);
}
Polylines runs_of(const EvaluatedPart& part) {
    Polylines out;
    for (const RunSet& run : part.runs)
        out.insert(out.end(), run.lines.begin(), run.lines.end());
    return out;
}

} // namespace

TEST_CASE("a shape card of a disc: area and hinge are those of two circular segments") {
    // Identity: a disc of radius r cut at distance d from its centre leaves a chord of 2 sqrt(r^2 - d^2) and
    // a segment of r^2 acos(d / r) - d sqrt(r^2 - d^2).
    const double r = 50, overlap = 16, d = r - overlap / 2; // half of it comes off each half
    for (const auto fold :
         {ShapeCard::Fold::left, ShapeCard::Fold::right, ShapeCard::Fold::top, ShapeCard::Fold::bottom}) {
        INFO("fold " << static_cast<int>(fold));
        ShapeCard card;
        card.fold = fold, card.overlap = mm(overlap), card.setback = mm(2);
        const auto lines = must(made_of(card, lent(disc_region(r))));
        const double chord = 2 * std::sqrt(r * r - d * d), segment = r * r * std::acos(d / r) - d * chord / 2;
        const Region whole = area_in(lines, role::outline);
        CHECK(pieces(whole).size() == 1);
        CHECK(in_square_mm(area(whole)) ==
              Approx(2 * (pi * r * r - segment))
                  .epsilon(6e-4)); // a circle's cubics lie within 0.03 % of its radius
        CHECK(figure(lines, "hinge") == Approx(chord).epsilon(1e-3));
        const bool across = fold == ShapeCard::Fold::left || fold == ShapeCard::Fold::right;
        const Box box = bounds(whole);
        CHECK((across ? box.width() : box.height()) == Approx(4 * r - overlap).epsilon(1e-3));
        CHECK((across ? box.height() : box.width()) == Approx(2 * r).epsilon(1e-3));
        // The fold lies in the middle and stops two millimetres before both ends of the hinge.
        for (const DrawnLine& line : lines.drawing->lines)
            if (line.group == role::fold) {
                const Box fold_box = bounds(line.shape);
                CHECK(in_mm(length(flattened(line.shape))) == Approx(chord - 4).epsilon(1e-3));
                CHECK(fold_box.centre().x == Approx(box.centre().x).margin(0.01));
                CHECK(fold_box.centre().y == Approx(box.centre().y).margin(0.01));
            }
        // 51 mm of 100: neither under 30 mm nor under 40 %.
        CHECK_FALSE(has(lines.findings, "card.hinge"));
    }
    ShapeCard thin;
    thin.overlap = mm(4); // a chord of 28 mm
    CHECK(has(must(made_of(thin, lent(disc_region(50)))).findings, "card.hinge"));
    thin.overlap = mm(210);
    CHECK(made_of(thin, lent(disc_region(50))).error().code == "source.card");
    thin.overlap = mm(0); // a disc touches its fold in a point
    CHECK(made_of(thin, lent(disc_region(50))).error().code == "source.card");
    // A straight side holds along its whole length without any overlap: two rectangles.
    const auto square_card = must(made_of(thin, lent(square(60))));
    CHECK(figure(square_card, "hinge") == Approx(60).epsilon(1e-3));
    CHECK(area_of(area_in(square_card, role::outline)) == Approx(7200).epsilon(1e-3));
}

TEST_CASE("two outlines of 98 that overlap by 6 make a card of 190") {
    ShapeCard card;
    card.fold = ShapeCard::Fold::top, card.overlap = mm(6);
    const auto lines = must(made_of(card, lent(square(98))));
    CHECK(bounds(area_in(lines, role::outline)).height() == Approx(190));
    CHECK(figure(lines, "finished_height") == Approx(95));
}

TEST_CASE("layers: an even reveal, mats with openings, corners") {
    Layer layer;
    layer.reveal = mm(5);
    auto lines = must(made_of(layer, lent(square(100))));
    CHECK(figure(lines, "width") == Approx(90));
    CHECK(area_of(area_in(lines, role::outline)) == Approx(8100).epsilon(1e-5));
    layer.frame = mm(12);
    lines = must(made_of(layer, lent(square(100))));
    CHECK(figure(lines, "opening_width") == Approx(66));
    CHECK(area_of(area_in(lines, role::outline)) == Approx(8100 - 66 * 66).epsilon(1e-5));
    // Steiner: 60 x 40 grown by 3 has 2400 + 200 x 3 + 9 pi = 3028.27 mm2 round, 66 x 46 = 3036 mm2 mitred.
    const Region block = region_of(Shape{{rectangle({0, 0, 60, 40})}});
    layer.frame = mm(0), layer.reveal = mm(-3);
    CHECK(area_of(area_in(must(made_of(layer, lent(block))), role::outline)) == Approx(3036));
    layer.corners = Layer::Corners::round;
    CHECK(area_of(area_in(must(made_of(layer, lent(block))), role::outline)) ==
          Approx(3028.27).epsilon(1e-4));
    layer.reveal = mm(20);
    CHECK(made_of(layer, lent(block)).error().code == "source.layer");
    layer.reveal = mm(2), layer.frame = mm(30);
    CHECK(made_of(layer, lent(block)).error().code == "source.layer");
    CHECK(make_lines(layer, fonts()).error().code == "source.part");
}

TEST_CASE("a part as the motif of a pattern: counted like others, its holes kept, its web measured") {
    // n w + (n - 1) g <= W: n things of width w with gap g in W: floor((W + g) / (w + g)).
    const Region ring_region = subtracted(disc_region(10), disc_region(4));
    RepeatPattern pattern;
    pattern.motif = RepeatPattern::Motif::part;
    pattern.width = mm(200), pattern.height = mm(100), pattern.margin = mm(0);
    pattern.size = mm(20), pattern.gap = mm(4);
    const auto lines = must(made_of(pattern, lent(ring_region)));
    CHECK(figure(lines, "across") == 8); // 204 / 24
    CHECK(figure(lines, "rows") == 4);   // 104 / 24
    CHECK(figure(lines, "web") == Approx(4).margin(0.05));
    CHECK(hole_count(area_in(lines, role::motif)) == 32);
    pattern.wanted = 5; // solved backwards: (200 + 4) / 5 - 4
    CHECK(figure(must(made_of(pattern, lent(ring_region))), "size") == Approx(36.8));
}

TEST_CASE("text along an outline: upright on it, at its distance, where it was put") {
    Lettering text;
    text.text = "TIDE", text.font = "League Spartan", text.path = Lettering::Path::outline;
    text.size = mm(8), text.lift = mm(3);
    const double r = 60;
    for (const double start : {75.0, 0.0, 25.0}) {
        text.start = start;
        for (const bool inside : {false, true}) {
            text.inside = inside;
            INFO("start " << start << (inside ? " inside" : ""));
            const auto lines = must(made_of(text, lent(disc_region(r))));
            const Region letters = area_in(lines, role::letters);
            const double base = inside ? r - 3 : r + 3, head = inside ? base - 8 : base + 8;
            double least = 1e9, most = 0;
            for (const Ring& ring : letters.rings)
                for (const Point p : ring)
                    least = std::min(least, std::hypot(p.x, p.y)),
                    most = std::max(most, std::hypot(p.x, p.y));
            // Straight feet of letters touch the circle with their middles only: a letter of 9 mm has its
            // corners 9^2 / (8 * 60) = 0.2 mm further out; round ones overshoot by a hundredth of the em.
            CHECK(least == Approx(std::min(base, head)).margin(0.5));
            CHECK(most == Approx(std::max(base, head)).margin(0.5));
            const Point middle = bounds(letters).centre();
            const double angle =
                std::atan2(middle.y, middle.x) / (2 * pi) * 100; // % clockwise from the right
            CHECK(std::remainder(angle - start, 100) == Approx(0).margin(1.5));
        }
    }
    text.text = std::string(300, 'W');
    CHECK(made_of(text, lent(disc_region(r))).error().code == "source.text");
}

TEST_CASE("borrowers follow their lender, through chains, and survive saving") {
    Workshop workshop(catalog());
    Project p = workshop.new_project("walk");
    FoldedCard card;
    card.width = mm(150), card.height = mm(100);
    const PartId lender = must(make_part(p, catalog(), workshop.fonts(), card));
    const PartId mat = must(make_part(p, catalog(), workshop.fonts(), Layer{}));
    CHECK(borrows_from(find(p, mat)->source.spec) == lender); // found by itself
    const PartId inner = must(make_part(p, catalog(), workshop.fonts(), Layer{}, {}, mat));
    CHECK(borrows_from(find(p, inner)->source.spec) == mat);
    auto derived = workshop.derive(std::make_shared<Project>(p));
    CHECK(derived->part(mat)->box.width() == Approx(142)); // the front, not the base
    CHECK(derived->part(inner)->box.width() == Approx(134));
    CHECK(derived->part(inner)->box.height() == Approx(84));
    const auto inner_before = derived->parts.at(inner);
    // Nothing of the lender changed: nothing is made again.
    must(rename_part(p, lender, "Card"));
    (void)workshop.derive(std::make_shared<Project>(p));
    card.width = mm(120);
    must(change_source(p, catalog(), workshop.fonts(), lender, card));
    derived = workshop.derive(std::make_shared<Project>(p));
    CHECK(derived->part(mat)->box.width() == Approx(112));
    CHECK(derived->part(inner)->box.width() == Approx(104));
    CHECK(read_project(write_project(p)) == p);
    // A part that others take lines of stays; one that would follow itself is refused; both change nothing.
    const Project before = p;
    CHECK(remove_part(p, lender).error().code == "part.used");
    Layer circle;
    circle.of = inner;
    CHECK(change_spec(p, mat, circle).error().code == "part.circle");
    CHECK(p == before);
    must(remove_part(p, inner));
    must(remove_part(p, mat));
    must(remove_part(p, lender));
    CHECK(make_part(p, catalog(), workshop.fonts(), ShapeCard{}).error().code == "source.part");
}

TEST_CASE("files whose parts take lines of no part, or in a circle, are refused") {
    Workshop workshop(catalog());
    Project p = workshop.new_project("walk");
    (void)must(make_part(p, catalog(), workshop.fonts(), Label{}));
    const PartId layer = must(make_part(p, catalog(), workshop.fonts(), Layer{}));
    for (const PartId wrong : {PartId{p.next_id - 1}, layer}) {
        Project broken = p;
        std::get<Layer>(find(broken, layer)->source.spec).of = wrong;
        const auto read = read_project(write_project(broken));
        REQUIRE_FALSE(read);
        CHECK(read.error().code == "project.rules");
    }
}

TEST_CASE(
    "another part's lines: open ones too, an i with its dot and its stem, of a cut part those that are cut") {
    Workshop workshop(catalog());
    Project p = workshop.new_project("walk");
    const auto length = [](const Polylines& lines) {
        double out = 0;
        for (const Polyline& line : lines)
            for (std::size_t i = 0; i + (line.closed ? 0 : 1) < line.points.size(); ++i)
                out += distance(line.points[i], line.points[(i + 1) % line.points.size()]);
        return out;
    };
    Lettering strokes;
    strokes.text = "tide", strokes.kind = Lettering::Kind::centre_lines, strokes.size = mm(12);
    const PartId words = must(make_part(p, catalog(), workshop.fonts(), strokes, "words"));
    Label tag;
    tag.border = mm(3);
    const PartId plate = must(make_part(p, catalog(), workshop.fonts(), tag, "plate"));
    Label other;
    const PartId bare = must(make_part(p, catalog(), workshop.fonts(), other, "bare"));
    PartStep bring;
    bring.of = words, bring.take = PartStep::Take::lines, bring.percent = 50;
    const StepId drawn = must(append_step(p, catalog(), bare, bring, {}));
    bring.of = plate;
    const StepId cut = must(append_step(p, catalog(), bare, bring, {}));
    const auto derived = workshop.derive(std::make_shared<Project>(p));
    const auto made = [&](StepId step) {
        for (const RunSet& run : derived->part(bare)->runs)
            if (run.step == step) return run.lines;
        FAIL("the step made nothing");
        return Polylines{};
    };
    CHECK(length(made(drawn)) == Approx(length(runs_of(*derived->part(words))) / 2).epsilon(1e-6));
    CHECK(made(cut).size() == 1); // the border is drawn: it stays with its part
    CHECK(bounds(made(cut)).width() == Approx(40));
}

TEST_CASE(
    "another part's lines are brought, turned, resized and cut out, and words follow the part's own edge") {
    Workshop workshop(catalog());
    Project p = workshop.new_project("walk");
    Label hole;
    hole.edge = Label::Edge::plain, hole.width = mm(20), hole.height = mm(10);
    const PartId small = must(make_part(p, catalog(), workshop.fonts(), hole, "small"));
    Label plate;
    plate.edge = Label::Edge::plain, plate.width = mm(100), plate.height = mm(60);
    const PartId large = must(make_part(p, catalog(), workshop.fonts(), plate, "large"));
    PartStep bring;
    bring.of = small, bring.percent = 150, bring.turn = degrees(90);
    const StepId brought = must(append_step(p, catalog(), large, bring, {}));
    const LineSetId result = find(*find(p, large), brought)->result,
                    outline = find(p, large)->sets.front().id;
    auto derived = workshop.derive(std::make_shared<Project>(p));
    const auto box_of_step = [&](const Derived& d) {
        for (const RunSet& run : d.part(large)->runs)
            if (run.step == brought) return bounds(run.lines);
        return Box{};
    };
    CHECK(box_of_step(*derived).width() == Approx(15));
    CHECK(box_of_step(*derived).height() == Approx(30));
    CHECK(box_of_step(*derived).centre().x == Approx(50));
    must(append_step(p, catalog(), large, CutOutStep{}, {outline}, {result}));
    must(set_aside(p, large, result, true));
    derived = workshop.derive(std::make_shared<Project>(p));
    CHECK(in_square_mm(area(region_of(runs_of(*derived->part(large)), FillRule::evenodd))) ==
          Approx(6000 - 450));
    hole.width = mm(40);
    must(change_source(p, catalog(), workshop.fonts(), small, hole));
    derived = workshop.derive(std::make_shared<Project>(p));
    CHECK(in_square_mm(area(region_of(runs_of(*derived->part(large)), FillRule::evenodd))) ==
          Approx(6000 - 900));
    bring.of = large; // of itself
    Step self = *find(*find(p, large), brought);
    self.what = bring;
    CHECK(change_step(p, large, self).error().code == "part.circle");

    WordsStep words;
    words.lettering.path = Lettering::Path::outline, words.lettering.size = mm(4),
    words.lettering.lift = mm(2);
    words.lettering.inside = true, words.lettering.start = 75;
    const StepId written = must(append_step(p, catalog(), large, words, {}));
    derived = workshop.derive(std::make_shared<Project>(p));
    CHECK(derived->part(large)->reports.at(written)->refused.empty());
    Box letters;
    for (const RunSet& run : derived->part(large)->runs)
        if (run.step == written) letters = bounds(run.lines);
    INFO(letters.x0 << " " << letters.y0 << " " << letters.x1 << " " << letters.y1);
    // Heads inwards from a baseline at 2 mm, capitals of 4; what hangs below it reaches 2.3 mm the other way.
    CHECK((letters.y0 > -0.4 && letters.y1 < 6.1));
    CHECK(letters.centre().x == Approx(50).margin(1));
}

TEST_CASE("distribute: gaps or middles, in their own width or in the part's, and align to chosen lines") {
    const auto b = bench(
        "<rect x='0' y='0' width='100' height='40'/><g id='row'><rect x='10' y='5' width='10' height='5'/>"
        "<rect x='22' y='9' width='20' height='5'/><rect x='70' y='7' width='6' height='5'/></g>");
    Project p = b.project;
    const auto lines = b.lines();
    const LineSetId row = must(gather(p, b.part, {lines[1], lines[2], lines[3]}, "row"));
    DistributeStep step;
    StepId id = must(append_step(p, catalog(), b.part, step, {row}));
    const auto boxes = [&] {
        const auto derived = b.workshop->derive(std::make_shared<Project>(p));
        std::vector<Box> out;
        for (const FlatLine& line : derived->part(b.part)->lines)
            if (line.set == row) out.push_back(line.box);
        return out;
    };
    auto now = boxes();
    REQUIRE(now.size() == 3);
    // 66 mm with 36 mm of things: two gaps of 15.
    CHECK(now[1].x0 - now[0].x1 == Approx(15));
    CHECK(now[2].x0 - now[1].x1 == Approx(15));
    CHECK(now[0].x0 == Approx(10));
    CHECK(now[1].y0 == Approx(9)); // down nothing moves
    const auto change = [&](auto how) {
        Step s = *find(*find(p, b.part), id);
        how(std::get<DistributeStep>(s.what));
        must(change_step(p, b.part, s));
        now = boxes();
    };
    change([](DistributeStep& s) { s.even = DistributeStep::Even::middles; });
    CHECK(now[1].centre().x == Approx((now[0].centre().x + now[2].centre().x) / 2));
    change([](DistributeStep& s) {
        s.even = DistributeStep::Even::gaps, s.within = DistributeStep::Within::rest, s.inset = mm(2);
    });
    CHECK(now[0].x0 == Approx(2));
    CHECK(now[2].x1 == Approx(98));
    CHECK(now[2].x0 - now[1].x1 == Approx(30));
    // To chosen lines rather than to all others.
    must(remove_step(p, b.part, id));
    const LineSetId one = must(gather(p, b.part, {lines[3]}, "one")),
                    two = must(gather(p, b.part, {lines[2]}, "two"));
    AlignStep align;
    align.across = AlignStep::Across::left, align.down = AlignStep::Down::leave;
    must(append_step(p, catalog(), b.part, align, {one}, {two}));
    const auto derived = b.workshop->derive(std::make_shared<Project>(p));
    for (const FlatLine& line : derived->part(b.part)->lines)
        if (line.set == one) CHECK(line.box.x0 == Approx(22));
}
