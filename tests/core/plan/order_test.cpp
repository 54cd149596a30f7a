#include "core/plan/order.h"

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

LaneWork work(std::uint32_t id, Action action, Colour colour = {}) {
    LaneWork w;
    w.lane.id = LaneId{id};
    w.lane.action = action;
    w.lane.colour = colour;
    w.plate = std::string(1, action_letter(action)) + std::to_string(id);
    w.tool = catalog().first_tool(action);
    w.lines = std::make_shared<LaneLines>(LaneLines{{line({{0, 0}, {1, 1}})}, {{}}});
    return w;
}

std::vector<std::uint32_t> ids(const std::vector<LaneWork>& lanes) {
    std::vector<std::uint32_t> out;
    for (const LaneWork& w : lanes)
        out.push_back(w.lane.id.value);
    return out;
}

} // namespace

TEST_CASE("the usual order: draw, engrave, foil, emboss, score, perforate, cut") {
    // Common practice: marking before cutting, because released pieces shift.
    std::vector<LaneWork> lanes = {
        work(1, Action::cut),  work(2, Action::perforate), work(3, Action::score), work(4, Action::emboss),
        work(5, Action::foil), work(6, Action::engrave),   work(7, Action::draw)};
    sort_lanes(lanes, {});
    CHECK(ids(lanes) == std::vector<std::uint32_t>{7, 6, 5, 4, 3, 2, 1});
    CHECK(order_risks(lanes).empty());
    CHECK(order_reasons(lanes).front().code == "order.cut-last");
}

TEST_CASE("light inks before dark ones") {
    std::vector<LaneWork> lanes = {work(1, Action::draw, {0, 0, 0}), work(2, Action::draw, {250, 230, 90}),
                                   work(3, Action::draw, {160, 70, 45})};
    sort_lanes(lanes, {});
    CHECK(ids(lanes) == std::vector<std::uint32_t>{2, 3, 1});
    const auto reasons = order_reasons(lanes);
    CHECK(std::count_if(reasons.begin(), reasons.end(),
                        [](const Reason& r) { return r.code == "order.light-first"; }) == 2);
}

TEST_CASE("a wished order is kept, and what it risks is said pair by pair") {
    std::vector<LaneWork> lanes = {work(1, Action::cut), work(2, Action::draw, {0, 0, 0}),
                                   work(3, Action::draw, {250, 230, 90}), work(4, Action::score)};
    sort_lanes(lanes, {LaneId{1}, LaneId{2}, LaneId{3}});
    CHECK(ids(lanes) ==
          std::vector<std::uint32_t>{1, 2, 3, 4}); // score was not named: behind the draws it usually follows
    const Findings risks = order_risks(lanes);
    CHECK(std::count_if(risks.begin(), risks.end(),
                        [](const Finding& f) { return f.code == "order.after-cut"; }) == 3);
    CHECK(std::count_if(risks.begin(), risks.end(),
                        [](const Finding& f) { return f.code == "order.dark-first"; }) == 1);
    for (const Finding& f : risks) {
        CHECK(f.grade == Grade::caution); // makers may: it is their decision
        CHECK(f.remedy.code == "order.usual");
    }
}

TEST_CASE("lightness is CIE L*") {
    CHECK(lightness({0, 0, 0}) == Approx(0).margin(1e-9));
    CHECK(lightness({255, 255, 255}) == Approx(100).margin(1e-6));
    CHECK(lightness({119, 119, 119}) ==
          Approx(50.03).margin(0.05)); // sRGB 119 is the middle grey of CIE 1976
}
