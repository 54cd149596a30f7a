// What a recipe has made so far: line sets as they stand between two steps. Sets are shared between states,
// so a state costs only what its step changed.
#pragma once

#include <algorithm>
#include <map>
#include <memory>
#include <optional>
#include <set>

#include "core/base/figure.h"
#include "core/base/finding.h"
#include "core/geometry/region.h"
#include "core/project/project.h"
#include "core/recipe/coverage.h"

namespace dotlane {

/// A line at finished size.
struct FlatLine {
    LineId id; ///< of the source line it came from; of the first of several
    LineSetId set;
    FillRule rule = FillRule::nonzero;
    bool filled = false; ///< by its file: open contours bound an area too
    Polylines contours;
    Box box;
    std::ptrdiff_t order = 0; ///< in which it was drawn, the hindmost first; outlines lie behind all of it
    /// What the contours bound, when a step has made it: whoever changes the contours takes it away.
    std::shared_ptr<const Region> area;
    /// What that is a piece of, when a step has made all its pieces at once; of no meaning without `area`.
    std::shared_ptr<const Region> whole = {};
};

/// Whether the line bounds an area: a contour of it closes, or its file fills it.
inline bool fillable(const FlatLine& line) {
    return line.filled || std::any_of(line.contours.begin(), line.contours.end(),
                                      [](const Polyline& contour) { return contour.closed; });
}

struct WorkSet {
    LineSetId id;
    StepId step;         ///< that made it; none: of the source
    bool worked = false; ///< a step has changed it: its lines no longer stand for single source lines
    std::vector<FlatLine> lines;
    Polylines strokes; ///< of a fill: run, but not chosen one by one
    Box box() const;
};

/// A piece of a surface that a fill left out.
struct LeftOut {
    enum class Why { thin, edge, unchosen, open } why = Why::thin;
    LineSetId set; ///< that its line belongs to; none: of several
    Box box;
};

/// What a step did that inks: the figures that stand on its card.
struct InkReport {
    const char* style = ""; ///< its key
    std::size_t rows = 0, runs = 0, pieces = 0, lifts = 0;
    std::size_t cells = 0,
                edge_cells = 0; ///< of patterns that have some: whole ones, and those the edge runs through
    int repeats = 1;            ///< of each stroke, in place
    Length length, spacing, inset, tip;
    std::size_t seams = 0; ///< places where lines of two strokes lie side by side: see seams.h
    Length widest_gap;     ///< the longest way from one stroke to the next that does not leave the surface
    Angle angle;
    Coverage coverage;
    int open_lines = 0;                    ///< lines of its sets that are not closed, left unfilled
    int too_thin = 0;                      ///< closed lines nothing could be filled in at this inset
    std::size_t centre_lines = 0;          ///< strokes along the middle of what is too narrow
    std::vector<LeftOut> left_out;         ///< none is lost silently
    Phrase refused;                        ///< why the step could not work; empty when it did
    std::shared_ptr<const Region> surface; ///< that is filled, before the inset
};

/// A piece of material that is to be at hand: a rectangle to be cut from what it comes on.
struct Needed {
    Phrase what; ///< "foil"
    Length width, height;
    LineSetId of = {}; ///< whose name tells it from others; none: there is but one
    /// From the bolt, for so many copies, its grain along the cloth.
    struct Cloth {
        Length width, length;
        int copies = 1;
    };
    std::optional<Cloth> cloth = {};
    bool on_mat = false; ///< it is cut where it lies, on a mat that has to hold it
};

struct StepReport {
    Phrase refused; ///< why the step could not work: the lines stay as they were before it
    std::vector<Figure> figures;
    Findings findings;                    ///< their place is filled in by the evaluation
    std::shared_ptr<const InkReport> ink; ///< of a step that inks
    struct Piece {
        Region region;
        bool kept;    ///< of a pieces step: not dropped; of pieces laid apart: together with others
        int with = 0; ///< the first piece of its arrangement, when pieces are laid apart
    };
    /// Of a step that lets pieces lie apart, which is seen when all steps are done.
    struct Apart {
        std::vector<std::set<int>> together; ///< numbers of pieces that keep their arrangement
        bool whole = true;                   ///< what was drawn as one line stays one piece
    };
    std::optional<Apart> apart;
    /// What it put where, across an opening or along a line: shown on the bench while the step is chosen.
    struct Put {
        Point a, b;
        Length width;
        bool by_hand = false;
        bool narrow = false; ///< a strip of material that is narrower than wished, not something put there
    };
    std::vector<Put> put;
    std::vector<Point> order;  ///< where hands work, one place after another: numbered on the bench, likewise
    std::vector<Needed> needs; ///< of each copy of the part
    /// A picture that is printed in place of the lines that were traced from it.
    struct Printed {
        Region art;   ///< where its own colours are seen
        Region whole; ///< what is printed: the art with its bleed
    };
    std::optional<Printed> printed;
    /// Its pieces lie on one another, each to be cut of a stock of its own: that they cross is no fault.
    bool piled = false;
    bool from_behind = false;  ///< what it makes is mirrored: the back of the material is seen
    std::vector<Piece> pieces; ///< of a step that numbers pieces, in the order of their numbers
};

struct RecipeState {
    std::vector<std::shared_ptr<const WorkSet>> sets;
    std::map<StepId, std::shared_ptr<const StepReport>> reports;

    const WorkSet* find(LineSetId id) const;
};

} // namespace dotlane
