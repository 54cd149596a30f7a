#include "core/project/fills/parallel.h"

#include "core/recipe/hatch.h"
#include "core/recipe/pattern.h"
#include "core/recipe/toned_lines.h"

namespace dotlane {

FillLines fill(const ParallelFill& style, const FillInput& in, Progress& progress) {
    HatchOptions options;
    options.spacing = in.spacing, options.angle = in.angle;
    options.ends = in.ends, options.alternate = style.alternate, options.least = in.least;
    if (in.phase == FillPhase::corner)
        options.phase = HatchOptions::Phase::through, options.through = {in.anchor.x0, in.anchor.y0};
    if (in.tone) {
        options.ends = FillEnds::apart;
        return toned_lines(hatch(in.region, options, progress).lines, in, progress);
    }
    if (in_mm(in.least) > 0) {
        NetMaker maker(in.region.rings);
        std::uint32_t row = 0;
        add_rows(maker, in.region, options, row);
        return ended(maker.done(), in, progress, style.alternate);
    }
    FillLines out;
    HatchResult made = hatch(in.region, options, progress);
    out.lines = std::move(made.lines), out.rows = made.rows, out.pieces = made.pieces;
    return out;
}

} // namespace dotlane
