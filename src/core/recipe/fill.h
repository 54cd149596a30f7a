// What a style of fill is given and answers; each style computes in a file of its own below fills/.
#pragma once

#include "core/base/progress.h"
#include "core/geometry/region.h"
#include "core/project/fills.h"
#include "core/recipe/tone.h"

namespace dotlane {

struct FillInput {
    const Region& region; ///< to be filled, inset already: lines may touch its edge and never leave it
    Length spacing;       ///< between neighbouring lines, > 0
    Angle angle;          ///< of the lines, or of the pattern
    FillEnds ends = FillEnds::joined;
    Length tip; ///< of the tool, > 0
    FillPhase phase = FillPhase::centre;
    Box anchor; ///< of the part, of all that is filled, or of the piece, before the inset; see FillPhase
    const Region* outline = nullptr; ///< before the inset: cells are counted in it; null: `region`
    Length least = {};               ///< shorter pieces of lines are left out
    const Tone* tone = nullptr;      ///< of styles that can be lighter and darker; null: as dark as they are

    /// The same on another region, which must outlive it.
    FillInput within(const Region& other) const {
        return {other, spacing, angle, ends, tip, phase, anchor, outline, least, tone};
    }
};

struct FillLines {
    Polylines lines;        ///< one for each run of the tool without a lift
    std::size_t rows = 0;   ///< lines of the pattern that met the region
    std::size_t pieces = 0; ///< what they are in the region before ends are joined
    std::size_t cells = 0,
                edge_cells = 0; ///< of patterns that have some: whole ones, and those cut by the edge

    void add(FillLines other);
};

/// More segments than this are refused before they are made.
inline constexpr double most_fill_segments = 20e6;

/// Ends early with what it has when cancelled. A piece that no line of the pattern meets is left empty.
FillLines filled(const FillStyle& style, const FillInput& in, Progress& progress);

} // namespace dotlane
