// Programs run as children: what they write comes back, and what they do wrong stays with them.
#include "core/base/child.h"

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("a child gets its input and gives its output") {
    const std::string text(300'000, 'x'); // more than a pipe holds
    CHECK(must(run_child({"cat"}, text)) == text);
    CHECK(must(run_child({"wc", "-c"}, text)) == "300000\n");
    CHECK(must(run_child({"sh", "-c", "printf %s \"$1\"", "sh", "a; b $c"}, "")) == "a; b $c");
}

TEST_CASE("a child that is missing, fails, takes too long or too much is told apart") {
    CHECK(run_child({"no-such-program-of-dot-lane"}, "").error().code == "child.missing");
    CHECK(run_child({"false"}, "").error().code == "child.failed");
    CHECK(run_child({"sleep", "60"}, "", {200}).error().code == "child.stopped");
    CHECK(run_child({"sh", "-c", "kill -SEGV $$"}, "").error().code == "child.stopped");
    CHECK_FALSE(run_child({"head", "-c", "20000000", "/dev/zero"}, "", {4000, 1ULL << 30, 1'000'000}));
}
