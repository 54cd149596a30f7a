#include "core/recipe/arrangements.h"

#include <algorithm>
#include <cmath>

#include "core/base/sets.h"
#include "core/geometry/region.h"
#include "core/geometry/region_index.h"
#include "core/recipe/step.h"

namespace dotlane {
namespace {

constexpr double touch_mm = 0.05; // lines of one piece that were made apart may miss each other by rounding

bool bounds_area(const Polyline& line) {
    return line.closed && line.points.size() > 2;
}

/// All that closed lines bound, whichever way they run.
std::vector<Region> islands(const std::vector<LineSetId>& of, const std::vector<RunSet>& runs) {
    Polylines rings;
    for (const RunSet& run : runs)
        if (!run.ink && (of.empty() || std::find(of.begin(), of.end(), run.set) != of.end()))
            for (const Polyline& line : run.lines)
                if (bounds_area(line)) {
                    rings.push_back(line);
                    if (signed_area_mm2(line.points) < 0)
                        std::reverse(rings.back().points.begin(), rings.back().points.end());
                }
    return pieces(region_of(rings, FillRule::nonzero));
}

struct Island {
    Box box;
    RegionIndex index;
};

bool touches(const Island& island, const Polyline& line) {
    for (std::size_t i = 0; i < line.points.size(); ++i) {
        if (island.index.contains(line.points[i])) return true;
        if (i > 0 && island.index.crosses(line.points[i - 1], line.points[i])) return true;
    }
    return false;
}

/// Where each line of each run lies; islands that a line holds together are joined.
std::vector<std::vector<std::size_t>> assigned(const std::vector<Island>& all,
                                               const std::vector<RunSet>& runs, bool whole, Sets& joined,
                                               Progress& progress) {
    std::vector<std::vector<std::size_t>> at(runs.size());
    for (std::size_t r = 0; r < runs.size() && !progress.cancelled(); ++r) {
        auto end = runs[r].of.begin();
        std::size_t held = all.size(); // by the source line so far
        for (std::size_t l = 0; l < runs[r].lines.size(); ++l) {
            while (end != runs[r].of.end() && l >= end->end)
                ++end, held = all.size();
            const Polyline& line = runs[r].lines[l];
            const Box box = bounds(line);
            std::size_t found = all.size(), nearest = 0;
            for (std::size_t i = 0; i < all.size(); ++i) {
                if (gap(all[i].box, box) < gap(all[nearest].box, box)) nearest = i;
                if (gap(all[i].box, box) > 0 || !touches(all[i], line)) continue;
                if (found < all.size())
                    joined.unite(found, i);
                else
                    found = i;
            }
            if (found == all.size()) {
                found = nearest;
            } else if (whole && end != runs[r].of.end()) {
                if (held < all.size()) joined.unite(held, found);
                held = found;
            }
            at[r].push_back(found);
        }
    }
    return at;
}

} // namespace

LaidApart lay_apart(const StepReport::Apart& wish, const std::vector<LineSetId>& of,
                    const std::vector<RunSet>& runs, Progress& progress) {
    LaidApart out;
    const std::vector<Region> regions = islands(of, runs);
    if (regions.empty()) return out.report.refused = say("There are no closed lines to lay apart."), out;
    if (regions.size() > most_pieces)
        return out.report.refused = say("There are %1 pieces; up to %2 can lie apart. Clean the lines first.",
                                        regions.size(), most_pieces),
               out;
    std::vector<Island> all;
    all.reserve(regions.size());
    for (const Region& region : regions)
        all.push_back({bounds(region).grown(touch_mm), RegionIndex(offset(region, mm(touch_mm)))});
    Sets joined(all.size());
    const auto at = assigned(all, runs, wish.whole, joined, progress);

    // Islands are sorted already, and a piece is named by its first island.
    std::vector<std::size_t> piece_of(all.size());
    std::vector<Polylines> pieces; // their closed lines, for showing
    for (std::size_t i = 0; i < all.size(); ++i)
        if (joined.of(i) == i) {
            piece_of[i] = pieces.size();
            pieces.emplace_back();
        } else {
            piece_of[i] = piece_of[joined.of(i)];
        }
    for (std::size_t r = 0; r < at.size(); ++r)
        for (std::size_t l = 0; l < at[r].size(); ++l)
            if (!runs[r].ink && bounds_area(runs[r].lines[l]))
                pieces[piece_of[at[r][l]]].push_back(runs[r].lines[l]);
    Sets together(pieces.size());
    for (const auto& group : wish.together)
        for (const int n : group) {
            const auto i = static_cast<std::size_t>(n - 1),
                       first = static_cast<std::size_t>(*group.begin() - 1);
            if (i < pieces.size() && first < pieces.size())
                together.unite(first, i);
            else
                out.report.findings.push_back(no_piece(static_cast<std::size_t>(n), pieces.size()));
        }
    std::vector<std::size_t> place(pieces.size());
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        if (together.of(i) == i) {
            place[i] = out.arrangements.size();
            out.arrangements.push_back({static_cast<int>(i) + 1,
                                        {},
                                        std::vector<Polylines>(runs.size()),
                                        std::vector<std::vector<std::uint32_t>>(runs.size())});
        } else {
            place[i] = place[together.of(i)];
        }
        const int with = static_cast<int>(together.of(i)) + 1;
        out.report.pieces.push_back({region_of(pieces[i], FillRule::nonzero), false, with});
    }
    for (auto& piece : out.report.pieces)
        piece.kept = std::count_if(out.report.pieces.begin(), out.report.pieces.end(),
                                   [&](const auto& other) { return other.with == piece.with; }) > 1;
    for (std::size_t r = 0; r < at.size(); ++r)
        for (std::size_t l = 0; l < at[r].size(); ++l) {
            Arrangement& a = out.arrangements[place[piece_of[at[r][l]]]];
            a.runs[r].push_back(runs[r].lines[l]);
            a.which[r].push_back(static_cast<std::uint32_t>(l));
            a.box.add(bounds(runs[r].lines[l]));
        }
    out.report.figures = {{"pieces", "", static_cast<double>(pieces.size())},
                          {"arrangements", "", static_cast<double>(out.arrangements.size())}};
    return out;
}

} // namespace dotlane
