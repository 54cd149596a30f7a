// Lines of a pattern cut at the edge of a region. Internal to recipe.
//
// Method: edges lie in the cells of a square grid, each segment looks into the cells that it passes. Which
// side of an edge a point lies on is decided in whole numbers on a grid of 1/200,000 mm, on which points of
// the region and of the pattern never coincide; what lies exactly on a line counts to its left. So a line
// that enters leaves again, and as many ends lie on each ring as must, whatever touches what.
#pragma once

#include <functional>

#include "core/base/progress.h"
#include "core/recipe/line_net.h"

namespace dotlane {

struct PatternLine {
    Polyline line;
    std::uint32_t row = 0;
    /// Both ends of an open line lie outside the region's box. Otherwise pieces from such an end to the edge
    /// are loose.
    bool reaches_out = true;
    double longest = 0; ///< mm that no segment of it is longer than; 0: it is not known
};

/// Lines made one after the other, as they are cut: all at once they would be more memory than what is left
/// of them.
struct Pattern {
    std::size_t lines = 0;
    /// Makes the line of this number out of what is given, whose memory it may use. Called once for each, by
    /// several threads.
    std::function<void(std::size_t, PatternLine&)> make;
    double segment = 1;        ///< of a line, mm on average
    bool all_reach_out = true; ///< and none is closed
};
Pattern pattern_of(std::vector<PatternLine> lines);

/// Adds what lies inside. Pieces shorter than `least_mm` are left out; they stay where they tie two rings
/// together. Coordinates within +-10,000 mm. Ends early when cancelled.
/// The pattern is laid by `lay`, which neither bends nor scales, where the region lies.
void add_cut(NetMaker& to, const Region& region, const Pattern& pattern, const Affine& lay, double least_mm,
             Progress& progress);

} // namespace dotlane
