// Which surface a fill covers, before and after the inset. Internal to recipe.
#pragma once

#include "core/project/steps/fill.h"
#include "core/recipe/step.h"

namespace dotlane {

struct Surface {
    std::vector<Region> areas; ///< one for each closed line that counts on its own
    std::vector<LineSetId> of; ///< the line set of each
    Region whole;              ///< to be filled
    Box box;                   ///< of all that the lines bound: places and anchors refer to it
    int open_lines = 0;        ///< that bound nothing
    bool any = false;          ///< whether there is a line at all
    std::vector<LeftOut> left_out;
};
/// What the step's settings make of its lines. A list of places that cannot be read chooses nothing: all is
/// filled.
Surface surface_of(const FillStep& step, const StepInput& in);

/// "20 50; 80 50" as points; nothing when it is no such list.
std::optional<std::vector<Point>> places_in(const std::string& text);
std::string places_text(const std::vector<Point>& places);
/// What such a place stands for, and the other way round; hundredths of the box.
Point place_of(Point share, const Box& box);
Point share_of(Point place, const Box& box);

} // namespace dotlane
