#include "core/plan/slots.h"

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// Fewest stops and changes by trying every filling at every pass; only for small cases.
std::pair<int, int> brute_force(const std::vector<SlotNeed>& needs,
                                const std::vector<std::vector<bool>>& fits, std::size_t at,
                                std::vector<int> holds) {
    if (at == needs.size()) return {0, 0};
    const std::size_t slots = holds.size();
    const bool there = std::find(holds.begin(), holds.end(), needs[at].tool) != holds.end();
    std::pair<int, int> best{1000, 1000};
    if (!needs[at].hands && there) best = brute_force(needs, fits, at + 1, holds);
    std::vector<int> to(slots, -1);
    const int tools = static_cast<int>(fits.size());
    long total = 1;
    for (std::size_t s = 0; s < slots; ++s)
        total *= tools + 1;
    for (long code = 0; code < total; ++code) {
        long rest = code;
        bool ok = true, has = false;
        for (std::size_t s = 0; s < slots; ++s) {
            to[s] = static_cast<int>(rest % (tools + 1)) - 1;
            rest /= tools + 1;
            if (to[s] >= 0 && !fits[static_cast<std::size_t>(to[s])][s]) ok = false;
            for (std::size_t o = 0; o < s; ++o)
                if (to[s] >= 0 && to[o] == to[s]) ok = false;
            has |= to[s] == needs[at].tool;
        }
        if (!ok || !has) continue;
        int changes = 0;
        for (std::size_t s = 0; s < slots; ++s)
            changes += to[s] >= 0 && to[s] != holds[s];
        auto next = brute_force(needs, fits, at + 1, to);
        next.first += 1;
        next.second += changes;
        best = std::min(best, next);
    }
    return best;
}

} // namespace

TEST_CASE("one slot: every change of tool is a stop") {
    const std::vector<std::vector<bool>> fits(3, {true});
    const auto plan = must(assign_slots({{0, true}, {1, false}, {1, false}, {2, false}}, fits));
    CHECK(plan.stops == 3);
    CHECK(plan.changes == 3);
    CHECK_FALSE(plan.passes[2].stop);
}

TEST_CASE("two slots: pen and blade stay in through sheet after sheet") {
    const std::vector<std::vector<bool>> fits = {{true, false}, {false, true}};
    const auto plan =
        must(assign_slots({{0, true}, {1, false}, {0, true}, {1, false}, {0, true}, {1, false}}, fits));
    CHECK(plan.stops == 3); // the sheets themselves
    CHECK(plan.changes == 2);
}

TEST_CASE("fewest stops, then fewest changes: as good as trying everything") {
    Random random("slots");
    for (int round = 0; round < 150; ++round) {
        const int tools = random.whole(1, 4), slots = random.whole(1, 2), passes = random.whole(1, 5);
        std::vector<std::vector<bool>> fits(static_cast<std::size_t>(tools),
                                            std::vector<bool>(static_cast<std::size_t>(slots)));
        for (auto& row : fits) {
            for (std::size_t s = 0; s < row.size(); ++s)
                row[s] = random.coin(0.7);
            row[static_cast<std::size_t>(random.whole(0, slots - 1))] = true;
        }
        std::vector<SlotNeed> needs;
        for (int i = 0; i < passes; ++i)
            needs.push_back({random.whole(0, tools - 1), i == 0 || random.coin(0.2)});
        const auto plan = must(assign_slots(needs, fits));
        const auto best = brute_force(needs, fits, 0, std::vector<int>(static_cast<std::size_t>(slots), -1));
        INFO("seed " << random.seed() << " round " << round);
        CHECK(plan.stops == best.first);
        CHECK(plan.changes == best.second);
        for (std::size_t i = 0; i < needs.size(); ++i) { // and the answer is one that can be carried out
            const auto& p = plan.passes[i];
            CHECK(p.holds[static_cast<std::size_t>(p.slot)] == needs[i].tool);
            CHECK(fits[static_cast<std::size_t>(needs[i].tool)][static_cast<std::size_t>(p.slot)]);
            if (!p.stop) CHECK(p.holds == plan.passes[i - 1].holds);
        }
    }
}

TEST_CASE("many tools in four slots still answer at once, with the fewest stops") {
    // 24 tools in a row, any slot: a stop for every four of them, whatever is chosen.
    const std::vector<std::vector<bool>> fits(24, std::vector<bool>(4, true));
    std::vector<SlotNeed> needs;
    for (int i = 0; i < 24; ++i)
        needs.push_back({i, i == 0});
    const auto plan = must(assign_slots(needs, fits));
    CHECK(plan.stops == 6);
    CHECK(plan.changes == 24);
}

TEST_CASE("a tool that fits nowhere is told") {
    CHECK(assign_slots({{0, true}}, {{false, false}}).error().code == "plan.no-slot");
    CHECK(must(assign_slots({}, {})).passes.empty());
}
