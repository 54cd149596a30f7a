#include "core/opening/opening.h"

#include "core/base/text.h"
#include "core/commands/making.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

Opened open(const std::string& text, const std::string& name = "dir/tide_wave-1.svg") {
    static FontShelf fonts;
    return must(open_drawing(text, name, fonts));
}

const Gathering& with_stroke(const std::vector<Gathering>& all, Colour c) {
    for (const Gathering& g : all)
        if (g.stroke == c) return g;
    FAIL("no such colour");
    throw 0;
}

} // namespace

TEST_CASE("a file without physical units asks once, with the finished size at 96, 90 and 72 per inch") {
    // Common practice: older vector files have 72 or 90 units per inch; CSS has 96.
    Opened o = open("<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 288 144'><rect width='288' "
                    "height='144'/></svg>");
    REQUIRE(o.asks_scale);
    const auto choices = scale_choices(o);
    REQUIRE(choices.size() == 4);
    CHECK(in_mm(choices[3].width) == Approx(288));   // a unit is a millimetre
    CHECK(in_mm(choices[0].width) == Approx(76.2));  // 288 / 96 in
    CHECK(in_mm(choices[1].width) == Approx(81.28)); // 288 / 90 in
    CHECK(in_mm(choices[2].width) == Approx(101.6)); // 288 / 72 in
    CHECK(in_mm(choices[2].height) == Approx(50.8));
    const auto wide = must(scale_to_width(o, mm(295)));
    CHECK(in_mm(wide.height) == Approx(147.5));
    CHECK(scale_to_width(o, mm(0)).error().code == "open.width");
    settle_scale(o, wide.factor);
    CHECK_FALSE(o.asks_scale);
    CHECK(bounds(*o.source.drawing).width() == Approx(295));
    CHECK_FALSE(open(svg("<rect width='5' height='5'/>")).asks_scale);
    // Largest part 127 to fit 295: scale 2.3228; 290 x 176 becomes 673.6 x 408.8
    Opened heron = open(svg("<rect width='127' height='77'/>", 127, 77));
    CHECK(must(scale_to_width(heron, mm(295))).factor == Approx(2.3228).epsilon(1e-4));
}

TEST_CASE("art outside its page is brought into view and says so") {
    const Opened off = open(svg("<rect x='-40' y='250' width='30' height='20'/>"));
    const Box box = bounds(*off.source.drawing);
    CHECK(box.x0 == Approx(0).margin(1e-9));
    CHECK(box.y1 == Approx(100).margin(1e-9));
    CHECK(has(off.findings, "open.off-page"));
    CHECK(off.outside_by_mm == Approx(170));
    const Opened large = open(svg("<rect x='-40' y='0' width='300' height='20'/>"));
    CHECK(bounds(*large.source.drawing).x0 == Approx(0).margin(1e-9));
    CHECK_FALSE(has(open(svg("<rect width='30' height='20'/>")).findings, "open.off-page"));
}

TEST_CASE("names come from the file, a file without lines is refused with the reasons") {
    CHECK(open(svg("<rect width='5' height='5'/>")).name == "Tide wave 1");
    FontShelf fonts;
    const auto empty = open_drawing(svg("<image href='data:,x'/>"), "a.svg", fonts);
    REQUIRE_FALSE(empty);
    CHECK(empty.error().code == "open.empty");
    CHECK(empty.error().message.english().find("1 picture") != std::string::npos);
}

TEST_CASE("lines are gathered by colour, and each gathering is proposed with a reason") {
    const Opened o = open(svg(
        "<g id='cutlines' stroke='#000000' fill='none'><rect width='30' height='30'/><circle cx='50' cy='50' "
        "r='9'/></g>"
        "<path d='M0,40h50' stroke='#ff0000' fill='none'/><path id='fold-1' d='M0,60h50' stroke='#0000ff' "
        "fill='none'/>"
        "<path d='M0,70h50' stroke='#888888' fill='none'/><path d='M0,80h50' stroke='#000000' "
        "stroke-dasharray='2 2' fill='none'/>"
        "<rect x='70' width='9' height='9' fill='#a8832d'/><rect x='80' width='9' height='9' fill='#336699'/>"
        "<path d='M0,90h50' stroke='#000001' fill='none'/>"));
    const auto all = gather_lanes(*o.source.drawing, catalog());
    REQUIRE(all.size() == 8);
    std::size_t lines = 0;
    for (const Gathering& g : all) {
        lines += g.lines.size();
        CHECK_FALSE(g.reason.empty());
        CHECK_FALSE(g.name.empty());
        const Tool* tool = catalog().tool(g.tool);
        REQUIRE(tool);
        CHECK(std::find(tool->actions.begin(), tool->actions.end(), g.action) != tool->actions.end());
    }
    CHECK(lines == o.source.drawing->lines.size());
    CHECK(with_stroke(all, {0, 0, 0}).action == Action::cut);
    CHECK(with_stroke(all, {0, 0, 0}).closed == 2);
    CHECK(with_stroke(all, {255, 0, 0}).action == Action::draw);
    CHECK(with_stroke(all, {0, 0, 255}).action == Action::score); // by its name
    CHECK(with_stroke(all, {0, 0, 255}).reason.english().find("fold") != std::string::npos);
    CHECK(with_stroke(all, {136, 136, 136}).action == Action::score);
    CHECK(all[4].dashed);
    CHECK(all[4].action == Action::score);
    CHECK(all[5].action == Action::foil); // the colour of metal
    CHECK(all[6].action == Action::cut);
    CHECK(with_stroke(all, {0, 0, 1}).action == Action::draw); // dark and open
}

TEST_CASE(
    "what begins with layers has its areas cut, of whatever colour, but not what is named or has none") {
    const Opened o = open(svg("<rect width='9' height='9' fill='#a8832d'/><rect x='20' width='9' height='9' "
                              "fill='#336699'/><rect id='foil 1' x='40' width='9' height='9' fill='#b8932d'/>"
                              "<path d='M0,40h50' stroke='#ff0000' fill='none'/>"));
    const auto plain = gather_lanes(*o.source.drawing, catalog());
    const auto layers = gather_lanes(*o.source.drawing, catalog(), step_kind("knock-out"));
    const auto lines = gather_lanes(*o.source.drawing, catalog(), step_kind("outline"));
    REQUIRE(plain.size() == 4);
    CHECK(plain[0].action == Action::foil);
    CHECK(layers[0].action == Action::cut);
    CHECK(layers[1].action == Action::cut);
    CHECK(layers[2].action == Action::foil); // it says so itself
    CHECK(layers[3].action == Action::draw);
    for (std::size_t i = 0; i < plain.size(); ++i) {
        CHECK(lines[i].action == plain[i].action); // a step that knows no layers changes nothing
        CHECK(catalog().tool(layers[i].tool) != nullptr);
    }
    Gathering chosen = layers[0];
    choose_action(chosen, Action::score, catalog());
    CHECK(chosen.action == Action::score);
    CHECK(chosen.tool == catalog().first_tool(Action::score)->id);
    CHECK(chosen.name != layers[0].name);
    CHECK(chosen.reason.english() == "as you chose");
}

TEST_CASE("words in names decide, but only as words") {
    const auto action = [](const std::string& id) {
        return gather_lanes(*open(svg("<path id='" + id + "' d='M0,0h9v9z' stroke='#ff0000' fill='none'/>"))
                                 .source.drawing,
                            catalog())[0]
            .action;
    };
    CHECK(action("Engraving") == Action::engrave);
    CHECK(action("perf-line") == Action::perforate);
    CHECK(action("score_2") == Action::score);
    CHECK(action("pen") == Action::draw);
    CHECK(action("open") == Action::draw);    // no pen in it: by its colour
    CHECK(action("cutlery") == Action::draw); // nor a cut
    CHECK(action("edge-cut") == Action::cut);
}

TEST_CASE("taken in: every line in the lane that was proposed, lanes are shared") {
    Workshop w(catalog());
    Project p = w.new_project("x");
    const Opened o = open(svg("<rect width='30' height='30' fill='none' stroke='#000'/><path d='M0,40h50' "
                              "stroke='#ff0000' fill='none'/>"));
    const auto g = gather_lanes(*o.source.drawing, catalog());
    const PartId a = must(apply(TakeIn{o, g}, p, catalog())).part,
                 b = must(apply(TakeIn{o, g}, p, catalog())).part;
    CHECK(p.lanes.size() == 2);
    must(check_rules(p));
    for (const PartId id : {a, b}) {
        CHECK(find(p, id)->sets.size() == 2);
        for (const LineSet& s : find(p, id)->sets)
            CHECK(s.lane);
    }
    const PartId bare = must(apply(TakeIn{o}, p, catalog())).part;
    CHECK(find(p, bare)->sets.size() == 1);
    CHECK_FALSE(find(p, bare)->sets[0].lane);
}

TEST_CASE("files of other formats are called by their names") {
    FontShelf fonts;
    const auto told = [&](std::string bytes, const char* name = "x.svg") {
        const auto o = open_drawing(std::move(bytes), name, fonts);
        REQUIRE_FALSE(o);
        CHECK(o.error().code == "open.format");
        return o.error().message;
    };
    CHECK(told("GIF89a....").english().find("GIF picture") != std::string::npos);
    CHECK(told(std::string("RIFF\1\2\3\4WEBPVP8 ", 16)).english().find("WebP picture") != std::string::npos);
    CHECK(told("%PDF-1.7\n").english().find("PDF document") != std::string::npos);
    CHECK(told("AC1027......", "x.dxf").english().find("DWG drawing") != std::string::npos);
    CHECK(told("PK\3\4......").english().find("ZIP archive") != std::string::npos);
    CHECK(told("%!PS-Adobe-3.0").english().find("PostScript") != std::string::npos);
}

TEST_CASE("numbers that no project could hold never pass from a reader into a drawing") {
    FontShelf fonts;
    const auto code = [&](const std::string& elements) {
        const auto o = open_drawing(svg(elements), "x.svg", fonts);
        return o ? std::string("opened") : o.error().code;
    };
    // One changed digit in a real drawing; handles that no box shows; radii; far away.
    for (const char* path : {"M0,0C0,0 1e200,0 5,5", "M0,0A1e200,1e200 0 0 0 5,5", "M1,1l5,5M0,1e3081",
                             "M0,0L13e3083.925,4", "M0,0C0,1e307 1,-1e307 5,5", "M0,0L2e7,5"}) {
        INFO(path);
        const auto o =
            open_drawing(svg("<path stroke='red' d='" + std::string(path) + "'/>"), "x.svg", fonts);
        if (o) // kept up to the place where it breaks
            must(check_numbers(*o->source.drawing));
        else
            CHECK((o.error().code == "open.number" || o.error().code == "svg.number" ||
                   o.error().code == "open.empty"));
    }
    CHECK(code("<path stroke='red' d='M0,0L2e7,5'/>") == "open.number");
    CHECK(code("<path stroke='red' d='M0,0C0,0 1e200,0 5,5'/>") != "opened");
    // At a size that is settled later.
    Opened far =
        must(open_drawing("0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n900000\n21\n0\n0\n"
                          "ENDSEC\n0\nEOF\n",
                          "x.dxf", fonts));
    settle_scale(far, 25.4);
    Project p;
    CHECK(apply(TakeIn{far}, p, catalog()).error().code == "open.number");
    // Also where the file says its size, and another one is wished.
    Opened tall = open(svg("<path fill='none' stroke='#111' d='M0,0 L0.2,90000'/>"));
    settle_scale(tall, must(scale_to_width(tall, mm(1000))).factor);
    CHECK(apply(TakeIn{tall}, p, catalog()).error().code == "open.number");
    CHECK(p.parts.empty());
}

TEST_CASE("what lies far off is told in millimetres of the size that is wished") {
    Opened o = open(svg("<rect width='80' height='60'/><circle cx='465' cy='50' r='0.6'/>", 500, 100));
    const auto off = [&] {
        const Finding told = get(o.findings, "open.stray");
        return number_argument(told, "off_mm").value();
    };
    const double as_it_is = off();
    settle_scale(o, 2);
    CHECK(off() == Approx(2 * as_it_is).margin(0.2)); // as it is written
}

TEST_CASE("small files that unfold without end are refused soon, with what to do") {
    FontShelf fonts;
    const std::string head =
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='0 0 100 100'>";
    const auto refused = [&](const std::string& text) {
        const auto o = open_drawing(head + text + "</svg>", "x.svg", fonts);
        INFO(text.substr(0, 60));
        REQUIRE_FALSE(o);
        INFO(o.error().message);
        CHECK(may_be_large(o.error()));
        CHECK(o.error().message.english().find("Simplify") != std::string::npos);
    };
    const auto nested = [](int levels, int times) {
        std::string out = "<defs><path id='a0' d='M0,0h1v1z'/>";
        for (int i = 1; i < levels; ++i) {
            out += "<g id='a" + std::to_string(i) + "'>";
            for (int k = 0; k < times; ++k)
                out += "<use href='#a" + std::to_string(i - 1) + "' x='" + std::to_string(k) + "'/>";
            out += "</g>";
        }
        return out + "</defs><use href='#a" + std::to_string(levels - 1) + "'/>";
    };
    refused(nested(12, 4));
    refused(nested(20, 2));
    Random random("bombs");
    INFO("seed " << random.seed());
    const auto strokes = [&](int n) {
        std::string d = "M0,0";
        for (int i = 0; i < n; ++i)
            d += "L" + std::to_string(random.whole(0, 99)) + "," + std::to_string(random.whole(0, 99));
        return d;
    };
    std::string uses = "<defs><path id='p' stroke='red' fill='none' d='" + strokes(2000) + "'/></defs>";
    for (int i = 0; i < 2000; ++i)
        uses += "<use href='#p'/>";
    refused(uses);
    refused("<path fill='red' d='" + strokes(5000) + "'/>"); // crosses itself some millions of times
    std::string clips = "<clipPath id='c'><path d='" + strokes(1200) + "'/></clipPath>";
    for (int i = 0; i < 400; ++i)
        clips +=
            "<rect width='90' height='" + std::to_string(i % 90 + 3) + "' clip-path='url(#c)' fill='red'/>";
    refused(clips);
    std::string rules = "<style>";
    for (int i = 0; i < 3000; ++i)
        rules += "g g g g g g g g .c" + std::to_string(i) + " path{fill:red}";
    rules += "</style>";
    for (int i = 0; i < 100; ++i)
        rules += "<g>";
    for (int i = 0; i < 500; ++i)
        rules += "<path d='M0,0h1'/>";
    for (int i = 0; i < 100; ++i)
        rules += "</g>";
    refused(rules);
    // Names that entities blow up are cut, and do no harm.
    std::string entity =
        "<!DOCTYPE svg [<!ENTITY a '" + std::string(1000, 'x') + "'>]>" + head + "<g id='&a;&a;&a;'>";
    for (int i = 0; i < 500; ++i)
        entity += "<path stroke='red' d='M0,0h1'/>";
    const auto o = must(open_drawing(entity + "</g></svg>", "x.svg", fonts));
    for (const DrawnLine& line : o.source.drawing->lines)
        CHECK(line.group.size() <= longest_name);
    // Who was asked has it opened.
    const std::string more = head + nested(10, 4) + "</svg>"; // 262,144 lines
    CHECK_FALSE(open_drawing(more, "x.svg", fonts));
    CHECK(must(open_drawing(more, "x.svg", fonts, no_progress(), ReadLimits::large()))
              .source.drawing->lines.size() == 262'144);
}

TEST_CASE("what lines cannot hold is offered as a picture of what a renderer shows, at the page's size") {
    const std::string shaded =
        "<svg xmlns='http://www.w3.org/2000/svg' width='80mm' height='60mm' viewBox='0 0 80 60'><defs>"
        "<linearGradient id='g'><stop offset='0' stop-color='#000'/><stop offset='1' stop-color='#fff'/>"
        "</linearGradient></defs><rect x='10' y='10' width='60' height='40' fill='url(#g)'/></svg>";
    const Opened lines = open(shaded);
    CHECK(get(lines.findings, "svg.gradients").remedy.code == "open.as-picture");
    for (const Finding& note : lines.source.notes)
        CHECK(note.remedy.code.empty());
    const OpenedPicture picture = must(open_as_picture(shaded, "shaded.svg", fonts()));
    CHECK_FALSE(picture.asks_scale);
    CHECK(in_mm(picture.picture.width) == Approx(80));
    CHECK(picture.width == 1600);
    CHECK(picture.height == 1200);
    // Traced, its dark half is there: the line to the light one lies where the grey is that of the threshold.
    Workshop workshop(catalog());
    Project project = workshop.new_project("x");
    const PartId part = must(make_part(project, catalog(), fonts(), picture.picture));
    const Box box = workshop.derive(std::make_shared<Project>(project))->part(part)->source_box;
    CHECK(box.x0 == Approx(10).margin(0.1));
    CHECK(box.y0 == Approx(10).margin(0.1));
    CHECK(box.y1 == Approx(50).margin(0.1));
    CHECK(box.x1 > 25);
    CHECK(box.x1 < 65);
    // A file without a size asks; one that is no SVG, or broken, is refused in words.
    CHECK(must(open_as_picture("<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 9 9'><rect width='5' "
                               "height='5'/></svg>",
                               "x.svg", fonts()))
              .asks_scale);
    CHECK(open_as_picture("<svg", "x.svg", fonts()).error().code == "render.failed");
    CHECK_FALSE(has(open(svg("<rect width='5' height='5'/>")).findings, "svg.gradients"));
}
