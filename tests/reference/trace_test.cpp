// Tracing against the potrace program on the same bitmap with the same parameters.
#include <cstdio>

#include "core/formats/svg/reader.h"
#include "core/formats/trace/trace.h"
#include "core/geometry/region.h"
#include "tests/reference/geos.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

std::string pbm_of(const GreyImage& image, int threshold) {
    std::string out = "P1\n" + std::to_string(image.width) + " " + std::to_string(image.height) + "\n";
    for (int y = 0; y < image.height; ++y) {
        for (int x = 0; x < image.width; ++x)
            out += image.at(x, y) < threshold ? '1' : '0';
        out += '\n';
    }
    return out;
}

Region region_of_all(const std::vector<Shape>& shapes) {
    std::vector<Region> all;
    for (const Shape& s : shapes)
        all.push_back(region_of(s, mm(0.01)));
    return united(all);
}

} // namespace

TEST_CASE("tracing gives what the potrace program gives") {
    Geos geos;
    TemporaryFolder folder;
    int status = 0;
    for (const char* picture :
         {"/usr/share/icons/Tango/scalable/places/user-home.svg", DOTLANE_SOURCE "/data/demo/invitation.svg",
          "/usr/share/bootstrap-icons/svg/gear-wide-connected.svg"}) {
        INFO(picture);
        shell("rsvg-convert -w 400 -b white '" + std::string(picture) + "' -o '" + folder / "p.png" + "'",
              &status);
        REQUIRE(status == 0);
        const GreyImage image = must(read_picture(file(folder / "p.png")));
        CHECK(image.width == 400);
        const int threshold = otsu_threshold(image);
        for (const double corner : {0.0, 1.0}) {
            TraceOptions options;
            options.corner = corner;
            const Region ours = region_of_all(trace(mask_of(image, threshold, false), options).shapes);
            must(disk().write_atomically(folder / "p.pbm", pbm_of(image, threshold)));
            shell("potrace -b svg --flat -u 1000 -t 2 -a " + std::to_string(corner) + " -O 0.2 '" +
                      folder / "p.pbm" + "' -o '" + folder / "p.svg" + "'",
                  &status);
            REQUIRE(status == 0);
            // The program's page is in points at 72 per inch; a pixel is a point.
            const auto svg = must(read_svg(file(folder / "p.svg"), {}));
            std::vector<Shape> theirs;
            for (const DrawnLine& line : svg.drawing.lines)
                theirs.push_back(transformed(line.shape, Affine::scaling(72 / 25.4, 72 / 25.4)));
            REQUIRE_FALSE(theirs.empty());
            // It writes coordinates with three decimals of a pixel here.
            const Region want = region_of_all(theirs);
            CHECK(in_square_mm(area(ours)) == Approx(in_square_mm(area(want))).epsilon(1e-3));
            CHECK(in_square_mm(area(subtracted(ours, want))) + in_square_mm(area(subtracted(want, ours))) <
                  1e-3 * in_square_mm(area(want)));
        }
    }
}
