// What dries, and what hands do, while the machine runs.
#include "core/plan/meanwhile.h"

#include <set>

#include "core/base/text.h"
#include "core/machine/program_text.h"
#include "core/plan/hands.h"
#include "core/plan/plan.h"
#include "tests/core/plan/sheets_alike.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

using Hand = HandStep::Kind;

Plan plan_with(const Bench& b, const std::vector<SheetWork>& works, int mats,
               School school = School::sheets) {
    PlanOptions options;
    options.wishes.mats = mats, options.wishes.school = school;
    return must(make_plan("p", machine_of(b), works, options));
}

std::size_t steps(const Plan& plan, Hand kind) {
    std::size_t out = 0;
    for (const Move& move : plan.program.moves)
        if (const auto* stop = std::get_if<StopMove>(&move))
            for (const HandStep& step : stop->steps)
                out += step.kind == kind;
    return out;
}

} // namespace

TEST_CASE(
    "mats: never more in use than there are, each sheet laid once and lifted off once, no second lost") {
    Random random("mats");
    for (int round = 0; round < 300; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        Machine machine;
        machine.load_sheet = seconds(random.real(20, 90)),
        machine.unload_sheet = seconds(random.real(15, 60));
        machine.feed = std::min({seconds(random.real(0, 30)), machine.load_sheet, machine.unload_sheet});
        std::vector<SheetWork> works(static_cast<std::size_t>(random.whole(1, 7)));
        for (SheetWork& work : works)
            work.sheet.mat = as_is(random.whole(0, 2) == 0 ? "long" : "short");
        std::vector<Leg> legs;
        for (const SheetWork& work : works)
            legs.push_back({&work, seconds(random.real(0, 200))});
        if (random.whole(0, 1) == 1) // some come again
            for (int again = random.whole(1, 5); again > 0; --again) {
                const auto& sheet =
                    works[static_cast<std::size_t>(random.whole(0, static_cast<int>(works.size()) - 1))];
                if (legs.back().sheet != &sheet) legs.push_back({&sheet, seconds(random.real(0, 200))});
            }
        const int mats = random.whole(1, 4);
        const auto found = meanwhile(legs, machine, mats);
        REQUIRE(found.size() == legs.size());
        // The hands, step by step, and what lies on a mat meanwhile.
        std::multiset<std::string> busy; // kinds of mats
        std::set<const SheetWork*> laid;
        const auto lay = [&](const SheetWork* sheet) {
            CHECK(laid.insert(sheet).second);
            busy.insert(sheet->sheet.mat.english());
        };
        const auto lift = [&](const SheetWork* sheet) {
            CHECK(laid.contains(sheet));
            busy.erase(busy.find(sheet->sheet.mat.english()));
        };
        const auto comes = [&](const SheetWork* sheet, std::size_t from) {
            return std::any_of(legs.begin() + static_cast<std::ptrdiff_t>(from), legs.end(),
                               [&](const Leg& l) { return l.sheet == sheet; });
        };
        Duration owed;
        for (std::size_t i = 0; i < legs.size(); ++i) {
            const Meanwhile& m = found[i];
            CHECK(m.left_over == owed); // what the machine had to be waited for
            const SheetWork* const before = i > 0 ? legs[i - 1].sheet : nullptr;
            const bool leaves = before && !comes(before, i);
            if (m.lifts_off) CHECK(leaves);
            if (leaves && !m.lifts_off) lift(before);
            CHECK(m.prepared == (i > 0 && found[i - 1].prepares == legs[i].sheet));
            if (!laid.contains(legs[i].sheet)) lay(legs[i].sheet);
            Duration work;
            if (m.lifts_off) lift(before), work += machine.unload_sheet - machine.feed;
            if (m.prepares) {
                CHECK(m.prepares == legs[i + 1].sheet);
                CHECK(static_cast<int>(busy.count(m.prepares->sheet.mat.english())) < mats);
                lay(m.prepares), work += machine.load_sheet - machine.feed;
            }
            if (mats == 1) CHECK(work == Duration());
            if (i + 1 < legs.size()) CHECK(m.time <= legs[i].runs);
            owed = work - m.time;
        }
        CHECK(owed == Duration());
    }
}

TEST_CASE("with a spare mat the machine waits less, and the hands have as much to do") {
    const Bench b = sheets_alike(4);
    const auto derived = b.derive();
    const Plan one = plan_with(b, *derived->works, 1), two = plan_with(b, *derived->works, 2),
               nine = plan_with(b, *derived->works, 9);
    CHECK(one.totals.meanwhile == Duration());
    CHECK(steps(one, Hand::meanwhile) == 0);
    CHECK(in_seconds(two.totals.meanwhile) > 0);
    CHECK(in_seconds(two.totals.hands) == Approx(in_seconds(one.totals.hands)));
    CHECK(two.totals.stops == one.totals.stops);
    CHECK(in_seconds(two.timeline.total()) ==
          Approx(in_seconds(two.totals.machine + two.totals.hands - two.totals.meanwhile)));
    CHECK(in_seconds(two.timeline.total()) ==
          Approx(in_seconds(one.timeline.total() - two.totals.meanwhile)));
    // Three of four sheets are laid meanwhile, three lifted off; more than one spare mat serves nobody.
    CHECK(steps(two, Hand::meanwhile) == 6);
    CHECK(nine.program == two.program);
    const auto reason = std::find_if(two.reasons.begin(), two.reasons.end(),
                                     [](const Reason& r) { return r.code == "hands.meanwhile"; });
    REQUIRE(reason != two.reasons.end());
    const std::string text = program_text(two.program);
    CHECK(program_text(must(program_from_text(text, "p"))) == text);
    CHECK(totals(must(program_from_text(text, "p")), Timeline(two.program)).meanwhile ==
          two.totals.meanwhile);
    // Where sheets go out and in, each lies on a mat of its own until it has run for the last time.
    const Plan out_and_in = plan_with(b, *derived->works, 2, School::tools);
    CHECK(in_seconds(out_and_in.totals.hands) ==
          Approx(in_seconds(plan_with(b, *derived->works, 1, School::tools).totals.hands)));
}

TEST_CASE("what the machine did not run long enough for is done at the stop, whatever is loaded there") {
    const Bench b = sheets_alike(2);
    const auto derived = b.derive();
    for (const bool prepared : {false, true}) {
        StopNeeds needs;
        needs.machine = &machine_of(b), needs.from = &derived->works->front(),
        needs.to = &derived->works->back();
        needs.meanwhile.prepared = prepared;
        const Duration at_once = stop_move(2, needs).time;
        needs.meanwhile.left_over = seconds(7);
        CHECK(in_seconds(stop_move(2, needs).time) == Approx(in_seconds(at_once) + 7));
    }
}

TEST_CASE("ink dries before hands come to it, and while later passes run") {
    Random random("drying");
    const Bench b = sheets_alike(2);
    const auto derived = b.derive();
    for (int round = 0; round < 40; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        auto works = *derived->works;
        const double dry = random.real(0.1, 120);
        for (SheetWork& sheet : works)
            for (LaneWork& work : sheet.lanes)
                if (work.lane.action == Action::draw) work.dry = seconds(dry);
        const Plan plan = plan_with(b, works, 1);
        Duration ended, waited; // the last drawing; at stops, for ink
        bool wet = false;
        for (std::size_t m = 0; m < plan.program.moves.size(); ++m) {
            const MoveSpan span = plan.timeline.spans()[m];
            if (const auto* pass = std::get_if<PassMove>(&plan.program.moves[m])) {
                if (pass->action == Action::draw) ended = span.start + span.time, wet = true;
                continue;
            }
            const auto& stop = std::get<StopMove>(plan.program.moves[m]);
            const double left = wet ? dry - in_seconds(span.start - ended) : 0;
            const auto it = std::find_if(stop.steps.begin(), stop.steps.end(),
                                         [](const HandStep& s) { return s.kind == Hand::dry; });
            CHECK((it != stop.steps.end()) == (left > 1e-9));
            if (left > 0) {
                INFO(left << " " << it->text.english());
                CHECK(it->text.english().find(spoken_seconds(std::ceil(left))) != std::string::npos);
                waited += seconds(left);
            }
            wet = false;
        }
        // Not counted twice, and counted when the order was looked for.
        CHECK(plan.reasons.front().code == "hands.least");
        CHECK(in_seconds(plan.totals.hands) >= in_seconds(derived->plan->totals.hands) - 1e-6);
        CHECK(in_seconds(plan.totals.hands) <= in_seconds(derived->plan->totals.hands) + 2 * dry + 1e-6);
        CHECK(in_seconds(waited) <= 2 * dry);
    }
}
