// Routes against proven optimal tours: GLPK's travelling salesman example program (package glpk-utils, built
// here from its source with libglpk) solves random instances exactly.
#include <sstream>

#include "core/plan/route.h"
#include "core/plan/tour.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// The exact solver; distances are TSPLIB's EUC_2D, rounded to whole units (Reinelt 1991).
class Exact {
  public:
    Exact() {
        int status = 0;
        shell("cd '" + folder.path +
                  "' && cp /usr/share/doc/glpk-utils/examples/tsp/* . && (gunzip -f *.gz 2>/dev/null; gcc -w "
                  "-O2 -o solve main.c maxflow.c mincut.c misc.c "
                  "tsplib.c -lglpk -lm)",
              &status);
        if (status != 0) FAIL("GLPK's example could not be built");
    }
    double optimum(const std::vector<Point>& points) {
        std::ostringstream text;
        text << "NAME: x\nTYPE: TSP\nDIMENSION: " << points.size()
             << "\nEDGE_WEIGHT_TYPE: EUC_2D\nNODE_COORD_SECTION\n";
        for (std::size_t i = 0; i < points.size(); ++i)
            text << i + 1 << " " << points[i].x << " " << points[i].y << "\n";
        must(disk().write_atomically(folder / "x.tsp", text.str() + "EOF\n"));
        const std::string said = shell("cd '" + folder.path + "' && ./solve x.tsp");
        if (said.find("INTEGER OPTIMAL") == std::string::npos) FAIL("not solved: " << said);
        // "+   463: >>>>>   6.606000000e+04 >= ..." : the last incumbent is the optimum.
        return std::stod(said.substr(said.rfind(">>>>>") + 5));
    }
    TemporaryFolder folder;
};

} // namespace

TEST_CASE("tours are within a few percent of the proven optimum") {
    Exact exact;
    Random random("tours against GLPK");
    double ours = 0, best = 0;
    for (int round = 0; round < 6; ++round) {
        std::vector<Point> points;
        for (int i = 0; i < 60; ++i) {
            Point p{std::round(random.real(0, 1e5)), std::round(random.real(0, 1e5))};
            if (round >= 4) p = {5e3 + std::round(p.x / 20) * (i % 3), 5e3 + std::round(p.y / 20) * (i % 3)};
            points.push_back(p); // the last two in heaps
        }
        Polylines dots; // every other time lines of 0.001 mm, far below what an optimum is rounded to
        for (std::size_t i = 1; i < points.size(); ++i)
            dots.push_back(round % 2 ? line({points[i] * 1e-3, points[i] * 1e-3 + Point{1e-3, 0}})
                                     : line({points[i] * 1e-3}));
        const double found = in_mm(route(dots, {points[0] * 1e-3, false}).travel) * 1e3,
                     optimum = exact.optimum(points);
        INFO("seed " << random.seed() << " round " << round);
        CHECK(found >=
              optimum - 60); // whole units: each of the 60 ways may have been rounded up by half a unit
        CHECK(found <= optimum * 1.05);
        ours += found, best += optimum;
    }
    std::cout << "routes are " << 100 * (ours / best - 1) << " % above the optimum\n";
    // Iterated local search on small instances is expected within 1 to 2 % (Johnson and McGeoch 1996).
    CHECK(ours <= best * 1.02);
}
