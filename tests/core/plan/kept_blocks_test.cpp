// Strokes whose order is wished: run in it, by themselves and by way of a fill's setting.
#include "core/plan/kept_blocks.h"

#include "core/commands/filling.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE(
    "lines of a block are run in their order and one behind the other, the others as if they were alone") {
    Random random("blocks that keep their order");
    for (int round = 0; round < 30; ++round) {
        Beginnings from;
        std::vector<std::uint32_t> block;
        Polylines free;
        const int count = random.whole(1, 60), blocks = random.whole(1, 4);
        for (int i = 0; i < count; ++i) {
            const Point at{random.real(0, 200), random.real(0, 200)};
            if (random.coin(0.7))
                from.lines.push_back(line({at, at + Point{random.real(-20, 20), random.real(-20, 20)}}));
            else
                from.lines.push_back(ring(random_ring(random, random.whole(3, 9), 2, 9, at)));
            block.push_back(static_cast<std::uint32_t>(random.whole(0, blocks)));
            if (block.back() == 0) free.push_back(from.lines.back());
        }
        const RouteOptions options{{random.real(0, 200), 0}};
        const RouteResult out = routed_in_blocks(from, block, options, no_progress());
        INFO("seed " << random.seed() << " round " << round);
        REQUIRE(out.order.size() == from.lines.size());
        std::vector<int> times(from.lines.size(), 0);
        std::vector<std::vector<std::uint32_t>> met(static_cast<std::size_t>(blocks) + 1);
        std::vector<std::uint32_t> heads; // each block's number where it begins
        Polylines strokes, loose;
        for (const RoutedLine& l : out.order) {
            ++times[l.line];
            const std::uint32_t b = block[l.line];
            if (b > 0 && (heads.empty() || heads.back() != b)) heads.push_back(b);
            if (b == 0) heads.push_back(0), loose.push_back(run(from.lines[l.line], l));
            met[b].push_back(l.line);
            strokes.push_back(run(from.lines[l.line], l));
        }
        for (const int n : times)
            CHECK(n == 1);
        for (std::uint32_t b = 1; b < met.size(); ++b) {
            CHECK(std::is_sorted(met[b].begin(), met[b].end()));
            CHECK(std::count(heads.begin(), heads.end(), b) == (met[b].empty() ? 0 : 1));
        }
        CHECK(in_mm(travel_of(strokes, options.rest)) == Approx(in_mm(out.travel)));
        CHECK(in_mm(travel_of(loose, options.rest)) == Approx(in_mm(route(free, options).travel)));
    }
}

namespace {

/// The strokes of the fill as the program runs them.
std::vector<Stroke> run_with(FillStep::Order order) {
    std::string squares;
    for (const char* at : {"60,10", "10,40", "60,40", "10,10"})
        squares += std::string("<path fill='#a8832d' d='M") + at + " h20 v20 h-20 Z'/>";
    Bench b = bench(squares);
    FillStep step;
    step.angle = {}, step.spacing = mm(3), step.ends = FillEnds::apart;
    const auto id =
        must(fill_sets(b.project, catalog(), b.part, step, {find(b.project, b.part)->sets.front().id}));
    step.order = order;
    for (Step& s : find(b.project, b.part)->steps)
        if (s.id == id) s.what = step;
    const auto derived = b.derive();
    REQUIRE(derived->plan);
    std::vector<Stroke> out;
    for (const auto& move : derived->plan->program.moves)
        if (const auto* pass = std::get_if<PassMove>(&move))
            for (const Stroke& stroke : pass->strokes)
                if (stroke.of.step == id) out.push_back(stroke);
    REQUIRE(out.size() > 20);
    return out;
}

double travel(const std::vector<Stroke>& strokes) {
    double out = 0;
    for (std::size_t i = 1; i < strokes.size(); ++i)
        out += distance(strokes[i - 1].points.back(), strokes[i].points.front());
    return out;
}

} // namespace

TEST_CASE("the order that a fill is wished to be run in is the order in which the machine runs it") {
    const auto down = run_with(FillStep::Order::top_down);
    for (std::size_t i = 1; i < down.size(); ++i)
        CHECK(bounds(down[i]).y0 >= bounds(down[i - 1]).y0 - 1e-9);
    const auto pieces = run_with(FillStep::Order::by_piece);
    Box all; // of the four squares, in two columns and two rows
    for (const Stroke& stroke : pieces)
        all.add(bounds(stroke));
    const auto square = [&](const Stroke& stroke) {
        const Point p = bounds(stroke).centre(), middle = all.centre();
        return std::pair{p.x > middle.x, p.y > middle.y};
    };
    int changes = 0;
    for (std::size_t i = 1; i < pieces.size(); ++i)
        changes += square(pieces[i]) != square(pieces[i - 1]);
    CHECK(changes == 3);
    // Otherwise it is what takes the least travel.
    const double least = travel(run_with(FillStep::Order::as_drawn));
    CHECK(least < travel(down));
    CHECK(least <= travel(pieces) + 1e-9);
}
