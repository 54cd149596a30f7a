#include "core/workflow/opening.h"

#include "core/base/text.h"
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
    REQUIRE(choices.size() == 3);
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
    CHECK(empty.error().message.find("1 pictures") != std::string::npos);
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
    CHECK(with_stroke(all, {0, 0, 255}).reason.find("fold") != std::string::npos);
    CHECK(with_stroke(all, {136, 136, 136}).action == Action::score);
    CHECK(all[4].dashed);
    CHECK(all[4].action == Action::score);
    CHECK(all[5].action == Action::foil); // the colour of metal
    CHECK(all[6].action == Action::cut);
    CHECK(with_stroke(all, {0, 0, 1}).action == Action::draw); // dark and open
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
    const PartId a = must(take_in(p, catalog(), o, g)), b = must(take_in(p, catalog(), o, g));
    CHECK(p.lanes.size() == 2);
    must(check_rules(p));
    for (const PartId id : {a, b}) {
        CHECK(find(p, id)->sets.size() == 2);
        for (const LineSet& s : find(p, id)->sets)
            CHECK(s.lane);
    }
    const PartId bare = must(take_in(p, catalog(), o, {}));
    CHECK(find(p, bare)->sets.size() == 1);
    CHECK_FALSE(find(p, bare)->sets[0].lane);
}
