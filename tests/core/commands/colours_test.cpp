// Colours that look alike count as one.
#include "core/commands/apart.h"
#include "core/commands/colours.h"
#include "core/commands/steps.h"
#include "core/project/colour_difference.h"
#include "core/project/format.h"
#include "tests/support/recipe.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("CIEDE2000 gives the published differences") {
    // Sharma, Wu, Dalal 2005, Table 1; written down from memory, and all of them agree to four decimals,
    // which wrong ones would not.
    constexpr double pairs[][7] = {{50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425},
                                   {50, 3.1571, -77.2803, 50, 0, -82.7485, 2.8615},
                                   {50, 2.8361, -74.0200, 50, 0, -82.7485, 3.4412},
                                   {50, -1.3802, -84.2814, 50, 0, -82.7485, 1.0000},
                                   {50, -1.1848, -84.8006, 50, 0, -82.7485, 1.0000},
                                   {50, -0.9009, -85.5211, 50, 0, -82.7485, 1.0000},
                                   {50, 0, 0, 50, -1, 2, 2.3669},
                                   {50, -1, 2, 50, 0, 0, 2.3669},
                                   {50, 2.4900, -0.0010, 50, -2.4900, 0.0009, 7.1792},
                                   {50, 2.4900, -0.0010, 50, -2.4900, 0.0010, 7.1792},
                                   {50, 2.4900, -0.0010, 50, -2.4900, 0.0011, 7.2195},
                                   {50, 2.4900, -0.0010, 50, -2.4900, 0.0012, 7.2195},
                                   {50, -0.0010, 2.4900, 50, 0.0009, -2.4900, 4.8045},
                                   {50, -0.0010, 2.4900, 50, 0.0010, -2.4900, 4.8045},
                                   {50, -0.0010, 2.4900, 50, 0.0011, -2.4900, 4.7461},
                                   {50, 2.5, 0, 50, 0, -2.5, 4.3065},
                                   {50, 2.5, 0, 73, 25, -18, 27.1492},
                                   {50, 2.5, 0, 61, -5, 29, 22.8977},
                                   {50, 2.5, 0, 56, -27, -3, 31.9030},
                                   {50, 2.5, 0, 58, 24, 15, 19.4535},
                                   {50, 2.5, 0, 50, 3.1736, 0.5854, 1.0000},
                                   {50, 2.5, 0, 50, 3.2972, 0, 1.0000},
                                   {50, 2.5, 0, 50, 1.8634, 0.5757, 1.0000},
                                   {50, 2.5, 0, 50, 3.2592, 0.3350, 1.0000},
                                   {60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644},
                                   {63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.2630},
                                   {61.2901, 3.7196, -5.3901, 61.4292, 2.2480, -4.9620, 1.8731},
                                   {35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645},
                                   {22.7233, 20.0904, -46.6940, 23.0331, 14.9730, -42.5619, 2.0373},
                                   {36.4612, 47.8580, 18.3852, 36.2715, 50.5065, 21.2231, 1.4146},
                                   {90.8027, -2.0831, 1.4410, 91.1528, -1.6435, 0.0447, 1.4441},
                                   {90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381},
                                   {6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377},
                                   {2.0776, 0.0795, -1.1350, 0.9033, -0.0636, -0.5514, 0.9082}};
    for (const auto& p : pairs) {
        CHECK(colour_difference({p[0], p[1], p[2]}, {p[3], p[4], p[5]}) == Approx(p[6]).margin(5e-5));
        CHECK(colour_difference({p[3], p[4], p[5]}, {p[0], p[1], p[2]}) == Approx(p[6]).margin(5e-5));
    }
    // White and black of sRGB (IEC 61966-2-1) under D65.
    CHECK(lab_of({255, 255, 255}).l == Approx(100).margin(1e-3));
    CHECK(std::abs(lab_of({255, 255, 255}).a) < 0.02);
    CHECK(lab_of({0, 0, 0}).l == Approx(0).margin(1e-9));
    for (const Colour c : {Colour{200, 30, 40}, Colour{10, 90, 200}, Colour{77, 77, 77}})
        CHECK(lab_of(c).l == Approx(lightness(c)).margin(0.01));
}

namespace {

std::string patch(int x, const char* colour, int size = 10) {
    return "<rect x='" + std::to_string(x) + "' y='10' width='" + std::to_string(size) + "' height='" +
           std::to_string(size) + "' fill='" + colour + "'/>";
}

/// Two rusts, two teals, ink.
std::string five() {
    return patch(10, "#a8462d", 20) + patch(40, "#aa482f") + patch(60, "#2f5d62", 20) + patch(90, "#316064") +
           patch(110, "#22282c");
}

} // namespace

TEST_CASE("near colours are those of the one that covers most, and chains of near ones do not run on") {
    Recipe r(five());
    const Drawing& drawing = *find(r.b.project, r.b.part)->source.drawing;
    CHECK(colour_groups(drawing, 0).size() == 5);
    const auto groups = colour_groups(drawing, 3);
    REQUIRE(groups.size() == 3);
    CHECK(groups[0].shown == Colour{0xa8, 0x46, 0x2d});
    CHECK(groups[0].members.size() == 2);
    CHECK(groups[0].lines.size() == 2);
    CHECK(groups[0].farthest > 0);
    CHECK(groups[0].farthest <= 3);
    CHECK(colour_groups(drawing, 50).size() < 3);
    // Greys in steps: each is near the next, the first far from the last.
    std::string greys;
    for (int i = 0; i < 8; ++i) {
        char colour[8];
        std::snprintf(colour, sizeof colour, "#%02x%02x%02x", 60 + 12 * i, 60 + 12 * i, 60 + 12 * i);
        greys += patch(10 + 12 * i, colour);
    }
    Recipe chain(greys);
    const Drawing& steps = *find(chain.b.project, chain.b.part)->source.drawing;
    const auto alike = colour_groups(steps, 5);
    CHECK(alike.size() > 2);
    CHECK(alike.size() < 8);
    for (const ColourGroup& group : alike)
        for (const Colour member : group.members)
            CHECK(colour_difference(lab_of(group.shown), lab_of(member)) <= 5);
}

TEST_CASE("joined colours are one part when a drawing is taken apart, one layer when it is knocked out") {
    Recipe r(five());
    const auto done = must(apply(JoinColours{r.b.part, 3}, r.b.project));
    CHECK(done.said.english() == "5 colours count as 3.");
    r.part();
    {
        Project apart = r.b.project;
        const auto parts =
            must(apply(TakeApart{r.b.part}, apart, catalog(), fonts(), *r.derived->part(r.b.part)));
        CHECK(parts.parts.size() == 3);
    }
    must(apply(AddStep{r.b.part, KnockOutStep{}}, r.b.project, catalog(), *r.derived->part(r.b.part)));
    const auto layers = [&] { return find(r.b.project, r.b.part)->steps.back().of.size(); };
    CHECK(layers() == 3);
    // Told otherwise later, the layers follow; nothing was lost on the way.
    must(apply(JoinColours{r.b.part, 0}, r.b.project));
    CHECK(layers() == 5);
    must(apply(JoinColours{r.b.part, 3}, r.b.project));
    CHECK(layers() == 3);
    std::size_t lines = 0;
    for (const LineSet& set : find(r.b.project, r.b.part)->sets)
        lines += set.lines.size();
    CHECK(lines == 5);
    // A patch stands for its colours, which are set aside, and follows as well.
    Recipe patch(five());
    patch.part();
    const StepId made = must(apply(AddStep{patch.b.part, PatchStep{}}, patch.b.project, catalog(),
                                   *patch.derived->part(patch.b.part)))
                            .step;
    CHECK(patch.figure(made, "fabrics") == 5);
    must(apply(JoinColours{patch.b.part, 3}, patch.b.project));
    CHECK(patch.figure(made, "fabrics") == 3);
    for (const LineSet& set : find(patch.b.project, patch.b.part)->sets)
        if (!set.step) CHECK(set.set_aside);
    // A step on some of the lines keeps to them; one line set alone is no layer, but joined colours come
    // apart again.
    Recipe some(five());
    const LineSetId chosen =
        must(gather(some.b.project, some.b.part, {some.b.lines()[0], some.b.lines()[1]}, "rusts"));
    const StepId stencil = some.add(StencilStep{}, {chosen});
    must(apply(JoinColours{some.b.part, 3}, some.b.project));
    const auto works_on = [&] { return find(*find(some.b.project, some.b.part), stencil)->of.size(); };
    CHECK(works_on() == 1);
    must(apply(JoinColours{some.b.part, 0}, some.b.project));
    CHECK(works_on() == 2);
    some.part();
    CHECK(must(apply(TakeApart{some.b.part}, some.b.project, catalog(), fonts(),
                     *some.derived->part(some.b.part)))
              .parts.size() == 2);
    // The file keeps it.
    const Project read = must(read_project(write_project(r.b.project), "test"));
    CHECK(read == r.b.project);
    CHECK(find(read, r.b.part)->one_colour == 3);
    for (const double wrong : {-1.0, 51.0, std::nan("")})
        CHECK(apply(JoinColours{r.b.part, wrong}, r.b.project).error().code == "colours.range");
}
