// Findings about what the blade sets free: pieces and necks that the stock does not bear, marks that miss
// them.
#pragma once

#include "core/catalog/catalog.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

struct Derived;

/// What is asked of pieces, by the stock that asks most.
struct PieceNeeds {
    Length least_width, least_size;
    std::string stock;
};
PieceNeeds piece_needs(const std::vector<const Stock*>& stocks);

/// The pieces are the area that the part's cut lines leave, holes open. Motifs of a pattern without a frame
/// are holes of the sheet, so none of it. Codes: "piece.thin" (remedy "clean.narrow"), "piece.neck" (remedies
/// "piece.thicken", "clean.narrow"), "piece.sliver" (the same), "piece.small" (remedy "piece.drop"),
/// "piece.more" (remedy "clean.narrow"), "piece.cross" (remedy "lines.join"), "piece.unchecked";
/// "marks.beyond" (remedies "beyond.smaller", "beyond.turn", "beyond.wrap").
void check_pieces(const Project& project, const EvaluatedPart& part, const PieceNeeds& needs, Findings& out,
                  Progress& progress);

// The remedies. Error "remedy.none": the lines are gone since.
/// Adds a clean step that takes away what is narrower than the finding's least width.
Result<void> open_narrow(Project& project, const Finding& finding);
/// Adds an outline step around the narrow lines, which are set aside.
Result<void> thicken(Project& project, const Finding& finding);
/// Adds a pieces step that drops the piece.
Result<void> drop_piece(Project& project, const Derived& derived, const Finding& finding);
/// Remedies of "marks.beyond".
Result<void> bring_marks_in(Project& project, const Finding& finding);

} // namespace dotlane
