// Findings about what the blade sets free: pieces and necks that the stock does not bear, marks that miss
// them.
#pragma once

#include "core/catalog/catalog.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

/// What is asked of pieces, by the stock that asks most.
struct PieceNeeds {
    Length least_width, least_size;
    Phrase stock;
};
PieceNeeds piece_needs(const std::vector<const Stock*>& stocks);

/// The pieces are the area that the part's cut lines leave, holes open. Motifs of a pattern without a frame
/// are holes of the sheet, so none of it. Codes: "piece.thin" (remedy "clean.narrow"), "piece.neck" (remedies
/// "piece.thicken", "clean.narrow"), "piece.sliver" (the same), "piece.small" (remedy "piece.drop"),
/// "piece.more" (remedy "clean.narrow"), "piece.cross" (remedy "lines.join"), "piece.piled" (remedy
/// "apart.colours"), "piece.unchecked";
/// "marks.beyond" (remedies "beyond.smaller", "beyond.turn", "beyond.wrap").
void check_pieces(const Project& project, const EvaluatedPart& part, const PieceNeeds& needs, Findings& out,
                  Progress& progress);

} // namespace dotlane
