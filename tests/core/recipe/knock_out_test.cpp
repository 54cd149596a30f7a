// Layers that lie on one another: what is seen of them stays, what is hidden goes.
#include <array>
#include <cmath>
#include <map>
#include <set>
#include <sstream>

#include "core/commands/apart.h"
#include "core/commands/remedies.h"
#include "core/commands/steps.h"
#include "core/derive/saving.h"
#include "tests/support/recipe.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

std::string filled(double x, double y, double w, double h, const char* colour) {
    std::ostringstream out;
    out << "<rect x='" << x << "' y='" << y << "' width='" << w << "' height='" << h << "' fill='" << colour
        << "'/>";
    return out.str();
}

KnockOutStep mode(KnockOutStep::Mode how, double underlap = 1) {
    KnockOutStep out;
    out.mode = how, out.underlap = mm(underlap);
    return out;
}

/// A line set for each line.
struct Pile : Recipe {
    std::vector<LineSetId> sets;
    explicit Pile(const std::string& elements)
        : Recipe(elements) {
        const auto lines = b.lines();
        for (const LineId line : lines)
            sets.push_back(must(gather(b.project, b.part, {line}, "layer " + std::to_string(line.value))));
    }
};

} // namespace

TEST_CASE("of two squares the lower one loses what the upper one hides, but for the underlap") {
    const std::string two = filled(10, 10, 40, 40, "#a8462d") + filled(30, 30, 40, 40, "#111");
    for (const auto& [how, lower] :
         {std::pair{KnockOutStep::Mode::full, 1600.0}, std::pair{KnockOutStep::Mode::knock_out, 1200.0},
          // Two strips of 20 x 2 in the hidden square, and the corner they share
          std::pair{KnockOutStep::Mode::trap, 1200.0 + 76}}) {
        Pile p(two);
        const StepId id = p.add(mode(how, 2), p.sets);
        CHECK(p.square(p.sets[0]) == Approx(lower).margin(0.01));
        CHECK(p.square(p.sets[1]) == Approx(1600).margin(0.01)); // the top's copy is whole
        CHECK(p.figure(id, "saved") == Approx(1600 - lower).margin(0.01));
        CHECK(p.figure(id, "hidden") == Approx(400).margin(0.01)); // whatever is done with it
        CHECK(p.figure(id, "seen") == Approx(2800).margin(0.01));
        CHECK(p.figure(id, "changed") == 0);
    }
}

TEST_CASE("an underlap as wide as all that is hidden is told with how wide it may be, and mended") {
    Random dice("wide underlap");
    for (int round = 0; round < 20; ++round) {
        const double wide = dice.real(2, 30), high = dice.real(2, 30), half = std::min(wide, high) / 2;
        Pile p(filled(10, 10, 60, 60, "#a8462d") + filled(20, 25, wide, high, "#111"));
        const StepId id = p.add(mode(KnockOutStep::Mode::trap, half + dice.real(0.05, 5)), p.sets);
        INFO(wide << " x " << high);
        CHECK(p.figure(id, "saved") == Approx(0).margin(0.01));
        const Finding told = get(p.derived->findings, "knock-out.underlap");
        // A rectangle's widest disc, which is looked for to 0.5 % and told to a hundredth of a millimetre.
        CHECK(*number_argument(told, "under_mm") == Approx(half).epsilon(0.006).margin(0.006));
        CHECK(told.place.box.x0 >= 19.9);
        CHECK(told.place.box.x1 <= 20.1 + wide);
        must(apply(MendFinding{told}, p.b.project, catalog(), *p.derived));
        CHECK(p.figure(id, "saved") > 0);
        CHECK_FALSE(has(p.derived->findings, "knock-out.underlap"));
    }
    Pile little(filled(10, 10, 60, 60, "#a8462d") + filled(20, 25, 20, 20, "#111"));
    little.add(mode(KnockOutStep::Mode::trap, 9), little.sets);
    CHECK_FALSE(little.told("knock-out.underlap"));
    Pile apart(filled(10, 10, 20, 20, "#a8462d") + filled(50, 25, 20, 20, "#111")); // nothing is hidden
    apart.add(mode(KnockOutStep::Mode::trap, 9), apart.sets);
    CHECK_FALSE(apart.told("knock-out.underlap"));
}

TEST_CASE("layers that lie on one another are told to be of stocks of their own, not to cross") {
    const std::string two = filled(10, 10, 40, 40, "#a8462d") + filled(30, 30, 40, 40, "#111");
    for (const auto how :
         {KnockOutStep::Mode::full, KnockOutStep::Mode::knock_out, KnockOutStep::Mode::trap}) {
        Pile p(two);
        p.part();
        CHECK(has(p.derived->findings, "piece.cross")); // as long as all is cut of one sheet
        p.add(mode(how, 2), p.sets);
        p.part();
        const bool piled = how != KnockOutStep::Mode::knock_out;
        CHECK(has(p.derived->findings, "piece.piled") == piled);
        CHECK_FALSE(has(p.derived->findings, "piece.neck"));
        if (!piled) continue;
        CHECK_FALSE(has(p.derived->findings, "piece.cross"));
        const Finding told = get(p.derived->findings, "piece.piled");
        must(apply(MendFinding{told}, p.b.project, catalog(), *p.derived));
        const auto apart = p.b.derive();
        CHECK_FALSE(has(apart->findings, "piece.piled"));
        CHECK_FALSE(has(apart->findings, "piece.cross"));
    }
    // What is thin in a layer by itself is told all the same.
    Pile p(two + filled(20, 60, 30, 0.3, "#2f5d62"));
    p.add(mode(KnockOutStep::Mode::full), p.sets);
    p.part();
    std::string codes;
    for (const Finding& f : p.derived->findings)
        codes += f.code + " ";
    INFO(codes);
    CHECK(has(p.derived->findings, "piece.thin"));
}

TEST_CASE("fifty layers deep, each sees its own rim, and the top is whole") {
    std::string rings;
    for (int i = 0; i < 50; ++i)
        rings += filled(10 + i, 10 + i, 160 - 2 * i, 160 - 2 * i, i % 2 ? "#a8462d" : "#111");
    Pile p(rings);
    const StepId id = p.add(mode(KnockOutStep::Mode::knock_out), p.sets);
    for (std::size_t i = 0; i < 50; ++i) {
        const double side = 160 - 2.0 * static_cast<double>(i);
        CHECK(p.square(p.sets[i]) ==
              Approx(i == 49 ? side * side : side * side - (side - 2) * (side - 2)).margin(0.01));
    }
    CHECK(p.figure(id, "seen") == Approx(160 * 160).margin(0.01));
}

TEST_CASE("what is kept of random piles adds up to what was seen, layer by layer, counted on a raster") {
    Random random("random piles");
    for (int round = 0; round < 8; ++round) {
        const int count = random.whole(3, 12);
        std::vector<std::array<double, 4>> boxes;
        std::string elements;
        for (int i = 0; i < count; ++i) {
            boxes.emplace_back();
            for (std::size_t k = 0; k < 4; ++k) // as they are written, to six digits
                boxes.back()[k] = std::round(k < 2 ? random.real(500, 12000) : random.real(800, 7000)) / 100;
            elements += filled(boxes[i][0], boxes[i][1], boxes[i][2], boxes[i][3], "#111");
        }
        INFO("seed " << random.seed() << " round " << round);
        Pile p(elements);
        const bool trap = random.coin();
        const double underlap = random.real(0.5, 3);
        const StepId id =
            p.add(mode(trap ? KnockOutStep::Mode::trap : KnockOutStep::Mode::knock_out, underlap), p.sets);
        std::vector<Region> kept;
        for (const LineSetId set : p.sets)
            kept.push_back(p.area_of(set));
        // Of points by chance: which layer is uppermost, in the drawing and in what is kept.
        int wrong = 0, hidden = 0, spare = 0;
        for (int n = 0; n < 4000; ++n) {
            const Point at{random.real(0, 200), random.real(0, 200)};
            int drawn = -1, left = -1;
            for (int i = 0; i < count; ++i) {
                const auto& [x, y, w, h] = boxes[i];
                if (at.x > x && at.x < x + w && at.y > y && at.y < y + h) drawn = i;
                if (contains(kept[static_cast<std::size_t>(i)], at)) left = i;
            }
            wrong += drawn != left;
            for (int i = 0; i < drawn; ++i) {
                const auto& [x, y, w, h] = boxes[i];
                if (!(at.x > x && at.x < x + w && at.y > y && at.y < y + h)) continue;
                ++hidden;
                spare += contains(kept[static_cast<std::size_t>(i)], at);
            }
        }
        CHECK(wrong == 0);
        CHECK(p.figure(id, "changed") == 0);
        if (!trap) CHECK(spare == 0);
        if (hidden > 500) CHECK(spare < hidden);
    }
}

TEST_CASE("slivers are told with their place, and join the neighbour with which they share most edge") {
    // The lower square looks out by 0.4 mm on one side.
    Pile p(filled(10, 10, 40, 40, "#a8462d") + filled(10.4, 5, 60, 60, "#111"));
    const StepId id = p.add(mode(KnockOutStep::Mode::knock_out), p.sets);
    p.part();
    const Finding told = get(p.derived->findings, "knock-out.slivers");
    CHECK(told.place.box.x1 == Approx(10.4).margin(0.01));
    CHECK(p.figure(id, "slivers") == 1);
    must(apply(MendFinding{told}, p.b.project, catalog(), *p.derived));
    CHECK_FALSE(has(p.b.derive()->findings, "knock-out.slivers"));
    CHECK(p.square(p.sets[0]) == Approx(0).margin(0.01));
    CHECK(p.square(p.sets[1]) == Approx(60 * 60 + 0.4 * 40).margin(0.5)); // joined a hair wider
    CHECK(pieces(p.area_of(p.sets[1])).size() == 1);
    // Dropped, it leaves a gap in the picture, which is said.
    KnockOutStep drop = mode(KnockOutStep::Mode::knock_out);
    drop.slivers = KnockOutStep::Slivers::drop;
    must(apply(ChangeStep{p.b.part, id, drop}, p.b.project, catalog()));
    CHECK(has(p.b.derive()->findings, "knock-out.changed"));
}

TEST_CASE("a drawing's colours are its layers, and become parts that are knocked out all the same") {
    Recipe r(filled(10, 10, 60, 60, "#a8462d") + filled(30, 30, 60, 60, "#1f4e79") +
             filled(50, 50, 60, 60, "#22282c") + filled(12, 12, 5, 5, "#1f4e79"));
    r.part();
    const Part& before = *find(r.b.project, r.b.part);
    const std::size_t sets = before.sets.size();
    const auto done = must(apply(AddStep{r.b.part, mode(KnockOutStep::Mode::knock_out)}, r.b.project,
                                 catalog(), *r.derived->part(r.b.part)));
    CHECK(find(r.b.project, r.b.part)->sets.size() >= std::max<std::size_t>(sets, 3));
    CHECK(r.figure(done.step, "layers") == 3);
    // red: 3600 less 40 x 40 below blue, less the small blue square; blue: 3600 + 25 less 40 x 40 below
    // black.
    CHECK(r.figure(done.step, "seen") == Approx(3600 - 1600 - 25 + 3625 - 1600 + 3600).margin(0.01));
    CHECK(r.figure(done.step, "saved") == Approx(1600 + 25 + 1600).margin(0.01));

    const auto apart = must(apply(TakeApart{r.b.part, ApartBy::colour}, r.b.project, catalog(), fonts(),
                                  *r.derived->part(r.b.part)));
    REQUIRE(apart.parts.size() == 3);
    must(check_rules(r.b.project));
    const auto derived = r.b.derive();
    std::vector<double> run;
    for (const PartId id : apart.parts) {
        std::vector<Region> all;
        for (const RunSet& set : derived->part(id)->runs)
            all.push_back(region_of(set.lines, FillRule::evenodd));
        run.push_back(in_square_mm(area(united(all))));
    }
    std::sort(run.begin(), run.end());
    CHECK(run[0] == Approx(3600 - 1600 - 25).margin(0.01));
    CHECK(run[1] == Approx(3625 - 1600).margin(0.01));
    CHECK(run[2] == Approx(3600).margin(0.01));
}

TEST_CASE(
    "layers that lie on one another by turns show the same picture when they are knocked out or trapped") {
    Random random("layers by turns");
    const char* const colours[] = {"#a8462d", "#1f4e79", "#22282c", "#a8832d"};
    for (int round = 0; round < 10; ++round) {
        const int count = random.whole(4, 14), of = random.whole(2, 4);
        std::vector<std::array<double, 4>> boxes;
        std::vector<int> layer;
        std::string elements;
        for (int i = 0; i < count; ++i) {
            boxes.emplace_back();
            for (std::size_t k = 0; k < 4; ++k) // as they are written, to six digits
                boxes.back()[k] = std::round(k < 2 ? random.real(500, 12000) : random.real(800, 7000)) / 100;
            layer.push_back(i < of ? i : random.whole(0, of - 1)); // each colour is there
            const auto& [x, y, w, h] = boxes.back();
            elements += filled(x, y, w, h, colours[layer.back()]);
        }
        Recipe r(elements);
        const bool trap = random.coin(0.7);
        INFO("seed " << random.seed() << " round " << round << (trap ? " trapped" : " knocked out"));
        r.part();
        KnockOutStep what =
            mode(trap ? KnockOutStep::Mode::trap : KnockOutStep::Mode::knock_out, random.real(0.5, 4));
        const StepId id =
            must(apply(AddStep{r.b.part, what}, r.b.project, catalog(), *r.derived->part(r.b.part))).step;
        CHECK(r.figure(id, "changed") == 0);
        // Which set is seen, by the order in which the lines lie now.
        std::map<int, std::set<LineSetId>> met;
        std::vector<std::pair<Region, LineSetId>> kept;
        for (const FlatLine& line : r.part().lines)
            kept.emplace_back(region_of(line.contours, line.rule, line.filled), line.set);
        int bare = 0;
        for (int n = 0; n < 3000; ++n) {
            const Point at{random.real(0, 200), random.real(0, 200)};
            int drawn = -1;
            for (int i = 0; i < count; ++i) {
                const auto& [x, y, w, h] = boxes[static_cast<std::size_t>(i)];
                if (at.x > x && at.x < x + w && at.y > y && at.y < y + h)
                    drawn = layer[static_cast<std::size_t>(i)];
            }
            LineSetId left;
            for (const auto& [region, set] : kept)
                if (contains(region, at)) left = set;
            bare += (drawn < 0) != !left;
            if (drawn >= 0 && left) met[drawn].insert(left);
        }
        CHECK(bare == 0);
        std::set<LineSetId> all;
        for (const auto& [colour, sets] : met) {
            CHECK(sets.size() == 1); // a colour is always the same set
            all.insert(sets.begin(), sets.end());
        }
        CHECK(all.size() == met.size());
    }
}

TEST_CASE("what is saved is told in sheets and money of the stock that the part is of") {
    Recipe r("<rect x='10' y='10' width='60' height='60' fill='#a8462d'/>"
             "<rect x='30' y='30' width='20' height='20' fill='#22282c'/>");
    Part& part = *find(r.b.project, r.b.part);
    part.stock.clear();
    Project nowhere = r.b.project;
    nowhere.sheets.clear();
    CHECK_FALSE(stock_saved(nowhere, catalog(), part, square_mm(400)));
    // Of the sheet that it lies on: cream card of 304.8 x 304.8 mm at 0.62.
    const auto lying = stock_saved(r.b.project, catalog(), part, square_mm(400));
    REQUIRE(lying);
    CHECK(lying->sheets == Approx(400 / (304.8 * 304.8)));
    CHECK(lying->price == Approx(lying->sheets * 0.62));
    part.stock = "stencil-film-12x24", part.quantity = 3;
    const auto own = stock_saved(r.b.project, catalog(), part, square_mm(400));
    REQUIRE(own);
    CHECK(own->sheets == Approx(3 * 400 / (304.8 * 609.6)));
    CHECK(own->price == Approx(own->sheets * 1.9));
}
