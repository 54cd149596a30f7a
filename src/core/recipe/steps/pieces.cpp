#include "core/project/steps/pieces.h"

#include <algorithm>
#include <tuple>

#include "core/project/pieces_text.h"
#include "core/recipe/areas.h"

namespace dotlane {

StepOutcome run(const PiecesStep& step, const StepInput& in, Progress&) {
    const auto dropped = piece_numbers(step.drop);
    if (!dropped) return refused(dropped.error().message);
    const Areas areas = areas_of(in.of);
    if (areas.each.empty()) return refused(say("There are no closed lines to take apart."));
    struct Piece {
        Region region;
        const FlatLine* line;
        std::size_t set;
    };
    std::vector<Piece> all;
    StepOutcome out;
    for (std::size_t s = 0; s < in.of.size(); ++s) {
        auto next = copy_of(*in.of[s]);
        next->lines.clear();
        for (const FlatLine& line : in.of[s]->lines) {
            const Region region = area_of(line);
            if (region.empty()) next->lines.push_back(line);
            for (Region& piece : pieces(region))
                all.push_back({std::move(piece), &line, s});
        }
        out.changed.push_back(std::move(next));
    }
    std::stable_sort(all.begin(), all.end(), [](const Piece& a, const Piece& b) {
        const Box x = bounds(a.region), y = bounds(b.region);
        return std::tie(x.x0, x.y0) < std::tie(y.x0, y.y0);
    });
    std::size_t kept = 0;
    for (std::size_t i = 0; i < all.size(); ++i) {
        const bool keep =
            std::find(dropped->begin(), dropped->end(), static_cast<int>(i) + 1) == dropped->end();
        out.report.pieces.push_back({all[i].region, keep});
        if (!keep) continue;
        ++kept;
        out.changed[all[i].set]->lines.push_back(line_of(all[i].region, *all[i].line));
    }
    for (const int n : *dropped)
        if (n > static_cast<int>(all.size()))
            out.report.findings.push_back(no_piece(static_cast<std::size_t>(n), all.size()));
    out.report.figures = {figure("pieces_before", all.size()), figure("pieces_after", kept)};
    return out;
}

} // namespace dotlane
