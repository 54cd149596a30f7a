// What is too narrow for a tip to stay inside, and is run along its middle instead: how much of it is inked,
// by GEOS.
#include "core/lettering/outliner.h"
#include "core/project/steps/fill.h"
#include "core/recipe/step.h"
#include "tests/reference/geos.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

constexpr const char* syllables[] = {"sal", "mar", "sh",  "lan", "tern", "wal", "Wa", "Que", "fly", "ing",
                                     "zep", "Th",  "ick", "bri", "jo",   "Ky",  "ox", "Gu",  "vel", "Ra"};

/// Letters of a script face, each with its counters.
Region word(Random& random, const char* family) {
    std::string text;
    for (int k = random.whole(2, 4); k > 0; --k)
        text += syllables[random.whole(0, static_cast<int>(std::size(syllables)) - 1)];
    const auto outlined = must(fonts().outline({family}, mm(12), text));
    Region out;
    for (const auto& glyph : outlined.glyphs)
        out = united(out, region_of(glyph.shape, mm(0.005)));
    return out;
}

/// The lines that the step makes of the region, for a lane with this tip.
Polylines made_by(const FillStep& step, const Region& region, double tip) {
    WorkSet set{LineSetId{1}, {}, false, {line_of(region, {})}, {}};
    StepInput in;
    in.of = {&set}, in.tip = mm(tip);
    const StepOutcome out = run_step(step, in, no_progress());
    REQUIRE(out.made);
    return out.made->strokes;
}

Geos::Geometry ink_of(const Polylines& lines, double tip) {
    Geos::Geometry out(GEOSGeom_createEmptyPolygon());
    for (const Polyline& line : lines) // one by one: of many that touch GEOS makes less than of each
        if (line.points.size() > 1)
            out.reset(GEOSUnion(out.get(), Geos::buffer(Geos::lines({line}).get(), tip / 2).get()));
    return out;
}

struct Inked {
    double thin = 0, inked = 0; ///< mm2
};

/// Thin strokes are what a disc as wide as the tip leaves of the region, but for what reaches less than one
/// and three quarter tips away from what the disc covers: that may be a corner, which every round tip leaves.
Inked inked_thin(const Region& region, const Polylines& lines, double tip) {
    Inked out;
    const auto whole = Geos::area_of(region), ink = ink_of(lines, tip);
    // (A hair wider, or what its arcs leave along curves would count.)
    const auto wide = Geos::buffer(Geos::buffer(whole.get(), -tip / 2).get(), tip / 2 * 1.001);
    const Geos::Geometry rest(GEOSDifference(whole.get(), wide.get()));
    const auto near = Geos::buffer(wide.get(), 1.75 * tip);
    for (int i = 0; i < GEOSGetNumGeometries(rest.get()); ++i) {
        const GEOSGeometry* piece = GEOSGetGeometryN(rest.get(), i);
        if (GEOSCovers(near.get(), piece) == 1) continue;
        out.thin += Geos::area(piece);
        out.inked += Geos::area(Geos::Geometry(GEOSIntersection(piece, ink.get())).get());
    }
    return out;
}

} // namespace

// 90 % is what the issue of fills asks for. A tip that runs along the middle of what is narrower than it is
// reaches all of that, so what it can reach is the whole.
TEST_CASE("thin strokes of script faces at 12 mm are inked to 90 % and more when they are run as one line") {
    Geos geos;
    Random random("thin strokes of script faces");
    for (const char* family : {"Dancing Script", "Lobster Two"}) {
        double thin = 0, with = 0, without = 0;
        for (int round = 0; round < 6; ++round) {
            const Region region = word(random, family);
            const double tip = random.real(0.4, 0.5) + 0.1 * round; // fine ones and broad ones
            FillStep step;
            step.ends = random.coin() ? FillEnds::joined : FillEnds::one_stroke;
            step.angle = degrees(random.real(0, 180));
            step.centre_lines = true;
            const Inked all = inked_thin(region, made_by(step, region, tip), tip);
            step.centre_lines = false;
            const Inked bare = inked_thin(region, made_by(step, region, tip), tip);
            UNSCOPED_INFO("seed " << random.seed() << " " << family << " round " << round << " tip " << tip
                                  << ": " << all.thin << " mm2 thin, " << 100 * all.inked / all.thin
                                  << " % inked, " << 100 * bare.inked / bare.thin << " % without");
            thin += all.thin, with += all.inked, without += bare.inked;
            if (all.thin > 2) CHECK(all.inked >= 0.9 * all.thin);
        }
        CHECK(thin > 5); // or nothing was looked at
        CHECK(with >= 0.9 * thin);
        CHECK(without < 0.7 * thin); // or it would say nothing
    }
}
