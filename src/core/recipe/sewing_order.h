// In which order the pieces of a block are sewn, each along one straight seam to all that is sewn before it.
// Internal to recipe.
#pragma once

#include "core/base/progress.h"
#include "core/geometry/polyline.h"

namespace dotlane {

struct SeamGraph {
    std::size_t pieces = 0;
    struct Seam {
        std::size_t a, b;
        Polyline line; ///< that both share
    };
    std::vector<Seam> seams;
};

struct SewingOrder {
    std::vector<std::size_t> order; ///< of all pieces
    /// Whether each piece meets what is sewn before it along one straight line: the order of a block that is
    /// sewn on paper. Otherwise as many as possible come first, the others as they were drawn.
    bool straight = false;
};
/// Searched through until 200,000 ways to go on have been looked at; then the longest that was found counts.
SewingOrder sewing_order(const SeamGraph& graph, Progress& progress);

} // namespace dotlane
