// A number that a computation says about its result, for cards, the command line and JSON.
#pragma once

namespace dotlane {

struct Figure {
    const char* key;  ///< "pieces_after"
    const char* unit; ///< "", "mm", "mm2"; stands behind the key in JSON
    double value;
    bool operator==(const Figure&) const = default;
};

} // namespace dotlane
