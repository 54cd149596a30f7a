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
    for (const BrokenRule& broken : broken_rules(lanes)) // where it is broken: all but the first
        CHECK(broken.late != lanes.front().lane.id);
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

namespace {

PlanOptions wishing(std::vector<LaneRule> rules, std::vector<std::string> off = {}) {
    return {{}, {School::sheets, std::move(rules), {}, std::move(off)}};
}

} // namespace

TEST_CASE("a maker's own rules go before the planner's, and the planner's hold as far as they can") {
    const std::vector<LaneWork> lanes = {work(1, Action::draw, {250, 230, 90}),
                                         work(2, Action::draw, {0, 0, 0}), work(3, Action::score),
                                         work(4, Action::cut)};
    const auto order = [&](const PlanOptions& options) {
        const Precedence p(lanes, options);
        std::vector<std::uint32_t> out(4);
        for (std::uint32_t id = 1; id <= 4; ++id)
            out[static_cast<std::size_t>(p.rank(LaneId{id}))] = id;
        return out;
    };
    using Ids = std::vector<std::uint32_t>;
    CHECK(order({}) == Ids{1, 2, 3, 4});
    CHECK(order(wishing({{LaneId{3}, LaneId{1}, ""}})) ==
          Ids{3, 1, 2, 4}); // the dark ink still waits for the pale one
    CHECK(order(wishing({{LaneId{2}, LaneId{1}, ""}})) == Ids{2, 1, 3, 4});
    CHECK(order(wishing({{LaneId{4}, LaneId{1}, ""}})).back() == 1); // cutting first, the other school
    // What it cannot keep it tells, what is off it does not.
    std::vector<LaneWork> cut_first = {lanes[3], lanes[0]};
    CHECK(has(order_risks(cut_first), "order.after-cut"));
    CHECK(order_risks(cut_first, {School::sheets, {}, {}, {"marks-first"}}).empty());
    CHECK(has(order_risks({lanes[0], lanes[1]}, wishing({{LaneId{2}, LaneId{1}, ""}}).wishes), "order.own"));
    CHECK(has(order_risks({work(5, Action::cut), work(6, Action::perforate)}), "order.after-cut"));
    // Off: dark may come first where that costs nothing, so nothing says which.
    CHECK_FALSE(Precedence(lanes, wishing({}, {"light-first"})).before(LaneId{1}, LaneId{2}));
    CHECK(Precedence(lanes, {}).before(LaneId{1}, LaneId{2}));
    const auto reasons = order_reasons({lanes[2], lanes[3]},
                                       wishing({{LaneId{3}, LaneId{4}, "the fold guides the eye"}}).wishes);
    CHECK(std::any_of(reasons.begin(), reasons.end(), [](const Reason& r) {
        return r.code == "order.own" && r.sentence.english().find("guides the eye") != std::string::npos;
    }));
}

TEST_CASE("whatever the rules, there is an order, and it keeps all of the maker's") {
    Random random("rules");
    for (int round = 0; round < 200; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        std::vector<LaneWork> lanes;
        for (std::uint32_t id = 1; id <= 8; ++id) {
            const auto shade = static_cast<std::uint8_t>(random.whole(0, 255));
            lanes.push_back(work(id, all_actions[random.whole(0, 6)], {shade, shade, shade}));
        }
        std::vector<std::uint32_t> hidden{1, 2, 3, 4, 5, 6, 7, 8}; // an order that all own rules follow
        std::shuffle(hidden.begin(), hidden.end(), random.engine());
        std::vector<LaneRule> own;
        for (int n = random.whole(0, 6); n > 0; --n) {
            const int a = random.whole(0, 6), b = random.whole(a + 1, 7);
            own.push_back({LaneId{hidden[static_cast<std::size_t>(a)]},
                           LaneId{hidden[static_cast<std::size_t>(b)]}, ""});
        }
        const Precedence p(lanes, wishing(own));
        std::set<int> ranks;
        for (const LaneWork& lane : lanes)
            ranks.insert(p.rank(lane.lane.id));
        CHECK(ranks.size() == 8);
        for (const LaneRule& rule : own)
            CHECK(p.rank(rule.before) < p.rank(rule.after));
        for (const LaneWork& a : lanes)
            for (const LaneWork& b : lanes) {
                if (p.before(a.lane.id, b.lane.id)) CHECK(p.rank(a.lane.id) < p.rank(b.lane.id));
                if (own.empty() && holds(*order_rule("marks-first"), a, b))
                    CHECK(p.before(a.lane.id, b.lane.id));
            }
    }
}
