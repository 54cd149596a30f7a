// Rays from a centre, the spacing apart where they are farthest out.
#pragma once

#include "core/project/fills/kind.h"

namespace dotlane {

struct SunburstFill {
    FillCentre centre;
    Length hollow = mm(2); ///< radius around the centre that is left free, 0..500 mm
    bool operator==(const SunburstFill&) const = default;

    static constexpr FillRow row{
        .key = "sunburst", .name = "Sunburst", .about = "Rays from a centre.", .open_mm = 2};
    friend void fields(SunburstFill& s, Fields& f) {
        centre_fields(s.centre, f);
        f.length({"hollow", "free centre", "Radius without rays"}, s.hollow, mm(0), mm(500));
    }
    friend FillLines fill(const SunburstFill& style, const FillInput& in, Progress& progress);
};

} // namespace dotlane
