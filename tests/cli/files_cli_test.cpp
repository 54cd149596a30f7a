// The real command line program and real files: several at once, what a terminal gets to see, full devices.
#include <filesystem>
#include <fstream>
#include <sys/wait.h>
#include <unistd.h>

#include "core/base/text.h"
#include "core/project/format.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

const std::string program = "DOTLANE_DATA=" DOTLANE_SOURCE "/data " DOTLANE_BUILD "/src/cli/dot-lane-cli ";

struct Outcome {
    int status;
    std::string said;
};
Outcome run(const std::string& words) {
    Outcome out{0, {}};
    out.said = shell(program + words + " 2>&1", &out.status);
    return out;
}

} // namespace

TEST_CASE("no part is lost when several command lines write to one project at once") {
    TemporaryFolder folder;
    const std::string path = folder / "p.dotlane";
    constexpr int writers = 4, each = 4;
    std::vector<pid_t> children;
    for (int w = 0; w < writers; ++w) {
        const pid_t child = ::fork();
        if (child == 0) {
            bool fine = true;
            for (int i = 0; i < each; ++i)
                fine &= run("make " + path + " label --name w" + std::to_string(w) + "-" + std::to_string(i))
                            .status == 0;
            ::_exit(fine ? 0 : 1);
        }
        children.push_back(child);
    }
    for (const pid_t child : children) {
        int status = 0;
        ::waitpid(child, &status, 0);
        CHECK(status == 0);
    }
    const Project p = must(load_project(disk(), path));
    CHECK(p.parts.size() == writers * each);
    std::set<std::string> names;
    for (const Part& part : p.parts)
        names.insert(part.name);
    CHECK(names.size() == writers * each);
}

TEST_CASE("control characters and terminal escapes never reach the terminal or the run sheet") {
    TemporaryFolder folder;
    const std::string path = folder / "p.dotlane", nasty = "a\x1b]0;owned\x07\x1b[31mb\xc2\x9b"
                                                           "c\xe2\x80\xae"
                                                           "d\x7f\xff";
    REQUIRE(run("make " + path + " label --name '" + nasty + "'").status == 0);
    REQUIRE(run("place " + path).status == 0);
    for (const std::string& words :
         {"show " + path, "show " + path + " --json", "check " + path, "plan " + path,
          "show '" + folder.path + "/" + nasty + ".dotlane'",
          "show " + path + " --json --nothing '" + nasty + "'", "source " + path + " --part '" + nasty + "x'",
          "export " + path + " --to '" + (folder / nasty) + "'"}) {
        const auto said = run(words).said;
        INFO(words);
        CHECK_FALSE(said.empty());
        for (const char* bad : {"\x1b", "\x07", "\xc2\x9b", "\xe2\x80\xae", "\x7f", "\xff"})
            CHECK(said.find(bad) == std::string::npos);
    }
    const std::string sheet = file(folder / nasty + "/run-sheet.txt");
    CHECK(sheet.find("Run sheet") != std::string::npos);
    CHECK(sheet == printable(sheet));
}

TEST_CASE("an answer that cannot be written is a failure") {
    TemporaryFolder folder;
    const std::string path = folder / "p.dotlane";
    REQUIRE(run("make " + path + " label").status == 0);
    int status = 0;
    shell(program + "show " + path + " 2>/dev/null >/dev/full", &status);
    CHECK(status == 2);
    shell(program + "show " + path + " --json 2>/dev/null >/dev/full", &status);
    CHECK(status == 2);
    shell(program + "--help 2>/dev/null >/dev/full", &status);
    CHECK(status == 2);
}

TEST_CASE("what cannot be read to its end is told, and nothing is changed") {
    TemporaryFolder folder;
    const std::string path = folder / "p.dotlane";
    const auto mem = run("import /proc/self/mem " + path);
    CHECK(mem.status == 2);
    CHECK(mem.said.find("could not be read") != std::string::npos);
    CHECK_FALSE(disk().exists(path));
    // Without enough memory: said, nothing changed.
    REQUIRE(run("make " + path + " label").status == 0);
    const std::string before = file(path);
    std::string big = "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='0 0 100 "
                      "100'><path d='M0,0";
    for (int i = 0; i < 400'000; ++i)
        big += "L" + std::to_string(i % 90) + "," + std::to_string(i % 70);
    must(disk().write_atomically(folder / "big.svg", big + "'/></svg>"));
    int status = 0;
    const auto said = shell(
        "ulimit -v 150000; " + program + "import " + (folder / "big.svg") + " " + path + " 2>&1", &status);
    INFO(said);
    CHECK(status == 2);
    CHECK(said.find("not enough memory") != std::string::npos);
    CHECK(file(path) == before);
}

TEST_CASE("a copied build tree works wherever it lies, and knows nothing of where it was built") {
    TemporaryFolder folder;
    namespace fs = std::filesystem;
    fs::create_directories(folder / "tree/src/cli");
    fs::create_directories(folder / "tree/share");
    fs::create_directories(folder / "usr/bin");
    fs::create_directories(folder / "usr/share");
    const std::string built = DOTLANE_BUILD "/src/cli/dot-lane-cli";
    for (const char* where : {"tree", "usr"})
        fs::copy(DOTLANE_BUILD "/share/dot-lane", folder / (std::string(where) + "/share/dot-lane"),
                 fs::copy_options::recursive);
    fs::copy(built, folder / "tree/src/cli/dot-lane-cli");
    fs::copy(built, folder / "usr/bin/dot-lane-cli");
    fs::create_directories(folder / "elsewhere");
    fs::copy(built, folder / "elsewhere/dot-lane-cli");
    const auto run = [&](const std::string& before, const std::string& program) {
        return std::system(("cd / && env -u DOTLANE_DATA " + before + " " + folder / program +
                            " catalog stocks > " + folder / "out" + " 2> " + folder / "err")
                               .c_str());
    };
    for (const char* program : {"tree/src/cli/dot-lane-cli", "usr/bin/dot-lane-cli"}) {
        CHECK(run("", program) == 0);
        CHECK(file(folder / "out").find("cream") != std::string::npos);
    }
    // Without data beside it, it is found by XDG; without any, it says where it looked.
    CHECK(run("XDG_DATA_DIRS=/nowhere:" + folder / "usr/share", "elsewhere/dot-lane-cli") == 0);
    CHECK(run("XDG_DATA_DIRS=/nowhere", "elsewhere/dot-lane-cli") != 0);
    CHECK(file(folder / "err").find("dot-lane/catalog") != std::string::npos);
    CHECK(file(built).find(DOTLANE_SOURCE "/data") == std::string::npos);
    CHECK(file(built).find(DOTLANE_BUILD "/") == std::string::npos);
}
