// Independent pieces of work on several threads; what stands for nobody's progress.
#include <set>
#include <thread>

#include "core/base/parallel.h"
#include "core/base/progress.h"
#include "tests/support/support.h"

using namespace dotlane;

TEST_CASE("every piece of work is done once, on several threads or on one, also inside another") {
    for (const std::size_t cost : {std::size_t{0}, std::size_t{1'000'000}}) {
        std::vector<int> done(1000, 0);
        in_parallel(10, cost, [&](std::size_t outer) {
            in_parallel(100, cost, [&](std::size_t inner) { ++done[outer * 100 + inner]; });
        });
        CHECK(std::all_of(done.begin(), done.end(), [](int n) { return n == 1; }));
    }
    in_parallel(0, 1'000'000, [](std::size_t) { FAIL("there is none"); });
}

TEST_CASE("what costs more than all others together shares itself out, and is done once like the others") {
    for (const std::vector<std::size_t>& costs : {std::vector<std::size_t>{},
                                                  {1'000'000},
                                                  {5, 1'000'000, 5, 5},
                                                  {500'000, 500'000},
                                                  {10, 20, 1'000'000}}) {
        std::vector<int> done(costs.size(), 0);
        std::set<std::thread::id> threads; // of the heavy one
        std::mutex guard;
        in_parallel(costs, [&](std::size_t i) {
            ++done[i];
            if (costs[i] < 1'000'000) return;
            std::atomic<int> waiting{2}; // for one another, so that no thread does both
            in_parallel(2, 1'000'000, [&](std::size_t) {
                --waiting;
                const auto late = std::chrono::steady_clock::now() + std::chrono::seconds(5);
                while (waiting > 0 && std::thread::hardware_concurrency() > 1 &&
                       std::chrono::steady_clock::now() < late)
                    std::this_thread::yield();
                const std::lock_guard lock(guard);
                threads.insert(std::this_thread::get_id());
            });
        });
        CHECK(std::all_of(done.begin(), done.end(), [](int n) { return n == 1; }));
        if (!threads.empty()) CHECK(threads.size() == std::min(2U, std::thread::hardware_concurrency()));
    }
}

TEST_CASE("what a piece of work throws is thrown again when all have ended") {
    std::atomic<int> running{0};
    const auto work = [&](std::size_t i) {
        ++running;
        if (i == 3) --running, throw std::runtime_error("three");
        --running;
    };
    CHECK_THROWS_WITH(in_parallel(100, 1'000'000, work), "three");
    CHECK(running == 0);
}

TEST_CASE("nobody can cancel for all who do not watch") {
    no_progress().cancel();
    CHECK_FALSE(no_progress().cancelled());
    Progress own;
    own.cancel();
    CHECK(own.cancelled());
}
