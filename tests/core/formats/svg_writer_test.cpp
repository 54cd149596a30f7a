// What is exported measures true: read back by the reader, it is the program again.
#include "core/formats/svg/writer.h"

#include "core/formats/svg/reader.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

Bench job() {
    return bench("<rect x='2' y='2' width='80' height='50' rx='3' fill='none' stroke='#22282c'/><path "
                 "d='M10,10 q10,10 20,0' fill='none' stroke='#a8462d'/>"
                 "<path d='M40,2 v50' fill='none' stroke='#5a6996' stroke-dasharray='4 2'/>");
}

Polylines lines_in(const Drawing& d, const std::string& group) {
    Polylines out;
    for (const DrawnLine& line : d.lines)
        if (line.group == group)
            for (Polyline& p : flattened(line.shape))
                out.push_back(std::move(p));
    return out;
}

} // namespace

TEST_CASE("an exported pass read back is the pass, to a tenth of a micrometre") {
    const auto d = job().derive();
    const Program& program = d->plan->program;
    for (const Move& move : program.moves) {
        const auto* pass = std::get_if<PassMove>(&move);
        if (!pass) continue;
        const auto back = must(read_svg(write_svg(program, {pass->sheet, pass->number, ""}), {}));
        CHECK(back.physical_size);
        const Polylines lines = lines_in(back.drawing, "pass-" + std::to_string(pass->number));
        REQUIRE(lines.size() == pass->strokes.size());
        for (std::size_t i = 0; i < lines.size(); ++i) {
            CHECK(lines[i].closed == pass->strokes[i].closed);
            CHECK(in_mm(length(lines[i])) == Approx(in_mm(length(pass->strokes[i]))).margin(0.01));
            CHECK(distance(lines[i].points[0], pass->strokes[i].points[0]) < 1e-3);
        }
    }
}

TEST_CASE("every file of an export has the same page, check square and origin marks") {
    const auto d = job().derive();
    const Program& program = d->plan->program;
    const SheetId sheet = program.sheets[0].sheet;
    const auto whole = must(read_svg(write_svg(program, {sheet, {}, ""}), {})).drawing;
    const Polylines square = lines_in(whole, "check-square"), marks = lines_in(whole, "origin-marks");
    REQUIRE(square.size() == 1);
    CHECK(bounds(square).width() == Approx(10).epsilon(1e-9));
    CHECK(bounds(square).height() == Approx(10).epsilon(1e-9));
    CHECK(bounds(square).y0 > 304.8); // below the mat, where nothing is cut
    CHECK(in_mm(whole.page_width) == Approx(304.8));
    for (int pass = 1; pass <= 3; ++pass) {
        const auto one = must(read_svg(write_svg(program, {sheet, pass, ""}), {})).drawing;
        CHECK(lines_in(one, "check-square") == square);
        CHECK(lines_in(one, "origin-marks") == marks);
        CHECK(one.page_width == whole.page_width);
        CHECK(one.page_height == whole.page_height);
    }
    CHECK(marks.size() == 6);
}

TEST_CASE("all passes together are the passes one by one, repeats are written once and said") {
    Bench b = job();
    find(b.project, b.lane(Action::draw))->repeats = 3;
    const auto d = b.derive();
    const Program& program = d->plan->program;
    const auto whole = must(read_svg(write_svg(program, {program.sheets[0].sheet, {}, ""}), {})).drawing;
    CHECK(lines_in(whole, "pass-1").size() == 1);
    CHECK(lines_in(whole, "pass-2").size() == 1);
    CHECK(lines_in(whole, "pass-3").size() == 1);
    CHECK(write_svg(program, {program.sheets[0].sheet, 1, ""}).find("run 3 times") != std::string::npos);
}

TEST_CASE("names are escaped, control characters dropped") {
    Bench b = job();
    b.project.name = "A & B <\"x\">\x01";
    find(b.project, b.lane(Action::draw))->name = "<&>";
    const auto d = b.derive();
    const std::string text =
        write_svg(d->plan->program, {d->plan->program.sheets[0].sheet, {}, "in spite of <errors>"});
    CHECK(read_svg(text, {}));
    CHECK(text.find("A &amp; B &lt;") != std::string::npos);
    CHECK(text.find('\x01') == std::string::npos);
}
