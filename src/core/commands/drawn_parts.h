// A part that came from a file, changed in its drawing: strays treated, lines taken apart into parts of their
// own. What is placed stays where it lies.
#pragma once

#include "core/project/project.h"
#include "core/recipe/evaluate.h"
#include "core/recipe/strays.h"

namespace dotlane {

/// Treats the strays of a part. Error "remedy.none".
Result<void> settle_strays(Project& project, PartId part, StrayChoice choice);

/// By what the lines of a file are told apart.
enum class ApartBy { colour, group, name, piece };
inline constexpr ApartBy all_aparts[] = {ApartBy::colour, ApartBy::group, ApartBy::name, ApartBy::piece};
const char* apart_name(ApartBy by); ///< "colour"

struct ApartBundle {
    std::string name; ///< "rust", "petals", "piece 2"
    std::vector<LineId> lines;
};
/// Colour: of the fill, else of the stroke. Group: the outermost groups at which the lines differ. Name: what
/// the file calls them, without a number at its end. Piece: lines that overlap or lie in one another stay
/// together. Lines without a colour, group or name are a bundle of their own. In the order of their first
/// lines.
std::vector<ApartBundle> bundles(const Drawing& drawing, ApartBy by);

inline constexpr std::size_t most_parts_apart = 60;
/// A part of its own for each bundle, with the lanes, steps and places on sheets of its lines; the part
/// itself keeps the first. Steps that bring lines of their own stay with the first. Errors: "part.apart" when
/// there are not 2 to 60 bundles, when a step counts pieces, or when another part takes this one's outline.
Result<std::vector<PartId>> take_apart(Project& project, PartId part, ApartBy by);

} // namespace dotlane
