// What the reader takes, what it counts, and what it refuses.
#include "core/formats/svg/reader.h"

#include "core/base/text.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

SvgResult read_svg_text(const std::string& text) {
    return must(read_svg(text, {"test.svg", nullptr}));
}
SvgResult read_elements(const std::string& elements, double w = 100, double h = 100) {
    return read_svg_text(svg(elements, w, h));
}
std::string error(const std::string& text) {
    const auto r = read_svg(text, {"test.svg", nullptr});
    REQUIRE_FALSE(r);
    CHECK(r.error().place.file == "test.svg");
    return r.error().code;
}

} // namespace

TEST_CASE("physical units: 1 in is 25.4 mm whatever the unit") {
    for (const char* side : {"1in", "25.4mm", "2.54cm", "72pt", "6pc", "96px", "96", "101.6Q"}) {
        const auto r =
            read_svg_text(std::string("<svg xmlns='http://www.w3.org/2000/svg' width='") + side +
                          "' height='" + side + "' viewBox='0 0 10 10'><rect width='10' height='10'/></svg>");
        INFO(side);
        CHECK(bounds(r.drawing).width() == Approx(25.4).epsilon(1e-9));
        const std::string unit(side);
        CHECK(r.physical_size == (unit != "96px" && unit != "96"));
    }
}

TEST_CASE("viewBox and preserveAspectRatio") {
    const auto box = [](const char* rest) {
        return bounds(
            read_svg_text(
                std::string("<svg xmlns='http://www.w3.org/2000/svg' width='200mm' height='100mm' ") + rest +
                "><rect x='0' y='0' width='10' height='10'/></svg>")
                .drawing);
    };
    CHECK(box("viewBox='0 0 10 10'").x0 == Approx(50)); // centred, as large as fits
    CHECK(box("viewBox='0 0 10 10'").width() == Approx(100));
    CHECK(box("viewBox='0 0 10 10' preserveAspectRatio='xMinYMin'").x0 == Approx(0));
    CHECK(box("viewBox='0 0 10 10' preserveAspectRatio='xMaxYMax'").x1 == Approx(200));
    CHECK(box("viewBox='0 0 10 10' preserveAspectRatio='none'").width() == Approx(200));
    CHECK(box("viewBox='0 0 10 10' preserveAspectRatio='xMidYMid slice'").height() == Approx(200));
    CHECK(box("viewBox='-5 -5 20 10'").x0 == Approx(50));
    CHECK(
        bounds(read_svg_text("<svg xmlns='http://www.w3.org/2000/svg' width='50mm' viewBox='0 0 10 20'><rect "
                             "width='10' height='20'/></svg>")
                   .drawing)
            .height() == Approx(100));
}

TEST_CASE("all basic shapes, percentages, em") {
    const auto r = read_elements(
        "<rect x='10%' y='10' width='20%' height='10'/><rect x='0' y='0' width='10' height='10' "
        "rx='2'/><circle cx='50' cy='50' r='10'/>"
        "<ellipse cx='20' cy='80' rx='10' ry='5'/><line x1='0' y1='0' x2='30' y2='40' stroke='red'/>"
        "<polyline points='0,0 10,0 10,10' fill='none' stroke='red'/><polygon points='0,0 10,0 10,10'/>"
        "<rect font-size='10' width='1em' height='2em'/><path d='M0,0h5'  stroke='red'/>");
    REQUIRE(r.drawing.lines.size() == 9);
    CHECK(bounds(r.drawing.lines[0].shape) == Box{10, 10, 30, 20});
    CHECK(area_of(r.drawing.lines[1]) == Approx(100 - (4 - 3.14159265) * 4).epsilon(1e-3));
    CHECK(area_of(r.drawing.lines[2]) == Approx(314.159).epsilon(1e-3));
    CHECK(area_of(r.drawing.lines[3]) == Approx(157.08).epsilon(1e-3));
    CHECK(in_mm(length(flattened(r.drawing.lines[4].shape))) == Approx(50));
    CHECK_FALSE(r.drawing.lines[5].shape.contours[0].closed);
    CHECK(r.drawing.lines[6].shape.contours[0].closed);
    CHECK(bounds(r.drawing.lines[7].shape).height() == Approx(20));
    CHECK(read_elements("<rect width='0' height='5'/><circle r='0'/><polyline points='1'/>")
              .drawing.lines.empty());
}

TEST_CASE("groups, use, symbols, nested svg and their transforms") {
    const auto r = read_elements(
        "<defs><rect id='r' width='10' height='10'/></defs>"
        "<g transform='translate(10,20)'><g transform='scale(2)'><use href='#r' x='1' y='2'/></g></g>"
        "<symbol id='s' viewBox='0 0 10 10'><rect width='10' height='10'/></symbol><use xlink:href='#s' "
        "x='50' y='50' width='20' height='20'/>"
        "<svg x='70' y='10' width='20' height='10' viewBox='0 0 40 20'><rect width='40' height='20'/></svg>");
    REQUIRE(r.drawing.lines.size() == 3);
    CHECK(bounds(r.drawing.lines[0].shape) == Box{12, 24, 32, 44});
    CHECK(bounds(r.drawing.lines[1].shape).grown(1e-6).contains(Box{50, 50, 70, 70}));
    CHECK(bounds(r.drawing.lines[2].shape).x1 == Approx(90));
}

TEST_CASE("styles: presentation attributes, sheets by specificity, style attributes, !important") {
    const auto r = read_elements("<style>/* a comment */ rect { fill: #010101 } .b { fill: #020202 } #c { "
                                 "fill: #030303 } g > rect.d { fill: #040404 !important }"
                                 " [data-x='1'] { stroke: #050505 }</style>"
                                 "<rect width='5' height='5' fill='#ff0000'/><rect class='b' width='5' "
                                 "height='5'/><rect id='c' class='b' width='5' height='5'/>"
                                 "<g><rect class='d' width='5' height='5' style='fill:#ff0000'/></g><rect "
                                 "style='fill:#060606' id='x' width='5' height='5' data-x='1'/>");
    const auto fill = [&](std::size_t i) { return to_hex(*r.drawing.lines[i].drawn.fill); };
    CHECK(fill(0) == "#010101");
    CHECK(fill(1) == "#020202");
    CHECK(fill(2) == "#030303");
    CHECK(fill(3) == "#040404");
    CHECK(fill(4) == "#060606");
    CHECK(to_hex(*r.drawing.lines[4].drawn.stroke) == "#050505");
}

TEST_CASE("inheritance, currentColor, opacity, stroke properties") {
    const auto r = read_elements(
        "<g color='#112233' stroke='currentColor' fill='none' stroke-width='2' stroke-dasharray='3 1' "
        "stroke-linecap='round' transform='scale(2)'>"
        "<path d='M0,0h9'/></g><path d='M0,0h9v9z' fill='#ff0000' fill-opacity='50%' opacity='.5'/>");
    const Drawn& d = r.drawing.lines[0].drawn;
    CHECK(to_hex(*d.stroke) == "#112233");
    CHECK_FALSE(d.fill);
    CHECK(in_mm(d.stroke_width) == Approx(4));
    CHECK(d.dashes_mm == std::vector<double>{6, 2});
    CHECK(d.cap == LineCap::round);
    CHECK(r.drawing.lines[1].drawn.fill_opacity == Approx(0.25));
}

TEST_CASE("what is not shown is not taken, and counted") {
    const auto r = read_elements("<rect width='5' height='5' display='none'/><rect width='5' height='5' "
                                 "visibility='hidden'/><g display='none'><rect width='5' height='5'/></g>"
                                 "<rect width='5' height='5' fill='none'/><rect width='5' height='5'/><g "
                                 "visibility='hidden'><rect visibility='visible' width='1' height='1'/></g>");
    CHECK(r.drawing.lines.size() == 2);
    CHECK(get(r.findings, "svg.hidden-objects").args[0].second == "3");
    CHECK(has(r.findings, "svg.objects-without-stroke-or-fill"));
}

TEST_CASE("clip paths are applied: fills as areas, strokes as lines") {
    const auto r = read_elements(
        "<clipPath id='c'><rect x='10' y='10' width='20' height='20'/></clipPath>"
        "<rect width='20' height='20' clip-path='url(#c)'/><path d='M0,20h100' fill='none' stroke='red' "
        "clip-path='url(#c)'/>"
        "<rect x='60' y='60' width='5' height='5' clip-path='url(#c)'/>"
        "<g transform='translate(40,0)' clip-path='url(#c)'><rect width='100' height='100'/></g>");
    REQUIRE(r.drawing.lines.size() == 3);
    CHECK(area_of(r.drawing.lines[0]) == Approx(100).epsilon(1e-6));
    CHECK(in_mm(length(flattened(r.drawing.lines[1].shape))) == Approx(20).epsilon(1e-6));
    CHECK(has(r.findings, "svg.objects-wholly-clipped-away"));
    CHECK(bounds(r.drawing.lines[2].shape).x0 == Approx(50));
    // objectBoundingBox units and a clip that is itself clipped
    const auto box = read_elements(
        "<clipPath id='h' clipPathUnits='objectBoundingBox'><rect width='.5' height='1'/></clipPath><rect "
        "x='10' y='10' width='40' height='10' clip-path='url(#h)'/>");
    CHECK(area_of(box.drawing.lines[0]) == Approx(200).epsilon(1e-4));
}

TEST_CASE("fill rules are kept") {
    const auto r = read_elements("<path fill-rule='evenodd' d='M0,0h30v30h-30z M10,10h10v10h-10z'/><path "
                                 "d='M0,0h30v30h-30z M10,10h10v10h-10z'/>");
    CHECK(area_of(r.drawing.lines[0]) == Approx(800));
    CHECK(area_of(r.drawing.lines[1]) == Approx(900));
}

TEST_CASE("what cannot be taken becomes a finding with a count") {
    const auto r =
        read_elements("<filter id='f'/><mask id='m'/><linearGradient id='g'><stop stop-color='#fff'/><stop "
                      "stop-color='#000'/></linearGradient><pattern id='p'/>"
                      "<rect filter='url(#f)' width='5' height='5'/><rect mask='url(#m)' width='5' "
                      "height='5'/><image href='data:image/png;base64,AA=='/>"
                      "<image href='data:image/png;base64,AA=='/><rect fill='url(#g)' width='5' "
                      "height='5'/><rect fill='url(#p)' width='5' height='5'/>"
                      "<foreignObject/><text x='5' y='5'>no fonts here</text><use href='#nothing'/>");
    const auto times = [&](const char* code) { return get(r.findings, code).args[0].second; };
    CHECK(times("svg.filters") == "1");
    CHECK(times("svg.masks") == "1");
    CHECK(times("svg.pictures") == "2");
    CHECK(times("svg.gradients") == "1");
    CHECK(times("svg.patterns") == "1");
    CHECK(times("svg.foreign-objects") == "1");
    CHECK(times("svg.texts") == "1");
    CHECK(times("svg.references-to-nothing") == "1");
    CHECK(to_hex(*r.drawing.lines[2].drawn.fill) == "#7f7f7f"); // the average stands for the gradient
    for (const Finding& f : r.findings)
        CHECK(f.message.english().find(f.args[0].second) != std::string::npos);
}

TEST_CASE("references out of the file are never followed, and counted") {
    const auto r =
        read_svg_text("<?xml version='1.0'?><!DOCTYPE svg [<!ENTITY outside SYSTEM 'file:///etc/passwd'>]>"
                      "<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' "
                      "width='10mm' height='10mm'>"
                      "<image xlink:href='http://192.0.2.1/a.png'/><use xlink:href='other.svg#x'/><rect "
                      "fill='url(http://192.0.2.1/b.svg#g)' width='5' height='5'/>"
                      "<text>&outside;</text><rect width='1' height='1'/></svg>");
    int told = 0;
    for (const Finding& f : r.findings)
        if (f.code == "svg.outside") told += std::stoi(f.args[0].second);
    CHECK(told == 4);
}

TEST_CASE("text becomes outlines with the fonts installed") {
    FontShelf fonts;
    const auto read_text = [&](const std::string& e) { return must(read_svg(svg(e), {"t.svg", &fonts})); };
    const auto plain = read_text("<text x='10' y='50' font-family='Cabin' font-size='10'>Hello</text>");
    REQUIRE(plain.drawing.lines.size() == 1);
    const Box box = bounds(plain.drawing.lines[0].shape);
    CHECK(box.x0 == Approx(10).margin(1.5));
    CHECK(box.y1 == Approx(50).margin(0.5));
    CHECK(get(plain.findings, "svg.texts-turned-to-outlines").grade == Grade::hint);
    const Box middle = bounds(
        read_text("<text x='50' y='50' text-anchor='middle' font-family='Cabin' font-size='10'>Hello</text>")
            .drawing);
    CHECK(middle.centre().x == Approx(50).margin(0.7));
    const Box end = bounds(
        read_text("<text x='50' y='50' text-anchor='end' font-family='Cabin' font-size='10'>Hello</text>")
            .drawing);
    CHECK(end.x1 == Approx(50).margin(1));
    const auto spans = read_text(
        "<text x='10' y='20' font-family='Cabin' font-size='10'>a<tspan x='60' fill='red'>b</tspan></text>");
    REQUIRE(spans.drawing.lines.size() == 2);
    CHECK(bounds(spans.drawing.lines[1].shape).x0 == Approx(60).margin(1.5));
    const auto on_path = read_text("<path id='p' d='M10,90 V10' fill='none'/><text font-family='Cabin' "
                                   "font-size='8'><textPath href='#p'>up</textPath></text>");
    CHECK(bounds(on_path.drawing).height() > bounds(on_path.drawing).width());
    // A share of a path of 80 is as many units, before its beginning too (SVG 1.1, 10.13.1).
    const auto begun = [&](const char* offset) {
        return bounds(
            read_text(std::string("<path id='p' d='M10,50 H90' fill='none'/><text font-family='Cabin' "
                                  "font-size='8'><textPath href='#p' startOffset='") +
                      offset + "'>up</textPath></text>")
                .drawing.lines.front()
                .shape);
    };
    for (const auto& [share, units] : std::vector<std::pair<const char*, const char*>>{
             {"25%", "20"}, {"50%", "40"}, {"-5%", "-4"}, {"0%", "0"}, {"12.5%", "10"}}) {
        INFO(share);
        CHECK(begun(share).x0 == Approx(begun(units).x0));
    }
    CHECK(begun("50%").x0 == Approx(begun("0").x0 + 40).margin(1e-6));
}

TEST_CASE("switch takes the first child that fits, packed files are unpacked") {
    const auto r =
        read_elements("<switch><foreignObject/><rect systemLanguage='de' width='1' height='1'/><rect "
                      "systemLanguage='en' width='2' height='2'/><rect width='3' height='3'/></switch>");
    REQUIRE(r.drawing.lines.size() == 1);
    CHECK(bounds(r.drawing).width() == Approx(2));
    int status = 0;
    TemporaryFolder folder;
    must(disk().write_atomically(folder / "a.svg", svg("<rect width='7' height='7'/>")));
    shell("gzip -k '" + folder / "a.svg" + "'", &status);
    REQUIRE(status == 0);
    const std::string packed = file(folder / "a.svg.gz");
    CHECK(bounds(read_svg_text(packed).drawing).width() == Approx(7));
    CHECK(error(packed.substr(0, packed.size() / 2)) == "svg.packed");
}

TEST_CASE("own entities are expanded, names and groups are kept") {
    const auto r =
        read_svg_text("<!DOCTYPE svg [<!ENTITY ink '#a8462d'>]><svg xmlns='http://www.w3.org/2000/svg' "
                      "xmlns:v='urn:v' width='10mm' height='10mm'>"
                      "<g v:label='Layer 1'><g id='fold'><rect id='edge' stroke='&ink;' fill='none' "
                      "width='5' height='5'/></g></g></svg>");
    CHECK(to_hex(*r.drawing.lines[0].drawn.stroke) == "#a8462d");
    CHECK(r.drawing.lines[0].name == "edge");
    CHECK(r.drawing.lines[0].group == "Layer 1/fold");
}

TEST_CASE("bad files are refused with their line, and quickly") {
    CHECK(error("") == "svg.empty");
    CHECK(error("   \n ") == "svg.empty");
    CHECK(error("<html><body/></html>") == "svg.not-svg");
    CHECK(error("plain text") == "svg.not-xml");
    const auto r =
        read_svg("<svg xmlns='http://www.w3.org/2000/svg'>\n<g>\n<rect width='5'\n", {"test.svg", nullptr});
    REQUIRE_FALSE(r);
    CHECK(r.error().place.line >= 3);
    CHECK(error("<svg width='1e300mm' height='5mm'><rect width='5' height='5'/></svg>") == "svg.number");
    CHECK(error("<svg width='5mm' height='5mm'>\n<path d='M0,0L1e300,5' stroke='red'/></svg>") ==
          "svg.number");
    CHECK(error("<svg width='5mm' height='5mm'><path transform='scale(1e200)' d='M0,0L1e200,5' "
                "stroke='red'/></svg>") == "svg.number");
    std::string deep;
    for (int i = 0; i < 100000; ++i)
        deep += i == 200 ? "\n<g>" : "<g>";
    CHECK(error("<svg>" + deep) == "svg.not-xml");
    for (int i = 0; i < 100000; ++i)
        deep += "</g>";
    const std::string nested = "<svg xmlns='http://www.w3.org/2000/svg'>" + deep + "</svg>";
    CHECK(error(nested) == "svg.deep");
    CHECK(read_svg(nested, {}).error().place.line == 2);
}

TEST_CASE("bombs do not go off") {
    std::string entities = "<!DOCTYPE svg [<!ENTITY a '0123456789'>";
    for (char c = 'b'; c <= 'k'; ++c)
        entities += std::string("<!ENTITY ") + c + " '" + std::string(10, '&').replace(0, 10, "") + [&] {
            std::string ten;
            for (int i = 0; i < 10; ++i)
                ten += std::string("&") + static_cast<char>(c - 1) + ";";
            return ten;
        }() + "'>";
    CHECK(error(entities + "]><svg><text>&k;</text></svg>") == "svg.entities");
    CHECK(error("<!DOCTYPE svg [<!ENTITY a '&a;&a;'>]><svg><text>&a;</text></svg>") == "svg.entities");
    std::string uses = "<g id='u0'><rect width='1' height='1'/></g>";
    for (int i = 1; i < 12; ++i) {
        uses += "<g id='u" + std::to_string(i) + "'>";
        for (int k = 0; k < 10; ++k)
            uses += "<use href='#u" + std::to_string(i - 1) + "'/>";
        uses += "</g>";
    }
    // Small limits here: the real ones are met by a file of the reference tests.
    const auto limited = [&](auto set) {
        SvgOptions options{"test.svg"};
        set(options);
        return read_svg(svg("<defs>" + uses + "</defs><use href='#u11'/>"), options).error().code;
    };
    CHECK(limited([](SvgOptions& o) { o.limits.lines = 5000; }) == "svg.large");
    CHECK(limited([](SvgOptions& o) { o.limits.visits = 5000; }) == "svg.large");
    CHECK(limited([](SvgOptions& o) { o.limits.segments = 5000; }) == "svg.large");
    const auto loop = read_elements("<g id='a'><use href='#b'/></g><g id='b'><use href='#a'/></g><use "
                                    "href='#c' id='c'/><rect width='5' height='5'/>");
    CHECK(has(loop.findings, "svg.circular-references"));
    CHECK(read_elements("<clipPath id='c' clip-path='url(#c)'><rect width='5' height='5'/></clipPath><rect "
                        "clip-path='url(#c)' width='9' height='9'/>")
              .drawing.lines.empty());
}

TEST_CASE("opening can be cancelled and reports its progress") {
    std::string many;
    for (int i = 0; i < 5000; ++i)
        many += "<rect width='5' height='5'/>";
    double last = 0;
    Progress progress([&](double f) { last = f; });
    must(read_svg(svg(many), {"a.svg", nullptr}, progress));
    CHECK(last == Approx(1));
    Progress cancelled;
    cancelled.cancel();
    CHECK(read_svg(svg(many), {"a.svg", nullptr}, cancelled).error().code == "cancelled");
}

TEST_CASE("an element is drawn as it would be were it the only one in its groups") {
    Random random("styles among others");
    const auto pick = [&](std::initializer_list<const char*> of) {
        return std::string(std::data(of)[random.whole(0, static_cast<int>(of.size()) - 1)]);
    };
    for (int round = 0; round < 30; ++round) {
        const std::string sheet =
            pick({"", "<style>.a{fill:#123456} rect{stroke-width:2} .b{opacity:.5;stroke:red}</style>",
                  "<style>g .a{fill:#123456} #r3{stroke:lime}</style>"});
        const auto said = [&] {
            std::string out;
            if (random.coin())
                out += " fill='" + pick({"red", "none", "currentColor", "url(out.svg#x)", "inherit"}) + "'";
            if (random.coin())
                out += " style='" +
                       pick({"stroke:blue", "stroke:currentColor;stroke-width:3", "opacity:.5", "color:green",
                             "display:inline;stroke:#777!important"}) +
                       "'";
            if (random.coin()) out += " opacity='" + pick({"0.5", "0.25"}) + "'";
            if (random.coin()) out += " class='" + pick({"a", "b", "a b"}) + "'";
            if (random.coin()) out += " color='" + pick({"#00f", "#0ff"}) + "'";
            if (random.whole(0, 3) == 0) out += " transform='" + pick({"scale(2)", "scale(1,3)"}) + "'";
            return out;
        };
        std::string whole = sheet;
        std::vector<std::string> alone;
        int elements = 0, outside = 0;
        for (int g = 0; g < 6; ++g) {
            const std::string outer = "<g" + said() + ">", inner = "<g" + said() + ">";
            whole += outer + inner;
            for (int k = 0; k < 5; ++k) {
                const std::string element = "<rect id='r" + std::to_string(elements++ % 7) +
                                            "' width='5' height='5' stroke='#010203'" + said() + "/>";
                whole += element;
                alone.push_back(sheet + outer + inner + element + "</g></g>");
            }
            whole += "</g></g>";
        }
        INFO("seed " << random.seed() << " round " << round << "\n" << whole);
        std::vector<DrawnLine> each;
        for (const std::string& one : alone) {
            const auto read = read_elements(one);
            each.insert(each.end(), read.drawing.lines.begin(), read.drawing.lines.end());
            for (const Finding& f : read.findings)
                if (f.code == "svg.outside" && one.find("<rect") != std::string::npos) ++outside;
        }
        const auto read = read_elements(whole);
        REQUIRE(read.drawing.lines.size() == each.size());
        for (std::size_t i = 0; i < each.size(); ++i)
            CHECK(read.drawing.lines[i] == each[i]);
        CHECK(has(read.findings, "svg.outside") == (outside > 0));
    }
}
