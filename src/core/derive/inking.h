// What a fill costs and risks on the project's machine, and what it would with other numbers.
#pragma once

#include "core/catalog/catalog.h"
#include "core/derive/derived.h"
#include "core/recipe/fill_advice.h"

namespace dotlane {

/// Lines of a part in a lane: they are run as the lane's tool is set for the stock of the first sheet that
/// the part lies on, or that it is meant for.
struct InkedIn {
    PartId part;
    LaneId lane;
};

/// How long the lane's tool takes for strokes in this order: the strokes, and between them a lift, the way
/// and a landing. Nothing when lane, tool or machine are not known.
Duration ink_time(const Project& project, const Catalog& catalog, InkedIn in, const Polylines& strokes);

/// How often each stroke is run in place: how deep an engraving is, as far as that can be said.
int passes_of(const Project& project, const Catalog& catalog, InkedIn in, const InkReport& ink);

/// What a fill is expected to gape, and what would help.
struct Landing {
    Length scatter;  ///< of the project's machine; see Machine::landing
    double gaps = 0; ///< that are seen, expected
    Length closer;   ///< spacing at which there would be none
};
Landing landing_of(const Project& project, const Catalog& catalog, const InkReport& ink);

/// A step of the part that inks and is on, with what it was given; null when there is none.
const RecipeChain::Link* fill_of(const EvaluatedPart& part, StepId step);

/// See fill_advice.h. `part` must hold the step.
std::vector<FillOption> options_for(const Project& project, const Catalog& catalog, const EvaluatedPart& part,
                                    StepId step, Progress& progress = no_progress());
std::optional<TriedAngles> angles_for(const Project& project, const Catalog& catalog,
                                      const EvaluatedPart& part, StepId step,
                                      Progress& progress = no_progress());
FillPlaces places_for(const EvaluatedPart& part, StepId step);

} // namespace dotlane
