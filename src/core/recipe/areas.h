// What steps that work on areas share.
#pragma once

#include "core/recipe/step.h"

namespace dotlane {

struct Areas {
    std::vector<Region> each;           ///< one for each closed line
    std::vector<const FlatLine*> lines; ///< they came from
    int open = 0;                       ///< lines that bound no area
};
Areas areas_of(const std::vector<const WorkSet*>& sets);
/// All that they cover.
Region covered(const Areas& areas);

/// As a blade would cut them: of outlines of one line set that were drawn without a filling, one that lies
/// within another takes its area away, one within that adds it again, and so on inwards. Filled ones, and
/// those that cross, stay as they are. An outline that is doubled counts once.
struct Nested {
    std::vector<Region> each;
    std::size_t inner = 0; ///< outlines that lie within others
};
Nested nested(const Areas& areas, const Progress& progress); ///< nothing when cancelled

/// A line that runs there and bounds nothing that is known.
FlatLine line_along(Polylines contours);
/// The pieces of an area, as lines like the one that `like` gives for each.
template<class Like>
std::vector<FlatLine> lines_of(const Region& whole, Like like) {
    const auto shared = std::make_shared<const Region>(whole);
    std::vector<FlatLine> out;
    for (const Region& piece : pieces(whole)) {
        out.push_back(line_of(piece, like(piece)));
        out.back().whole = shared;
    }
    return out;
}
/// The edge of an area.
Polylines edge_of(const Region& region);

/// A count without unit.
Figure figure(const char* key, std::size_t n);
/// Caution "step.open-lines" when there are some: they were not `did` ("joined").
void tell_open(StepReport& report, int open, const Phrase& did);

/// The closed lines of a set replaced one by one; open ones stay. Change: (const Region&, const FlatLine&) ->
/// Region.
template<class Change>
std::shared_ptr<WorkSet> each_area(const WorkSet& set, Change change) {
    auto out = copy_of(set);
    out->lines.clear();
    for (const FlatLine& line : set.lines) {
        const Region area = area_of(line);
        if (area.empty())
            out->lines.push_back(line);
        else if (const Region next = change(area, line); next == area)
            out->lines.push_back(line); // as it was drawn
        else if (!next.empty())
            out->lines.push_back(line_of(next, line));
    }
    return out;
}

} // namespace dotlane
