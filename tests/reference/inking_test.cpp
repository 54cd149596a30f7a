// What fills are said to look like, against other programs: tones as librsvg rasters the strokes, heat
// against GEOS, gaps where a lifted tool lands against drawing the scattered lines many times.
#include <QImage>
#include <cmath>
#include <fstream>
#include <random>

#include "core/derive/inking.h"
#include "core/recipe/fill.h"
#include "core/recipe/heat.h"
#include "core/recipe/seams.h"
#include "core/recipe/tone_windows.h"
#include "tests/reference/geos.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

// Round ends are drawn as polygons that lie within a tenth of a pixel: of dots of 11 pixels 0.6 % are
// missing, of 33 a third of that.
constexpr int pixels_per_mm = 60;

/// Strokes as another program draws them: the share of ink of each pixel, row by row.
struct Rastered {
    int width = 0, height = 0;
    std::vector<double> sums; ///< of ink, over all pixels above and left

    Rastered(const Polylines& strokes, double tip, double wide, double high) {
        TemporaryFolder folder;
        {
            std::ofstream out(folder / "f.svg");
            out << "<svg xmlns='http://www.w3.org/2000/svg' width='" << wide << "mm' height='" << high
                << "mm' viewBox='0 0 " << wide << " " << high
                << "'><g fill='none' stroke='#000' stroke-linecap='round' stroke-linejoin='round' "
                   "stroke-width='"
                << tip << "'>";
            for (const Polyline& line : strokes) {
                out << "<path d='M";
                for (const Point p : line.points)
                    out << p.x << " " << p.y << " ";
                out << (line.points.size() == 1 ? "h0.0001" : line.closed ? "Z" : "") << "'/>";
            }
            out << "</g></svg>";
        }
        const std::string dpi = std::to_string(pixels_per_mm * 127 / 5); // of 25.4 mm
        shell("rsvg-convert --unlimited -d " + dpi + " -p " + dpi + " -b white '" + folder / "f.svg" +
              "' -o '" + folder / "f.png" + "'");
        const QImage image(QString::fromStdString(folder / "f.png"));
        width = image.width(), height = image.height();
        REQUIRE(width >= static_cast<int>(wide * pixels_per_mm) - 1);
        sums.assign(static_cast<std::size_t>((width + 1) * (height + 1)), 0);
        for (int y = 0; y < height; ++y)
            for (int x = 0; x < width; ++x)
                at(x + 1, y + 1) =
                    at(x, y + 1) + at(x + 1, y) - at(x, y) + 1 - qGray(image.pixel(x, y)) / 255.0;
    }
    double& at(int x, int y) { return sums[static_cast<std::size_t>(y * (width + 1) + x)]; }
    /// Of a square with this corner, mm.
    double mean(double left, double top, double side) {
        const int x0 = static_cast<int>(left * pixels_per_mm), y0 = static_cast<int>(top * pixels_per_mm),
                  n = static_cast<int>(side * pixels_per_mm);
        return (at(x0 + n, y0 + n) - at(x0, y0 + n) - at(x0 + n, y0) + at(x0, y0)) / (n * n);
    }
};

/// A wished tone and, worked out by itself, how dark it is.
struct Wished {
    FillTone tone;
    std::function<double(double, double)> dark; ///< at mm
};

Wished random_tone(Random& random, double wide, double high) {
    Wished out;
    if (random.coin()) {
        const double from = random.real(8, 40), to = random.real(50, 95),
                     turn = random.real(0, 2 * 3.14159265);
        out.tone.by = FillTone::By::gradient;
        out.tone.from = from, out.tone.to = to, out.tone.angle = radians(turn);
        const double c = std::cos(turn), s = std::sin(turn), way = std::abs(c) * wide + std::abs(s) * high;
        out.dark = [=](double x, double y) {
            return (from + (to - from) * (((x - wide / 2) * c + (y - high / 2) * s) / way + 0.5)) / 100;
        };
        return out;
    }
    // Smooth light and shade, as faces and feathers have it.
    const double fx = random.real(0.5, 2), fy = random.real(0.5, 2), shift = random.real(0, 6);
    const auto shade = [=](double u, double v) {
        return 0.5 + 0.36 * std::sin(6.283 * fx * u + shift) * std::cos(6.283 * fy * v + shift / 2);
    };
    GreyPixels pixels{240, 200, {}};
    for (int y = 0; y < pixels.height; ++y)
        for (int x = 0; x < pixels.width; ++x)
            pixels.grey.push_back(static_cast<std::uint8_t>(
                std::lround(255 * (1 - shade((x + 0.5) / pixels.width, (y + 0.5) / pixels.height)))));
    out.tone.by = FillTone::By::picture;
    out.tone.from = 0, out.tone.to = 100;
    out.tone.picture = std::make_shared<const std::string>(graymap(pixels));
    out.dark = [=](double x, double y) { return shade(x / wide, y / high); };
    return out;
}

FillStyle style_named(std::string_view key) {
    for (const FillKind& kind : fill_kinds())
        if (kind.key == key) return kind.fresh;
    FAIL(key);
    return {};
}

double normal(std::mt19937& random) { // Box and Muller 1958
    const double a = (random() + 1.0) / 4294967297.0, b = random() / 4294967296.0;
    return std::sqrt(-2 * std::log(a)) * std::cos(2 * 3.141592653589793 * b);
}

} // namespace

TEST_CASE("tones: the ink of each window of 8 x 8 mm is as dark as wished, as librsvg draws it") {
    Random random("tones");
    constexpr double wide = 48, high = 40;
    constexpr double most = 0.03; // as asked for; of broad tips one short stroke is 1 to 2 % of a window
    for (const char* key : {"parallel", "contour", "stipple", "scribble"})
        for (int k = 0; k < 6; ++k) {
            const bool broad = k > 3;
            const Wished wished = random_tone(random, wide, high);
            // The last one lies at a slope of 1 to 2 to a grid that is askew to the surface by the golden
            // section, whose squares such lines would all meet alike.
            const double tip = broad ? random.real(0.5, 1) : random.real(0.25, 0.5),
                         angle = k == 0   ? 90.0 * random.whole(0, 1)
                                 : k == 3 ? 174.85
                                          : random.real(0, 180);
            const Region whole =
                region_of({{{{0, 0}, {wide, 0}, {wide, high}, {0, high}}, true}}, FillRule::nonzero);
            const Region inner = offset(whole, mm(-tip / 2));
            const Tone tone(wished.tone, bounds(whole));
            FillInput in{inner,   mm(tip * 0.85),    degrees(angle), FillEnds::apart,
                         mm(tip), FillPhase::centre, bounds(whole),  &whole};
            in.tone = &tone;
            const FillLines made = filled(style_named(key), in, no_progress());
            if (std::string_view(key) == "scribble") CHECK(made.lines.size() == 1);
            Rastered seen(made.lines, tip, wide, high);
            double worst = 0;
            for (double y = 0; y + 8 <= high; y += 0.4)
                for (double x = 0; x + 8 <= wide; x += 0.4) {
                    double want = 0;
                    for (int v = 0; v < 16; ++v)
                        for (int u = 0; u < 16; ++u)
                            want += wished.dark(x + (u + 0.5) / 2, y + (v + 0.5) / 2) / 256;
                    worst = std::max(worst, std::abs(seen.mean(x, y, 8) - want));
                }
            const double told = std::abs(tone_fault(made.lines, mm(tip), whole, tone, no_progress()).off);
            INFO(key << ", tip " << tip << ", angle " << angle << ", worst " << worst << ", told " << told);
            CHECK(worst <= most);
            CHECK(worst <= told + 0.006); // told of all windows, on squares of a fifth of the tip
        }
}

TEST_CASE("heat: what is inked, bare and over the edge is so by GEOS's buffers too") {
    const Geos geos;
    Random random("heat");
    // Lines that fit a square grid, which would all meet its squares alike: by slope, or level at a usual
    // spacing.
    const struct {
        double angle, spacing;
    } alike[] = {{26.57, 0.469}, {153.43, 0.5}, {45, 0.495}, {0, 0.4}, {0, 0.35}, {90, 0.5}, {18.43, 0.474}};
    for (int k = 0; k < 24; ++k) {
        const Region region =
            region_of({ring(random_ring(random, random.whole(5, 30), 4, 15))}, FillRule::nonzero);
        const bool any = k >= static_cast<int>(std::size(alike));
        const double tip = any ? random.real(0.3, 1) : alike[k].spacing - random.real(0.01, 0.05);
        const FillInput in{offset(region, mm(-tip * random.real(0.2, 0.8))),
                           mm(any ? tip * random.real(0.6, 1.5) : alike[k].spacing),
                           degrees(any ? random.real(0, 180) : alike[k].angle),
                           random.coin() ? FillEnds::apart : FillEnds::joined,
                           mm(tip),
                           FillPhase::centre,
                           bounds(region)};
        const FillLines made = filled(style_named("parallel"), in, no_progress());
        const Heat heat = heat_of(region, made.lines, mm(tip));
        const auto ink = Geos::buffer(Geos::lines(made.lines).get(), tip / 2), area = Geos::area_of(region);
        const double inside = Geos::area(Geos::Geometry(GEOSIntersection(ink.get(), area.get())).get()),
                     all = Geos::area(ink.get()), whole = in_square_mm(dotlane::area(region));
        // A square is as one point in it: along an edge as many are counted too much as too little.
        INFO("tip " << tip << ", spacing " << in_mm(in.spacing) << ", angle " << in_degrees(in.angle));
        // Rows fall differently on lines that are all but level: together they are a row out, or less.
        const double off_level = std::remainder(in_degrees(in.angle), 180);
        const double margin =
            0.002 * whole + 0.1 + (std::abs(off_level) < 2 ? heat.square * bounds(region).width() : 0);
        CHECK(heat.square <= 0.05);
        CHECK(in_square_mm(heat.of(Heat::once)) + in_square_mm(heat.of(Heat::twice)) ==
              Approx(inside).margin(margin));
        CHECK(in_square_mm(heat.of(Heat::over)) == Approx(all - inside).margin(margin));
        CHECK(in_square_mm(heat.of(Heat::bare)) == Approx(whole - inside).margin(margin));
    }
}

TEST_CASE("landing: as many gaps are seen as when scattered lines are drawn many times") {
    Random random("landing");
    for (int k = 0; k < 6; ++k) {
        const Region region =
            region_of({ring(random_ring(random, random.whole(4, 12), 6, 16))}, FillRule::nonzero);
        const double tip = random.real(0.4, 0.8), spacing = tip * random.real(0.75, 0.95),
                     scatter = random.real(0.04, 0.09);
        const Region inner = offset(region, mm(-tip / 2));
        if (inner.empty()) continue;
        const FillInput in{inner,         mm(spacing), {}, FillEnds::apart, mm(tip), FillPhase::centre,
                           bounds(region)};
        const Polylines strokes = filled(style_named("parallel"), in, no_progress()).lines;
        const std::size_t found = seams(strokes, mm(spacing));
        if (found < 10) continue;
        // Level lines: those of neighbouring rows that lie beside one another.
        struct Pair {
            std::size_t a, b;
        };
        std::vector<Pair> beside;
        std::size_t surely = 0, perhaps = 0; // for more than twice the spacing; at all
        for (std::size_t a = 0; a < strokes.size(); ++a)
            for (std::size_t b = 0; b < strokes.size(); ++b) {
                const auto &p = strokes[a].points, &q = strokes[b].points;
                if (std::abs(q[0].y - p[0].y - spacing) > 1e-6) continue;
                const double from = std::max(std::min(p[0].x, p[1].x), std::min(q[0].x, q[1].x)),
                             to = std::min(std::max(p[0].x, p[1].x), std::max(q[0].x, q[1].x));
                surely += to - from > 2 * spacing, perhaps += to > from;
                if (to - from > spacing) beside.push_back({a, b});
            }
        constexpr int runs = 20'000; // that are told apart to 1 or 2 %
        std::mt19937 chance(static_cast<std::uint32_t>(random.whole(1, 1'000'000)));
        std::size_t gaps = 0;
        std::vector<double> off(strokes.size());
        for (int run = 0; run < runs; ++run) {
            for (double& d : off)
                d = scatter * normal(chance);
            for (const Pair& pair : beside) {
                const double bare = spacing + off[pair.b] - off[pair.a] - tip;
                gaps += bare > in_mm(seen_gap);
            }
        }
        const double drawn = static_cast<double>(gaps) / runs,
                     told = visible_gaps(beside.size(), mm(spacing), mm(tip), mm(scatter));
        INFO("seams " << found << " of " << beside.size() << ", tip " << tip << ", spacing " << spacing
                      << ", scatter " << scatter);
        CHECK(told == Approx(drawn).epsilon(0.1).margin(0.02));
        // Which of the shortest count as seams is a matter of taste.
        CHECK(found >= surely);
        CHECK(found <= perhaps);
        CHECK(static_cast<double>(found) ==
              Approx(static_cast<double>(beside.size())).epsilon(0.1).margin(1));
        // Closer lines: none.
        const Length closer = spacing_without_gaps(found, mm(spacing), mm(tip), mm(scatter));
        CHECK(closer <= mm(spacing));
    }
}
