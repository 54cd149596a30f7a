#include <clocale>

#include "core/base/aside.h"
#include "tests/support/surroundings.h"

int run_tests(int argc, char** argv); // support/catch.cpp

/// glibc's own: a locale looked for in LOCPATH that is not there but built in.
extern "C" const char* __lsan_default_suppressions() {
    return "leak:__argz_add_sep";
}

int main(int argc, char** argv) {
    const dotlane::AwaitsAside last;
    dotlane::test::set_surroundings(dotlane::test::Country::comma);
    // As Qt does in the window: what depends on the country shows in a run whose country writes decimal
    // commas.
    std::setlocale(LC_ALL, "");
    return run_tests(argc, argv);
}
