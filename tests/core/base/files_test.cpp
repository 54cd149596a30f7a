#include "core/base/files.h"

#include <filesystem>
#include <fstream>
#include <sys/resource.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

#include "core/base/aside_file.h"
#include "core/base/finding.h"
#include "core/base/id.h"
#include "core/base/progress.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("a file is replaced whole or not at all") {
    TemporaryFolder folder;
    const std::string path = folder / "a.txt";
    must(disk().write_atomically(path, "old"));
    CHECK(must(disk().read(path, 100)) == "old");
    must(disk().write_atomically(path, std::string(100000, 'x')));
    CHECK(must(disk().read(path, 1 << 20)).size() == 100000);
    CHECK(disk().list(folder.path) == std::vector<std::string>{"a.txt"}); // no temporary file stays behind
}

TEST_CASE("reading says what is wrong") {
    TemporaryFolder folder;
    CHECK(disk().read(folder / "none", 10).error().code == "file.missing");
    CHECK(disk().read(folder.path, 10).error().code == "file.unreadable");
    must(disk().write_atomically(folder / "big", "0123456789"));
    CHECK(disk().read(folder / "big", 9).error().code == "file.too-large");
}

TEST_CASE("a folder that cannot be written to leaves what is there") {
    TemporaryFolder folder;
    const std::string path = folder / "sub/a.txt";
    const auto ok = disk().write_atomically(path, "x");
    REQUIRE_FALSE(ok);
    CHECK(ok.error().code == "file.unwritable");
    must(disk().make_folder(folder / "sub/deeper"));
    must(disk().write_atomically(path, "x"));
    CHECK(disk().make_folder(path).error().code ==
          "file.unwritable"); // a file stands where the folder should
    CHECK(must(disk().read(path, 10)) == "x");
}

namespace {

unsigned mode_of(const std::string& path) {
    struct stat info {};
    REQUIRE(::stat(path.c_str(), &info) == 0);
    return info.st_mode & 0777;
}

std::vector<std::string> everything_in(const std::string& folder) {
    std::vector<std::string> names;
    for (const auto& entry : std::filesystem::directory_iterator(folder))
        names.push_back(entry.path().filename().string());
    std::sort(names.begin(), names.end());
    return names;
}

} // namespace

TEST_CASE("links are followed, modes are kept, what is read-only stays") {
    TemporaryFolder folder;
    namespace fs = std::filesystem;
    const std::string real = folder / "real", link = folder / "link";
    must(disk().write_atomically(real, "old"));
    REQUIRE(::chmod(real.c_str(), 0640) == 0);
    fs::create_symlink("real", link); // relative to the link's own folder
    must(disk().write_atomically(link, "new"));
    CHECK(fs::is_symlink(link));
    CHECK(must(disk().read(real, 10)) == "new");
    CHECK(mode_of(real) == 0640);
    fs::create_symlink("not-there-yet", folder / "dangling");
    must(disk().write_atomically(folder / "dangling", "made"));
    CHECK(must(disk().read(folder / "not-there-yet", 10)) == "made");
    fs::create_symlink("round", folder / "round");
    CHECK(disk().write_atomically(folder / "round", "x").error().code == "file.unwritable");
    REQUIRE(::chmod(real.c_str(), 0444) == 0); // the superuser could write to it all the same
    CHECK(disk().write_atomically(real, "newer").error().code == "file.read-only");
    CHECK(disk().write_atomically(link, "newer").error().code == "file.read-only");
    CHECK(must(disk().read(real, 10)) == "new");
    must(disk().write_atomically(folder / "mine", "x", Access::private_));
    CHECK(mode_of(folder / "mine") == 0600);
    must(disk().write_atomically(real + "2", "x"));
    must(disk().write_atomically(real + "2", "y", Access::private_)); // from now on the maker's own
    CHECK(mode_of(real + "2") == 0600);
    must(disk().make_folder(folder / "own", Access::private_));
    CHECK(mode_of(folder / "own") == 0700);
}

TEST_CASE("what a killed writer left is removed by the next, what a living one writes is not") {
    TemporaryFolder folder;
    const std::string path = folder / "a.dotlane";
    must(disk().write_atomically(path, "x"));
    const std::string left = folder / aside::fresh_name("a.dotlane"),
                      living = folder / aside::fresh_name("a.dotlane"),
                      other = folder / aside::fresh_name("b.dotlane");
    { const auto closed = aside::make_file(left, 0600); } // as if its process had died
    const auto held = aside::make_file(living, 0600);
    { const auto closed = aside::make_file(other, 0600); }
    must(disk().write_atomically(path, "y"));
    CHECK_FALSE(disk().exists(left));
    CHECK(disk().exists(living));
    CHECK(disk().exists(other)); // of another file: its own writer clears it away
    // A link that somebody planted where a temporary file might be is neither followed nor opened.
    const std::string victim = folder / "victim", planted = folder / aside::fresh_name("a.dotlane");
    must(disk().write_atomically(victim, "safe"));
    std::filesystem::create_symlink(victim, planted);
    CHECK_FALSE(aside::make_file(planted, 0600));
    must(disk().write_atomically(path, "z"));
    CHECK(must(disk().read(victim, 10)) == "safe");
}

TEST_CASE("a folder's files come at once, other things in it stay") {
    TemporaryFolder top;
    const std::string out = top / "a/b/out";
    must(disk().write_folder(out, {{"1.svg", "one"}, {"2.svg", "two"}}, {}));
    CHECK(disk().list(out) == std::vector<std::string>{"1.svg", "2.svg"});
    must(disk().write_folder(out, {{"1.svg", "new"}}, {"2.svg"}));
    CHECK(everything_in(out) == std::vector<std::string>{"1.svg"});
    CHECK(must(disk().read(out + "/1.svg", 10)) == "new");
    CHECK(everything_in(top / "a/b") == std::vector<std::string>{"out"});
    must(disk().make_folder(out + "/photos"));
    must(disk().write_atomically(out + "/mine.txt", "mine"));
    must(disk().write_folder(out + "/", {{"3.svg", "three"}}, {"1.svg"}));
    CHECK(everything_in(out) == std::vector<std::string>{"3.svg", "mine.txt", "photos"});
    CHECK(must(disk().read(out + "/mine.txt", 10)) == "mine");
    // A folder stands where a file should: nothing is changed.
    CHECK_FALSE(disk().write_folder(out, {{"3.svg", "other"}, {"photos", "x"}}, {}));
    CHECK(must(disk().read(out + "/3.svg", 10)) == "three");
    CHECK(everything_in(out) == std::vector<std::string>{"3.svg", "mine.txt", "photos"});
    CHECK_FALSE(disk().write_folder(out + "/mine.txt", {{"x", "y"}}, {}));
    CHECK(must(disk().read(out + "/mine.txt", 10)) == "mine");
    // A link to a folder is followed.
    std::filesystem::create_directory_symlink(out, top / "link");
    must(disk().write_folder(top / "link", {{"4.svg", "four"}}, {}));
    CHECK(must(disk().read(out + "/4.svg", 10)) == "four");
    CHECK(std::filesystem::is_symlink(top / "link"));
}

TEST_CASE("files that lie beside an export are the same files after it, whether it is swapped in or not") {
    TemporaryFolder top;
    const std::string out = top / "out";
    must(disk().write_folder(out, {{"1.svg", "one"}}, {}));
    must(disk().write_atomically(out + "/mine.txt", "mine"));
    const FileMark before = disk().mark(out + "/mine.txt");
    for (const bool folder : {false, true}) { // with a folder beside them they go in one by one
        if (folder) must(disk().make_folder(out + "/photos"));
        must(disk().write_folder(out, {{"1.svg", folder ? "three" : "two"}, {"2.svg", "x"}}, {}));
        CHECK(must(disk().read(out + "/1.svg", 10)) == (folder ? "three" : "two"));
        CHECK(disk().mark(out + "/mine.txt").node == before.node);
        CHECK(disk().mark(out + "/mine.txt").changed_ns == before.changed_ns);
        CHECK(std::filesystem::hard_link_count(out + "/mine.txt") == 1);
        CHECK(everything_in(top / ".") == std::vector<std::string>{"out"});
    }
}

TEST_CASE("the folder that somebody stands in is not pulled away from under him") {
    TemporaryFolder top;
    const std::string out = top / "out", here = std::filesystem::current_path().string();
    must(disk().write_folder(out, {{"1.svg", "one"}}, {}));
    std::filesystem::current_path(out);
    must(disk().write_folder(".", {{"1.svg", "new"}}, {}));
    std::ifstream in("1.svg");
    std::string text;
    in >> text;
    std::filesystem::current_path(here);
    CHECK(text == "new");
}

TEST_CASE("a limit on the size of files is an error, not the end of the program") {
    TemporaryFolder folder;
    const std::string path = folder / "a";
    must(disk().write_atomically(path, "old"));
    const pid_t child = ::fork();
    if (child == 0) {
        report_full_files();
        const rlimit limit{1000, 1000};
        ::setrlimit(RLIMIT_FSIZE, &limit);
        const auto ok = disk().write_atomically(path, std::string(5000, 'x'));
        ::_exit(!ok && ok.error().code == "file.unwritable" ? 0 : 1);
    }
    int status = 0;
    ::waitpid(child, &status, 0);
    CHECK(WIFEXITED(status));
    CHECK(WEXITSTATUS(status) == 0);
    CHECK(must(disk().read(path, 10)) == "old");
    CHECK(everything_in(folder.path) == std::vector<std::string>{"a"});
}

TEST_CASE("what cannot be read to its end is an error") {
    // A process's memory is a file of size 0 whose first page cannot be read (proc(5)).
    CHECK(disk().read("/proc/self/mem", 1000).error().code == "file.unreadable");
    CHECK(must(disk().read("/proc/self/stat", 100000)).size() > 20); // says that it is empty, and is not
    CHECK(disk().read("/proc/self/maps", 100).error().code == "file.too-large");
    CHECK(disk().read("/dev/zero", 100).error().code == "file.unreadable");
    TemporaryFolder folder;
    REQUIRE(::mkfifo((folder / "pipe").c_str(), 0600) == 0);
    CHECK(disk().read(folder / "pipe", 100).error().code == "file.unreadable"); // and does not wait
}

TEST_CASE("writers of one file take turns, also of one that is not there yet") {
    TemporaryFolder folder;
    const std::string path = folder / "count";
    constexpr int writers = 8, rounds = 25;
    std::vector<pid_t> children;
    for (int w = 0; w < writers; ++w) {
        const pid_t child = ::fork();
        if (child == 0) {
            for (int i = 0; i < rounds; ++i) {
                const auto lock = disk().lock(path, 60'000);
                if (!lock) ::_exit(1);
                const auto bytes = disk().read(path, 100);
                const int n = bytes ? std::atoi(bytes->c_str()) : 0;
                if (!disk().write_atomically(path, std::to_string(n + 1))) ::_exit(2);
            }
            ::_exit(0);
        }
        children.push_back(child);
    }
    for (const pid_t child : children) {
        int status = 0;
        ::waitpid(child, &status, 0);
        CHECK(status == 0);
    }
    CHECK(must(disk().read(path, 100)) == std::to_string(writers * rounds));
    CHECK(everything_in(folder.path) == std::vector<std::string>{"count"});
    const auto held = disk().lock(path, 0);
    REQUIRE(held);
    CHECK(disk().lock(path, 30).error().code == "file.busy");
}

TEST_CASE("a mark tells whether somebody wrote in between") {
    TemporaryFolder folder;
    CHECK_FALSE(disk().mark(folder / "a").there);
    must(disk().write_atomically(folder / "a", "x"));
    const FileMark before = disk().mark(folder / "a");
    CHECK(before == disk().mark(folder / "a"));
    must(disk().write_atomically(folder / "a", "y"));
    CHECK_FALSE(before == disk().mark(folder / "a"));
}

TEST_CASE("names of files") {
    CHECK(file_name("/a/b/heron.svg") == "heron.svg");
    CHECK(file_stem("/a/b/heron.cut.svg") == "heron.cut");
    CHECK(absolute_path("/a/../b") == "/b");
    CHECK(absolute_path("x") == std::filesystem::current_path().string() + "/x");
    CHECK(absolute_path("").empty());
}

TEST_CASE("errors show their file and line") {
    CHECK(to_text(Error{"x", as_is("Broken."), {"a.svg", 12}}) == "Broken. (a.svg, line 12)");
    CHECK(to_text(Error{"x", as_is("Broken."), {"", 3}}) == "Broken. (line 3)");
    CHECK(to_text(Error{"x", as_is("Broken."), {}}) == "Broken.");
}

TEST_CASE("findings are counted by grade and errors block the export") {
    const Findings list = {{"a", Grade::hint, {}}, {"b", Grade::caution, {}}, {"c", Grade::caution, {}}};
    CHECK(count(list, Grade::caution) == 2);
    CHECK_FALSE(blocks_export(list));
    CHECK(blocks_export({{"d", Grade::error, {}}}));
    CHECK(std::string(grade_name(Grade::error)) == "error");
}

TEST_CASE("ids of different kinds are different types, zero is none") {
    static_assert(!std::is_convertible_v<PartId, LaneId>);
    CHECK_FALSE(PartId{});
    CHECK(PartId{1} < PartId{2});
}

TEST_CASE("progress reports and can be cancelled") {
    double last = 0;
    Progress progress([&](double f) { last = f; });
    progress.report(0.5);
    CHECK(last == 0.5);
    CHECK_FALSE(progress.cancelled());
    progress.cancel();
    CHECK(progress.cancelled());
}
