#include "core/project/fills/stipple.h"

#include <algorithm>
#include <cmath>

#include "core/recipe/fill.h"
#include "core/recipe/strewn.h"
#include "core/recipe/toned_lines.h"

namespace dotlane {

FillLines fill(const StippleFill& style, const FillInput& in, Progress& progress) {
    if (in.tone) return toned_dots(in, static_cast<std::uint32_t>(style.seed), progress);
    // So many that a hexagonal packing of them would be the spacing apart.
    const double by_spacing =
        2 * in_square_mm(area(in.region)) / (std::sqrt(3.0) * in_mm(in.spacing) * in_mm(in.spacing));
    const std::size_t count = style.count > 0 ? static_cast<std::size_t>(style.count)
                                              : static_cast<std::size_t>(std::llround(by_spacing));
    FillLines out;
    for (const Point p : strewn(in.region, count, static_cast<std::uint32_t>(style.seed), progress))
        out.lines.push_back({{p}, false});
    out.rows = out.pieces = out.lines.size();
    return out;
}

} // namespace dotlane
