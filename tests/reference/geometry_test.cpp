// Booleans, offsets, hatches and coverage against GEOS.
#include "core/lettering/outliner.h"
#include "core/recipe/coverage.h"
#include "core/recipe/hatch.h"
#include "tests/reference/geos.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

Region random_region(Random& random) {
    Region r = region_of({ring(random_ring(random, random.whole(4, 30), 8, 40))}, FillRule::nonzero);
    for (int h = random.whole(0, 3); h > 0; --h)
        r = subtracted(
            r, region_of({ring(random_ring(random, 7, 2, 8, {random.real(-18, 18), random.real(-18, 18)}))},
                         FillRule::nonzero));
    return r;
}

} // namespace

TEST_CASE("booleans are those of GEOS") {
    Geos geos;
    Random random("booleans against GEOS");
    for (int i = 0; i < 80; ++i) {
        const Region a = random_region(random),
                     b = transformed(random_region(random),
                                     Affine::translation({random.real(-30, 30), random.real(-30, 30)}));
        const auto ga = Geos::area_of(a), gb = Geos::area_of(b);
        INFO("seed " << random.seed() << " round " << i);
        // A grid of 1e-5 mm moves each of about 60 corners by half a step along edges of some 20 mm: far
        // below 0.01 mm2.
        CHECK(area_of(united(a, b)) ==
              Approx(Geos::area(Geos::Geometry(GEOSUnion(ga.get(), gb.get())).get())).margin(0.01));
        CHECK(area_of(intersected(a, b)) ==
              Approx(Geos::area(Geos::Geometry(GEOSIntersection(ga.get(), gb.get())).get())).margin(0.01));
        CHECK(area_of(subtracted(a, b)) ==
              Approx(Geos::area(Geos::Geometry(GEOSDifference(ga.get(), gb.get())).get())).margin(0.01));
    }
}

TEST_CASE("booleans and offsets of many rings, nested and apart, are those of GEOS") {
    Geos geos;
    Random random("scattered against GEOS");
    const auto scattered = [&] {
        Polylines rings; // a frame now and then, so that much lies in something else
        if (random.whole(0, 1) == 1) rings.push_back(ring({{-60, -60}, {60, -60}, {60, 60}, {-60, 60}}));
        if (random.whole(0, 1) == 1) rings.push_back(ring({{-50, -50}, {50, -50}, {50, 50}, {-50, 50}}));
        for (int n = random.whole(2, 60); n > 0; --n)
            rings.push_back(ring(random_ring(random, random.whole(3, 20), 0.5, random.real(1, 8),
                                             {random.real(-58, 58), random.real(-58, 58)})));
        return region_of(rings, FillRule::evenodd);
    };
    for (int i = 0; i < 40; ++i) {
        const Region a = scattered(), b = scattered();
        const auto ga = Geos::area_of(a), gb = Geos::area_of(b);
        INFO("seed " << random.seed() << " round " << i);
        // Up to 1,200 corners a half grid step off along edges of some 5 mm.
        CHECK(area_of(a) == Approx(Geos::area(ga.get())).margin(0.05));
        CHECK(area_of(united(a, b)) ==
              Approx(Geos::area(Geos::Geometry(GEOSUnion(ga.get(), gb.get())).get())).margin(0.05));
        CHECK(area_of(intersected(a, b)) ==
              Approx(Geos::area(Geos::Geometry(GEOSIntersection(ga.get(), gb.get())).get())).margin(0.05));
        CHECK(area_of(subtracted(a, b)) ==
              Approx(Geos::area(Geos::Geometry(GEOSDifference(ga.get(), gb.get())).get())).margin(0.05));
        const double by = random.real(-2, 3);
        INFO("by " << by);
        const Region grown = offset(a, mm(by), {Corner::round, 10, mm(0.0005)});
        CHECK(area_of(grown) == Approx(Geos::buffer_area(ga.get(), by, grown)).epsilon(5e-4).margin(0.05));
    }
}

TEST_CASE("booleans and offsets of long outlines are those of GEOS") {
    Geos geos;
    Random random("long outlines against GEOS");
    const auto outline = [&] {
        const int points = random.whole(2050, 3000), waves = random.whole(3, 80), kind = random.whole(0, 2);
        const double radius = random.real(10, 60), deep = random.real(0.005, 0.06);
        const Point middle{random.real(-25, 25), random.real(-25, 25)};
        Ring out;
        for (int i = 0; i < points; ++i) {
            const double t = 2 * 3.14159265358979 * i / points,
                         share = kind == 0   ? (i % 2 ? 1.0 : 1 - deep)
                                 : kind == 1 ? 1 - deep * (0.5 + 0.5 * std::sin(waves * t))
                                             : 1 - random.real(0, deep);
            out.push_back(middle + Point{std::cos(t), 0.7 * std::sin(t)} * (radius * share));
        }
        return region_of({ring(out)}, FillRule::nonzero);
    };
    for (int i = 0; i < 3; ++i) {
        INFO("seed " << random.seed() << " round " << i);
        const Region a = outline(), b = outline();
        const auto ga = Geos::area_of(a), gb = Geos::area_of(b);
        // Points where edges cross lie half a step of the grid off.
        const double strip = 5e-5 * in_mm(perimeter(a) + perimeter(b));
        const auto alike = [&](const Region& ours, GEOSGeometry* theirs) {
            const Geos::Geometry reference(theirs), mine = Geos::area_of(ours);
            CHECK(area_of(ours) == Approx(Geos::area(reference.get())).margin(strip));
            const Geos::Geometry differ(GEOSSymDifference(mine.get(), reference.get()));
            CHECK(Geos::area(differ.get()) <= strip);
        };
        alike(united(a, b), GEOSUnion(ga.get(), gb.get()));
        alike(intersected(a, b), GEOSIntersection(ga.get(), gb.get()));
        alike(subtracted(a, b), GEOSDifference(ga.get(), gb.get()));
        const double by = random.real(0.05, 1);
        const Region grown = offset(a, mm(by)), shrunk = offset(a, mm(-by));
        // Round corners are flattened to 0.005 mm.
        const double arcs = 0.005 * in_mm(perimeter(a));
        CHECK(area_of(grown) == Approx(Geos::area(Geos::buffer(ga.get(), by).get())).margin(arcs));
        CHECK(area_of(shrunk) == Approx(Geos::buffer_area(ga.get(), -by, shrunk)).margin(arcs));
    }
}

TEST_CASE("many areas that overlap, united at once and outlined, are those of GEOS") {
    Geos geos;
    Random random("many areas against GEOS");
    for (int i = 0; i < 6; ++i) {
        INFO("seed " << random.seed() << " round " << i);
        // On a lattice half of the time: edges lie on one another, corners meet edges.
        const double step = random.coin() ? 0.5 : 0;
        const auto on = [&](double v) { return step > 0 ? std::round(v / step) * step : v; };
        std::vector<Region> all;
        std::vector<GEOSGeometry*> each;
        std::size_t points = 0;
        while (points < 4500) {
            const double wide = random.real(1, 8);
            Ring drawn = random_ring(random, random.whole(3, 40), wide / 3, wide,
                                     {random.real(-70, 70), random.real(-50, 50)});
            for (Point& p : drawn)
                p = {on(p.x), on(p.y)};
            Region one = region_of({ring(drawn)}, FillRule::evenodd);
            if (random.coin())
                one = subtracted(one,
                                 region_of({ring(random_ring(random, 6, wide / 9, wide / 4, drawn.front()))},
                                           FillRule::nonzero));
            if (one.empty()) continue;
            points += point_count(one);
            each.push_back(Geos::area_of(one).release());
            all.push_back(std::move(one));
        }
        const Geos::Geometry many(GEOSGeom_createCollection(GEOS_GEOMETRYCOLLECTION, each.data(),
                                                            static_cast<unsigned>(each.size())));
        const Geos::Geometry theirs(GEOSUnaryUnion(many.get()));
        const Region ours = united(all);
        const Geos::Geometry mine = Geos::area_of(ours);
        double edges = 0;
        for (const Region& one : all)
            edges += in_mm(perimeter(one));
        const double strip = 5e-5 * edges;
        CHECK(Geos::area(Geos::Geometry(GEOSSymDifference(mine.get(), theirs.get())).get()) <= strip);
        const double by = random.real(0.05, 2);
        INFO("by " << by);
        // Round corners are flattened to 0.005 mm.
        CHECK(
            area_of(offset(ours, mm(by))) ==
            Approx(Geos::area(Geos::buffer(theirs.get(), by).get())).margin(0.005 * in_mm(perimeter(ours))));
    }
}

TEST_CASE("round offsets are those of GEOS") {
    Geos geos;
    Random random("offsets against GEOS");
    for (int i = 0; i < 60; ++i) {
        const Region a = random_region(random);
        const double by = random.real(-4, 6);
        INFO("seed " << random.seed() << " round " << i << " by " << by);
        // Both draw round corners with chords: GEOS 64 a quarter, here within 0.0005 mm.
        CHECK(area_of(offset(a, mm(by), {Corner::round, 10, mm(0.0005)})) ==
              Approx(Geos::area(Geos::buffer(Geos::area_of(a).get(), by).get())).epsilon(5e-4).margin(0.05));
    }
}

TEST_CASE("hatch lines are what GEOS cuts out of parallel lines") {
    Geos geos;
    Random random("hatch against GEOS");
    for (int i = 0; i < 60; ++i) {
        const Region a = random_region(random);
        const double spacing = random.real(0.3, 5), angle = random.real(0, 180);
        const HatchResult h =
            hatch(a, {mm(spacing), degrees(angle), FillEnds::apart, true, HatchOptions::Phase::origin});
        Polylines rows;
        const Affine turn = Affine::rotation(in_radians(degrees(angle)));
        for (int k = -300; k < 300; ++k) {
            const double y = (k + 0.5) * spacing;
            if (std::abs(y) < 60) rows.push_back(line({turn({-100, y}), turn({100, y})}));
        }
        const Geos::Geometry cut(GEOSIntersection(Geos::lines(rows).get(), Geos::area_of(a).get()));
        INFO("seed " << random.seed() << " round " << i);
        CHECK(in_mm(h.filled) == Approx(Geos::length(cut.get())).margin(0.02));
        CHECK(static_cast<int>(h.pieces) ==
              Approx(GEOSGetNumGeometries(cut.get())).margin(2)); // a line that only grazes a corner
    }
}

TEST_CASE("joined fills lie in the region by GEOS's judgement") {
    Geos geos;
    Random random("joins against GEOS");
    for (int i = 0; i < 60; ++i) {
        const Region a = random_region(random);
        const HatchResult h =
            hatch(a, {mm(random.real(0.3, 3)), degrees(random.real(0, 180)), FillEnds::joined, true});
        const auto around = Geos::buffer(Geos::area_of(a).get(), 1e-3);
        INFO("seed " << random.seed() << " round " << i);
        for (const Polyline& l : h.lines)
            CHECK(GEOSCovers(around.get(), Geos::lines({l}).get()) == 1);
    }
}

TEST_CASE("coverage and overspill are those of GEOS's buffers") {
    Geos geos;
    Random random("coverage against GEOS");
    for (int i = 0; i < 25; ++i) {
        const Region a = random_region(random);
        const double tip = random.real(0.3, 1.2), spacing = random.real(0.4, 2), angle = random.real(0, 180);
        const HatchResult h =
            hatch(offset(a, mm(-random.real(0, 0.5))),
                  {mm(spacing), degrees(angle), random.coin() ? FillEnds::joined : FillEnds::apart, true});
        if (h.lines.empty()) continue;
        const Coverage c = coverage(a, h.lines, mm(tip), degrees(angle));
        const auto ink = Geos::buffer(Geos::lines(h.lines).get(), tip / 2), region = Geos::area_of(a);
        const double inside = Geos::area(Geos::Geometry(GEOSIntersection(ink.get(), region.get())).get());
        const double all = Geos::area(ink.get()), whole = Geos::area(region.get());
        INFO("seed " << random.seed() << " round " << i);
        CHECK(c.covered_percent == Approx(100 * inside / whole).margin(0.2)); // what the header promises
        CHECK(c.overspill_percent == Approx(100 * (all - inside) / whole).margin(0.2));
    }
}

TEST_CASE("outlines and cut-outs of real letters are those of GEOS: area and Hausdorff distance") {
    Geos geos;
    FontShelf fonts;
    must(fonts.add_folder(disk(), DOTLANE_SOURCE "/data/fonts"));
    int letters = 0;
    double worst = 0;
    for (const char* family : {"Lobster Two", "Dancing Script", "League Spartan", "EB Garamond"}) {
        const auto text = must(fonts.outline({family}, mm(30), "RgSa&8e"));
        Region before;
        for (const GlyphOutline& g : text.glyphs) {
            const Region letter = region_of(g.shape, mm(0.005));
            if (letter.empty()) continue;
            ++letters;
            INFO(family);
            const Geos::Geometry theirs = Geos::area_of(letter);
            for (const double by : {0.5, 3.0, 12.0, -0.2, -0.6}) {
                INFO("by " << by);
                const Region ours = offset(letter, mm(by), {Corner::round, 10, mm(0.002)});
                const Geos::Geometry want = Geos::buffer(theirs.get(), by);
                CHECK(area_of(ours) == Approx(Geos::area(want.get())).epsilon(2e-3).margin(0.05));
                if (ours.empty() || GEOSisEmpty(want.get())) continue;
                double apart = 0;
                GEOSHausdorffDistance(Geos::area_of(ours).get(), want.get(), &apart);
                // Pieces that just close or open at this distance may be there in one and not in the other.
                if (ours.rings.size() == static_cast<std::size_t>(1)) worst = std::max(worst, apart);
            }
            // The letter before, moved over this one, cut out of it and joined with it.
            if (!before.empty()) {
                const Box a = bounds(letter), b = bounds(before);
                const Region over =
                    transformed(before, Affine::translation({a.x0 - b.x0 - 2, a.y0 - b.y0 + 3}));
                const Geos::Geometry cutter = Geos::area_of(over);
                CHECK(area_of(subtracted(letter, over)) ==
                      Approx(Geos::area(Geos::Geometry(GEOSDifference(theirs.get(), cutter.get())).get()))
                          .margin(0.01));
                CHECK(area_of(united(letter, over)) ==
                      Approx(Geos::area(Geos::Geometry(GEOSUnion(theirs.get(), cutter.get())).get()))
                          .margin(0.01));
            }
            before = letter;
        }
    }
    CHECK(letters >= 24);
    std::cout << letters << " letters, outlines at most " << worst << " mm from GEOS's\n";
    CHECK(worst < 0.05); // the measure takes corners only: an edge of GEOS's polygon has none in its middle
}

TEST_CASE("whole words, joined, rimmed, inset and cut out of a plate, are those of GEOS") {
    Geos geos;
    FontShelf fonts;
    must(fonts.add_folder(disk(), DOTLANE_SOURCE "/data/fonts"));
    for (const char* family : {"Lobster Two", "Dancing Script", "League Spartan", "EB Garamond"}) {
        INFO(family);
        const auto text = must(fonts.outline({family}, mm(20), "Saltmarsh Lantern & Quay, 48"));
        std::vector<Region> letters;
        Geos::Geometry theirs(GEOSGeom_createEmptyPolygon());
        for (const GlyphOutline& g : text.glyphs) {
            const Region letter = region_of(g.shape, mm(0.005));
            if (letter.empty()) continue;
            letters.push_back(offset(letter, mm(0.4))); // so that most touch their neighbours
            theirs.reset(GEOSUnion(theirs.get(), Geos::area_of(letters.back()).get()));
        }
        const Region word = united(letters);
        CHECK(area_of(word) == Approx(Geos::area(theirs.get())).margin(0.02));
        const Box box = bounds(word).grown(8);
        const Region plate =
            region_of({ring({{box.x0, box.y0}, {box.x1, box.y0}, {box.x1, box.y1}, {box.x0, box.y1}})},
                      FillRule::nonzero);
        const Region stencil = subtracted(plate, word);
        CHECK(area_of(stencil) == Approx(area_of(plate) - area_of(word)).margin(0.01));
        for (const double by : {-1.0, -0.3, 0.3, 1.0, 2.5, 6.0}) {
            INFO("by " << by);
            // Letters as pieces, and as holes of one piece. Chords are within 0.002 mm, on one side, a few
            // times over.
            for (const Region* area : {&word, &stencil})
                CHECK(area_of(offset(*area, mm(by), {Corner::round, 10, mm(0.002)})) ==
                      Approx(Geos::area(Geos::buffer(Geos::area_of(*area).get(), by).get()))
                          .epsilon(1e-4)
                          .margin(0.004 * in_mm(perimeter(*area))));
        }
        // Grown and shrunk again nothing is lost but what chords take: 0.005 mm along the outline.
        const Region closed = offset(offset(word, mm(1)), mm(-1));
        CHECK(area_of(subtracted(word, closed)) < 0.005 * in_mm(perimeter(word)));
        CHECK(area_of(closed) > area_of(word) - 0.005 * in_mm(perimeter(word)));
    }
}

TEST_CASE("inward bevels aside, bevelled and mitred outlines are those of GEOS") {
    Geos geos;
    Random random("bevels against GEOS");
    for (int i = 0; i < 40; ++i) {
        const Region a =
            region_of({{random_ring(random, random.whole(3, 20), 10, 40), true}}, FillRule::nonzero);
        const double by = random.real(0.5, 6);
        INFO("seed " << random.seed() << " round " << i);
        const Geos::Geometry ga = Geos::area_of(a);
        const Geos::Geometry bevel(
            GEOSBufferWithStyle(ga.get(), by, 64, GEOSBUF_CAP_FLAT, GEOSBUF_JOIN_BEVEL, 1));
        CHECK(area_of(offset(a, mm(by), {Corner::bevel})) == Approx(Geos::area(bevel.get())).epsilon(2e-3));
        CHECK(area_of(offset(a, mm(by), {Corner::mitre, 1000})) ==
              Approx(Geos::area(Geos::mitre(ga.get(), by).get())).epsilon(2e-3));
    }
}
