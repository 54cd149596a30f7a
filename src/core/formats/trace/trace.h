// Tracing of pictures to outlines, by Potrace (P. Selinger, Potrace: a polygon-based tracing algorithm,
// 2003).
#pragma once

#include "core/formats/trace/picture.h"
#include "core/geometry/path.h"

namespace dotlane {

struct TraceOptions {
    int speckle = 2;   ///< areas of up to so many pixels are left out, 0..100,000
    int reconnect = 0; ///< gaps of up to twice so many pixels are closed, 0..20
    double corner = 1; ///< 0 all corners, 1.34 none (Potrace's alphamax)
    double tolerance =
        0.2; ///< how far curves may be from the pixels' edges when they are joined, 0..5 pixels
};

struct Tracing {
    std::vector<Shape> shapes;
    double deviation = 0; ///< greatest distance of their lines from the pixels' edges, measured; pixels
};
/// One shape for each separate piece, with its holes; pixels, y down, origin at the picture's top-left
/// corner.
Tracing trace(Mask mask, const TraceOptions& options);

} // namespace dotlane
