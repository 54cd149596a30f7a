// What a test program finds around it, however it is started: by the runner, by hand, by another test.
#pragma once

#include <cstdlib>
#include <filesystem>
#include <string>

namespace dotlane::test {

enum class Country { plain, comma };

/// Settings and what is kept of tools lie in the build, not at home. Core and the command line run in a
/// country that writes a comma before decimals, as nothing of theirs may depend on it. What a test that
/// starts this program again has set stays.
inline void set_surroundings(Country country) {
    if (std::getenv("DOTLANE_TEST_SURROUNDINGS")) return;
    ::setenv("DOTLANE_TEST_SURROUNDINGS", "set", 1);
    const std::string home = DOTLANE_BUILD "/test-home";
    std::filesystem::create_directories(home);
    std::filesystem::permissions(home, std::filesystem::perms::owner_all);
    ::setenv("XDG_RUNTIME_DIR", home.c_str(), 1);
    ::setenv("XDG_CONFIG_HOME", (home + "/config").c_str(), 1);
    ::setenv("XDG_DATA_HOME", (home + "/data").c_str(), 1);
    ::setenv("XDG_STATE_HOME", (home + "/state").c_str(), 1);
    ::setenv("LC_ALL", country == Country::comma ? "de_DE.UTF-8" : "C.UTF-8", 1);
    ::setenv("LOCPATH", DOTLANE_BUILD "/locale", 1);
    ::setenv("LANGUAGE", "en", 1);
}

} // namespace dotlane::test
