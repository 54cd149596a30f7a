// Whether parts fit what the chosen machine reaches, turned by any angle; and what can be done when not.
#pragma once

#include "core/recipe/evaluate.h"
#include "core/sheets/fits.h"

namespace dotlane {

inline constexpr Length usual_hinge = mm(15); ///< of a glued hinge; common practice is 12 to 20 mm

/// Turned over, left to right, when it lies so.
std::vector<Point> mirrored(std::vector<Point> hull, bool mirror);
/// Hull of all lines of the part (0) or of one arrangement of its pieces.
std::vector<Point> outline_hull(const EvaluatedPart& part, int piece);
/// The sizes of stock that take the part as one piece on the project's machine, the smallest first.
std::vector<SheetFit> fits_of(const Project& project, const Catalog& catalog, const EvaluatedPart& part);
/// "304.8 x 304.8 mm, turned by 38 to 53.7 degrees".
Phrase fit_words(const SheetFit& fit, LengthUnit unit);

/// Codes: "part.too-large" (caution; remedy "card.panels" for a folded card whose panels would fit) when no
/// stock and mat of the machine take the part, or one of its pieces that lie apart; "part.turn" (hint; remedy
/// "part.turn-to-fit") when it only fits turned by some angle.
void check_fit(const Project& project, const Catalog& catalog, const EvaluatedPart& part, Findings& out);
/// Whether a "part.turn" is settled: the part lies so on a sheet.
bool lies_turned(const Project& project, const Finding& finding);
/// What lies there, with this hull in part coordinates, fits the sheet when it is turned: says so in a
/// finding "sheet.outside" that has no remedy yet.
void offer_turn(Finding& outside, const std::vector<Point>& hull, const Placement& placement,
                const Box& usable);

} // namespace dotlane
