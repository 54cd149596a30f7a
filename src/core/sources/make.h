// Computes the lines of a source from its numbers. Every line's `group` is its role, which names the line set
// that it goes to; ids run from 1 in the order of the lines.
#pragma once

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/geometry/region.h"
#include "core/lettering/outliner.h"
#include "core/project/drawing.h"
#include "core/project/sources.h"
#include "core/project/steps.h"

namespace dotlane {

/// What lines are for.
namespace role {
inline constexpr const char* outline = "outline"; ///< of the finished thing
inline constexpr const char* fold = "fold";
inline constexpr const char* mountain = "mountain fold";
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

/// What one part takes of another: areas at finished size, where they lie in that part.
struct Borrowed {
    Region outline; ///< the outer edge of all that is cut, or of all lines when nothing is; no holes
    Region face;    ///< what is seen of the finished thing: the front of a folded card, or the outline
    std::vector<Region> areas; ///< of the same lines one by one, with their holes
    Polylines open;            ///< those of the same lines that bound no area
};

/// `borrowed`: of the part that borrows_from names; null when it has none. Errors "source.*" say which
/// numbers do not go together; "source.part": no part, or one without an outline; "cancelled".
Result<SourceLines> make_lines(const SourceSpec& spec, FontShelf& fonts, const Borrowed* borrowed = nullptr,
                               Progress& progress = no_progress());
/// The lines that a step brings from another part.
Result<SourceLines> make_lines(const PartStep& step, const Borrowed* borrowed);

/// The roles that lines of a source can have, where these are known without making them: of traced pictures,
/// and of sources that wait for another part. Empty for all others.
std::vector<std::string> known_roles(const SourceSpec& spec);

/// The circles of a badge, of its own or of a usual size.
struct BadgeCircles {
    Length visible, cut; ///< diameters
};
BadgeCircles circles_of(const Badge& badge);

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
