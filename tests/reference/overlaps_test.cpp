// Overlaps on a sheet against GEOS: random stars, some with a hole, turned by any angle, side by side and on
// one another. What shares an area is told, what lies apart is not.
#include "core/derive/workshop.h"
#include "core/opening/opening.h"
#include "core/project/edits.h"
#include "tests/reference/geos.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

std::string path_of(const Ring& ring) {
    std::string out;
    for (const Point p : ring)
        out += (out.empty() ? "M" : "L") + std::to_string(p.x) + "," + std::to_string(p.y);
    return out + "Z";
}

} // namespace

TEST_CASE("parts that lie on one another are told as GEOS finds them") {
    Random random("overlaps against GEOS");
    INFO("seed " << random.seed());
    Geos geos;
    int shared = 0, apart = 0;
    for (int round = 0; round < 60; ++round) {
        Workshop workshop(catalog());
        Project project = workshop.new_project("overlaps");
        const SheetId sheet = add_sheet(project, "one", "cream-card-12x12", "mat-12x12-standard");
        std::vector<Geos::Geometry> shapes;
        for (int i = 0; i < 2; ++i) {
            const Ring outer = random_ring(random, random.whole(5, 14), 12, 40, {45, 45});
            std::string d = path_of(outer);
            if (random.coin()) { // a hole in the middle, within the least radius
                Ring hole = regular(6, random.real(4, 9), {45, 45}, random.real(0, 1));
                std::reverse(hole.begin(), hole.end());
                d += path_of(hole);
            }
            const auto opened = must(open_drawing(
                svg("<path d='" + d + "' fill='#22282c' fill-rule='evenodd'/>"), "s.svg", fonts()));
            const TakeIn whole{opened, gather_lanes(*opened.source.drawing, catalog())};
            const PartId part = must(apply(whole, project, catalog())).part;
            must(place(project, sheet,
                       {{},
                        part,
                        mm(random.real(60, 130)),
                        mm(random.real(60, 130)),
                        degrees(random.real(0, 360)),
                        random.coin()}));
        }
        const auto derived = workshop.derive(std::make_shared<Project>(project));
        for (const PlacedPart& p : derived->sheets.front().parts) {
            const EvaluatedPart& part = *derived->part(p.placement.part);
            shapes.push_back(Geos::area_of(
                transformed(region_of(part.lines.front().contours, FillRule::evenodd, true), p.to_sheet)));
        }
        const double area =
            Geos::area(Geos::Geometry(GEOSIntersection(shapes[0].get(), shapes[1].get())).get());
        double distance = 0;
        GEOSDistance(shapes[0].get(), shapes[1].get(), &distance);
        INFO("round " << round << ": " << area << " mm2 shared, " << distance << " mm apart");
        // Slivers along an edge of under 0.05 mm are edges that touch: neither is asked of them.
        if (area > 1) {
            CHECK(has(derived->findings, "sheet.cut-through"));
            ++shared;
        } else if (distance > 0.1) {
            CHECK_FALSE(has(derived->findings, "sheet.cut-through"));
            CHECK_FALSE(has(derived->findings, "sheet.overlap"));
            ++apart;
        }
    }
    std::cout << shared << " pairs share an area, " << apart << " lie apart\n";
    CHECK(shared > 5);
    CHECK(apart > 5);
}
