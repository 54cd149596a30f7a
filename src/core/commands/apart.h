// A part taken apart into several.
#pragma once

#include "core/commands/command.h"
#include "core/lettering/outliner.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

/// By what it is told apart.
enum class ApartBy {
    colour, ///< lines of a file, as all but the last
    group,
    name,
    piece, ///< lines of a file, or the pieces of a part that is computed or traced
    level, ///< of a picture that is traced in several levels or colours
};
inline constexpr ApartBy all_aparts[] = {ApartBy::colour, ApartBy::group, ApartBy::name, ApartBy::piece,
                                         ApartBy::level};
const char* apart_name(ApartBy by); ///< "colour"

struct ApartBundle {
    std::string name; ///< "rust", "petals", "piece 2"
    std::vector<LineId> lines;
};
/// Lines of a file. Colour: of the fill, else of the stroke. Group: the outermost groups at which the lines
/// differ. Name: what the file calls them, without a number at its end. Piece: lines that overlap or lie in
/// one another stay together. Lines without a colour, group or name are a bundle of their own. In the order
/// of their first lines. None by level. `one_colour`: colours that differ by no more are one.
std::vector<ApartBundle> bundles(const Drawing& drawing, ApartBy by, double one_colour = 0);
/// Colours become line sets of the part, each in its lane still, where a step's layers are colours: those
/// steps work on them. Nothing happens to a part without such a step.
Result<void> layers_by_colour(Project& project, PartId part);
/// Line sets of a drawing as they lie on one another, each where its foremost line lies, the lowest first;
/// sets that steps make come last, as they lie in front.
std::vector<LineSetId> as_they_lie(const Part& part, std::vector<LineSetId> sets);
/// Line sets for the colours of a drawing of at least two: what steps with layers work on.
Result<void> gather_colours(Project& project, PartId part);

inline constexpr std::size_t most_parts_apart = 60;

/// A part of its own for each; the part itself keeps the first. Of a file: with the lanes, steps and places
/// on sheets of its lines; steps that bring lines of their own stay with the first. Of what is computed or
/// traced: all stay live, the pieces numbered as the pieces step does. Errors: "part.apart" when there are
/// not 2 to 60, or none of that kind; when a step counts the pieces of a file's part, or another part takes
/// its outline.
struct TakeApart {
    PartId part;
    ApartBy by = ApartBy::colour;
};
Result<Done> apply(const TakeApart& command, Project& project, const Catalog& catalog, FontShelf& fonts,
                   const EvaluatedPart& evaluated);

} // namespace dotlane
