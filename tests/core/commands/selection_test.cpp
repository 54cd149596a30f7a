#include "core/base/text.h"
#include "core/commands/selection.h"

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

struct Chosen {
    Bench b = bench("<rect id='frame' x='1' y='1' width='90' height='60' fill='none' stroke='#111111'/>"
                    "<circle id='in' cx='20' cy='20' r='5' fill='none' stroke='#a8462d'/>"
                    "<circle id='across' cx='91' cy='30' r='5' fill='none' stroke='#a8462d'/>"
                    "<rect id='disc' x='40' y='20' width='20' height='20' fill='#a8832d'/>"
                    "<path id='below' d='M5,80 h40' fill='none' stroke='#111111'/>");
    std::shared_ptr<const Derived> d = b.derive();
    const Part& part = *find(b.project, b.part);
    const EvaluatedPart& e = *d->part(b.part);
    LineId id(std::size_t i) const { return part.source.drawing->lines[i].id; }
};

} // namespace

TEST_CASE_METHOD(Chosen, "a click takes the nearest line in reach, or the filled shape under it") {
    CHECK(line_at(e, {1.4, 30}, mm(1)) == id(0));
    CHECK(line_at(e, {25.3, 20}, mm(1)) == id(1));
    CHECK(line_at(e, {50, 30}, mm(1)) == id(3)); // inside of a fill
    CHECK_FALSE(line_at(e, {20, 20}, mm(1)));    // inside of a mere outline
    CHECK_FALSE(line_at(e, {70, 95}, mm(1)));
}

TEST_CASE_METHOD(Chosen, "a box takes what lies wholly in it") {
    CHECK(lines_in_box(e, {10, 10, 70, 45}) == std::vector<LineId>{id(1), id(3)});
    CHECK(lines_in_box(e, {0, 0, 100, 100}).size() == 5);
    CHECK(lines_in_box(e, {18, 18, 22, 22}).empty());
}

TEST_CASE_METHOD(Chosen, "all of this colour") {
    CHECK(lines_of_same_colour(e, id(1)) == std::vector<LineId>{id(1), id(2)});
    CHECK(lines_of_same_colour(e, id(0)) == std::vector<LineId>{id(0), id(4)});
    CHECK(lines_of_same_colour(e, LineId{999}).empty());
}

TEST_CASE_METHOD(Chosen, "all inside this outline: wholly, and not the outline itself") {
    CHECK(lines_inside(e, id(0)) == std::vector<LineId>{id(1), id(3)});
    CHECK(lines_inside(e, id(4)).empty());
    CHECK(lines_inside(e, LineId{999}).empty());
}

TEST_CASE("a line whose corners are inside but which leaves in between is not inside") {
    Bench b = bench(
        "<path id='u' d='M0,0 h60 v40 h-20 v-25 h-20 v25 h-20 z' fill='none' stroke='#111'/>" // a U upside
                                                                                              // down
        "<path id='bridge' d='M10,30 H50' fill='none' stroke='#a8462d'/><path id='ok' d='M10,5 H50' "
        "fill='none' stroke='#a8462d'/>");
    const auto d = b.derive();
    const auto inside = lines_inside(*d->part(b.part), b.lines()[0]);
    CHECK(inside == std::vector<LineId>{b.lines()[2]});
}

TEST_CASE("inside a large outline with very many lines is answered quickly enough to be a click") {
    std::string many = "<path d='M0,50 ";
    for (int i = 0; i <= 720; ++i)
        many += (i ? " L" : "M") + number(50 + 49 * std::cos(i * 3.14159265 / 360), 6) + "," +
                number(50 + 49 * std::sin(i * 3.14159265 / 360), 6);
    many = "<path d='" +
           many.substr(many.find("M50") == std::string::npos ? many.find('M', 10) : many.find('M', 10)) +
           "z' fill='none' stroke='#111'/>";
    for (int i = 0; i < 2000; ++i)
        many += "<circle cx='" + number(20 + i % 60, 6) + "' cy='" + number(20 + i / 60 % 60, 6) +
                "' r='.4' fill='none' stroke='#a8462d'/>";
    Bench b = bench(many);
    const auto d = b.derive();
    const auto inside = lines_inside(*d->part(b.part), b.lines()[0]);
    std::size_t by_centre = 0; // every little circle whose farthest point is within the outline
    for (std::size_t i = 1; i < b.lines().size(); ++i) {
        const Point c = d->part(b.part)->lines[i].box.centre();
        by_centre += distance(c, {50, 50}) < 48.5;
    }
    CHECK(inside.size() == by_centre);
}

TEST_CASE("a lane's letter: the first lane, again the next, round and round") {
    Bench b = bench("<path d='M0,0h9' stroke='#a8462d' fill='none'/><path d='M0,9h9' stroke='#2f5d62' "
                    "fill='none'/><path d='M0,19h9v9z' stroke='#111' fill='none'/>");
    const auto lines = b.lines();
    std::vector<LaneId> draws;
    for (const Lane& l : b.project.lanes)
        if (l.action == Action::draw) draws.push_back(l.id);
    REQUIRE(draws.size() == 2);
    const auto d = b.derive();
    const EvaluatedPart& e = *d->part(b.part);
    const auto letter = [&](const std::vector<LineId>& chosen) {
        return lane_for_letter(b.project, e, chosen, Action::draw);
    };
    CHECK(letter({lines[2]}) == draws[0]);           // from cut to the first draw lane
    CHECK(letter({lines[0]}) == draws[1]);           // from the first to the second
    CHECK(letter({lines[1]}) == draws[0]);           // and round
    CHECK(letter({lines[0], lines[1]}) == draws[0]); // mixed: the first
    CHECK_FALSE(lane_for_letter(b.project, e, lines, Action::engrave));
}
