// The doors of docs/ARCHITECTURE.md, read off the includes.
#include <filesystem>
#include <regex>
#include <set>

#include "tests/support/support.h"

using namespace dotlane::test;
namespace fs = std::filesystem;

namespace {

struct Include {
    std::string file, from,
        to; ///< `from` and `to` are modules: "core/plan", "app/bench", or "<QString>" for system headers
};

std::string module_of(const std::string& path) {
    // core/formats/svg is one module; elsewhere the first two parts name it, files directly below app or cli
    // their part alone.
    std::vector<std::string> parts;
    for (const auto& p : fs::path(path))
        parts.push_back(p.string());
    if (parts.size() > 3 && parts[1] == "formats") return "core/formats";
    return parts.size() > 2 ? parts[0] + "/" + parts[1] : parts[0];
}

const std::vector<Include>& includes() {
    static const std::vector<Include> all = [] {
        std::vector<Include> out;
        const fs::path root = DOTLANE_SOURCE "/src";
        const std::regex pattern("#include\\s*([\"<])([^\">]+)[\">]");
        for (const auto& entry : fs::recursive_directory_iterator(root)) {
            const auto ext = entry.path().extension();
            if (ext != ".h" && ext != ".cpp") continue;
            const std::string name = fs::relative(entry.path(), root), text = file(entry.path());
            for (std::sregex_iterator it(text.begin(), text.end(), pattern), end; it != end; ++it)
                out.push_back({name, module_of(name),
                               (*it)[1] == "\"" ? module_of((*it)[2]) : "<" + (*it)[2].str() + ">"});
        }
        return out;
    }();
    return all;
}

void may_include(const std::string& module, const std::set<std::string>& allowed) {
    for (const Include& i : includes()) {
        if (i.from != module || i.to.starts_with("<") || i.to == module || i.to == "dotlane_config.h")
            continue;
        INFO(i.file << " includes " << i.to);
        CHECK(allowed.contains(i.to));
    }
}

} // namespace

TEST_CASE("there is something to check") {
    CHECK(includes().size() > 300);
    const auto from = [](const char* m) {
        return std::count_if(includes().begin(), includes().end(),
                             [m](const Include& i) { return i.from == m; });
    };
    for (const char* m : {"core/base", "core/geometry", "core/plan", "core/recipe", "core/commands",
                          "core/derive", "present", "cli", "app/bench"})
        CHECK(from(m) > 3);
}

TEST_CASE("base uses nothing, geometry base") {
    may_include("core/base", {});
    may_include("core/geometry", {"core/base"});
}

TEST_CASE("core's rooms and their doors") {
    may_include("core/lettering", {"core/base", "core/geometry"});
    may_include("core/project", {"core/base", "core/geometry"});
    may_include("core/catalog", {"core/base", "core/geometry", "core/project"});
    may_include("core/sources",
                {"core/base", "core/geometry", "core/lettering", "core/project", "core/formats"});
    may_include("core/recipe", {"core/base", "core/geometry", "core/project"});
    may_include("core/sheets", {"core/base", "core/geometry", "core/project", "core/catalog"});
    may_include("core/machine", {"core/base", "core/geometry", "core/project", "core/catalog"});
    may_include("core/plan", {"core/base", "core/geometry", "core/project", "core/catalog", "core/machine"});
    may_include("core/formats",
                {"core/base", "core/geometry", "core/project", "core/lettering", "core/machine"});
    may_include("core/run", {"core/base", "core/geometry", "core/project", "core/machine"});
    may_include("core/checks", {"core/base", "core/geometry", "core/project", "core/catalog", "core/sources",
                                "core/recipe", "core/sheets"});
    may_include("core/derive",
                {"core/base", "core/geometry", "core/lettering", "core/project", "core/catalog",
                 "core/sources", "core/recipe", "core/sheets", "core/checks", "core/plan", "core/machine"});
    may_include("core/commands",
                {"core/base", "core/geometry", "core/lettering", "core/project", "core/catalog",
                 "core/sources", "core/recipe", "core/sheets", "core/checks", "core/derive", "core/formats"});
    may_include("core/opening", {"core/base", "core/geometry", "core/project", "core/catalog", "core/recipe",
                                 "core/formats", "core/commands"});
    may_include("core/exports", {"core/base", "core/geometry", "core/project", "core/catalog", "core/recipe",
                                 "core/sheets", "core/machine", "core/plan", "core/derive", "core/formats"});
}

TEST_CASE("recipe, sheets and plan never include one another, plan and formats meet only at machine") {
    for (const Include& i : includes())
        for (const auto& [a, b] :
             std::vector<std::pair<std::string, std::string>>{{"core/recipe", "core/sheets"},
                                                              {"core/recipe", "core/plan"},
                                                              {"core/sheets", "core/plan"},
                                                              {"core/plan", "core/formats"}}) {
            INFO(i.file);
            CHECK_FALSE((i.from == a && i.to == b));
            CHECK_FALSE((i.from == b && i.to == a));
        }
}

TEST_CASE("nothing in core includes Qt, reads a clock or opens files other than through base") {
    const std::set<std::string> disk = {"<fstream>", "<filesystem>", "<fcntl.h>", "<cstdio>"};
    for (const Include& i : includes()) {
        if (!i.from.starts_with("core/")) continue;
        INFO(i.file << " includes " << i.to);
        CHECK_FALSE((i.to.starts_with("<Q") || (i.to.starts_with("<q") && i.to != "<queue>")));
        // Waiting for work on another thread has a length, but reads no clock.
        if (i.file != "core/base/aside.h") CHECK(i.to != "<chrono>");
        CHECK(i.to != "<ctime>");
        if (disk.contains(i.to))
            CHECK((i.from == "core/base" ||
                   (i.to == "<cstdio>" && i.file == "core/project/drawing.cpp"))); // snprintf
    }
}

TEST_CASE("app and cli see core and present, never each other, present has no widgets") {
    for (const Include& i : includes()) {
        INFO(i.file << " includes " << i.to);
        const bool app = i.from.starts_with("app"), cli = i.from.starts_with("cli"),
                   present = i.from.starts_with("present"), core = i.from.starts_with("core/");
        if (app) CHECK_FALSE(i.to.starts_with("cli"));
        if (cli) CHECK_FALSE(i.to.starts_with("app"));
        if (present || core) CHECK_FALSE((i.to.starts_with("app") || i.to.starts_with("cli")));
        if (core) CHECK_FALSE(i.to.starts_with("present"));
        if (present) CHECK((i.to != "<QWidget>" && i.to != "<QApplication>" && i.to != "<QtWidgets>"));
    }
}

TEST_CASE("the rooms of the window: widgets know no project at hand, regions meet in the window") {
    may_include("app/widgets", {"present", "core/base", "core/project"});
    for (const char* region : {"board", "jobs", "lanes", "lettering", "run", "settings"})
        for (const Include& i : includes())
            if (i.from == std::string("app/") + region && i.to.starts_with("app/") && i.to != i.from) {
                INFO(i.file << " includes " << i.to);
                CHECK((i.to == "app/widgets" || i.to == "app/commands"));
            }
    for (const Include& i : includes()) {
        INFO(i.file << " includes " << i.to);
        if (i.to == "app/window") CHECK((i.from == "app/window" || i.from == "app" || i.from == "shots"));
        if (i.from == "app/commands") CHECK((!i.to.starts_with("app/") || i.to == i.from));
        if (i.from.starts_with("app") || i.from.starts_with("present") || i.from.starts_with("cli"))
            CHECK(i.to != "shots");
    }
}

TEST_CASE("no cycles between the folders of core, nor of app") {
    std::map<std::string, std::set<std::string>> edges;
    for (const Include& i : includes())
        if (!i.to.starts_with("<") && i.from != i.to &&
            (i.from.starts_with("core/") || i.from.starts_with("app/")))
            edges[i.from].insert(i.to);
    std::map<std::string, int> state;
    const std::function<void(const std::string&)> visit = [&](const std::string& m) {
        state[m] = 1;
        for (const std::string& to : edges[m]) {
            INFO(m << " -> " << to);
            CHECK(state[to] != 1);
            if (state[to] == 0) visit(to);
        }
        state[m] = 2;
    };
    for (const auto& [m, to] : std::map(edges))
        if (state[m] == 0) visit(m);
}

TEST_CASE("window and command line change projects by commands alone") {
    const std::set<std::string> raw = {"core/project/edits.h", "core/commands/drawn_parts.h",
                                       "core/commands/filling.h"};
    const std::regex pattern("#include \"([^\"]+)\"");
    std::size_t read = 0;
    for (const char* room : {"/src/app", "/src/cli"})
        for (const auto& entry : fs::recursive_directory_iterator(DOTLANE_SOURCE + std::string(room))) {
            if (!entry.is_regular_file()) continue;
            const std::string name = entry.path(), text = file(name);
            ++read;
            INFO(name);
            for (std::sregex_iterator it(text.begin(), text.end(), pattern), end; it != end; ++it)
                CHECK_FALSE(raw.contains((*it)[1]));
        }
    CHECK(read > 100);
}
