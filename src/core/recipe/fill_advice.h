// What a fill would come to with other numbers: told, not tried. Pure.
#pragma once

#include <functional>

#include "core/recipe/step.h"

namespace dotlane {

/// Of strokes in their order, by whoever knows tool and machine.
using InkTime = std::function<Duration(const Polylines&)>;

/// A fill with other numbers, and what it would be.
struct FillOption {
    StepWhat what;
    std::shared_ptr<const InkReport> ink;
    Polylines strokes;
    Duration time;
};
/// "cross, joined": style and ends.
Phrase said_of(const FillOption& option);
/// The fill as it is, and then its nearest alternatives, as far as they differ from it: parallel, cross,
/// contour, and one stroke a piece. Stops early when cancelled. Empty when `fill` is none.
std::vector<FillOption> fill_options(const StepWhat& fill, const StepInput& in, const InkTime& time,
                                     Progress& progress = no_progress());

enum class AngleGoal { fewest_lifts, no_corner, fastest };

struct AngleFigures {
    Angle angle; ///< of a whole degree, 0 to 179; that of the fill as it is: any
    std::size_t lifts = 0;
    double covered = 0; ///< share of the surface, 0..1, on squares of a quarter of the tip
    Duration time;
};
struct TriedAngles {
    AngleFigures now;              ///< of the fill as it is
    std::vector<AngleFigures> all; ///< by whole degrees
};
/// None when the fill cannot be made, or `fill` is none, or cancelled.
std::optional<TriedAngles> try_angles(const StepWhat& fill, const StepInput& in, const InkTime& time,
                                      Progress& progress = no_progress());

struct AngleSearch {
    AngleFigures now, best;
};
/// What is equally good is told apart by coverage, then by lifts, then by the nearness to the angle as it is.
AngleSearch best_of(const TriedAngles& tried, AngleGoal goal);

/// The pieces that a fill could be given to, and to which of them it is.
struct FillPlaces {
    std::vector<Region> pieces;
    std::vector<char> filled; ///< as many: 0 or 1
};
FillPlaces places_of(const StepWhat& fill, const StepInput& in);
/// The fill after a press on one of them: it alone when all were filled, then it beside those that were
/// pressed before; pressed again, no longer. As it was when there is no piece.
StepWhat pressed(const StepWhat& fill, const StepInput& in, Point at);

/// The same fill at that angle; `fill` must be one.
StepWhat turned_to(const StepWhat& fill, Angle angle);

} // namespace dotlane
