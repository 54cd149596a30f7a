#include "core/plan/sequence.h"

#include <cmath>
#include <numeric>
#include <set>

#include "core/plan/order_walks.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// What a pass takes of the hands, for the jobs of these tests.
struct Lain {
    double cool = 0, warm = 0;
    int foil = -1;
};

struct SomeJob {
    Job job;
    std::vector<std::vector<Lain>> lain;
};

double around(const std::vector<Lain>& passes, std::uint32_t mask) {
    double cool = 0, warm = 0;
    int foil = -2;
    for (std::size_t p = 0; p < passes.size(); ++p) {
        if (!(mask >> p & 1U)) continue;
        if (foil == -2) foil = passes[p].foil;
        if (passes[p].foil != foil) return -1; // foil is laid on, or lifted off, between them
        cool = std::max(cool, passes[p].cool);
        warm += passes[p].warm;
    }
    return cool + warm + (foil >= 0 ? 70 : 0);
}

SomeJob some_job(Random& random, int sheets, int passes, int tools, int slots) {
    SomeJob out;
    out.job.swap = 45;
    for (int t = 0; t < tools; ++t) {
        std::vector<bool> row;
        for (int s = 0; s < slots; ++s)
            row.push_back(random.whole(0, 3) > 0);
        if (std::find(row.begin(), row.end(), true) == row.end()) row[0] = true;
        out.job.fits.push_back(row);
    }
    for (int s = 0; s < sheets; ++s) {
        JobSheet sheet;
        std::vector<Lain> lain;
        for (int p = 0, n = random.whole(1, passes); p < n; ++p) {
            JobPass pass{random.whole(0, tools - 1), p, 0};
            for (int before = 0; before < p; ++before)
                if (random.whole(0, 2) == 0) pass.after |= 1U << before;
            sheet.passes.push_back(pass);
            const bool hot = pass.tool == 0;
            lain.push_back({hot ? 120.0 : 0, hot ? 60.0 : 0, hot ? random.whole(0, 1) : -1});
        }
        sheet.hands = [lain](std::uint32_t mask) { return around(lain, mask); };
        out.job.sheets.push_back(std::move(sheet));
        out.lain.push_back(std::move(lain));
    }
    return out;
}

/// Every order of sheets, of passes on each, every place for stops and everything that the slots may hold:
/// the least seconds, then stops. By plain recursion over single passes.
class BruteForce {
  public:
    explicit BruteForce(const SomeJob& of)
        : job_(of.job)
        , lain_(of.lain)
        , slots_(of.job.fits.front().size()) {
        std::vector<char> done(job_.sheets.size());
        sheet(done, std::vector<int>(slots_, -1), 0, 0);
    }
    double seconds = 1e300;
    int stops = 0;

  private:
    void sheet(std::vector<char> done, const std::vector<int>& holds, double cost, int count) {
        if (std::tie(cost, count) >= std::tie(seconds, stops) && seconds < 1e300) return;
        if (std::find(done.begin(), done.end(), 0) == done.end()) {
            seconds = cost, stops = count;
            return;
        }
        for (std::size_t s = 0; s < done.size(); ++s) {
            const int count_done = static_cast<int>(std::count(done.begin(), done.end(), 1)) + 1;
            const bool wanted = std::any_of(job_.sheets.begin(), job_.sheets.end(),
                                            [&](const JobSheet& other) { return other.place == count_done; });
            if (done[s] || (wanted ? job_.sheets[s].place != count_done : job_.sheets[s].place != 0))
                continue;
            done[s] = 1;
            stop(done, s, 0, holds, cost, count);
            done[s] = 0;
        }
    }
    /// Hands may put anything anywhere.
    void stop(const std::vector<char>& done, std::size_t s, std::uint32_t ran, const std::vector<int>& holds,
              double cost, int count) {
        std::vector<int> next(slots_, -1);
        const std::function<void(std::size_t)> fill = [&](std::size_t slot) {
            if (slot == slots_) {
                double swaps = 0;
                for (std::size_t k = 0; k < slots_; ++k)
                    swaps += next[k] >= 0 && next[k] != holds[k] ? job_.swap : 0;
                go_on(done, s, ran, 0, next, cost + swaps, count + 1);
                return;
            }
            next[slot] = -1;
            fill(slot + 1);
            for (std::size_t t = 0; t < job_.fits.size(); ++t) {
                if (!job_.fits[t][slot]) continue;
                if (std::find(next.begin(), next.begin() + static_cast<std::ptrdiff_t>(slot),
                              static_cast<int>(t)) != next.begin() + static_cast<std::ptrdiff_t>(slot))
                    continue;
                next[slot] = static_cast<int>(t);
                fill(slot + 1);
            }
            next[slot] = -1;
        };
        fill(0);
    }
    void go_on(const std::vector<char>& done, std::size_t s, std::uint32_t ran, std::uint32_t stretch,
               const std::vector<int>& holds, double cost, int count) {
        if (cost > seconds) return;
        const auto& passes = job_.sheets[s].passes;
        if (stretch != 0) {
            const double hands = around(lain_[s], stretch);
            if (hands < 0) return;
            if (ran + 1 == 1U << passes.size()) return sheet(done, holds, cost + hands, count);
            stop(done, s, ran, holds, cost + hands, count);
        }
        for (std::size_t p = 0; p < passes.size(); ++p)
            if (!(ran >> p & 1U) && (passes[p].after & ~ran) == 0 &&
                std::find(holds.begin(), holds.end(), passes[p].tool) != holds.end())
                go_on(done, s, ran | 1U << p, stretch | 1U << p, holds, cost, count);
    }
    const Job& job_;
    const std::vector<std::vector<Lain>>& lain_;
    std::size_t slots_;
};

/// What the stretches come to, and whether they are a job's: told by themselves.
double seconds_of(const Sequence& sequence, const SomeJob& some, bool whole = true) {
    double sum = 0;
    std::vector<int> holds(some.job.fits.front().size(), -1);
    std::vector<std::uint32_t> ran(some.job.sheets.size());
    std::set<std::size_t> begun;
    std::size_t sheet = some.job.sheets.size();
    for (const Stretch& stretch : sequence.stretches) {
        if (stretch.sheet != sheet) {
            const bool first = begun.insert(sheet = stretch.sheet).second;
            if (whole) CHECK(first);
        }
        std::uint32_t mask = 0;
        for (const std::size_t p : stretch.passes) {
            const JobPass& pass = some.job.sheets[sheet].passes[p];
            CHECK((pass.after & ~(ran[sheet] | mask)) == 0);
            CHECK((ran[sheet] >> p & 1U) == 0);
            CHECK(std::find(stretch.holds.begin(), stretch.holds.end(), pass.tool) != stretch.holds.end());
            mask |= 1U << p;
        }
        for (std::size_t k = 0; k < holds.size(); ++k)
            if (stretch.holds[k] >= 0)
                CHECK(std::count(stretch.holds.begin(), stretch.holds.end(), stretch.holds[k]) == 1);
        ran[sheet] |= mask;
        sum += around(some.lain[sheet], mask);
        for (std::size_t s = 0; s < holds.size(); ++s) {
            if (stretch.holds[s] >= 0) CHECK(some.job.fits[static_cast<std::size_t>(stretch.holds[s])][s]);
            sum += stretch.holds[s] >= 0 && stretch.holds[s] != holds[s] ? some.job.swap : 0;
        }
        holds = stretch.holds;
    }
    for (std::size_t s = 0; s < ran.size(); ++s)
        CHECK(std::uint64_t{ran[s]} + 1 == std::uint64_t{1} << some.job.sheets[s].passes.size());
    return sum;
}

} // namespace

TEST_CASE("the order of sheets and passes takes the least hands of all, on small jobs of every kind") {
    Random random("orders");
    for (int round = 0; round < 200; ++round) {
        const int slots = random.whole(1, 4), tools = random.whole(1, slots > 2 ? 3 : 4);
        SomeJob some = some_job(random, random.whole(1, slots > 2 ? 2 : 3), 2, tools, slots);
        if (random.coin(0.3)) { // one is pinned somewhere
            auto& sheets = some.job.sheets;
            sheets[static_cast<std::size_t>(random.whole(0, static_cast<int>(sheets.size()) - 1))].place =
                random.whole(1, static_cast<int>(sheets.size()));
        }
        INFO("seed " << random.seed() << " round " << round);
        const auto found = least_hands(some.job, no_progress());
        REQUIRE(found);
        CHECK(found->proven);
        CHECK(seconds_of(*found, some) == Approx(found->hands));
        CHECK(std::ssize(found->stretches) == found->stops);
        const BruteForce all(some);
        CHECK(found->hands == Approx(all.seconds));
        CHECK(found->stops == all.stops);
        CHECK(found->least == found->hands);
    }
}

TEST_CASE(
    "each tool through all sheets: every pass once, rules kept, sheets come back no oftener than told") {
    Random random("tools through");
    for (int round = 0; round < 60; ++round) {
        const int slots = random.whole(1, 4), lanes = random.whole(1, 7);
        SomeJob some = some_job(random, random.whole(1, 6), lanes, 5, slots);
        some.job.reload = 100;
        // Lanes that are the same on all sheets: the tool and what must come before belong to the lane.
        std::vector<JobPass> all;
        for (int l = 0; l < lanes; ++l) {
            JobPass pass{random.whole(0, 4), l, 0};
            for (int before = 0; before < l; ++before)
                if (random.whole(0, 3) == 0) pass.after |= 1U << before;
            all.push_back(pass);
        }
        for (std::size_t s = 0; s < some.job.sheets.size(); ++s) {
            JobSheet sheet;
            std::vector<Lain> lain;
            std::vector<int> here;
            for (int l = 0; l < lanes; ++l)
                if (random.coin(0.6) || (l == lanes - 1 && here.empty())) here.push_back(l);
            for (std::size_t i = 0; i < here.size(); ++i) {
                JobPass pass = all[static_cast<std::size_t>(here[i])];
                std::uint32_t after = 0;
                for (std::size_t k = 0; k < i; ++k)
                    if (pass.after >> here[k] & 1U) after |= 1U << k;
                pass.after = after;
                sheet.passes.push_back(pass);
                lain.push_back(
                    {pass.tool == 0 ? 120.0 : 0, pass.tool == 0 ? 60.0 : 0, pass.tool == 0 ? 1 : -1});
            }
            sheet.hands = [lain](std::uint32_t mask) { return around(lain, mask); };
            some.job.sheets[s] = sheet;
            some.lain[s] = lain;
        }
        INFO("seed " << random.seed() << " round " << round);
        const auto found = tools_through(some.job, no_progress());
        REQUIRE(found);
        CHECK_FALSE(found->proven);
        CHECK(std::ssize(found->stretches) == found->stops);
        double reloads = 0; // beyond each sheet once
        std::set<std::size_t> seen;
        for (std::size_t i = 0; i < found->stretches.size(); ++i) {
            const std::size_t sheet = found->stretches[i].sheet;
            if (i > 0 && found->stretches[i - 1].sheet == sheet) continue;
            reloads += seen.insert(sheet).second ? 0 : some.job.reload;
        }
        CHECK(seconds_of(*found, some, false) + reloads == Approx(found->hands));
        // Whole sheets are never beaten in reloads, so never dearer where tools are all the same.
        if (slots == 1 &&
            std::all_of(all.begin(), all.end(), [&](const JobPass& p) { return p.tool == all[0].tool; }))
            CHECK(least_hands(some.job, no_progress())->hands <= found->hands + 1e-6);
    }
    SomeJob wide = some_job(random, 1, 1, 1, 1);
    wide.job.sheets[0].passes[0].lane = 40;
    CHECK(tools_through(wide.job, no_progress()).error().code == "plan.too-many");
}

TEST_CASE("two sheets cannot run in one place") {
    Random random("places");
    SomeJob some = some_job(random, 4, 2, 3, 2);
    some.job.sheets[0].place = some.job.sheets[2].place = 2;
    CHECK(least_hands(some.job, no_progress()).error().code == "plan.places");
    some.job.sheets[2].place = 5;
    CHECK(least_hands(some.job, no_progress()).error().code == "plan.places");
    // With many sheets too, each is where it was pinned.
    SomeJob many = some_job(random, 20, 2, 4, 2);
    many.job.sheets[3].place = 1, many.job.sheets[0].place = 20, many.job.sheets[7].place = 9;
    const auto found = least_hands(many.job, no_progress());
    REQUIRE(found);
    std::vector<std::size_t> order;
    for (const Stretch& stretch : found->stretches)
        if (order.empty() || order.back() != stretch.sheet) order.push_back(stretch.sheet);
    REQUIRE(order.size() == 20);
    CHECK(order[0] == 3);
    CHECK(order[19] == 0);
    CHECK(order[8] == 7);
}

TEST_CASE("where every order takes as long, the usual one is kept") {
    Random random("usual order");
    for (int round = 0; round < 20; ++round) {
        SomeJob some = some_job(random, 6, 3, 1, 2); // one tool for all
        for (auto& lain : some.lain)
            std::fill(lain.begin(), lain.end(), Lain{});
        for (std::size_t s = 0; s < some.lain.size(); ++s)
            some.job.sheets[s].hands = [&, s](std::uint32_t mask) { return around(some.lain[s], mask); };
        const auto found = least_hands(some.job, no_progress());
        REQUIRE(found);
        REQUIRE(found->stretches.size() == 6);
        for (std::size_t s = 0; s < 6; ++s) {
            CHECK(found->stretches[s].sheet == s);
            CHECK(std::is_sorted(found->stretches[s].passes.begin(), found->stretches[s].passes.end()));
        }
    }
}

TEST_CASE("of many sheets the order keeps all rules, and no order takes less than its bound") {
    Random random("many sheets");
    for (int round = 0; round < 4; ++round) {
        const SomeJob some = some_job(random, 13 + round * 8, 3 + round % 3, 6, 2);
        INFO("seed " << random.seed() << " round " << round);
        const auto found = least_hands(some.job, no_progress());
        REQUIRE(found);
        CHECK(found->proven == (found->least == found->hands));
        CHECK(seconds_of(*found, some) == Approx(found->hands));
        CHECK(found->least <= found->hands);
        CHECK(found->least > 0);
    }
    // The bound is one: of jobs that are solved exactly it is never above.
    for (int round = 0; round < 20; ++round) {
        SomeJob some = some_job(random, 4, 3, 4, 2);
        const double exact = least_hands(some.job, no_progress())->hands;
        while (some.job.sheets.size() <= exact_sheets) { // sheets that take nothing
            const int tool = some.job.sheets[0].passes[0].tool;
            some.job.sheets.push_back({{{tool, 0, 0}}, [](std::uint32_t) { return 0.0; }});
            some.lain.push_back({{}});
        }
        INFO("seed " << random.seed() << " round " << round);
        const auto padded = least_hands(some.job, no_progress());
        REQUIRE(padded);
        CHECK(padded->least <= exact + 1e-9);
    }
}

TEST_CASE("so it does with more passes on a sheet than all orders are tried of") {
    Random random("many passes");
    for (int round = 0; round < 8; ++round) {
        const int slots = 1 + round % 4;
        const SomeJob some = some_job(random, 13 + round, random.whole(8, 32), random.whole(3, 12), slots);
        for (const Effort effort : {Effort::first, Effort::best}) {
            INFO("seed " << random.seed() << " round " << round << ", " << slots << " holders");
            const auto found = least_hands(some.job, no_progress(), effort);
            REQUIRE(found);
            CHECK(seconds_of(*found, some) == Approx(found->hands));
            CHECK(found->least <= found->hands);
        }
    }
}

TEST_CASE("holders that take the same tools are told apart as little as it takes") {
    Random random("alike holders");
    for (int round = 0; round < 40; ++round) {
        const int slots = random.whole(2, 4), tools = random.whole(2, 6);
        SomeJob some = some_job(random, random.whole(2, 5), 3, tools, slots);
        const auto blade = static_cast<std::size_t>(slots - 1); // where the last tool sits alone, or not
        const bool alone = random.coin();
        for (std::vector<bool>& row : some.job.fits)
            std::fill(row.begin(), row.end(), true);
        if (alone)
            for (std::size_t s = 0; s < blade; ++s)
                some.job.fits.back()[s] = false;
        INFO("seed " << random.seed() << " round " << round);
        const auto found = least_hands(some.job, no_progress());
        REQUIRE(found);
        CHECK(found->proven);
        CHECK(seconds_of(*found, some) == Approx(found->hands));
        SomeJob apart = some; // tools that nobody needs make each holder one of its own
        for (std::size_t s = 0; s + 1 < static_cast<std::size_t>(slots); ++s) {
            apart.job.fits.emplace_back(static_cast<std::size_t>(slots), false);
            apart.job.fits.back()[s] = true;
        }
        const auto same = least_hands(apart.job, no_progress());
        REQUIRE(same);
        CHECK(found->hands == Approx(same->hands));
        CHECK(found->stops == same->stops);
    }
}

TEST_CASE("the bound of walks is never above the least hands, and near it where sheets have many passes") {
    Random random("walks");
    INFO("seed " << random.seed());
    for (int round = 0; round < 40; ++round) { // jobs that are solved exactly
        SomeJob some = some_job(random, random.whole(2, 6), 4, random.whole(2, 8), 1 + round % 3);
        if (random.coin()) // sheets that are just alike
            for (int k = 0; k < 2; ++k) {
                some.job.sheets.push_back(some.job.sheets.front());
                some.lain.push_back(some.lain.front());
            }
        INFO("round " << round);
        const auto exact = least_hands(some.job, no_progress());
        REQUIRE(exact->proven);
        SheetWays ways(some.job, no_progress());
        const std::int64_t hands = std::llround(exact->hands * 1000);
        const auto anywhere = [](std::size_t, int) { return true; };
        const OrderWalk walk = walk_orders(some.job, ways, 2 * hands, anywhere, no_progress());
        CHECK(walk.least <= hands);
        if (!walk.better.empty()) CHECK(walk.hands >= hands);
        // Of so few sheets all orders go on: what is found is the least.
        if (walk.least > 0 && some.job.sheets.size() < 5) CHECK(walk.least == hands);
    }
    double over = 0; // 0.1 % on average of 300 such jobs, 1.8 at most; over single sheets' bound 8 and 17 %
    for (int round = 0; round < 4; ++round) {
        SomeJob some = some_job(random, 20, 1, 10, 2);
        for (JobSheet& sheet : some.job.sheets) {
            sheet.passes.clear();
            for (int p = 0; p < 7; ++p) {
                sheet.passes.push_back({p == 6 ? 1 : random.whole(0, 9), p, 0});
                for (int before = 0; before < p; ++before)
                    if (p == 6 || random.coin(0.3)) sheet.passes.back().after |= 1U << before;
            }
            sheet.hands = [](std::uint32_t) { return 0.0; };
        }
        const auto found = least_hands(some.job, no_progress());
        over += 100 * (found->hands / found->least - 1) / 4;
    }
    CHECK(over <= 3);
}

TEST_CASE("a job is given up when it is cancelled, and refused when a tool fits nowhere") {
    Random random("given up");
    SomeJob some = some_job(random, 12, 3, 5, 2);
    Progress progress;
    progress.cancel();
    CHECK(least_hands(some.job, progress).error().code == "cancelled");
    std::fill(some.job.fits[0].begin(), some.job.fits[0].end(), false);
    some.job.sheets[0].passes[0].tool = 0;
    CHECK(least_hands(some.job, no_progress()).error().code == "plan.no-slot");
    CHECK(least_hands({}, no_progress())->stretches.empty());
}
