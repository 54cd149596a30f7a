#include "core/project/edits.h"

#include "core/commands/filling.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

const char* four = "<rect id='a' x='1' y='1' width='9' height='9' fill='none' stroke='#111'/><rect id='b' "
                   "x='21' y='1' width='9' height='9' fill='none' stroke='#111'/>"
                   "<path id='c' d='M1,30 h20' fill='none' stroke='#a8462d'/><path id='d' d='M1,40 h20' "
                   "fill='none' stroke='#a8462d'/>";

/// Which lane each line is in; every line must be in exactly one set.
std::map<LineId, LaneId> lanes_of(const Bench& b) {
    std::map<LineId, LaneId> out;
    for (const LineSet& set : find(b.project, b.part)->sets)
        for (const LineId line : set.lines)
            CHECK(out.emplace(line, set.lane).second);
    CHECK(out.size() == b.lines().size());
    return out;
}

} // namespace

TEST_CASE("every line is in exactly one line set, whatever is done") {
    Random random("assigning");
    Bench b = bench(four);
    const LaneId extra = add_lane(b.project, {{}, Action::score, "extra", "fold-stylus", {}, 1});
    std::vector<LaneId> lanes{LaneId{}, extra};
    for (const Lane& l : b.project.lanes)
        lanes.push_back(l.id);
    for (int round = 0; round < 300; ++round) {
        std::vector<LineId> lines;
        for (const LineId line : b.lines())
            if (random.coin()) lines.push_back(line);
        const LaneId lane =
            lanes[static_cast<std::size_t>(random.whole(0, static_cast<int>(lanes.size()) - 1))];
        INFO("seed " << random.seed() << " round " << round);
        switch (random.whole(0, 3)) {
        case 0:
            must(assign(b.project, b.part, lines, lane, random.coin() ? "named" : ""));
            break;
        case 1:
            if (!lines.empty()) must(gather(b.project, b.part, lines, "gathered"));
            break;
        case 2:
            if (!lines.empty())
                must(set_aside(b.project, b.part, must(gather(b.project, b.part, lines, "aside")),
                               random.coin()));
            break;
        default:
            must(assign(b.project, b.part, lines, lane));
            for (const auto& [line, now] : lanes_of(b))
                if (std::find(lines.begin(), lines.end(), line) != lines.end()) CHECK(now == lane);
        }
        lanes_of(b);
        must(check_rules(b.project));
    }
}

TEST_CASE("a line set that a fill uses keeps its identity when it changes lane") {
    Bench b = bench(four);
    must(fill_lines(b.project, catalog(), b.part, {b.lines()[0], b.lines()[1]}));
    const Step& fill = find(b.project, b.part)->steps[0];
    must(assign(b.project, b.part, {b.lines()[0], b.lines()[1]}, b.lane(Action::draw)));
    REQUIRE(find(*find(b.project, b.part), fill.of[0]));
    CHECK(find(*find(b.project, b.part), fill.of[0])->lines.size() == 2);
}

TEST_CASE("removing a fill runs its outlines again, unless another fill needs them") {
    Bench b = bench(four);
    const StepId one = must(fill_lines(b.project, catalog(), b.part, {b.lines()[0]}));
    const LineSetId set = find(b.project, b.part)->steps[0].of[0];
    CHECK(find(*find(b.project, b.part), set)->set_aside);
    const StepId two = must(fill_sets(b.project, catalog(), b.part, FillStep{}, {set}));
    must(remove_maker(b.project, b.part, one));
    CHECK(find(*find(b.project, b.part), set)->set_aside);
    must(remove_maker(b.project, b.part, two));
    CHECK_FALSE(find(*find(b.project, b.part), set)->set_aside);
    CHECK(remove_maker(b.project, b.part, two).error().code == "edit.missing");
}

TEST_CASE("a refused edit changes nothing") {
    Bench b = bench(four);
    const Project before = b.project;
    CHECK_FALSE(assign(b.project, b.part, {LineId{9999}}, b.lane(Action::cut)));
    CHECK_FALSE(assign(b.project, PartId{9999}, b.lines(), b.lane(Action::cut)));
    CHECK_FALSE(assign(b.project, b.part, b.lines(), LaneId{9999}));
    CHECK_FALSE(gather(b.project, b.part, {}, "x"));
    CHECK(scale_part(b.project, b.part, 0).error().code == "part.scale");
    CHECK(scale_part(b.project, b.part, 1e9).error().code == "part.scale");
    CHECK(rename_part(b.project, b.part, "").error().code == "part.name");
    CHECK(set_quantity(b.project, b.part, 0).error().code == "part.quantity");
    CHECK(fill_lines(b.project, catalog(), b.part, {b.lines()[2]}).error().code == "step.no-lines"); // open
    FillStep fill;
    CHECK(add_step(b.project, b.part, {{}, true, {}, fill}).error().code == "step.no-lines");
    fill.spacing = mm(0.01);
    const std::vector<LineSetId> of = {find(b.project, b.part)->sets[0].id};
    CHECK(add_step(b.project, b.part, {{}, true, {}, fill, of}).error().code == "step.range");
    Lane lane = b.project.lanes[0];
    lane.repeats = 9;
    CHECK(change_lane(b.project, lane).error().code == "lane.repeats");
    CHECK(set_pass_order(b.project, {lane.id, lane.id}).error().code == "lane.twice");
    CHECK(set_pass_order(b.project, {LaneId{9999}}).error().code == "edit.missing");
    CHECK_FALSE(place(b.project, SheetId{9999}, {{}, b.part, {}, {}, {}, false}));
    CHECK(place(b.project, b.sheet, {{}, b.part, mm(NAN), {}, {}, false}).error().code == "place.range");
    CHECK_FALSE(remove_sheet(b.project, SheetId{9999}));
    CHECK(b.project == before);
}

TEST_CASE("removing a lane leaves its lines without one, and the order without it") {
    Bench b = bench(four);
    const LaneId cut = b.lane(Action::cut);
    must(set_pass_order(b.project, {cut, b.lane(Action::draw)}));
    must(remove_lane(b.project, cut));
    CHECK(b.project.pass_order.size() == 1);
    CHECK(has(b.derive()->findings, "lane.none"));
    must(check_rules(b.project));
}

TEST_CASE("removing a part takes it off its sheets") {
    Bench b = bench(four);
    must(remove_part(b.project, b.part));
    CHECK(b.project.sheets[0].placements.empty());
    must(check_rules(b.project));
}

TEST_CASE("plates: the action's letter, and a number from the second on") {
    Project p;
    const LaneId d1 = add_lane(p, {{}, Action::draw, "a", "", {}, 1}),
                 c = add_lane(p, {{}, Action::cut, "b", "", {}, 1}),
                 d2 = add_lane(p, {{}, Action::draw, "c", "", {}, 1});
    CHECK(plate(p, d1) == "D");
    CHECK(plate(p, d2) == "D2");
    CHECK(plate(p, c) == "C");
    CHECK(plate(p, {}) == "?");
    std::string letters;
    for (const Action a : all_actions)
        letters += action_letter(a);
    CHECK(letters == "DEFMSHCR");
}

TEST_CASE("colours: hex, words, lightness order") {
    CHECK(to_hex({217, 130, 43}) == "#d9822b");
    CHECK(*colour_from_hex("#d9822b") == Colour{217, 130, 43});
    CHECK(*colour_from_hex("#fa0") == Colour{255, 170, 0});
    for (const char* wrong : {"", "d9822b", "#12345", "#gggggg", "#12 456"})
        CHECK_FALSE(colour_from_hex(wrong));
    CHECK(colour_word({168, 131, 45}) == "gold");
    CHECK(colour_word({168, 70, 45}) == "rust");
    CHECK(colour_word({250, 250, 250}) == "white");
}
