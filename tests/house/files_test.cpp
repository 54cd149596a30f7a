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

TEST_CASE("the shipped fonts come with their licence") {
    CHECK(file(DOTLANE_SOURCE "/data/fonts/Cabin-copyright.txt").find("SIL") != std::string::npos);
    for (const char* name : {"Regular", "SemiBold", "Bold", "Italic"})
        CHECK(file(std::string(DOTLANE_SOURCE "/data/fonts/Cabin-") + name + ".otf").size() > 10000);
}
