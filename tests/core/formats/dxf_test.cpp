// DXF and HP-GL: what is taken, at what size, what is told.
#include <numbers>

#include "core/base/text.h"
#include "core/formats/chain.h"
#include "core/formats/dxf/reader.h"
#include "core/formats/hpgl/reader.h"
#include "core/opening/opening.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;
using std::numbers::pi;

namespace {

std::string dxf(const std::string& entities, int units = 4, const std::string& blocks = "",
                const std::string& layers = "") {
    return "0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n" + std::to_string(units) + "\n0\nENDSEC\n" +
           "0\nSECTION\n2\nTABLES\n0\nTABLE\n2\nLAYER\n70\n9\n" + layers + "0\nENDTAB\n0\nENDSEC\n" +
           "0\nSECTION\n2\nBLOCKS\n" + blocks + "0\nENDSEC\n0\nSECTION\n2\nENTITIES\n" + entities +
           "0\nENDSEC\n0\nEOF\n";
}
std::string line_of(double x1, double y1, double x2, double y2, const std::string& more = "8\n0\n") {
    const auto n = [](double v) { return number(v, 6) + "\n"; };
    return "0\nLINE\n" + more + "10\n" + n(x1) + "20\n" + n(y1) + "11\n" + n(x2) + "21\n" + n(y2);
}
DxfResult read(const std::string& text) {
    return must(read_dxf(text, {"x.dxf"}));
}
double total(const Drawing& d) {
    Length sum;
    for (const DrawnLine& l : d.lines)
        sum += length(flattened(l.shape, mm(1e-4)));
    return in_mm(sum);
}

} // namespace

TEST_CASE("DXF: units, y upwards, lines joined at their ends to an outline") {
    const std::string box =
        line_of(0, 0, 2, 0) + line_of(2, 1, 2, 0) + line_of(2, 1, 0, 1) + line_of(0, 1, 0, 0);
    const DxfResult inches = read(dxf(box, 1));
    CHECK(inches.physical_size);
    REQUIRE(inches.drawing.lines.size() == 1);
    CHECK(inches.drawing.lines[0].shape.contours[0].closed);
    CHECK(bounds(inches.drawing).width() == Approx(50.8));
    CHECK(bounds(inches.drawing).height() == Approx(25.4));
    CHECK(bounds(inches.drawing).y0 == Approx(0).margin(1e-9));
    CHECK(has(inches.findings, "dxf.joined"));
    CHECK(bounds(read(dxf(box, 5)).drawing).width() == Approx(20));
    CHECK(bounds(read(dxf(box, 6)).drawing).width() == Approx(2000));
    CHECK_FALSE(read(dxf(box, 0)).physical_size);
    // Upwards in the file is up on the bench: the first line, at the foot, comes out lowest.
    const DxfResult two = read(dxf(line_of(0, 0, 10, 0) + line_of(0, 5, 9, 5)));
    CHECK(bounds(two.drawing.lines[0].shape).y0 == Approx(5));
}

TEST_CASE("DXF: arcs, circles, ellipses, bulges (I)") {
    const DxfResult arc = read(dxf("0\nARC\n8\n0\n10\n0\n20\n0\n40\n10\n50\n0\n51\n90\n"));
    CHECK(total(arc.drawing) == Approx(5 * pi).epsilon(1e-4));
    CHECK(bounds(arc.drawing).width() == Approx(10).epsilon(1e-3));
    const DxfResult circle = read(dxf("0\nCIRCLE\n8\n0\n10\n5\n20\n5\n40\n10\n"));
    CHECK(circle.drawing.lines[0].shape.contours[0].closed);
    CHECK(total(circle.drawing) == Approx(20 * pi).epsilon(1e-4));
    const DxfResult ellipse =
        read(dxf("0\nELLIPSE\n8\n0\n10\n0\n20\n0\n11\n20\n21\n0\n40\n0.5\n41\n0\n42\n6.283185307179586\n"));
    CHECK(in_square_mm(area(region_of(ellipse.drawing.lines[0].shape, mm(1e-3)))) ==
          Approx(pi * 200).epsilon(1e-3));
    // Two half circles of bulge 1 make a circle.
    const DxfResult bulge =
        read(dxf("0\nLWPOLYLINE\n8\n0\n90\n2\n70\n1\n10\n0\n20\n0\n42\n1\n10\n10\n20\n0\n42\n1\n"));
    CHECK(in_square_mm(area(region_of(bulge.drawing.lines[0].shape, mm(1e-3)))) ==
          Approx(25 * pi).epsilon(1e-3));
    const DxfResult old = read(
        dxf("0\nPOLYLINE\n8\n0\n66\n1\n70\n1\n0\nVERTEX\n8\n0\n10\n0\n20\n0\n0\nVERTEX\n8\n0\n10\n30\n20\n0\n"
            "0\nVERTEX\n8\n0\n10\n30\n20\n20\n0\nSEQEND\n"));
    CHECK(total(old.drawing) == Approx(30 + 20 + std::hypot(30, 20)).epsilon(1e-6));
}

TEST_CASE(
    "DXF: blocks are placed, turned, scaled, repeated, layers give names and colours, those off are hidden") {
    const std::string block =
        "0\nBLOCK\n8\n0\n2\nbar\n70\n0\n10\n1\n20\n1\n" + line_of(1, 1, 11, 1) + "0\nENDBLK\n";
    const std::string insert =
        "0\nINSERT\n8\nfold\n2\nbar\n10\n100\n20\n0\n41\n2\n42\n2\n50\n90\n70\n3\n44\n7\n";
    const std::string layers = "0\nLAYER\n2\nfold\n70\n0\n62\n5\n0\nLAYER\n2\nhidden\n70\n0\n62\n-3\n";
    const DxfResult out = read(dxf(insert + line_of(0, 0, 1, 0, "8\nhidden\n"), 4, block, layers));
    REQUIRE(out.drawing.lines.size() == 3);
    CHECK(out.drawing.lines[0].group == "fold");
    CHECK(*out.drawing.lines[0].drawn.stroke == Colour{0, 0, 255});
    CHECK(bounds(out.drawing.lines[0].shape).height() == Approx(20)); // upright and twice as long
    // Columns run along the turned axis; the insert's scale is the block's, not that of their distance.
    CHECK(bounds(out.drawing).height() == Approx(20 + 2 * 7));
    CHECK(get(out.findings, "dxf.hidden").grade == Grade::hint);
    const std::string self =
        "0\nBLOCK\n8\n0\n2\nsnake\n70\n0\n10\n0\n20\n0\n0\nINSERT\n8\n0\n2\nsnake\n10\n1\n20\n0\n0\nENDBLK\n";
    const auto deep = read_dxf(dxf("0\nINSERT\n8\n0\n2\nsnake\n10\n0\n20\n0\n", 4, self), {"x.dxf"});
    REQUIRE_FALSE(deep);
    CHECK(deep.error().code == "dxf.deep");
}

TEST_CASE("B-splines: Bezier curves are themselves, weights make circles") {
    // One span with end knots repeated is the Bezier curve of its control points.
    const std::vector<Point> p = {{0, 0}, {10, 20}, {30, 20}, {40, 0}};
    const Contour one = spline_contour(3, p, {}, {0, 0, 0, 0, 1, 1, 1, 1}, false);
    REQUIRE(one.segments.size() == 1);
    CHECK(distance(one.segments[0].c1, p[1]) < 1e-9);
    CHECK(distance(one.segments[0].c2, p[2]) < 1e-9);
    // A quarter circle as a rational quadratic: weights 1, cos 45, 1 (Piegl, Tiller).
    const Contour quarter =
        spline_contour(2, {{10, 0}, {10, 10}, {0, 10}}, {1, std::sqrt(0.5), 1}, {0, 0, 0, 1, 1, 1}, false);
    for (const Point q : flattened(quarter, mm(1e-4)).points)
        CHECK(length(q) == Approx(10).epsilon(1e-4));
    CHECK(spline_contour(3, p, {}, {0, 1}, false).segments.empty());
    CHECK(spline_contour(3, p, {}, {0, 0, 0, 0, 1, 0.5, 1, 1}, false).segments.empty());
}

TEST_CASE("DXF: what is left out is told, what is no DXF is refused") {
    CHECK(get(read(dxf("0\nTEXT\n8\n0\n10\n0\n20\n0\n40\n5\n1\nhello\n" + line_of(0, 0, 1, 1))).findings,
              "dxf.left-out")
              .message.english()
              .find("1 texts") != std::string::npos);
    CHECK(read_dxf("hello", {"x.dxf"}).error().code == "dxf.not-dxf");
    CHECK(read_dxf(dxf(line_of(0, 0, 1e300, 1)), {"x.dxf"}).error().code == "dxf.number");
    const std::string whole = dxf(line_of(0, 0, 1, 1) + "0\nCIRCLE\n8\n0\n10\n5\n20\n5\n40\n10\n");
    for (std::size_t cut = 0; cut < whole.size(); cut += 7)
        (void)read_dxf(whole.substr(0, cut), {"x.dxf"}); // must neither crash nor hang
}

TEST_CASE("DXF: rows and columns of a scaled block keep their distance") {
    // DXF reference, INSERT: group 44 is a distance, 41 a scale of the block. Three bars of 10 at half size,
    // 20 apart: 5 + 2 x 20.
    const std::string block =
        "0\nBLOCK\n8\n0\n2\nbar\n70\n0\n10\n0\n20\n0\n" + line_of(0, 0, 10, 0) + "0\nENDBLK\n";
    const auto out =
        read(dxf("0\nINSERT\n8\n0\n2\nbar\n10\n0\n20\n0\n41\n0.5\n42\n0.5\n70\n3\n44\n20\n", 4, block));
    CHECK(bounds(out.drawing).width() == Approx(45));
    CHECK(total(out.drawing) == Approx(15));
}

TEST_CASE("DXF: an arc goes from angle to angle, however many turns its numbers count (I)") {
    const auto length_of = [](const char* from, const char* to) {
        return total(
            read(dxf("0\nARC\n8\n0\n10\n0\n20\n0\n40\n10\n50\n" + std::string(from) + "\n51\n" + to + "\n"))
                .drawing);
    };
    CHECK(length_of("0", "450") == Approx(5 * pi).epsilon(1e-4));
    CHECK(length_of("10", "400") == Approx(10 * pi / 6).epsilon(1e-4));
    CHECK(length_of("350", "370") == Approx(10 * pi / 9).epsilon(1e-4));
    CHECK(length_of("-720000", "90") == Approx(5 * pi).epsilon(1e-4));
    CHECK(length_of("90", "0") == Approx(15 * pi).epsilon(1e-4));
    CHECK(length_of("0", "360") == Approx(20 * pi).epsilon(1e-4));
}

TEST_CASE("DXF: strong weights keep a spline on its circle (I)") {
    // A rational quadratic with weights 1, w, 1 over a right angle is a conic; w = cos 45 is the circle.
    // Split unevenly by weights of 1 and 1000 it is still the same conic, run at another pace (Piegl,
    // Tiller, 7.2).
    for (const double k : {1e-3, 0.03, 1.0, 40.0, 1e3}) {
        const Contour quarter = spline_contour(2, {{10, 0}, {10, 10}, {0, 10}},
                                               {1, std::sqrt(0.5) * k, k * k}, {0, 0, 0, 1, 1, 1}, false);
        INFO(k);
        REQUIRE_FALSE(quarter.segments.empty());
        for (const Point q : flattened(quarter, mm(1e-5)).points)
            CHECK(length(q) == Approx(10).margin(2e-4));
        CHECK(in_mm(length(flattened(quarter, mm(1e-5)))) == Approx(5 * pi).epsilon(1e-5));
    }
    CHECK(spline_contour(2, {{10, 0}, {10, 10}, {0, 10}}, {1, -1, 1}, {0, 0, 0, 1, 1, 1}, false)
              .segments.empty());
    CHECK(spline_contour(2, {{10, 0}, {10, std::numeric_limits<double>::infinity()}, {0, 10}}, {},
                         {0, 0, 0, 1, 1, 1}, false)
              .segments.empty());
}

TEST_CASE("DXF: counts that are not true, lines without end and colours that do not exist do no harm") {
    const auto one = [](const std::string& entity) { return read(dxf(entity)); };
    // Counts declared and not there.
    CHECK(one("0\nLWPOLYLINE\n8\n0\n90\n2147483647\n70\n0\n10\n0\n20\n0\n10\n9\n20\n0\n")
              .drawing.lines.size() == 1);
    CHECK(one("0\nSPLINE\n8\n0\n71\n3\n72\n2147483647\n73\n2147483647\n74\n-1\n10\n0\n20\n0\n" +
              line_of(0, 0, 1, 1))
              .drawing.lines.size() == 1);
    // A line of a million characters.
    CHECK(one("0\nTEXT\n8\n0\n1\n" + std::string(1'000'000, 'x') + "\n" + line_of(0, 0, 1, 1))
              .drawing.lines.size() == 1);
    CHECK(read_dxf(std::string(1'000'000, 'x') + dxf(line_of(0, 0, 1, 1)), {"x.dxf"}).error().code ==
          "dxf.not-dxf");
    for (const char* colour :
         {"-50", "56", "255", "256", "257", "2147483647", "-2147483648", "99999999", "0"}) {
        INFO(colour);
        const auto drawn = one(line_of(0, 0, 1, 1, "8\n0\n62\n" + std::string(colour) + "\n"));
        CHECK(drawn.drawing.lines.at(0).drawn.stroke);
    }
    CHECK(*one(line_of(0, 0, 1, 1, "8\n0\n62\n1\n420\n3368601\n")).drawing.lines[0].drawn.stroke ==
          Colour{0x33, 0x66, 0x99});
    // A bulge that is all but none is a straight edge; it once made a radius without end.
    for (const char* bulge : {"1e-200", "-1e-12", "0"}) {
        const auto flat =
            one("0\nLWPOLYLINE\n8\n0\n70\n0\n10\n0\n20\n0\n42\n" + std::string(bulge) + "\n10\n10\n20\n0\n");
        CHECK(total(flat.drawing) == Approx(10));
        must(check_numbers(flat.drawing));
    }
    // Blocks that repeat one another beyond all bounds.
    std::string blocks;
    for (int i = 0; i < 12; ++i)
        blocks += "0\nBLOCK\n8\n0\n2\nb" + std::to_string(i) +
                  "\n70\n0\n10\n0\n20\n0\n0\nINSERT\n8\n0\n2\nb" + number(i + 1, 6) +
                  "\n10\n0\n20\n0\n70\n30000\n71\n30000\n0\nENDBLK\n";
    CHECK(read_dxf(dxf("0\nINSERT\n8\n0\n2\nb0\n10\n0\n20\n0\n", 4, blocks), {"x.dxf"}).error().code ==
          "dxf.large");
}

TEST_CASE("DXF: a file that is cut short is refused, wherever it is cut") {
    const std::string whole = dxf(line_of(0, 0, 10, 0) + line_of(0, 5, 10, 5) + line_of(0, 9, 10, 9));
    const std::size_t end = whole.find("0\nENDSEC", whole.find("ENTITIES"));
    REQUIRE(end != std::string::npos);
    int refused = 0;
    for (std::size_t cut = 1; cut < end; ++cut) {
        const auto r = read_dxf(whole.substr(0, cut), {"x.dxf"});
        // Between sections nothing is missing that could be seen: such a file has no lines.
        if (r)
            CHECK(r->drawing.lines.empty());
        else
            ++refused;
    }
    CHECK(refused > static_cast<int>(end) / 2);
    const auto cut = read_dxf(whole.substr(0, whole.rfind("LINE") + 30), {"x.dxf"});
    REQUIRE_FALSE(cut);
    CHECK(cut.error().code == "dxf.cut");
    CHECK(cut.error().place.line > 10);
    CHECK(must(read_dxf(whole.substr(0, whole.rfind("0\nEOF")), {"x.dxf"})).drawing.lines.size() ==
          3); // all is there
    CHECK(read_dxf("Some Binary DXF\r\n", {"x.dxf"}).error().code == "dxf.binary");
}

TEST_CASE("chains: ends within reach join, branches are not guessed") {
    const auto straight = [](Point a, Point b, const char* group = "g") {
        DrawnLine l;
        Contour c{a, {}, false};
        c.line_to(b);
        l.group = group;
        l.shape = Shape{{c}};
        return l;
    };
    auto out =
        chained({straight({0, 0}, {1, 0}), straight({2, 0}, {1.005, 0}), straight({2, 0}, {3, 0}, "other")},
                mm(0.01));
    REQUIRE(out.size() == 2);
    CHECK(out[0].shape.contours[0].segments.size() == 2);
    out = chained({straight({0, 0}, {1, 0}), straight({1, 0}, {2, 0}), straight({1, 0}, {1, 1})}, mm(0.01));
    CHECK(out.size() == 3);
    Random random("chains");
    INFO("seed " << random.seed());
    std::vector<DrawnLine> ring;
    for (int i = 0; i < 100; ++i) {
        const auto at = [](int k) { return Point{50 * std::cos(k * pi / 50), 50 * std::sin(k * pi / 50)}; };
        ring.push_back(random.coin() ? straight(at(i), at(i + 1)) : straight(at(i + 1), at(i)));
    }
    std::shuffle(ring.begin(), ring.end(), random.engine());
    out = chained(std::move(ring), mm(0.01));
    REQUIRE(out.size() == 1);
    CHECK(out[0].shape.contours[0].closed);
}

TEST_CASE("HP-GL: 4,000 units are 100 mm, pens, relative moves, arcs, circles, boxes") {
    // HP-GL reference: a plotter unit is 0.025 mm.
    const auto hpgl = [](const std::string& text) { return must(read_hpgl(text, {"x.plt"})); };
    HpglResult out = hpgl("IN;SP1;PU0,0;PD4000,0;SP2;PU0,400;PD;PR400,0,0,400;PU;");
    REQUIRE(out.drawing.lines.size() == 2);
    CHECK(bounds(out.drawing.lines[0].shape).width() == Approx(100));
    CHECK(out.drawing.lines[0].group == "pen 1");
    CHECK(out.drawing.lines[1].drawn.stroke != out.drawing.lines[0].drawn.stroke);
    CHECK(bounds(out.drawing.lines[1].shape).height() == Approx(10));
    CHECK(bounds(out.drawing.lines[1].shape).y1 < bounds(out.drawing.lines[0].shape).y0 + 1e-9); // y runs up
    out = hpgl("IN;SP1;PU400,0;PD;AA0,0,180;PU;");
    CHECK(total(out.drawing) == Approx(10 * pi).epsilon(1e-4));
    out = hpgl("IN;PA0,0;CI400;PU1000,1000;EA1400,1800;");
    CHECK(total(out.drawing) == Approx(20 * pi + 2 * (10 + 20)).epsilon(1e-3));
    out = hpgl("IN;RO90;LBhello;not drawn\x03;PU0,0;PD40,0,40,40,0,0;PU;");
    CHECK(out.findings.size() == 2);
    CHECK(out.drawing.lines[0].shape.contours[0].closed);
    CHECK(read_hpgl("hello world", {"x.plt"}).error().code == "hpgl.not-hpgl");
    CHECK(read_hpgl("IN;\nPD1e400,0;", {"x.plt"}).error().place.line == 2);
}

TEST_CASE("drawings are told apart by what they hold") {
    FontShelf fonts;
    const auto open = [&](const std::string& text, const char* name) {
        return must(open_drawing(text, name, fonts));
    };
    const std::string box = line_of(0, 0, 30, 0) + line_of(30, 0, 30, 20);
    CHECK(open(dxf(box), "x.dxf").box.width() == Approx(30));
    CHECK_FALSE(open(dxf(box), "x.dxf").asks_scale);
    const Opened bare = open(dxf(box, 0), "no-unit.txt");
    CHECK(bare.asks_scale);
    CHECK(in_mm(scale_choices(bare)[2].width) == Approx(30 * 25.4));
    CHECK(open("IN;PU0,0;PD4000,0;PU;", "x.dat").box.width() == Approx(100));
    CHECK(open(svg("<path d='M0,0h7'/>"), "strange.dxf").box.width() == Approx(7));
    CHECK(open_drawing("no drawing", "x.svg", fonts).error().code == "svg.not-xml");
}

TEST_CASE("HP-GL: points and scales put the drawing where they say") {
    const auto box = [](const std::string& text) { return bounds(must(read_hpgl(text, {"x.plt"})).drawing); };
    const auto size = [&](const std::string& text, double w, double h) {
        INFO(text);
        CHECK(box(text).width() == Approx(w));
        CHECK(box(text).height() == Approx(h));
    };
    // HP-GL reference: 0.025 mm a unit; user units between P1 and P2, each axis by itself, alike, or by
    // factors.
    size("IN;IP0,0,4000,4000;SC0,10,0,10;PU0,0;PD10,0,10,5;PU;", 100, 50);
    size("IN;IP1000,1000,5000,3000;SC0,100,0,100;PU0,0;PD100,0,100,100;PU;", 100, 50);
    size("IN;IP1000,1000,5000,3000;SC0,100,0,100,1;PU0,0;PD100,0,100,100;PU;", 50, 50);
    size("IN;IP1000,1000,5000,3000;SC0,20,0,30,2;PU0,0;PD100,0,100,100;PU;", 50, 75);
    size("IN;IP0,0,4000,4000;SC0,10,0,10;PU0,0;PD10,0,10,5;PU;SC;PU0,0;PD400,0;PU;", 100, 50); // off again
    size("IN;IP0,0,4000,2000;SC0,10,0,10;PU5,5;CI2;", 40, 20);                                 // an ellipse
    // The pen stays where it is when the scale changes under it.
    size("IN;IP0,0,4000,4000;PU2000,0;SC0,10,0,10;PD10,0;PU;", 50, 0);
    const auto bare = must(read_hpgl("IN;SC0,10,0,10;PU0,0;PD10,0;PU;", {"x.plt"}));
    CHECK(bare.findings.at(0).message.english().find("scales without points") != std::string::npos);
    CHECK(must(read_hpgl("IN;IP0,0,400,400;SC0,10,0,10;PU0,0;PD10,0;PU;", {"x.plt"})).findings.empty());
    for (const char* wrong : {"IN;IP0,0,400,400;SC5,5,0,10;PD1,1;", "IN;IP9,9,9,9;SC0,1,0,1;PD1,1;"})
        CHECK(read_hpgl(wrong, {"x.plt"}).error().code == "hpgl.number");
}
