// Computes the lines of a source from its numbers. Every line's `group` is its role, which names the line set
// that it goes to; ids run from 1 in the order of the lines.
#pragma once

#include "core/base/result.h"
#include "core/lettering/outliner.h"
#include "core/project/drawing.h"
#include "core/project/sources.h"

namespace dotlane {

/// What lines are for.
namespace role {
inline constexpr const char* outline = "outline"; ///< of the finished thing
inline constexpr const char* fold = "fold";
inline constexpr const char* perforation = "perforated fold";
inline constexpr const char* border = "border";
inline constexpr const char* hole = "hole";
inline constexpr const char* window = "window";
inline constexpr const char* guide = "guide"; ///< not run
inline constexpr const char* motif = "motif";
inline constexpr const char* traced = "traced"; ///< with a number behind it when there are several levels
inline constexpr const char* letters = "letters";
inline constexpr const char* strokes = "strokes";
} // namespace role

/// Errors "source.*" say which numbers do not go together.
Result<SourceLines> make_lines(const SourceSpec& spec, FontShelf& fonts);

/// The roles that lines of a traced picture can have; known without tracing it.
std::vector<std::string> picture_roles(const Picture& picture);

/// Finished sizes of a card's panels along the way they fold, from the left or the top: their sum is the
/// base.
std::vector<Length> panels_of(const FoldedCard& card);

/// How many motifs fit, and at which size.
struct PatternCount {
    int across = 0, rows = 0, total = 0;
    Length size, web; ///< `web`: the narrowest strip between two motifs
};
Result<PatternCount> count_of(const RepeatPattern& pattern);

} // namespace dotlane
