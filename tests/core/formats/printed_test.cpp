// Pictures that are printed and cut.
#include "core/formats/trace/printed.h"

#include <cmath>

#include "core/commands/making.h"
#include "core/commands/steps.h"
#include "core/machine/program_text.h"
#include "core/project/edits.h"
#include "core/project/format.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

using Rgb = std::array<int, 3>;

Rgb at(const ColourImage& image, int x, int y) {
    const auto i =
        (static_cast<std::size_t>(y) * static_cast<std::size_t>(image.width) + static_cast<std::size_t>(x)) *
        3;
    return {image.rgb[i], image.rgb[i + 1], image.rgb[i + 2]};
}

/// A disc on white whose colour says at which angle and how far from the middle it is; its edge is half
/// white.
ColourImage disc(int side, double radius) {
    ColourImage out{side, side, {}};
    for (int y = 0; y < side; ++y)
        for (int x = 0; x < side; ++x) {
            const double dx = x + 0.5 - side / 2.0, dy = y + 0.5 - side / 2.0, far = std::hypot(dx, dy);
            const double ink = std::clamp(radius - far + 0.5, 0.0, 1.0);
            const double turn = std::atan2(dy, dx);
            for (const double own : {100 + 80 * std::cos(turn), 100 + 80 * std::sin(turn), 60.0})
                out.rgb.push_back(static_cast<std::uint8_t>(std::lround(255 * (1 - ink) + own * ink)));
        }
    return out;
}

Polyline round_line(Point middle, double radius) {
    return flattened(ellipse(middle, radius, radius), mm(0.001));
}

} // namespace

TEST_CASE("a PNG that is written is read back to the pixel") {
    Random random("PNG");
    for (int round = 0; round < 10; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        ColourImage image{random.whole(1, 80), random.whole(1, 80), {}};
        for (int i = 0; i < image.width * image.height * 3; ++i)
            image.rgb.push_back(static_cast<std::uint8_t>(random.whole(0, 255)));
        const ColourImage back = must(read_colours(write_png(image)));
        CHECK(back.width == image.width);
        CHECK(back.rgb == image.rgb);
    }
}

TEST_CASE("beyond its art a printed picture has the colours that are nearest, and no white") {
    Random random("bleeds of pictures");
    for (int round = 0; round < 12; ++round) {
        const int side = random.whole(120, 300);
        const double radius = side * random.real(0.25, 0.48), width = random.real(20, 200),
                     pixel = width / side;
        const double bleed = random.real(3, 20) * pixel;
        const Affine to_sheet = Affine::translation({random.real(0, 90), random.real(0, 90)}) *
                                Affine::rotation(random.whole(0, 3) * std::acos(0.0)) *
                                Affine::scaling(random.coin() ? 1 : -1, 1);
        INFO("seed " << random.seed() << " round " << round << ": " << side << " pixels, bleed of " << bleed);
        const ColourImage drawn = disc(side, radius);
        const Point middle{width / 2, width / 2};
        const Polyline art = transformed(round_line(middle, radius * pixel), to_sheet),
                       whole = transformed(round_line(middle, radius * pixel + bleed), to_sheet);
        const PlacedImage made = must(printed_image(write_png(drawn), mm(width), to_sheet, {art}, {whole}));
        // Every pixel that is printed has the colour that its direction from the middle has, inside and
        // beyond.
        std::size_t far = 0, off = 0;
        for (int y = 0; y < made.image.height; ++y)
            for (int x = 0; x < made.image.width; ++x) {
                const Point there = made.to_sheet({x + 0.5, y + 0.5}),
                            from = to_sheet.inverse()(there) - middle;
                const double away = length(from);
                if (away > radius * pixel + bleed || away < radius * pixel / 2) continue;
                far += away > radius * pixel;
                const double turn = std::atan2(from.y, from.x);
                const Rgb is = at(made.image, x, y);
                // Inside its own; beyond, of pixels along the edge one is nearest that lies up to half a
                // chord with a height of one pixel from where the way is shortest.
                const bool own = away < (radius - 2) * pixel;
                const double may = own ? 2 : 80 * std::sqrt(2 / radius) + 3;
                off += std::abs(is[0] - (100 + 80 * std::cos(turn))) >= may ||
                       std::abs(is[1] - (100 + 80 * std::sin(turn))) >= may || std::abs(is[2] - 60) >= 3;
            }
        CHECK(off == 0);
        CHECK(far > 100);
    }
}

TEST_CASE("the picture itself is printed where the step says so, in place of the lines traced from it") {
    Workshop workshop(catalog());
    Project project = workshop.new_project("p");
    Picture picture;
    picture.bytes = std::make_shared<const std::string>(write_png(disc(400, 150)));
    picture.width = mm(100), picture.threshold = 200;
    const PartId id = must(make_part(project, catalog(), workshop.fonts(), picture, "disc"));
    PrintStep step;
    step.art = PrintStep::Art::picture, step.bleed = mm(2);
    auto d = workshop.derive(std::make_shared<Project>(project));
    must(apply(AddStep{id, step}, project, catalog(), *d->part(id)));
    const SheetId sheet = add_sheet(project, "s", "cream-card-12x12", "mat-12x12-standard");
    Placement p;
    p.part = id, p.left = mm(40), p.top = mm(50), p.turn = degrees(90);
    must(place(project, sheet, p));
    d = workshop.derive(std::make_shared<Project>(project));
    REQUIRE(d->plan);
    REQUIRE(d->plan->program.prints.size() == 1);
    const PrintSheet& print = d->plan->program.prints[0];
    CHECK(print.shapes.empty());
    REQUIRE(print.pictures.size() == 1);
    CHECK(print.pictures[0].lines == 1);
    // Marks lie where a desk printer prints: not within 4 mm of the paper's edge (common practice).
    CHECK(print.marks.size() == 8); // four crosses
    for (const Polyline& mark : print.marks)
        for (const Point q : mark.points)
            CHECK(print.sheet.stock_area.grown(-3.999).contains(q));
    const Box art = bounds(print.pictures[0].art), whole = bounds(print.pictures[0].whole);
    CHECK(art.width() == Approx(75).margin(0.3)); // 300 of 400 pixels at 100 mm
    CHECK(whole.width() == Approx(art.width() + 4).margin(0.02));
    // Where it lies on the sheet is where its outline lies: the middle of the picture is that of the art.
    CHECK(distance(print.pictures[0].to_sheet({50, 50}), art.centre()) < 0.2);
    // Twice as large, all of it is; and the blade follows.
    Part& part = *find(project, id);
    part.scale = 2;
    d = workshop.derive(std::make_shared<Project>(project));
    const PrintPicture& large = d->plan->program.prints.at(0).pictures.at(0);
    CHECK(bounds(large.art).width() == Approx(150).margin(0.6));
    CHECK(distance(large.to_sheet({50, 50}), bounds(large.art).centre()) < 0.4);
    // A later step that moves the lines leaves the picture where it was: then the lines are printed.
    {
        Project moved = project;
        must(append_step(moved, catalog(), id, MirrorStep{}, {}));
        const auto after = workshop.derive(std::make_shared<Project>(moved));
        CHECK(has(after->findings, "print.lines"));
        CHECK(after->plan->program.prints.at(0).pictures.empty());
        CHECK(after->plan->program.prints.at(0).shapes.size() == 1);
        // Before it, there is no picture below what it is given.
        auto& steps = find(moved, id)->steps;
        REQUIRE(steps.size() == 2);
        std::swap(steps[0], steps[1]);
        const auto before = workshop.derive(std::make_shared<Project>(moved));
        CHECK(has(before->findings, "step.refused"));
    }
    // It survives the program's text and the project's file.
    const std::string text = program_text(d->plan->program);
    CHECK(program_text(must(program_from_text(text))) == text);
    CHECK(must(read_project(write_project(project))) == project);
    // What is too large to be painted is refused.
    const Polylines huge{round_line({0, 0}, 9000)};
    CHECK(printed_image(*picture.bytes, mm(100), {}, huge, huge).error().code == "picture.large");
}
