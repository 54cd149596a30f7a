#include "core/commands/inking.h"

#include <algorithm>

#include "core/base/text.h"
#include "core/commands/steps.h"
#include "core/derive/inking.h"
#include "core/formats/trace/picture.h"

namespace dotlane {
namespace {

Result<Step> step_in(const Project& project, PartId part_id, StepId id) {
    const Part* part = find(project, part_id);
    const Step* step = part ? find(*part, id) : nullptr;
    if (!step) return fail("edit.missing", say("There is no such step in this project."));
    return *step;
}

/// Each pixel the mean of those that it stands for.
GreyPixels smaller(const GreyImage& image) {
    const int longer = std::max(image.width, image.height);
    const double scale = std::min(1.0, static_cast<double>(most_tone_pixels) / longer);
    GreyPixels out;
    out.width = std::max(1, static_cast<int>(image.width * scale));
    out.height = std::max(1, static_cast<int>(image.height * scale));
    const auto begin = [](int k, int of, int all) {
        return static_cast<int>(static_cast<long>(k) * all / of);
    };
    for (int y = 0; y < out.height; ++y)
        for (int x = 0; x < out.width; ++x) {
            const int x0 = begin(x, out.width, image.width), y0 = begin(y, out.height, image.height),
                      x1 = std::max(x0 + 1, begin(x + 1, out.width, image.width)),
                      y1 = std::max(y0 + 1, begin(y + 1, out.height, image.height));
            long sum = 0;
            for (int v = y0; v < y1; ++v)
                for (int u = x0; u < x1; ++u)
                    sum += image.at(u, v);
            out.grey.push_back(static_cast<std::uint8_t>(sum / (static_cast<long>(x1 - x0) * (y1 - y0))));
        }
    return out;
}

} // namespace

Result<Done> apply(const ToneFill& command, Project& project, const Catalog& catalog) {
    auto step = step_in(project, command.part, command.step);
    if (!step) return tl::make_unexpected(step.error());
    FillTone* tone = tone_in(step->what);
    if (!tone)
        return fail(
            "fill.no-tone",
            say("This style is the same everywhere. Parallel, contour, stipple and scribble can be lighter "
                "and darker."));
    const auto image = read_picture(command.bytes);
    if (!image) return tl::make_unexpected(image.error());
    const GreyPixels pixels = smaller(*image);
    tone->by = FillTone::By::picture;
    tone->from = 0, tone->to = 100;
    tone->picture = std::make_shared<const std::string>(graymap(pixels));
    auto done = apply(ChangeStep{command.part, command.step, step->what}, project, catalog);
    if (!done) return done;
    done->said =
        say("The fill is as dark as the picture, %1 x %2 pixels of it.", pixels.width, pixels.height);
    return done;
}

Phrase said_of(const AngleSearch& search) {
    const AngleFigures &now = search.now, &best = search.best;
    if (in_degrees(best.angle) == in_degrees(now.angle))
        return say("No angle is better than %1 degrees: %2 lifts, %3 % inked, %4.",
                   number(in_degrees(now.angle), 1), now.lifts, number(now.covered * 100, 1),
                   spoken_seconds(in_seconds(now.time)));
    return say("At %1 degrees: %2 lifts instead of %3, %4 % inked instead of %5 %, %6 instead of %7.",
               number(in_degrees(best.angle), 1), best.lifts, now.lifts, number(best.covered * 100, 1),
               number(now.covered * 100, 1), spoken_seconds(in_seconds(best.time)),
               spoken_seconds(in_seconds(now.time)));
}

Result<Done> apply(const TurnFill& command, Project& project, const Catalog& catalog,
                   const EvaluatedPart& evaluated, Progress& progress) {
    const auto step = step_in(project, command.part, command.step);
    if (!step) return tl::make_unexpected(step.error());
    const auto tried = angles_for(project, catalog, evaluated, command.step, progress);
    if (!tried) return fail("fill.no-angle", say("The fill has no lines at any angle."));
    const AngleSearch found = best_of(*tried, command.goal);
    Result<Done> done = Done{{}, command.part, {}, command.step};
    if (in_degrees(found.best.angle) != in_degrees(found.now.angle))
        done = apply(ChangeStep{command.part, command.step, turned_to(step->what, found.best.angle)}, project,
                     catalog);
    if (done) done->said = said_of(found);
    return done;
}

Result<Done> apply(const PressFill& command, Project& project, const Catalog& catalog,
                   const EvaluatedPart& evaluated) {
    const auto step = step_in(project, command.part, command.step);
    if (!step) return tl::make_unexpected(step.error());
    const RecipeChain::Link* link = fill_of(evaluated, command.step);
    const StepWhat next = link ? pressed(step->what, input_of(link->given), command.at) : step->what;
    if (next == step->what)
        return fail("fill.no-piece", say("There is no piece at %1, %2 mm that could be filled.",
                                         number(command.at.x, 2), number(command.at.y, 2)));
    auto done = apply(ChangeStep{command.part, command.step, next}, project, catalog);
    if (!done) return done;
    const FillPlaces places = places_of(next, input_of(link->given));
    const auto filled = std::count(places.filled.begin(), places.filled.end(), 1);
    done->said =
        say_n(static_cast<int>(places.pieces.size()), "%1 of %n [piece is|pieces are] filled.", filled);
    return done;
}

} // namespace dotlane
