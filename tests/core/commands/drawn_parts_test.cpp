// Parts that came from a file, changed in their drawing: strays, and lines taken apart.
#include "core/commands/apart.h"
#include "core/commands/making.h"
#include "core/commands/remedies.h"
#include "core/derive/workshop.h"
#include "core/project/edits.h"
#include "core/recipe/strays.h"
#include "core/sheets/layout.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

std::size_t lines_in(const Project& project, PartId id) {
    return find(project, id)->source.drawing->lines.size();
}

Result<Done> take_apart(Bench& d, ApartBy by) {
    const auto derived = d.derive();
    return apply(TakeApart{d.part, by}, d.project, catalog(), fonts(), *derived->part(d.part));
}

/// Every line of every part where it lies on its sheet.
std::map<LineId, Box> on_sheets(const Bench& d) {
    std::map<LineId, Box> out;
    const auto derived = d.derive();
    for (const Sheet& sheet : d.project.sheets)
        for (const Placement& p : sheet.placements) {
            const EvaluatedPart& part = *derived->part(p.part);
            const Affine by = placement_transform(p, extent_of(part, 0));
            for (const FlatLine& line : part.lines)
                out[line.id] = bounds(transformed(line.contours, by));
        }
    return out;
}

void check_same(const std::map<LineId, Box>& a, const std::map<LineId, Box>& b) {
    REQUIRE(a.size() == b.size());
    for (const auto& [id, box] : a) {
        REQUIRE(b.contains(id));
        CHECK(b.at(id).x0 == Approx(box.x0).margin(1e-6));
        CHECK(b.at(id).y1 == Approx(box.y1).margin(1e-6));
    }
}

constexpr const char* flower =
    "<g id='petals'><rect id='petal1' x='10' y='10' width='20' height='20' fill='#d03030'/>"
    "<rect id='petal2' x='40' y='10' width='20' height='20' fill='#d03030'/></g>"
    "<g id='leaves'><rect id='leaf' x='10' y='60' width='50' height='10' fill='#30a040'/></g>"
    "<rect id='vein' x='12' y='62' width='46' height='6' fill='none' stroke='#2040a0'/>";

} // namespace

TEST_CASE("a stray far off the art is told with how far, and can be left out, brought near or kept") {
    // Good art of 50 x 50 mm and a dot of 1 mm, 660 mm off it.
    const std::string art = "<rect x='0' y='0' width='50' height='50'/><path d='M0,25H50'/>"
                            "<rect x='710' y='20' width='1' height='1'/>";
    Bench d = bench(art, 711, 60, false);
    Finding told = get(d.derive()->findings, "open.stray");
    CHECK(told.grade == Grade::caution);
    CHECK(told.message.english().find("up to 660 mm") != std::string::npos);
    CHECK(told.message.english().find("711 x 50 mm, the art alone 50 x 50 mm") != std::string::npos);
    CHECK(told.place.box.x0 == Approx(710));
    REQUIRE(told.more.size() == 2);
    const Project before = d.project;
    const auto mend = [&](const char* code) {
        d.project = before;
        Finding f = told;
        f.remedy.code = code;
        const auto derived = d.derive();
        REQUIRE(apply(MendFinding{f}, d.project, catalog(), *derived));
        CHECK_FALSE(has(d.derive()->findings, "open.stray"));
        return d.derive()->part(d.part)->source_box;
    };
    CHECK(mend("stray.drop").width() == Approx(50));
    CHECK(mend("stray.near").width() == Approx(50 + stray_gap_mm + 1));
    CHECK(mend("stray.keep").width() == Approx(711));
    CHECK(find(d.project, d.part)->source.drawing->lines.size() == 3);
    // Told at the finished size, whatever that is.
    d.project = before;
    REQUIRE(scale_part(d.project, d.part, 0.5));
    told = get(d.derive()->findings, "open.stray");
    CHECK(told.message.english().find("up to 330 mm") != std::string::npos);
    CHECK(told.place.box.x0 == Approx(355));
}

TEST_CASE("what belongs to the art is no stray: corner marks, words beside it, two equal halves") {
    const auto strays = [](const std::string& body) {
        return strays_of(drawing(body, 400, 400)).clusters.size();
    };
    CHECK(strays("<rect x='100' y='100' width='200' height='200'/><rect x='60' y='60' width='5' height='5'/>"
                 "<rect x='335' y='335' width='5' height='5'/>") == 0);
    CHECK(strays("<rect x='0' y='0' width='50' height='50'/><rect x='350' y='0' width='50' height='50'/>") ==
          0);
    CHECK(strays("<rect x='0' y='0' width='50' height='50'/>") == 0);
    // Several strays on several sides, each told.
    CHECK(strays("<rect x='180' y='180' width='40' height='40'/><rect x='180' y='190' width='40' height='4'/>"
                 "<circle cx='1' cy='200' r='0.5'/><circle cx='399' cy='200' r='0.5'/>") == 2);
    // One leads to the next, and a third lies so far away on the other side that both seem near the art.
    CHECK(strays_of(drawing("<rect x='480' y='480' width='40' height='40'/>"
                            "<circle cx='504' cy='687' r='0.5'/><circle cx='432' cy='845' r='0.5'/>"
                            "<circle cx='571' cy='146' r='0.5'/>",
                            1000, 1000))
              .clusters.size() == 3);
}

TEST_CASE("a field of small things beside a dense one is art, not ten thousand strays") {
    // The squiggle has the greatest length on the smallest place; the dots fill the page.
    std::string body = "<path d='M500,500";
    for (int i = 0; i < 400; ++i)
        body += i % 2 ? "h-6v.01" : "h6v.01";
    body += "' stroke='#000' fill='none'/>";
    for (int x = 0; x < 40; ++x)
        for (int y = 0; y < 40; ++y)
            body += "<rect x='" + std::to_string(x * 25) + "' y='" + std::to_string(y * 25) +
                    "' width='0.4' height='0.4'/>";
    CHECK(strays_of(drawing(body, 1000, 1000)).empty());
}

TEST_CASE("strays: whatever the art, leaving out what was put far off gives the art back") {
    Random random("strays");
    INFO("seed " << random.seed());
    for (int round = 0; round < 40; ++round) {
        const auto in = [&](double a, double b) { return random.real(a, b); };
        Drawing art;
        const double size = in(20, 200);
        for (int i = 0, n = 3 + round % 9; i < n; ++i) {
            const double x = in(0, size * 0.7), y = in(0, size * 0.7), s = in(0.15, 0.3) * size;
            DrawnLine line;
            line.id = LineId{static_cast<std::uint32_t>(i + 1)};
            Contour c;
            c.start = {x, y}, c.closed = true;
            c.segments = {{{}, {}, {x + s, y}}, {{}, {}, {x, y + s}}};
            line.shape.contours = {c};
            art.lines.push_back(line);
        }
        Drawing littered = art;
        for (int i = 0, n = 1 + round % 3; i < n; ++i) {
            DrawnLine dot = art.lines.front();
            dot.id = LineId{static_cast<std::uint32_t>(100 + i)};
            const double angle = in(0, 6.283), off = size * in(4, 9);
            dot.shape =
                transformed(dot.shape, Affine::translation({off * std::cos(angle), off * std::sin(angle)}) *
                                           Affine::scaling(0.02, 0.02));
            littered.lines.push_back(dot);
        }
        INFO("round " << round);
        CHECK(without_strays(littered, StrayChoice::drop) == art);
        CHECK(strays_of(art).empty());
    }
}

TEST_CASE(
    "a drawing is taken apart by colour, group, name and piece, and nothing moves and nothing is lost") {
    Bench d = bench(flower, 200, 200, false);
    for (const double turn : {0.0, 90.0, 37.0})
        must(place(d.project, d.sheet, {{}, d.part, mm(20 + turn), mm(30), degrees(turn), turn > 50}));
    const Project before = d.project;
    // The last placement of a line wins in `on_sheets`, so each turn is compared on its own below.
    const auto apart = [&](ApartBy by) {
        d.project = before;
        std::string out;
        for (const PartId id : must(take_apart(d, by)).parts)
            out += find(d.project, id)->name + ": " + std::to_string(lines_in(d.project, id)) + "; ";
        REQUIRE(check_rules(d.project));
        for (std::size_t keep = 0; keep < 3; ++keep) {
            Bench was = d, is = d;
            was.project = before;
            const Angle turn = before.sheets[0].placements[keep].turn;
            for (Bench* one : {&was, &is})
                std::erase_if(one->project.sheets[0].placements,
                              [&](const Placement& p) { return p.turn != turn; });
            check_same(on_sheets(was), on_sheets(is));
        }
        return out;
    };
    const std::string name = find(before, d.part)->name;
    const auto named = [&](std::string text) {
        for (std::size_t at = 0; (at = text.find('*', at)) != std::string::npos;)
            text.replace(at, 1, name);
        return text;
    };
    CHECK(apart(ApartBy::colour) == named("* red: 2; * green: 1; * blue: 1; "));
    CHECK(apart(ApartBy::group) == named("* petals: 2; * leaves: 1; * no group: 1; "));
    CHECK(apart(ApartBy::name) == named("* petal: 2; * leaf: 1; * vein: 1; "));
    CHECK(apart(ApartBy::piece) == named("* piece 1: 1; * piece 2: 2; * piece 3: 1; "));
}

TEST_CASE("taken apart: lanes and steps go with their lines, and what counts pieces or lends its outline "
          "stays whole") {
    Bench d = bench(flower, 200, 200, false);
    const auto sets = find(d.project, d.part)->sets;
    REQUIRE(sets.size() >= 2);
    REQUIRE(append_step(d.project, catalog(), d.part, OutlineStep{}, {sets[0].id}));
    const Project before = d.project;
    const LaneId made = find(d.project, d.part)->steps[0].lane;
    const auto parts = must(take_apart(d, ApartBy::colour)).parts;
    std::size_t steps = 0, with_lines = 0;
    std::map<LineId, LaneId> lanes;
    for (const PartId id : parts) {
        const Part& part = *find(d.project, id);
        for (const LineSet& set : part.sets)
            for (const LineId line : set.lines)
                CHECK(lanes.emplace(line, set.lane).second);
        for (const Step& step : part.steps)
            CHECK(step.lane == made);
        steps += part.steps.size();
        for (const DrawnLine& line : part.source.drawing->lines)
            if (const auto& of = sets[0].lines; std::find(of.begin(), of.end(), line.id) != of.end()) {
                ++with_lines;
                break;
            }
    }
    for (const LineSet& set : find(before, d.part)->sets)
        for (const LineId line : set.lines)
            CHECK(lanes.at(line) == set.lane);
    CHECK(steps == with_lines);
    CHECK(steps < parts.size());
    d.project = before;
    REQUIRE(append_step(d.project, catalog(), d.part, PiecesStep{"1"}, {}));
    CHECK(take_apart(d, ApartBy::piece).error().message.english().find("counts the part's pieces") !=
          std::string::npos);
    d.project = before;
    must(make_part(d.project, catalog(), fonts(), Layer{d.part}));
    CHECK(take_apart(d, ApartBy::piece).error().code == "part.apart");
    Bench one = bench("<rect width='20' height='20'/>", 100, 100, false);
    for (const ApartBy by : all_aparts)
        CHECK(take_apart(one, by).error().code == "part.apart");
}
