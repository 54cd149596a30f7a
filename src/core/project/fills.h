// The styles of fill: one line each.
#pragma once

#include <variant>
#include <vector>

#include "core/project/fills/bricks.h"
#include "core/project/fills/contour.h"
#include "core/project/fills/cross.h"
#include "core/project/fills/dots.h"
#include "core/project/fills/grid.h"
#include "core/project/fills/hexagons.h"
#include "core/project/fills/parallel.h"
#include "core/project/fills/ruled.h"
#include "core/project/fills/scales.h"
#include "core/project/fills/scribble.h"
#include "core/project/fills/spiral.h"
#include "core/project/fills/stipple.h"
#include "core/project/fills/sunburst.h"
#include "core/project/fills/triangles.h"
#include "core/project/fills/waves.h"
#include "core/project/fills/zigzag.h"

namespace dotlane {

/// In the order in which they are offered.
using FillStyle = std::variant<ParallelFill, CrossFill, ZigzagFill, ContourFill, SpiralFill, ScribbleFill,
                               GridFill, RuledFill, WavesFill, DotsFill, StippleFill, BricksFill,
                               TrianglesFill, HexagonsFill, ScalesFill, SunburstFill>;

struct FillKind : FillRow {
    FillStyle fresh;
};
/// In the order in which they are offered.
const std::vector<FillKind>& fill_kinds();
const FillKind& kind_of(const FillStyle& style);

/// The choice of a style; another one has its first numbers.
void choose(FillStyle& style, Fields& f);
/// The numbers of the chosen one.
void fields(FillStyle& style, Fields& f);

} // namespace dotlane
