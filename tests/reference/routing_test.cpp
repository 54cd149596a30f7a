// Routes against known optimal tours: instances of TSPLIB (Reinelt 1991) as they ship with GLPK's examples.
#include <sstream>

#include "core/plan/route.h"
#include "core/plan/tour.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

std::vector<Point> points_of(const std::string& name) {
    std::string text = shell("zcat -f /usr/share/doc/glpk-utils/examples/tsp/" + name + "* 2>/dev/null");
    const auto at = text.find("NODE_COORD_SECTION");
    if (at == std::string::npos) FAIL("no coordinates in " << name);
    std::istringstream in(text.substr(text.find('\n', at)));
    std::vector<Point> out;
    int i = 0;
    Point p;
    while (in >> i >> p.x >> p.y) out.push_back(p);
    return out;
}

double tour_length(const std::vector<Point>& points) {
    std::vector<TourItem> items;
    for (const Point p : points) items.push_back({p, p, true});
    Tour tour(items);
    tour.improve(no_progress());
    return tour.cost();
}

} // namespace

TEST_CASE("d493: within 7 % of the proven lower bound") {
    // Lower bound 34824.5 of the linear relaxation with subtour cuts, computed with GLPK (references of the design);
    // 2-opt with or-opt on neighbour lists is expected about 5 % above the optimum (Johnson and McGeoch 1996).
    const auto points = points_of("d493");
    REQUIRE(points.size() == 493);
    const double ours = tour_length(points);
    std::cout << "d493: " << ours << ", " << 100 * (ours / 34824.5 - 1) << " % above the bound\n";
    CHECK(ours >= 34824.5);
    CHECK(ours <= 34824.5 * 1.07);
}

TEST_CASE("the route of dots is that tour") {
    const auto points = points_of("d493");
    Polylines dots;
    for (std::size_t i = 1; i < points.size(); ++i) dots.push_back(line({points[i]}));
    const RouteResult r = route(dots, {points[0], false});
    CHECK(in_mm(r.travel) <= 34824.5 * 1.07);
    CHECK(in_mm(r.travel) >= 34824.5);
}
