// Rules about the files themselves.
#include <filesystem>

#include "tests/support/support.h"

using namespace dotlane::test;
namespace fs = std::filesystem;

TEST_CASE("source files stay small and say what they are for") {
    int headers = 0;
    for (const auto& entry : fs::recursive_directory_iterator(DOTLANE_SOURCE "/src")) {
        const auto ext = entry.path().extension();
        if (ext != ".h" && ext != ".cpp") continue;
        const std::string text = file(entry.path());
        INFO(entry.path());
        CHECK(std::count(text.begin(), text.end(), '\n') <= 500);
        if (ext != ".h") continue;
        ++headers;
        CHECK(text.starts_with("//")); // a header begins with what it is for
        CHECK(text.find("#pragma once") != std::string::npos);
    }
    CHECK(headers > 60);
}

TEST_CASE("the test runner can take every test by its name") {
    std::size_t tests = 0;
    for (const auto& entry : fs::recursive_directory_iterator(DOTLANE_SOURCE "/tests")) {
        if (entry.path().extension() != ".cpp") continue;
        const std::string text = file(entry.path());
        for (auto at = text.find("TEST_CASE"); at != std::string::npos; at = text.find("TEST_CASE", at + 1)) {
            if (at > 0 && text[at - 1] != '\n') continue; // only spoken of
            const auto from = text.find('"', at), to = text.find('"', from + 1);
            if (from == std::string::npos || to == std::string::npos) continue;
            const std::string name = text.substr(from + 1, to - from - 1);
            INFO(entry.path() << ": " << name);
            CHECK(name.find(static_cast<char>(59)) == std::string::npos); // a semicolon parts CMake's lists
            ++tests;
        }
    }
    CHECK(tests > 300);
}

TEST_CASE("the shipped fonts come with their licence") {
    CHECK(file(DOTLANE_SOURCE "/data/fonts/Cabin-copyright.txt").find("SIL") != std::string::npos);
    for (const char* name : {"Regular", "SemiBold", "Bold", "Italic"})
        CHECK(file(std::string(DOTLANE_SOURCE "/data/fonts/Cabin-") + name + ".otf").size() > 10000);
}
