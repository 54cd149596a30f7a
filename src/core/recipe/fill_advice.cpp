#include "core/recipe/fill_advice.h"

#include <algorithm>
#include <cmath>
#include <tuple>

#include "core/base/parallel.h"
#include "core/recipe/fill_ground.h"
#include "core/recipe/fill_pieces.h"
#include "core/recipe/limbs.h"
#include "core/recipe/raster.h"

namespace dotlane {
namespace {

const FillStyle& style_named(std::string_view key) {
    const auto& all = fill_kinds();
    return std::find_if(all.begin(), all.end(), [&](const FillKind& k) { return k.key == key; })->fresh;
}

std::vector<FillStep> alternatives(const FillStep& fill) {
    std::vector<FillStep> out{fill};
    const bool open = kind_of(fill.style).open_mm > 0;
    const auto add = [&](FillStep other) {
        if (kind_of(other.style).open_mm > 0 || open) other.spacing.reset();
        if (other.ends != FillEnds::one_stroke && open && kind_of(other.style).open_mm == 0)
            other.ends = FillStep::usual_ends(false);
        if (std::find(out.begin(), out.end(), other) == out.end()) out.push_back(std::move(other));
    };
    for (const char* key : {"parallel", "cross", "contour"}) {
        FillStep other = fill;
        if (kind_of(fill.style).key != std::string_view(key)) other.style = style_named(key);
        add(std::move(other));
    }
    FillStep one = fill;
    if (open) one.style = style_named("parallel");
    one.ends = FillEnds::one_stroke;
    add(std::move(one));
    return out;
}

/// How much of a region strokes cover, on a grid.
class QuickCoverage {
  public:
    QuickCoverage(const Region& region, double tip)
        : raster_(bounds(region).grown(tip), fine(bounds(region), tip))
        , radius_(tip / 2)
        , inside_(raster_.size(), 0) {
        raster_.fill(region, [&](std::size_t from, std::size_t end) {
            std::fill(&inside_[from], &inside_[from] + (end - from), 1);
            count_ += end - from;
        });
    }
    double of(const Polylines& strokes) const {
        std::vector<char> bare = inside_;
        std::size_t covered = 0;
        const auto mark = [&](std::size_t from, std::size_t end) {
            for (; from < end; ++from)
                covered += static_cast<std::size_t>(bare[from]), bare[from] = 0;
        };
        for (const Polyline& line : strokes) {
            const std::size_t n = line.points.size();
            if (n == 1) raster_.mark(line.points[0], line.points[0], radius_, mark);
            for (std::size_t i = 0; i + (line.closed ? 0 : 1) < n; ++i)
                raster_.mark(line.points[i], line.points[(i + 1) % n], radius_, mark);
        }
        return count_ > 0 ? static_cast<double>(covered) / static_cast<double>(count_) : 0;
    }

  private:
    /// Four million squares at the most.
    static double fine(const Box& box, double tip) {
        return std::max(tip / 4, std::sqrt(box.width() * box.height() / 4e6));
    }
    Raster raster_;
    double radius_;
    std::vector<char> inside_;
    std::size_t count_ = 0;
};

/// Less is better.
std::tuple<double, double, double> rank(const AngleFigures& f, AngleGoal goal) {
    const auto lifts = static_cast<double>(f.lifts);
    // A thousandth of the surface is less than what the grid can tell.
    const double bare = std::round((1 - f.covered) * 1000);
    switch (goal) {
    case AngleGoal::fewest_lifts:
        return {lifts, bare, 0};
    case AngleGoal::no_corner:
        return {bare, lifts, 0};
    case AngleGoal::fastest:
        return {in_seconds(f.time), bare, lifts};
    }
    return {};
}

/// Lines at an angle and half a turn further are the same.
double turn_between(Angle a, Angle b) {
    const double d = std::fmod(std::abs(in_degrees(a) - in_degrees(b)), 180);
    return std::min(d, 180 - d);
}

} // namespace

Phrase said_of(const FillOption& option) {
    const FillStep& step = std::get<FillStep>(option.what);
    const Phrase name = as_word("Fills", kind_of(step.style).name);
    switch (step.ends) {
    case FillEnds::apart:
        return say("%1, line by line", name);
    case FillEnds::joined:
        return say("%1, ends joined", name);
    case FillEnds::one_stroke:
        return say("%1, one stroke a piece", name);
    }
    return name;
}

std::vector<FillOption> fill_options(const StepWhat& fill, const StepInput& in, const InkTime& time,
                                     Progress& progress) {
    std::vector<FillOption> out;
    const auto* step = std::get_if<FillStep>(&fill);
    if (!step) return out;
    for (FillStep& other : alternatives(*step)) {
        StepOutcome made = run_step(other, in, progress);
        if (progress.cancelled()) break;
        if (!made.report.ink || !made.made) continue;
        FillOption option{std::move(other), made.report.ink, std::move(made.made->strokes), {}};
        option.time = time(option.strokes);
        out.push_back(std::move(option));
    }
    return out;
}

std::optional<TriedAngles> try_angles(const StepWhat& fill, const StepInput& in, const InkTime& time,
                                      Progress& progress) {
    const auto* step = std::get_if<FillStep>(&fill);
    if (!step || in_mm(in.tip) <= 0) return std::nullopt;
    const FillGround ground = ground_of(*step, in);
    if (ground.inner.empty() || expected_segments(*step, ground, in.tip) > most_fill_segments)
        return std::nullopt;
    const QuickCoverage coverage(ground.surface.whole, in_mm(in.tip));
    // The same at any angle.
    const Polylines limbs = step->centre_lines ? limb_lines(ground, in.tip) : Polylines();
    const auto at = [&](Angle angle) {
        FillStep turned = *step;
        turned.angle = angle;
        FillPieces made = fill_pieces(turned, input_on(ground, turned, in.tip), progress);
        Polylines& lines = made.lines.lines;
        lines.insert(lines.end(), limbs.begin(), limbs.end());
        return AngleFigures{angle, lines.empty() ? 0 : lines.size() - 1, coverage.of(lines), time(lines)};
    };
    TriedAngles out{at(step->angle), std::vector<AngleFigures>(180)};
    in_parallel(out.all.size(), 180 * point_count(ground.inner), [&](std::size_t k) {
        if (!progress.cancelled()) out.all[k] = at(degrees(static_cast<double>(k)));
    });
    if (progress.cancelled()) return std::nullopt;
    return out;
}

AngleSearch best_of(const TriedAngles& tried, AngleGoal goal) {
    AngleSearch out{tried.now, tried.now};
    for (const AngleFigures& f : tried.all) {
        const auto a = rank(f, goal), b = rank(out.best, goal);
        if (a < b ||
            (a == b && turn_between(f.angle, out.now.angle) < turn_between(out.best.angle, out.now.angle)))
            out.best = f;
    }
    return out;
}

namespace {

Surface all_of(FillStep step, const StepInput& in) {
    step.only.clear();
    return surface_of(step, in);
}

} // namespace

FillPlaces places_of(const StepWhat& fill, const StepInput& in) {
    FillPlaces out;
    const auto* step = std::get_if<FillStep>(&fill);
    if (!step) return out;
    const Surface all = all_of(*step, in);
    const auto places = places_in(step->only);
    out.pieces = pieces(all.whole);
    for (const Region& piece : out.pieces)
        out.filled.push_back(!places || places->empty() ||
                             std::any_of(places->begin(), places->end(), [&](Point share) {
                                 return contains(piece, place_of(share, all.box));
                             }));
    return out;
}

StepWhat pressed(const StepWhat& fill, const StepInput& in, Point at) {
    const auto* step = std::get_if<FillStep>(&fill);
    if (!step) return fill;
    const Surface all = all_of(*step, in);
    for (const Region& piece : pieces(all.whole)) {
        if (!contains(piece, at)) continue;
        auto places = places_in(step->only).value_or(std::vector<Point>());
        if (std::erase_if(places, [&](Point share) { return contains(piece, place_of(share, all.box)); }) ==
            0)
            places.push_back(share_of(at, all.box));
        FillStep out = *step;
        out.only = places_text(places);
        return out;
    }
    return fill;
}

StepWhat turned_to(const StepWhat& fill, Angle angle) {
    FillStep out = std::get<FillStep>(fill);
    out.angle = angle;
    return out;
}

} // namespace dotlane
