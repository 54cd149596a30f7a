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

/// Of TSPLIB (Reinelt 1991), as GLPK's examples bring it: places in the plane, and the distances that count.
struct Instance {
    std::vector<Point> places;
    std::vector<std::vector<double>> distances;
};

/// Whole kilometres over the globe, as TSPLIB's GEO counts them.
double over_the_globe(Point a, Point b) {
    const auto radians = [](double degrees_minutes) {
        const double whole = std::trunc(degrees_minutes);
        return 3.141592 * (whole + 5 * (degrees_minutes - whole) / 3) / 180;
    };
    const double north = radians(a.x), east = radians(a.y), to_north = radians(b.x), to_east = radians(b.y);
    const double q1 = std::cos(east - to_east), q2 = std::cos(north - to_north),
                 q3 = std::cos(north + to_north);
    return std::floor(6378.388 * std::acos(0.5 * ((1 + q1) * q2 - (1 - q1) * q3)) + 1);
}

Instance instance(const std::string& name) {
    std::istringstream in(file("/usr/share/doc/glpk-utils/examples/tsp/" + name + ".tsp"));
    Instance out;
    std::string word;
    std::size_t n = 0;
    while (in >> word) {
        if (word == "DIMENSION:" || word == "DIMENSION") {
            while (!(in >> n))
                in.clear(), in.get(); // a colon that stands by itself
            out.distances.assign(n, std::vector<double>(n));
        } else if (word == "EDGE_WEIGHT_SECTION") { // the lower triangle
            for (std::size_t i = 0; i < n; ++i)
                for (std::size_t k = 0; k <= i; ++k)
                    in >> out.distances[i][k], out.distances[k][i] = out.distances[i][k];
        } else if (word == "DISPLAY_DATA_SECTION" || word == "NODE_COORD_SECTION") {
            for (std::size_t i = 0, number = 0; i < n; ++i) {
                Point p;
                in >> number >> p.x >> p.y;
                out.places.push_back(p);
            }
            if (word == "DISPLAY_DATA_SECTION") continue;
            for (std::size_t i = 0; i < n; ++i)
                for (std::size_t k = 0; k < n; ++k)
                    out.distances[i][k] = i == k ? 0 : over_the_globe(out.places[i], out.places[k]);
            for (Point& p : out.places) // as on a map
                p = {p.y * std::cos(p.x * 3.1416 / 180) * 10, -p.x * 10};
        }
    }
    return out;
}

} // namespace

TEST_CASE("the tours of dantzig42, ulysses22 and gr120 by their own distances, found on the map") {
    // Their distances are roads or the globe, and no carriage runs along those: the shortest tour on the map
    // is off by what roads wind, some percent (2, 0.4 and 3.5 as this was written).
    const std::tuple<const char*, double, double> all[] = {
        {"dantzig42", 699, 1.05}, {"ulysses22", 7013, 1.05}, {"gr120", 6942, 1.05}};
    for (const auto& [name, optimum, most] : all) {
        INFO(name);
        const Instance it = instance(name);
        REQUIRE(it.places.size() > 20);
        Polylines dots;
        for (std::size_t i = 1; i < it.places.size(); ++i)
            dots.push_back(line({it.places[i]}));
        const RouteResult found = route(dots, {it.places[0], false, Effort::best});
        double length = 0;
        std::size_t at = 0;
        for (const RoutedLine& next : found.order)
            length += it.distances[at][next.line + 1], at = next.line + 1;
        length += it.distances[at][0];
        std::cout << name << ": " << length << " where " << optimum << " is the optimum\n";
        CHECK(length >= optimum);
        CHECK(length <= optimum * most);
    }
}

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

TEST_CASE("the tour of berlin52 is the proven optimum") {
    // TSPLIB (Reinelt 1991): 52 places, optimum 7542 in whole units. Its coordinates are from memory, so the
    // exact solver says first whether they are those.
    const std::vector<Point> points = {
        {565, 575},   {25, 185},   {345, 750},  {945, 685},  {845, 655},  {880, 660}, {25, 230},  {525, 1000},
        {580, 1175},  {650, 1130}, {1605, 620}, {1220, 580}, {1465, 200}, {1530, 5},  {845, 680}, {725, 370},
        {145, 665},   {415, 635},  {510, 875},  {560, 365},  {300, 465},  {520, 585}, {480, 415}, {835, 625},
        {975, 580},   {1215, 245}, {1320, 315}, {1250, 400}, {660, 180},  {410, 250}, {420, 555}, {575, 665},
        {1150, 1160}, {700, 580},  {685, 595},  {685, 610},  {770, 610},  {795, 645}, {720, 635}, {760, 650},
        {475, 960},   {95, 260},   {875, 920},  {700, 500},  {555, 815},  {830, 485}, {1170, 65}, {830, 610},
        {605, 625},   {595, 360},  {1340, 725}, {1740, 245}};
    REQUIRE(Exact().optimum(points) == 7542);
    Polylines dots;
    for (std::size_t i = 1; i < points.size(); ++i)
        dots.push_back(line({points[i] * 0.1}));
    const double first = in_mm(route(dots, {points[0] * 0.1, false}).travel) * 10,
                 best = in_mm(route(dots, {points[0] * 0.1, false, Effort::best}).travel) * 10;
    std::cout << "berlin52: " << first << " at first, " << best << " in the end\n";
    CHECK(first <= 7542 * 1.02);
    CHECK(std::abs(best - 7542) <= 26); // each of its 52 ways is rounded by up to half a unit
}
