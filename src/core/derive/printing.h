// What is printed on a sheet: the lines of its print lanes in the colours they were drawn in, four marks
// as near to the corners of the reach as there is room, and a square to measure.
#pragma once

#include "core/derive/laid.h"
#include "core/machine/program.h"
#include "core/sources/make.h"

namespace dotlane {

/// Side of the check square of a print.
inline constexpr Length print_square = mm(20);

/// None when the sheet has no line in a print lane. `scope`: a project with the lanes and the parts that lie
/// on the sheet, of which nothing else is read. `sheet` as the program knows it.
std::optional<PrintSheet> print_sheet(const Catalog& catalog, const Project& scope, const LaidSheet& laid,
                                      const ProgramSheet& sheet);

/// The picture that a part has printed on it, and the line sets in whose place.
struct PrintedPicture {
    TracedFrom from;
    const StepReport::Printed* areas = nullptr; ///< of `evaluated`
    std::set<LineSetId> sets;                   ///< those of the step that are in print lanes; not empty
};
/// Of the first step that prints one.
std::optional<PrintedPicture> printed_picture(const Project& project, const Part& part,
                                              const EvaluatedPart& evaluated);

/// What a part has printed beside such a picture, in the colours it was drawn in: of its lines in print lanes
/// those that lie in the arrangement `piece` (0: all of them), moved by `to`.
std::vector<PrintShape> printed_shapes(const Project& project, const Catalog& catalog,
                                       const EvaluatedPart& evaluated, int piece, const Affine& to);

/// Cautions: "print.page" (larger than desk printers take), "print.edge" (nearer to the edge of the stock
/// than they print).
Findings check_print(const PrintSheet& print);

} // namespace dotlane
