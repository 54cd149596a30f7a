#include "core/project/fills/parallel.h"

#include "core/recipe/fill.h"
#include "core/recipe/hatch.h"

namespace dotlane {

FillLines fill(const ParallelFill& style, const FillInput& in, Progress& progress) {
    HatchResult out = hatch(in.region, {in.spacing, in.angle, in.joined, style.alternate}, progress);
    return {std::move(out.lines), out.rows, out.pieces};
}

} // namespace dotlane
