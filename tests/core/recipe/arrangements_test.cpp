// Pieces that lie apart on their sheet, and those that keep together.
#include "core/base/text.h"
#include "core/checks/project_checks.h"
#include "core/commands/remedies.h"
#include "core/recipe/arrangements.h"

#include "core/commands/making.h"
#include "core/commands/placing.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

std::string square_at(double x, double y, double side, const char* stroke = "#111") {
    const auto n = [](double v) { return number(v, 6); };
    return "<rect x='" + n(x) + "' y='" + n(y) + "' width='" + n(side) + "' height='" + n(side) +
           "' fill='none' stroke='" + stroke + "'/>";
}
std::string stroke_from(double x0, double y0, double x1, double y1, const char* stroke = "#a8462d") {
    const auto n = [](double v) { return number(v, 6); };
    return "<path d='M" + n(x0) + "," + n(y0) + " L" + n(x1) + "," + n(y1) + "' fill='none' stroke='" +
           stroke + "'/>";
}

/// A part whose pieces lie apart.
struct Apart {
    Bench b;
    StepId step;
    explicit Apart(const std::string& elements, const std::string& together = {})
        : b(bench(elements, 500, 500, false))
        , step(must(append_step(b.project, catalog(), b.part, ApartStep{together}, {}))) {}
    EvaluatedPart part() { return *b.derive()->part(b.part); }
    const StepReport& report(const EvaluatedPart& part) { return *part.reports.at(step); }
    std::vector<int> numbers() {
        std::vector<int> out;
        for (const Arrangement& a : part().apart)
            out.push_back(a.number);
        return out;
    }
    void together(const std::string& text) {
        Step next = *find(*find(b.project, b.part), step);
        std::get<ApartStep>(next.what).together = text;
        must(change_step(b.project, b.part, next));
    }
};

double length_of(const Polylines& lines) {
    double out = 0;
    for (const Polyline& line : lines) {
        for (std::size_t i = 1; i < line.points.size(); ++i)
            out += distance(line.points[i - 1], line.points[i]);
        if (line.closed && line.points.size() > 1) out += distance(line.points.back(), line.points.front());
    }
    return out;
}

/// All lines of all passes of the sheets.
double planned_length(const Derived& d) {
    double out = 0;
    for (const auto& move : d.plan->program.moves)
        if (const auto* pass = std::get_if<PassMove>(&move))
            out += length_of({pass->strokes.begin(), pass->strokes.end()});
    return out;
}

} // namespace

TEST_CASE("laid apart, each piece has all that lies in it, together they have every line once") {
    Apart r(square_at(60, 10, 30) + square_at(70, 20, 8) + square_at(10, 10, 30) +
            stroke_from(15, 20, 35, 20) + square_at(110, 50, 20));
    const EvaluatedPart part = r.part();
    REQUIRE(part.apart.size() == 3);
    CHECK(r.numbers() == std::vector{1, 2, 3}); // from left to right
    CHECK(part.apart[0].box.x0 == Approx(10));
    CHECK(part.apart[1].box.x0 == Approx(60));
    for (std::size_t run = 0; run < part.runs.size(); ++run) {
        double sum = 0;
        for (const Arrangement& a : part.apart)
            sum += length_of(a.runs[run]);
        CHECK(sum == Approx(length_of(part.runs[run].lines)));
    }
    const auto lines_of_piece = [&](int n) {
        std::size_t count = 0;
        for (std::size_t run = 0; run < part.runs.size(); ++run)
            count += lines_of(part, run, n).size();
        return count;
    };
    CHECK(lines_of_piece(1) == 2); // with the drawn line
    CHECK(lines_of_piece(2) == 2); // with its hole
    CHECK(lines_of_piece(3) == 1);
    CHECK(lines_of_piece(0) == 5);
    CHECK(lines_of_piece(4) == 0);
    CHECK(box_of(part, 3).width() == Approx(20));
    CHECK(box_of(part, 0) == part.box);
    CHECK(box_of(part, 4).empty());
    CHECK_FALSE(is_there(part, 4));
}

TEST_CASE("a line that runs over two pieces holds them together, one beside goes with the nearest") {
    Apart r(square_at(10, 10, 30) + square_at(60, 10, 30) + square_at(120, 10, 30) +
            stroke_from(20, 15, 80, 15) + stroke_from(155, 20, 160, 20));
    const EvaluatedPart part = r.part();
    REQUIRE(r.numbers() == std::vector{1, 2});
    CHECK(part.apart[0].box.x1 == Approx(90));
    CHECK(part.apart[1].box.x1 == Approx(160));
    // A line whose ends lie outside crosses them all the same.
    Apart over(square_at(10, 10, 30) + square_at(60, 10, 30) + stroke_from(5, 15, 100, 15));
    CHECK(over.numbers() == std::vector{1});
    // Pieces that meet within rounding are one.
    Apart meeting(square_at(10, 10, 30) + square_at(40.01, 10, 30) + square_at(70.2, 10, 30));
    CHECK(meeting.numbers() == std::vector{1, 2});
}

TEST_CASE("pieces keep together, named by the first of them, the others keep their numbers") {
    std::string row;
    for (int i = 0; i < 5; ++i)
        row += square_at(10 + 30 * i, 10, 20);
    Apart r(row, "4, 2; 5");
    const EvaluatedPart part = r.part();
    CHECK(r.numbers() == std::vector{1, 2, 3, 5});
    CHECK(box_of(part, 2).x0 == Approx(40));
    CHECK(box_of(part, 2).x1 == Approx(120));
    const auto& pieces = r.report(part).pieces;
    REQUIRE(pieces.size() == 5);
    CHECK(pieces[3].with == 2);
    CHECK(pieces[1].kept);
    CHECK_FALSE(pieces[0].kept);
    CHECK_FALSE(pieces[4].kept); // alone in its group
    r.together("1-3; 3-5");      // groups that share a piece are one
    CHECK(r.numbers() == std::vector{1});
    r.together("2, 9");
    CHECK(has(r.part().findings, "pieces.none"));
    CHECK(r.numbers().size() == 5);
    r.together("two");
    CHECK(has(r.part().findings, "step.refused"));
    CHECK(r.part().apart.empty()); // it lies as one, as before the step
    CHECK(piece_groups("1-3; 5, 6;; ")->size() == 2);
    CHECK(group_text(*piece_groups("3, 1-2;6, 5")) == "1-3; 5, 6");
    CHECK_FALSE(piece_groups("0"));
}

TEST_CASE("without closed lines nothing lies apart, and the step says so") {
    Apart r(stroke_from(10, 10, 50, 10) + stroke_from(10, 20, 50, 20));
    const EvaluatedPart part = r.part();
    CHECK(part.apart.empty());
    CHECK(get(part.findings, "step.refused").message.english().find("no closed lines") != std::string::npos);
}

TEST_CASE("letters stay whole, an i with its dot, unless they are to fall apart") {
    Workshop workshop(catalog());
    Project p = workshop.new_project("words");
    Lettering words;
    words.text = "ijo:", words.font = "League Spartan", words.size = mm(20), words.tracking.percent = 20;
    const PartId part = must(make_part(p, catalog(), workshop.fonts(), words));
    const StepId id = must(append_step(p, catalog(), part, ApartStep{}, {}));
    const auto pieces = [&] {
        return workshop.derive(std::make_shared<Project>(p))->part(part)->apart.size();
    };
    CHECK(pieces() == 4);
    Step step = *find(*find(p, part), id);
    std::get<ApartStep>(step.what).whole = false;
    must(change_step(p, part, step));
    CHECK(pieces() == 7); // two dots of letters, two of the colon, and the o is one with its counter
    // A path of several squares is one line, too.
    Apart squares("<path d='M10,10 h20 v20 h-20 z M50,10 h20 v20 h-20 z' fill='none' stroke='#111'/>");
    CHECK(squares.numbers() == std::vector{1});
}

TEST_CASE("only the chosen lines bound pieces") {
    Apart r(square_at(10, 10, 30, "#111") + square_at(60, 10, 30, "#a8462d"));
    Step step = *find(*find(r.b.project, r.b.part), r.step);
    step.of = {find(r.b.project, r.b.part)->sets.front().id};
    must(change_step(r.b.project, r.b.part, step));
    CHECK(r.numbers() == std::vector{1}); // the other square goes with it
}

TEST_CASE("pieces placed one by one are run once each, inside the reach, clear of one another") {
    Random random("pieces on sheets");
    INFO("seed " << random.seed());
    std::string many;
    for (int i = 0; i < 42; ++i) // in cells of 60, so that they are pieces of their own
        many += square_at(5 + 60 * (i % 7) + random.real(0, 5), 5 + 60 * (i / 7) + random.real(0, 5),
                          random.real(42, 48));
    Apart r(many);
    auto d = r.b.derive();
    must(apply(PlacePieces{r.b.sheet, r.b.part}, r.b.project, catalog(), *d));
    d = r.b.derive();
    CHECK(missing_pieces(r.b.project, r.part()).empty());
    std::size_t lying = 0;
    for (const LaidSheet& sheet : d->sheets)
        for (std::size_t i = 0; i < sheet.parts.size(); ++i, ++lying) {
            CHECK(sheet.usable.grown(1e-6).contains(sheet.parts[i].box));
            for (std::size_t j = 0; j < i; ++j) {
                const Box a = sheet.parts[i].box.grown(4.99), b = sheet.parts[j].box; // 5 mm apart
                CHECK_FALSE((a.x0 < b.x1 && b.x0 < a.x1 && a.y0 < b.y1 && b.y0 < a.y1));
            }
        }
    CHECK(lying == 42);
    CHECK(r.b.project.sheets.size() >= 2); // of 50 by 50 mm with their gaps, 36 lie on one 12 inch mat
    CHECK_FALSE(has(d->findings, "part.count"));
    double cut = 0;
    for (const RunSet& run : r.part().runs)
        cut += length_of(run.lines);
    REQUIRE(d->plan);
    CHECK(planned_length(*d) == Approx(cut).epsilon(1e-6));
}

TEST_CASE("a piece is turned and mirrored about its own box") {
    Apart r(square_at(10, 10, 30) + square_at(60, 10, 30) + stroke_from(62, 12, 70, 12));
    const Extent extent = extent_of(r.part(), 2);
    must(place(r.b.project, r.b.sheet,
               with_box_at({{}, r.b.part, {}, {}, degrees(90), true, 2}, extent, mm(50), mm(80))));
    const auto d = r.b.derive();
    const PlacedPart& lies = d->sheet(r.b.sheet)->parts.at(0);
    CHECK(lies.box.x0 == Approx(50));
    CHECK(lies.box.y0 == Approx(80));
    CHECK(lies.box.width() == Approx(30));
    // (62, 12) is 2 and 2 from its corner; mirrored 28 and 2; turned clockwise 28 (= 30 - 2) and 28.
    CHECK(distance(lies.to_sheet({62, 12}), {78, 108}) < 1e-9);
}

TEST_CASE("pieces that are missing, gone or in one arrangement: each finding has its remedy") {
    Apart r(square_at(10, 10, 30) + square_at(60, 10, 30) + square_at(110, 10, 30));
    const auto mend = [&](const char* code) {
        const auto d = r.b.derive();
        const Finding f = get(d->findings, code);
        must(apply(MendFinding{f}, r.b.project, catalog(), *d));
        CHECK_FALSE(has(r.b.derive()->findings, code));
    };
    const auto lying = [&] { return find(r.b.project, r.b.sheet)->placements; };
    must(place(r.b.project, r.b.sheet, {{}, r.b.part, mm(20), mm(20), {}, false}));
    CHECK_FALSE(has(r.b.derive()->findings, "part.unplaced"));
    mend("part.in-one");
    CHECK(lying().size() == 3);
    must(remove_placement(r.b.project, lying().front().id));
    CHECK(get(r.b.derive()->findings, "part.pieces-missing").message.english().starts_with("1 piece "));
    mend("part.pieces-missing");
    CHECK(lying().size() == 3);
    must(set_quantity(r.b.project, r.b.part, 2));
    CHECK(get(r.b.derive()->findings, "part.pieces-missing").message.english().starts_with("3 pieces "));
    mend("part.pieces-missing");
    CHECK(lying().size() == 6);
    must(set_quantity(r.b.project, r.b.part, 1));
    mend("part.count"); // two of it lie there
    CHECK(find(r.b.project, r.b.part)->quantity == 2);
    r.together("2, 3");
    const auto d = r.b.derive();
    CHECK(std::count_if(d->findings.begin(), d->findings.end(),
                        [](const Finding& f) { return f.code == "sheet.no-piece"; }) == 2);
    CHECK(d->sheet(r.b.sheet)->parts.size() == 4);
    mend("sheet.no-piece");
    CHECK(lying().size() == 4);
    // The second piece is now the arrangement of two: it grew where it lies.
    const auto now = r.b.derive();
    for (const PlacedPart& lies : now->sheet(r.b.sheet)->parts)
        CHECK((lies.box.width() > 31) == (lies.placement.piece == 2));
    must(remove_maker(r.b.project, r.b.part, r.step));
    mend("sheet.no-piece"); // a part that lies as one has no pieces
    mend("part.unplaced");
}
