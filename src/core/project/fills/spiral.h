// One line that winds inwards, along the edge or around a centre.
#pragma once

#include "core/project/fills/kind.h"

namespace dotlane {

struct SpiralFill {
    enum class Course { edge, round };
    Course course = Course::edge; ///< along the edge, or around a centre
    FillCentre centre;            ///< of a round one
    bool operator==(const SpiralFill&) const = default;

    static constexpr FillRow row{
        .key = "spiral", .name = "Spiral", .about = "One line that winds inwards.", .dense = 2};
    friend void fields(SpiralFill& s, Fields& f) {
        f.one_of({"course", "winds along", "The edge of each piece, or round a centre"}, s.course,
                 {"edge", "round"});
        if (f.when(s.course == Course::round)) centre_fields(s.centre, f);
    }
    friend FillLines fill(const SpiralFill& style, const FillInput& in, Progress& progress);
};

} // namespace dotlane
