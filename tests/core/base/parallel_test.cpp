// Independent pieces of work on several threads; what stands for nobody's progress.
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
