// What is told of a fill.
#pragma once

#include "cli/verb.h"
#include "core/derive/inking.h"

namespace dotlane::cli {

/// A fill that has been made.
struct Inked {
    const Project& project;
    const Catalog& catalog;
    const Part& part;
    const EvaluatedPart& evaluated;
    const Step& step;
    const InkReport& report;
    Duration time() const; ///< of all passes
    int passes() const;    ///< how often each stroke is run in place
};
/// Nothing when the step inks not, or is off.
std::optional<Inked> inked(const Context& c, const Project& project, const EvaluatedPart& evaluated,
                           const Part& part, const Step& step);

/// "fill 7: parallel, 24 rows, 3 strokes, 2 lifts, 0.81 m, inked 98.2 %, over the edge 0 %"
void print_fill(std::ostream& out, const Inked& fill);
/// What scripts are told of it.
nlohmann::json fill_json(const Inked& fill);

} // namespace dotlane::cli
