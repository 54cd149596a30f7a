// Pieces that lie apart: how many there are and how large, by GEOS (libgeos-dev).
#include "core/recipe/arrangements.h"
#include "tests/reference/geos.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// The pieces of a union and the box of each, by area.
std::vector<double> areas_by_geos(const std::vector<Ring>& rings, double touch) {
    Geos::Geometry all(GEOSGeom_createEmptyPolygon());
    for (const Ring& ring : rings) // grown, so that what touches in a point or nearly is one
        all.reset(GEOSUnion(all.get(), Geos::mitre(Geos::polygon(ring).get(), touch).get()));
    std::vector<double> out;
    for (int i = 0; i < GEOSGetNumGeometries(all.get()); ++i)
        out.push_back(Geos::area(GEOSGetGeometryN(all.get(), i)));
    std::sort(out.begin(), out.end());
    return out;
}

double area_by_geos(const Polylines& lines, double touch) {
    Geos::Geometry all(GEOSGeom_createEmptyPolygon());
    for (const Polyline& line : lines)
        all.reset(GEOSUnion(all.get(), Geos::mitre(Geos::polygon(line.points).get(), touch).get()));
    return Geos::area(all.get());
}

} // namespace

TEST_CASE("rectangles at random fall into the pieces that GEOS finds in their union") {
    Geos geos;
    Random random("pieces");
    INFO("seed " << random.seed());
    for (int round = 0; round < 30; ++round) {
        // On whole millimetres: they overlap, touch along an edge or in a corner, or are a millimetre apart.
        std::vector<Ring> rings;
        RunSet run{LaneId{1}, LineSetId{1}, {}, "cut", {}};
        const int n = random.whole(2, 40);
        for (int i = 0; i < n; ++i) {
            const double x = random.whole(0, 120), y = random.whole(0, 120), w = random.whole(1, 20),
                         h = random.whole(1, 20);
            Ring ring{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}};
            if (random.coin()) std::reverse(ring.begin(), ring.end());
            rings.push_back(ring);
            run.lines.push_back({ring, true});
        }
        const LaidApart laid = lay_apart(StepReport::Apart{}, {}, {run}, no_progress());
        REQUIRE(laid.report.refused.empty());
        const auto expected = areas_by_geos(rings, 0.02);
        REQUIRE(laid.arrangements.size() == expected.size());
        std::vector<double> ours;
        std::size_t lines = 0;
        for (const Arrangement& a : laid.arrangements) {
            ours.push_back(area_by_geos(a.runs.at(0), 0.02));
            lines += a.runs[0].size();
        }
        CHECK(lines == rings.size());
        std::sort(ours.begin(), ours.end());
        for (std::size_t i = 0; i < ours.size(); ++i)
            CHECK(ours[i] == Approx(expected[i]).epsilon(1e-9)); // the same union of the same rectangles
    }
}

TEST_CASE("strokes at random hold together what they touch, by GEOS's distance") {
    Geos geos;
    Random random("pieces with strokes");
    INFO("seed " << random.seed());
    for (int round = 0; round < 30; ++round) {
        RunSet cut{LaneId{1}, LineSetId{1}, {}, "cut", {}}, drawn{LaneId{2}, LineSetId{2}, {}, "drawn", {}};
        std::vector<Geos::Geometry> bodies; // rectangles in a grid, 10 mm apart
        for (int i = 0; i < 9; ++i) {
            const double x = 30.0 * (i % 3), y = 30.0 * (i / 3);
            const Ring ring{{x, y}, {x + 20, y}, {x + 20, y + 20}, {x, y + 20}};
            cut.lines.push_back({ring, true});
            bodies.push_back(Geos::polygon(ring));
        }
        const int n = random.whole(1, 4);
        for (int i = 0; i < n; ++i) // hundredths of a millimetre: none lies within the tolerance by chance
            drawn.lines.push_back({{{random.whole(0, 8000) / 100.0, random.whole(0, 8000) / 100.0},
                                    {random.whole(0, 8000) / 100.0, random.whole(0, 8000) / 100.0}},
                                   false});
        // Each stroke joins all that it touches.
        std::vector<int> group(bodies.size());
        for (std::size_t i = 0; i < group.size(); ++i)
            group[i] = static_cast<int>(i);
        bool near = false;
        for (const Polyline& line : drawn.lines) {
            const auto stroke = Geos::lines({line});
            int first = -1;
            for (std::size_t i = 0; i < bodies.size(); ++i) {
                double gap = 0;
                GEOSDistance(stroke.get(), bodies[i].get(), &gap);
                near |= gap > 0 && gap < 0.06; // whether that touches is a matter of taste
                if (gap > 0) continue;
                if (first < 0) first = group[i];
                const int from = group[i];
                for (int& g : group)
                    if (g == from) g = first;
            }
        }
        if (near) continue;
        const std::set<int> expected(group.begin(), group.end());
        const LaidApart laid = lay_apart(StepReport::Apart{}, {cut.set}, {cut, drawn}, no_progress());
        CHECK(laid.arrangements.size() == expected.size());
    }
}
