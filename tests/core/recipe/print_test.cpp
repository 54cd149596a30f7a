// Art that is printed and cut: it runs on beyond the cut, colours as they were.
#include <cmath>
#include <numbers>

#include "core/commands/steps.h"
#include "tests/support/recipe.h"

using namespace dotlane;
using namespace dotlane::test;
using std::numbers::pi;

namespace {

/// A plate of one colour with a band of another across it, and a hole.
const char* banded = "<path fill='#a8462d' fill-rule='evenodd' d='M30,30h80v60h-80z M50,70h10v10h-10z'/>"
                     "<rect x='30' y='40' width='80' height='20' fill='#2f5d62'/>";

} // namespace

TEST_CASE("printed art runs on beyond its cut by the bleed, each colour where it meets the edge") {
    Recipe r(banded);
    PrintStep step;
    step.bleed = mm(3);
    const StepId id = r.add_whole(step);
    CHECK(r.figure(id, "colours") == 2);
    // The cut is the art's outline, without its hole.
    CHECK(r.square(r.result(id)) == Approx(80 * 60));
    const Step& made = *find(*find(r.b.project, r.b.part), id);
    CHECK(find(r.b.project, made.lane)->action == Action::cut);
    // Beyond it, round the corners, lies three millimetres of bleed: of both colours together.
    CHECK(r.figure(id, "bleed") >= 2 * (80 + 60) * 3 + pi * 9 - 0.1);
    for (const LineSetId set : made.of) {
        CHECK(find(r.b.project, find(*find(r.b.project, r.b.part), set)->lane)->action == Action::print);
        const Region art = r.area_of(set);
        const bool band = find(*find(r.b.project, r.b.part), set)->name != "rust";
        CHECK(contains(art, {28, 50}) == band); // beside the band
        CHECK(contains(art, {28, 80}) != band); // beside the plate
        CHECK_FALSE(contains(art, {26.5, 50}));
        CHECK_FALSE(contains(art, {55, 75})); // the hole is no edge
    }
    // Lines keep the ids by which their colours are known.
    for (const FlatLine& line : r.part().lines)
        if (line.set != r.result(id)) CHECK(line.id.step == StepId{});
}

TEST_CASE("a bare border is cut outside the art, which needs no bleed then, and holes are cut when wished") {
    Recipe r(banded);
    PrintStep step;
    step.border = mm(4);
    const StepId id = r.add_whole(step);
    CHECK(r.square(r.result(id)) == Approx(80 * 60 + 2 * (80 + 60) * 4 + pi * 16).epsilon(1e-3));
    CHECK(r.figure(id, "bleed") == 0);
    PrintStep bare; // cut where the print ends: two lanes, but one tool
    bare.bleed = mm(0);
    must(apply(ChangeStep{r.b.part, id, bare}, r.b.project, catalog()));
    CHECK_FALSE(r.told("lines.two-lanes"));
    Recipe holed(banded);
    step.border = mm(0), step.holes = true;
    const StepId with = holed.add_whole(step);
    CHECK(holed.square(holed.result(with)) == Approx(80 * 60 - 100));
    // The hole is cut, so the art runs on into it.
    const Step& made = *find(*find(holed.b.project, holed.b.part), with);
    bool inside = false;
    for (const LineSetId set : made.of)
        inside = inside || contains(holed.area_of(set), {51, 75});
    CHECK(inside);
}

TEST_CASE("only what was traced from a picture can be printed as one") {
    Recipe r(banded);
    PrintStep step;
    step.art = PrintStep::Art::picture;
    const StepId id = r.add_whole(step);
    CHECK(r.part().reports.at(id)->refused.english().find("not traced from one") != std::string::npos);
    CHECK(r.told("step.refused"));
}
