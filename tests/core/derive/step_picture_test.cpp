// The small pictures of what a step would do.
#include "core/commands/making.h"
#include "core/derive/step_picture.h"
#include "core/derive/workshop.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("each step's picture is of the part itself, or of a sample when the part is too much or none") {
    Workshop workshop(catalog());
    Project project = workshop.new_project("pictures");
    Random random("step pictures");
    INFO("seed " << random.seed());
    Label label;
    label.width = mm(random.real(30, 200)), label.height = mm(random.real(20, 90));
    label.edge = Label::Edge::scalloped;
    must(make_part(project, workshop.catalog(), workshop.fonts(), label));
    Lettering much;
    much.text = std::string(60, 'S'), much.size = mm(10);
    must(make_part(project, workshop.catalog(), workshop.fonts(), much));
    const auto derived = workshop.derive(std::make_shared<Project>(project));
    const EvaluatedPart *small = derived->part(project.parts[0].id),
                        *large = derived->part(project.parts[1].id);
    for (const StepKind& kind : step_kinds()) {
        INFO(kind.key);
        const StepPicture none = picture_of(kind, nullptr, {}, workshop.fonts());
        CHECK_FALSE(none.own);
        CHECK_FALSE(none.after.empty());
        CHECK(none.box.width() > 10);
        const StepPicture own = picture_of(kind, small, {}, workshop.fonts());
        CHECK_FALSE(own.after.empty());
        CHECK(own.box.width() > 10);
        // Too many points for a blink: the sample instead.
        CHECK_FALSE(picture_of(kind, large, {}, workshop.fonts()).own);
        // Of few chosen lines of it, its own again.
        const StepPicture chosen = picture_of(kind, large, {large->lines.front().id}, workshop.fonts());
        CHECK(chosen.own == own.own);
    }
    CHECK(picture_of(*step_kind("outline"), small, {}, workshop.fonts()).own);
    // An outline shows more than was there; a mirrored leaf is as wide as before.
    const StepPicture outlined = picture_of(*step_kind("outline"), nullptr, {}, workshop.fonts());
    CHECK(bounds(outlined.after).width() > bounds(outlined.before).width());
    const StepPicture mirrored = picture_of(*step_kind("mirror"), nullptr, {}, workshop.fonts());
    CHECK(bounds(mirrored.after).width() == Approx(bounds(mirrored.before).width()));
    CHECK(mirrored.after.front().points != mirrored.before.front().points);
}
