#include "core/exports/accounts.h"
#include "core/exports/run_sheet.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// Two parts on two sheets each, cut and drawn.
Bench two_parts() {
    Bench b = bench("<rect x='2' y='2' width='60' height='40' fill='none' stroke='#22282c'/>"
                    "<path d='M10,10 q10,10 20,0' fill='none' stroke='#a8462d'/>");
    Part star = *find(b.project, b.part);
    const PartId made = add_part(b.project, "star", star.source);
    for (LineSet set : star.sets) {
        std::vector<LineId> lines; // the same places of the new part's drawing
        for (const LineId line : set.lines)
            for (std::size_t i = 0; i < star.source.drawing->lines.size(); ++i)
                if (star.source.drawing->lines[i].id == line)
                    lines.push_back(find(b.project, made)->source.drawing->lines[i].id);
        must(assign(b.project, made, lines, set.lane));
    }
    Sheet more = b.project.sheets.front();
    more.id = fresh_id<SheetId>(b.project), more.name = "sheet 2";
    for (Placement& p : more.placements)
        p.id = fresh_id<PlacementId>(b.project);
    b.project.sheets.push_back(std::move(more));
    for (Sheet& sheet : b.project.sheets) {
        Placement p = sheet.placements.front();
        p.id = fresh_id<PlacementId>(b.project), p.part = made, p.top = mm(120);
        sheet.placements.push_back(p);
    }
    return b;
}

std::shared_ptr<const Derived> run_without(const Bench& b, NotThisRun out) {
    return b.workshop->derive(std::make_shared<Project>(b.project), no_progress(), {},
                              {{}, Effort::first, std::move(out)});
}

std::size_t strokes_in(const Derived& d, const std::function<bool(const PassMove&, const Stroke&)>& which) {
    std::size_t n = 0;
    for (const Move& move : d.plan->program.moves)
        if (const auto* pass = std::get_if<PassMove>(&move))
            for (const Stroke& stroke : pass->strokes)
                n += which(*pass, stroke) ? 1 : 0;
    return n;
}

const auto all_strokes = [](const PassMove&, const Stroke&) { return true; };

} // namespace

TEST_CASE("a run without some parts, sheets and lanes has none of them, and the project stays as it is") {
    const Bench b = two_parts();
    const auto whole = b.derive();
    REQUIRE(whole->plan);
    REQUIRE(strokes_in(*whole, all_strokes) == 8); // two lines of two parts on two sheets
    const PartId star = b.project.parts.back().id;
    const SheetId second = b.project.sheets.back().id;
    const LaneId draw = b.lane(Action::draw);
    for (int kind = 0; kind < 4; ++kind) {
        NotThisRun out;
        if (kind == 0 || kind == 3) out.parts.insert(star);
        if (kind == 1 || kind == 3) out.sheets.insert(second);
        if (kind == 2 || kind == 3) out.lanes.insert(draw);
        const auto some = run_without(b, out);
        REQUIRE(some->plan);
        CHECK(some->left_out == out);
        const std::size_t left = strokes_in(*whole, [&](const PassMove& pass, const Stroke& stroke) {
            return !out.parts.contains(stroke.of.part) && !out.sheets.contains(pass.sheet) &&
                   !out.lanes.contains(pass.lane);
        });
        CHECK(left == (kind == 3 ? 1 : 4));
        CHECK(strokes_in(*some, all_strokes) == left);
        CHECK(strokes_in(*some, [&](const PassMove& pass, const Stroke& stroke) {
                  return out.parts.contains(stroke.of.part) || out.sheets.contains(pass.sheet) ||
                         out.lanes.contains(pass.lane);
              }) == 0);
        // None is lost in silence.
        const LineAccount lines = account(*some), before = account(*whole);
        CHECK(lines.run == left);
        CHECK(lines.left_out == 8 - left);
        CHECK(lines.placed() == before.placed());
        const RunSheet sheet = make_run_sheet(*some, b.workshop->catalog());
        CHECK(std::any_of(sheet.before.begin(), sheet.before.end(), [](const Phrase& line) {
            return line.english().starts_with("Not of this run: ");
        }));
        for (const RunSheetPicture& picture : sheet.pictures)
            CHECK(picture.parts.size() == (out.parts.empty() ? 2 : 1));
    }
    CHECK(*b.derive()->plan->timeline.spans().begin() == *whole->plan->timeline.spans().begin());
    CHECK(b.derive()->plan->program == whole->plan->program);
    // Nothing left is said, and no plan.
    NotThisRun every;
    every.sheets = {b.project.sheets[0].id, second};
    const auto none = run_without(b, every);
    CHECK_FALSE(none->plan);
    CHECK(none->no_plan.code == "plan.nothing");
}

TEST_CASE("a tip that touches elsewhere: its lines move in the program, and reach is told for the carriage") {
    Bench b = two_parts();
    Catalog changed = b.workshop->catalog();
    const std::string pen = find(b.project, b.lane(Action::draw))->tool;
    for (Tool& tool : changed.tools)
        if (tool.id == pen) tool.offset = {1.2, -0.5};
    const auto plain = b.derive();
    Bench moved = b;
    moved.workshop = std::make_shared<Workshop>(changed);
    const auto there = moved.derive();
    std::map<std::pair<PlacementId, std::uint32_t>, Point> was;
    const auto each = [](const Derived& d, auto what) {
        for (const Move& move : d.plan->program.moves)
            if (const auto* pass = std::get_if<PassMove>(&move))
                for (const Stroke& stroke : pass->strokes)
                    what(*pass, stroke);
    };
    each(*plain, [&](const PassMove&, const Stroke& s) {
        was[{s.of.placement, s.of.line.value}] = bounds(s).centre();
    });
    std::size_t draws = 0;
    each(*there, [&](const PassMove& pass, const Stroke& s) {
        const Point before = was.at({s.of.placement, s.of.line.value}), now = bounds(s).centre();
        const bool drawn = pass.action == Action::draw;
        draws += drawn ? 1 : 0;
        CHECK(now.x == Approx(before.x - (drawn ? 1.2 : 0)));
        CHECK(now.y == Approx(before.y + (drawn ? 0.5 : 0)));
        CHECK(pass.offset == (drawn ? Point{1.2, -0.5} : Point{}));
    });
    CHECK(draws == 4);
    CHECK_FALSE(has(there->findings, "sheet.tool-outside"));
    for (Tool& tool : changed.tools)
        if (tool.id == pen) tool.offset = {18, 0}; // the wave lies 10 mm from the edge of the reach or more
    moved.workshop = std::make_shared<Workshop>(changed);
    const Finding& told = get(moved.derive()->findings, "sheet.tool-outside");
    CHECK(told.grade == Grade::error);
    CHECK(number_argument(told, "by_mm").value_or(0) > 0);
}

TEST_CASE(
    "what a tool is set to for a stock is in the program: speed, passes, depth, and whence it is known") {
    Bench b = two_parts();
    Catalog known = b.workshop->catalog();
    const Lane cut = *find(b.project, b.lane(Action::cut));
    const std::string stock = b.project.sheets.front().stock;
    known.settings = {
        {cut.tool, stock, "", 95.0, mm_per_second(33), mm(0.7), {}, 2, Setting::From::swatch, "weeds"}};
    b.workshop = std::make_shared<Workshop>(known);
    const auto d = b.derive();
    REQUIRE(d->plan);
    bool tried_pen = false, tried_blade = false, depth = false;
    for (const Move& move : d->plan->program.moves) {
        if (const auto* pass = std::get_if<PassMove>(&move)) {
            if (pass->lane != cut.id) continue;
            CHECK(in_mm_per_second(pass->speed) == Approx(33));
            CHECK(pass->repeats == 2);
            CHECK(pass->setting.pressure == 95.0);
            CHECK(pass->setting.from == "swatch");
            CHECK(words(pass->setting).english() == "pressure 95, tip out 0.7 mm (from a swatch)");
            continue;
        }
        for (const HandStep& step : std::get<StopMove>(move).steps) {
            const std::string& text = step.text.english();
            depth |= text.find("out by 0.7 mm") != text.npos;
            if (step.kind != HandStep::Kind::test) continue;
            tried_pen |= text.find("pen 0.4") != text.npos;
            tried_blade |= text.find("blade") != text.npos;
        }
    }
    CHECK(depth);
    CHECK(tried_pen);         // a swatch before its first use on this stock
    CHECK_FALSE(tried_blade); // has been
}
