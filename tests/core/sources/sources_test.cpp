// The calculators' arithmetic. Sources are named beside the checks; "I" marks identities.
#include <numbers>

#include "core/geometry/region.h"
#include "core/sources/make.h"
#include "tests/support/shuffle.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;
using std::numbers::pi;

namespace {

SourceLines made(const SourceSpec& spec) {
    return must(make_lines(spec, fonts()));
}
std::string refused(const SourceSpec& spec) {
    const auto lines = make_lines(spec, fonts());
    REQUIRE_FALSE(lines);
    CHECK_FALSE(lines.error().message.empty());
    return lines.error().code;
}
std::vector<const DrawnLine*> of_role(const SourceLines& lines, const std::string& role) {
    std::vector<const DrawnLine*> out;
    for (const DrawnLine& line : lines.drawing->lines)
        if (line.group == role) out.push_back(&line);
    return out;
}
Box box_of(const DrawnLine& line) {
    return bounds(line.shape);
}

} // namespace

TEST_CASE("folded card: base and folds from the finished size") {
    // Folded in half: the base is twice the finished width, its fold at the finished width.
    FoldedCard card;
    card.width = mm(150), card.height = mm(100), card.setback = mm(2);
    const SourceLines lines = made(card);
    CHECK(figure(lines, "base_width") == Approx(300));
    CHECK(figure(lines, "base_height") == Approx(100));
    CHECK(figure(lines, "fold_at") == Approx(150));
    const auto folds = of_role(lines, role::fold);
    REQUIRE(folds.size() == 1);
    CHECK(folds[0]->shape.contours[0].start == Point{150, 2});
    CHECK(folds[0]->shape.contours[0].end() == Point{150, 98});
    const Box base = box_of(*of_role(lines, role::outline)[0]);
    CHECK(base == Box{0, 0, 300, 100});
}

TEST_CASE("folded card: gate, three panels, from the top, perforated, none") {
    FoldedCard card;
    card.width = mm(120), card.height = mm(80), card.tuck = mm(2);
    card.fold = FoldedCard::Fold::gate;
    const auto sum = [](const std::vector<Length>& all) {
        Length out;
        for (const Length l : all)
            out += l;
        return in_mm(out);
    };
    auto panels = panels_of(card);
    REQUIRE(panels.size() == 3);
    CHECK(in_mm(panels[0] + panels[2]) == Approx(120 - 2)); // the wings do not push on each other
    CHECK(figure(made(card), "base_width") == Approx(sum(panels)));
    card.fold = FoldedCard::Fold::three;
    panels = panels_of(card);
    CHECK(in_mm(panels[0]) == Approx(118)); // the panel that lies inside
    CHECK(of_role(made(card), role::fold).size() == 2);
    card.opens = FoldedCard::Opens::top;
    const SourceLines top = made(card);
    CHECK(figure(top, "base_width") == Approx(120));
    CHECK(figure(top, "base_height") == Approx(3 * 80 - 2));
    CHECK(box_of(*of_role(top, role::fold)[0]).height() == Approx(0).margin(1e-9));
    card.line = FoldedCard::Line::perforate;
    CHECK(of_role(made(card), role::perforation).size() == 2);
    card.line = FoldedCard::Line::none;
    CHECK(made(card).drawing->lines.size() == 1);
    card.line = FoldedCard::Line::score;
    card.setback = mm(50), card.width = mm(90);
    CHECK(refused(card) == "source.card");
    card.setback = mm(60);
    CHECK(refused(card) == "field.range");
}

TEST_CASE("labels are as large as they say, whatever their edge") {
    Label label;
    label.width = mm(90), label.height = mm(55), label.corner = mm(9);
    for (int edge = 0; edge < 6; ++edge) {
        label.edge = static_cast<Label::Edge>(edge);
        INFO("edge " << edge);
        const SourceLines lines = made(label);
        const Box box = box_of(*of_role(lines, role::outline)[0]);
        // Arcs are cubics within 0.03 % of their radius.
        CHECK(box.x0 == Approx(0).margin(0.005));
        CHECK(box.y0 == Approx(0).margin(0.005));
        CHECK(box.x1 == Approx(90).margin(0.005));
        CHECK(box.y1 == Approx(55).margin(0.005));
    }
}

TEST_CASE("label edges: areas of circles and rectangles (I)") {
    Label label;
    label.width = mm(90), label.height = mm(50), label.corner = mm(10);
    const auto area_with = [&](Label::Edge edge) {
        label.edge = edge;
        return area_of(*of_role(made(label), role::outline)[0]);
    };
    CHECK(area_with(Label::Edge::plain) == Approx(90 * 50));
    CHECK(area_with(Label::Edge::rounded) == Approx(90 * 50 - (4 - pi) * 100).epsilon(1e-4));
    CHECK(area_with(Label::Edge::notched) == Approx(90 * 50 - pi * 100).epsilon(1e-4));
    CHECK(area_with(Label::Edge::oval) == Approx(pi * 45 * 25).epsilon(3e-4));
    // A bracket of depth 2r, a quarter of it at a time: the outer turn fills pi r^2 / 4 of its square, the
    // tip's turn (4 - pi) r^2 / 4 of its own, and the flank below the outer turn is r wide: together r h / 2.
    const double r = 5, end = r * 25;
    CHECK(area_with(Label::Edge::bracket) == Approx((90 - 4 * r) * 50 + 4 * end).epsilon(1e-4));
}

TEST_CASE("label: tangents are true, scallops whole, borders at their inset, holes inside") {
    Label label;
    label.edge = Label::Edge::bracket;
    const Contour edge = of_role(made(label), role::outline)[0]->shape.contours[0];
    int corners = 0;
    Point at = edge.start;
    for (std::size_t i = 0; i + 1 < edge.segments.size(); ++i) {
        const Segment &a = edge.segments[i], &b = edge.segments[i + 1];
        const Point in = a.curved ? a.to - a.c2 : a.to - at, out = b.curved ? b.c1 - a.to : b.to - a.to;
        if (length(in) > 1e-9 && length(out) > 1e-9)
            corners += std::abs(std::atan2(cross(in, out), dot(in, out))) > 1e-6;
        at = a.to;
    }
    CHECK(corners == 2); // only the two tips
    label.edge = Label::Edge::scalloped;
    label.scallop = mm(7);
    const SourceLines scalloped = made(label);
    CHECK(figure(scalloped, "scallop_across") == Approx(7).epsilon(0.2));
    label = {};
    label.edge = Label::Edge::plain;
    label.border = mm(4);
    label.hole = Label::Hole::round;
    label.hole_size = mm(5), label.hole_inset = mm(6);
    const SourceLines tag = made(label);
    const Box border = box_of(*of_role(tag, role::border)[0]);
    CHECK(border.x0 == Approx(4).margin(1e-4));
    CHECK(border.y1 == Approx(in_mm(label.height) - 4).margin(1e-4));
    const Box hole = box_of(*of_role(tag, role::hole)[0]);
    CHECK(hole.width() == Approx(5).margin(0.003));
    CHECK(hole.centre().x == Approx(in_mm(label.width) / 2));
    CHECK(hole.y0 == Approx(6).margin(0.003));
    label.hole_inset = mm(48);
    CHECK(refused(label) == "source.label");
    label.hole_inset = mm(6), label.border = mm(30);
    CHECK(refused(label) == "source.label");
}

TEST_CASE("badges: cut, seen and wrapped") {
    // Common practice of button badges, without source: 37 mm seen, 49 mm cut, so 6 mm wrap a side.
    const SourceLines badge = made(Badge{});
    CHECK(figure(badge, "wrap") == Approx(6));
    CHECK(area_of(*of_role(badge, role::outline)[0]) == Approx(pi * 24.5 * 24.5).epsilon(3e-4));
    CHECK(box_of(*of_role(badge, role::guide)[0]).centre().x == Approx(24.5));
    // The other usual sizes wrap 5 and 6 mm a side (common practice, without source).
    Badge other;
    other.size = Badge::Size::small;
    CHECK(figure(made(other), "wrap") == Approx(5));
    other.size = Badge::Size::large;
    CHECK(figure(made(other), "cut") == Approx(70));
    CHECK(figure(made(other), "wrap") == Approx(6));
    Badge wrong;
    wrong.size = Badge::Size::own;
    wrong.cut = wrong.visible;
    CHECK(refused(wrong) == "source.badge");
}

TEST_CASE("a set of labels: every size with its own edge, border and hole, in a row") {
    Label label;
    label.width = mm(80), label.height = mm(50), label.border = mm(3), label.hole = Label::Hole::round;
    label.also = "60 x 40, 2in x 1in";
    const SourceLines set = made(label);
    CHECK(figure(set, "labels") == 3);
    const auto outlines = of_role(set, role::outline), borders = of_role(set, role::border);
    REQUIRE(outlines.size() == 3);
    REQUIRE(borders.size() == 3);
    CHECK(of_role(set, role::hole).size() == 3);
    CHECK(box_of(*outlines[1]).width() == Approx(60));
    CHECK(box_of(*outlines[2]).width() == Approx(50.8));
    CHECK(box_of(*outlines[2]).height() == Approx(25.4));
    CHECK(box_of(*outlines[1]).x0 > box_of(*outlines[0]).x1 + 1);
    CHECK(box_of(*borders[1]).centre().x == Approx(box_of(*outlines[1]).centre().x));
    CHECK(box_of(*borders[1]).y0 == Approx(3).margin(0.02));
    for (const char* wrong : {"60", "60x", "x40", "60x40x30", "1x1", "wide"}) {
        label.also = wrong;
        CHECK(refused(label) == "source.label");
    }
}

TEST_CASE("folds: mountains have a role of their own") {
    FoldedCard card;
    card.width = mm(100), card.height = mm(150), card.fold = FoldedCard::Fold::zigzag;
    const SourceLines lines = made(card);
    CHECK(figure(lines, "base_width") == Approx(300)); // three whole panels
    CHECK(of_role(lines, role::fold).size() == 1);
    CHECK(of_role(lines, role::mountain).size() == 1);
    Carton box;
    box.kind = Carton::Kind::tuck_box;
    const auto valleys = of_role(made(box), role::fold).size();
    box.folds = Fold::mountain;
    CHECK(of_role(made(box), role::mountain).size() == valleys);
    CHECK(of_role(made(box), role::fold).empty());
}

TEST_CASE("edge strips: every repeat is whole, ends meet, sizes are kept") {
    EdgeStrip strip;
    strip.length = mm(200), strip.height = mm(40), strip.depth = mm(8), strip.pitch = mm(18);
    CHECK(figure(made(strip), "repeats") == 11); // 200 / 18 = 11.1
    CHECK(figure(made(strip), "pitch") == Approx(200.0 / 11));
    strip.ask = EdgeStrip::Ask::count, strip.count = 8;
    for (int edge = 0; edge < 4; ++edge)
        for (const bool both : {false, true}) {
            strip.edge = static_cast<EdgeStrip::Edge>(edge), strip.both_sides = both;
            INFO("edge " << edge << (both ? " on both sides" : ""));
            const DrawnLine outline = *of_role(made(strip), role::outline)[0];
            const Box box = box_of(outline);
            CHECK(box.x0 == Approx(0).margin(1e-6));
            CHECK(box.x1 == Approx(200).margin(1e-6));
            CHECK(region_of(outline.shape).rings.size() == 1);
            if (strip.edge != EdgeStrip::Edge::deckle) CHECK(box.height() == Approx(40).margin(0.01));
        }
    // Half ellipses of 25 x 8 over a strip of 32 (I).
    strip.edge = EdgeStrip::Edge::scallop, strip.both_sides = false;
    CHECK(area_of(*of_role(made(strip), role::outline)[0]) ==
          Approx(200 * 32 + 8 * pi * 12.5 * 8 / 2).epsilon(3e-4));
    // A cosine fills half of its depth.
    strip.edge = EdgeStrip::Edge::wave;
    CHECK(area_of(*of_role(made(strip), role::outline)[0]) == Approx(200 * 36).epsilon(1e-3));
    strip.edge = EdgeStrip::Edge::zigzag;
    CHECK(area_of(*of_role(made(strip), role::outline)[0]) == Approx(200 * 36).epsilon(1e-6));
    strip.edge = EdgeStrip::Edge::deckle;
    CHECK(*made(strip).drawing == *made(strip).drawing); // the same again
    strip.depth = mm(40);
    CHECK(refused(strip) == "source.strip");
}

TEST_CASE("repeat patterns: n things of width w with gap g in W are floor((W + g) / (w + g))") {
    // n w + (n - 1) g <= W, solved for n.
    Random random("patterns");
    INFO("seed " << random.seed());
    for (int i = 0; i < 200; ++i) {
        RepeatPattern p;
        p.motif = RepeatPattern::Motif::square;
        p.size = mm(random.real(5, 40)), p.gap = mm(random.real(0, 10));
        p.width = mm(random.real(60, 300)), p.height = mm(random.real(60, 300)),
        p.margin = mm(random.real(0, 10));
        const PatternCount n = must(count_of(p));
        const double w = in_mm(p.size), g = in_mm(p.gap);
        CHECK(n.across == static_cast<int>(std::floor((in_mm(p.width) - 2 * in_mm(p.margin) + g) / (w + g))));
        CHECK(n.rows == static_cast<int>(std::floor((in_mm(p.height) - 2 * in_mm(p.margin) + g) / (w + g))));
        CHECK(n.total == n.across * n.rows);
        if (n.total > 1) CHECK(in_mm(n.web) == Approx(g).margin(1e-3)); // squares: the gap itself
    }
    RepeatPattern none;
    none.size = mm(400);
    CHECK(refused(none) == "source.pattern");
    none.margin = mm(200);
    CHECK(refused(none) == "source.pattern");
}

TEST_CASE("repeat patterns: bricks, hexagons, wanted counts, middles, webs") {
    RepeatPattern p;
    p.motif = RepeatPattern::Motif::disc;
    p.size = mm(20), p.gap = mm(5), p.width = mm(105), p.height = mm(100), p.margin = mm(0);
    p.rows = RepeatPattern::Rows::brick;
    PatternCount n = must(count_of(p));
    CHECK(n.across == 4); // 4 x 25 - 5 = 95
    CHECK(n.rows == 4);
    CHECK(n.total == 4 + 3 + 4 + 3); // odd rows shifted by 12.5 would overrun with four
    p.width = mm(108);
    CHECK(must(count_of(p)).total == 16); // and now do not
    p.rows = RepeatPattern::Rows::hexagonal;
    n = must(count_of(p));
    CHECK(in_mm(n.web) == Approx(5).margin(0.05)); // the same in all directions
    // Solved backwards: 16 across 280 mm with gaps of 4 are 13.75 mm each (I: 16 w + 15 g = W).
    RepeatPattern wanted;
    wanted.wanted = 16, wanted.width = mm(292), wanted.margin = mm(6), wanted.gap = mm(4);
    n = must(count_of(wanted));
    CHECK(n.across == 16);
    CHECK(in_mm(n.size) == Approx((280.0 - 15 * 4) / 16));
    const SourceLines lines = made(wanted);
    CHECK(of_role(lines, role::motif).size() == static_cast<std::size_t>(n.total));
    const Box box = bounds(*lines.drawing);
    CHECK(box.x0 == Approx(6).margin(1e-6)); // in the middle of the sheet
    CHECK(box.x1 == Approx(286).margin(1e-6));
    CHECK(box.y0 + box.y1 == Approx(292).margin(1e-6));
    wanted.gap = mm(1);
    CHECK(has(made(wanted).findings, "pattern.web"));
    wanted.wanted = 1000;
    CHECK(refused(wanted) == "source.pattern");
}

TEST_CASE("cartons: flat sizes, folds inside, windows framed") {
    Carton c;
    c.width = mm(60), c.depth = mm(40), c.height = mm(100), c.thickness = mm(0.5), c.tab = mm(10);
    const SourceLines sleeve = made(c);
    CHECK(figure(sleeve, "flat_width") == Approx(2 * (60.5 + 40.5) + 10));
    CHECK(of_role(sleeve, role::fold).size() == 4);
    REQUIRE(of_role(sleeve, role::window).size() == 4);
    CHECK(box_of(*of_role(sleeve, role::window)[1]).width() == Approx(40.5 - 2 * 12));
    c.frame = mm(25);
    CHECK(refused(c) == "source.carton");
    for (const auto kind : {Carton::Kind::tuck_box, Carton::Kind::envelope, Carton::Kind::sleeve}) {
        c.kind = kind, c.frame = mm(8);
        const SourceLines lines = made(c);
        const Region outline = region_of(of_role(lines, role::outline)[0]->shape);
        CHECK(outline.rings.size() == 1); // it does not cross itself
        CHECK(bounds(outline).width() == Approx(figure(lines, "flat_width")).margin(0.01));
        CHECK(bounds(outline).height() == Approx(figure(lines, "flat_height")).margin(0.01));
        for (const DrawnLine* fold : of_role(lines, role::fold)) {
            Polylines middle{flattened(fold->shape.contours[0])};
            const Point a = middle[0].points.front(), b = middle[0].points.back();
            middle[0].points = {mix(a, b, 0.001), mix(a, b, 0.999)};
            CHECK(in_mm(length(clipped(middle, offset(outline, mm(0.001))))) ==
                  Approx(in_mm(length(middle))).epsilon(1e-6));
        }
    }
    // An envelope for a card of 60 x 100 with 2 mm of play each way.
    c.kind = Carton::Kind::envelope;
    CHECK(figure(made(c), "inside_width") == Approx(64));
    CHECK(figure(made(c), "inside_height") == Approx(104));
}

TEST_CASE("every kind of source makes something at once, with roles, closed where it is cut") {
    for (const SourceKind& kind : source_kinds()) {
        INFO(kind.key);
        const Region lender = region_of(Shape{{rectangle({0, 0, 60, 80})}});
        const Borrowed borrowed{lender, lender, {lender}};
        const SourceLines lines = must(make_lines(kind.fresh, fonts(), &borrowed));
        CHECK_FALSE(lines.drawing->lines.empty());
        for (std::size_t i = 0; i < lines.drawing->lines.size(); ++i) {
            const DrawnLine& line = lines.drawing->lines[i];
            CHECK(line.id.value == i + 1);
            CHECK_FALSE(line.group.empty());
            if (line.group == role::outline || line.group == role::motif)
                CHECK(region_of(line.shape).rings.size() >= 1);
        }
        CHECK(kind_of(kind.fresh)->key == std::string_view(kind.key));
        CHECK(source_kind(kind.key)->fresh.index() == kind.fresh.index());
    }
    CHECK(refused(FromFile{}) == "source.file");
}

TEST_CASE("random numbers within their ranges make lines or a reason, never nonsense") {
    Random random("random sources");
    INFO("seed " << random.seed());
    Shuffle shuffle(random);
    const Region star = region_of(Shape{{ellipse({50, 40}, 50, 40)}});
    const Borrowed lender{star, star, {star}};
    int made_some = 0;
    for (int i = 0; i < 150; ++i) {
        SourceSpec spec = source_kinds()[static_cast<std::size_t>(i) % source_kinds().size()].fresh;
        fields(spec, shuffle);
        const auto lines = make_lines(spec, fonts(), &lender);
        if (!lines) {
            CHECK(lines.error().message.english().size() > 10);
            continue;
        }
        ++made_some;
        for (const DrawnLine& line : lines->drawing->lines) {
            const Box box = bounds(line.shape);
            CHECK((std::isfinite(box.x0) && std::isfinite(box.y1) && box.width() < 50000));
        }
    }
    CHECK(made_some > 20);
}
