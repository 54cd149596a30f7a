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

/// What one part takes of another: areas at finished size, where they lie in that part.
struct Borrowed {
    Region outline; ///< the outer edge of all that is cut, or of all lines when nothing is; no holes
    Region face;    ///< what is seen of the finished thing: the front of a folded card, or the outline
    std::vector<Region> areas; ///< of the same lines one by one, with their holes
    Polylines open;            ///< those of the same lines that bound no area
};

/// What the maker of lines is given.
struct MakeInput {
    FontShelf& fonts;
    const Borrowed* borrowed; ///< of the part that borrows_from names; null when it has none
    Progress& progress;
};

/// Errors "source.*" say which numbers do not go together; "source.part": no part, or one without an outline;
/// "cancelled".
Result<SourceLines> make_lines(const SourceSpec& spec, FontShelf& fonts, const Borrowed* borrowed = nullptr,
                               Progress& progress = no_progress());
/// The lines that a step brings. Error "source.brings" for steps that bring none.
Result<SourceLines> make_lines(const StepWhat& what, FontShelf& fonts, const Borrowed* borrowed,
                               Progress& progress = no_progress());

/// The picture that lines are traced from.
struct TracedFrom {
    std::shared_ptr<const std::string> bytes; ///< of the file, never null
    Length width;                             ///< of the whole picture, at a part's scale of 1
};
/// None when the source is no picture.
std::optional<TracedFrom> traced_from(const SourceSpec& spec);

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
