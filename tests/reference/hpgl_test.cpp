// HP-GL against hp2xx, an independent reader: random files with points, scales, arcs and circles come out as
// large and as long as it says.
#include <sstream>

#include "core/formats/dxf/reader.h"
#include "core/formats/hpgl/reader.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

std::string random_plot(Random& random) {
    std::ostringstream out;
    const auto n = [&](int low, int high) { return std::to_string(random.whole(low, high)); };
    out << "IN;";
    const int type = random.whole(0, 3);
    if (type < 3) {
        const int x = random.whole(0, 3000), y = random.whole(0, 3000);
        out << "IP" << x << "," << y << "," << x + random.whole(500, 9000) << ","
            << y + random.whole(500, 9000) << ";";
        if (type == 2)
            // A factor that equals the origin is two equal points to hp2xx, which looks at no type before.
            out << "SC" << n(-20, 4) << "," << n(5, 60) << "," << n(-20, 4) << "," << n(5, 60) << ",2;";
        else
            out << "SC" << n(-50, 0) << "," << n(60, 200) << "," << n(-50, 0) << "," << n(60, 200) << ","
                << type << ";";
    }
    out << "SP1;";
    for (int i = 0; i < 12; ++i) {
        out << "PU;PA" << n(0, 100) << "," << n(0, 100) << ";PD;";
        const int what = random.whole(0, 3);
        if (what == 0)
            out << "PA" << n(0, 100) << "," << n(0, 100) << "," << n(0, 100) << "," << n(0, 100) << ";";
        if (what == 1) out << "PR" << n(-50, 50) << "," << n(-50, 50) << ";PA;";
        if (what == 2) out << "PU;CI" << n(5, 40) << ",1;";
        if (what == 3) out << "AA" << n(0, 100) << "," << n(0, 100) << "," << n(-340, 340) << ",1;";
    }
    out << "PU;SP0;";
    return out.str();
}

double length_of(const Drawing& d) {
    Length sum;
    for (const DrawnLine& l : d.lines)
        sum += length(flattened(l.shape, mm(1e-3)));
    return in_mm(sum);
}

/// What rounding its points to a grid of 0.025 mm makes a line longer, on average: across a chord of length c
/// the ends are off by a variance of 2 x 0.025^2 / 12, which adds half of that over c.
double longer_by_rounding(const Drawing& d) {
    constexpr double grid = 0.025, variance = 2 * grid * grid / 12;
    double sum = 0;
    for (const DrawnLine& l : d.lines)
        for (const Polyline& p : flattened(l.shape, mm(1e-3)))
            for (std::size_t i = 1; i < p.points.size(); ++i)
                sum += variance / 2 / std::max(distance(p.points[i - 1], p.points[i]), grid);
    return sum;
}

} // namespace

TEST_CASE("HP-GL is as large and as long as hp2xx draws it") {
    Random random("HP-GL");
    INFO("seed " << random.seed());
    TemporaryFolder folder;
    for (int i = 0; i < 60; ++i) {
        const std::string text = random_plot(random);
        INFO(text);
        must(disk().write_atomically(folder / "a.hpgl", text));
        int status = 0;
        shell("hp2xx -q -m dxf -t -f " + (folder / "a.dxf") + " " + (folder / "a.hpgl") + " 2>&1", &status);
        REQUIRE(status == 0);
        const auto theirs = must(read_dxf(file(folder / "a.dxf"), {"a.dxf"}));
        const auto ours = must(read_hpgl(text, {"a.hpgl"}));
        const Box a = bounds(ours.drawing), b = bounds(theirs.drawing);
        // It rounds to plotter units (0.025 mm) and follows circles in chords of a degree.
        const double reach = std::max({a.width(), a.height(), 10.0});
        CHECK(a.width() == Approx(b.width()).margin(0.06 + 2e-4 * reach));
        CHECK(a.height() == Approx(b.height()).margin(0.06 + 2e-4 * reach));
        // Twice the average, as it is a sum of some thousand chords; and what it rounds on its way there: its
        // lines came out up to 0.3 % longer on 25 seeds.
        const double length = length_of(theirs.drawing);
        CHECK(length_of(ours.drawing) ==
              Approx(length).margin(0.5 + 4e-3 * length + 2 * longer_by_rounding(theirs.drawing)));
    }
}
