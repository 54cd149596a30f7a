// Bridges of a stencil: strips of material left across openings, so that islands hang on to the sheet.
// Internal to recipe.
//
// Method: from places along each island's edge the ways across its opening to other material are looked up in
// a tree of the opening's edges; ways are dear when they are long, near corners, or lie where the opening is
// narrower than the bridge is wide. Each island chooses as many as wished; what still hangs loose is tied by
// the cheapest ways that join it to the rest (J. Kruskal, On the shortest spanning subtree of a graph, 1956).
// Then the bridges are taken out of the openings, and what is left is asked whether it does what was wished.
#pragma once

#include "core/base/progress.h"
#include "core/geometry/region.h"
#include "core/project/steps/stencil.h"

namespace dotlane {

struct BridgeWishes {
    using Place = StencilStep::Place;
    using Sides = StencilStep::Sides;
    int each = 0; ///< for each island; 0: by its size
    Length width; ///< > 0
    Place place = Place::balanced;
    Angle along; ///< of Place::along
    Sides sides = Sides::straight;
    std::vector<Point>
        by_hand; ///< an island that one of them is nearest to has these, and no others if they hold it
};

struct Bridge {
    Point a, b;   ///< across the opening, on its edges
    Length width; ///< of the strip around them: half of it to each side, or more where its sides open
    bool by_hand = false;
};

struct Bridged {
    Region openings; ///< less the bridges
    std::vector<Bridge> bridges;
    std::size_t islands = 0; ///< pieces of material that had nothing to hang on
    std::vector<Box> loose;  ///< islands that still have nothing
    std::vector<Box> closed; ///< openings of which less than a tenth is left
    std::vector<Box> narrow; ///< bridges that are not as wide as wished all along
    std::size_t pieces_of_sheet =
        0; ///< connected pieces of material inside the openings' box, grown: one, if all hold
};

/// Ends early with what it has when cancelled.
Bridged bridged(const Region& openings, const BridgeWishes& wishes, Progress& progress);

/// How many bridges suit an island, by its perimeter: one for each 40 mm, two from 25 mm on, so that it does
/// not swing, eight at the most. Common practice, without a source.
int bridges_by_size(Length perimeter);

} // namespace dotlane
