#include "core/base/files.h"

#include <sys/stat.h>

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

TEST_CASE("names of files") {
    CHECK(file_name("/a/b/heron.svg") == "heron.svg");
    CHECK(file_stem("/a/b/heron.cut.svg") == "heron.cut");
}

TEST_CASE("errors show their file and line") {
    CHECK(to_text(Error{"x", "Broken.", {"a.svg", 12}}) == "Broken. (a.svg, line 12)");
    CHECK(to_text(Error{"x", "Broken.", {"", 3}}) == "Broken. (line 3)");
    CHECK(to_text(Error{"x", "Broken.", {}}) == "Broken.");
}

TEST_CASE("findings are counted by grade and errors block the export") {
    const Findings list = {{"a", Grade::hint, ""}, {"b", Grade::caution, ""}, {"c", Grade::caution, ""}};
    CHECK(count(list, Grade::caution) == 2);
    CHECK_FALSE(blocks_export(list));
    CHECK(blocks_export({{"d", Grade::error, ""}}));
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
