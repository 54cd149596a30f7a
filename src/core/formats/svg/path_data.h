// The path grammar of SVG 2, section 9.3. Internal to formats/svg.
#pragma once

#include <string_view>
#include <vector>

#include "core/geometry/path.h"

namespace dotlane::svg {

struct PathData {
    std::vector<Contour> contours;
    bool complete =
        true; ///< false: stopped at a syntax error; what came before is kept, as the standard asks
};

PathData parse_path(std::string_view d);

} // namespace dotlane::svg
