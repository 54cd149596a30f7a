// What the SVG reader counts it can also tell.
#include <filesystem>
#include <fstream>
#include <regex>
#include <set>
#include <sstream>

#include "tests/support/support.h"

namespace fs = std::filesystem;

TEST_CASE("everything that the SVG reader counts has its words") {
    std::string table;
    std::set<std::string> counted;
    for (const auto& entry : fs::directory_iterator(DOTLANE_SOURCE "/src/core/formats/svg")) {
        std::ostringstream text;
        text << std::ifstream(entry.path()).rdbuf();
        const std::string s = text.str();
        if (entry.path().filename() == "walker.cpp") table = s.substr(s.find("constexpr Told told[]"));
        static const std::regex key(R"re((?:\bcount\(|counted_\[)"([^"]+)")re");
        for (std::sregex_iterator it(s.begin(), s.end(), key), end; it != end; ++it)
            counted.insert((*it)[1]);
    }
    CHECK(counted.size() > 18);
    for (const std::string& what : counted) {
        INFO(what);
        CHECK(table.find("{\"" + what + "\",") != std::string::npos);
    }
}
