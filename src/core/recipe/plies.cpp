#include "core/recipe/plies.h"

#include <algorithm>
#include <set>

#include "core/base/parallel.h"

namespace dotlane {

std::vector<std::size_t> layer_ranks(const std::vector<const WorkSet*>& of) {
    std::vector<std::pair<std::ptrdiff_t, std::size_t>> foremost;
    for (std::size_t i = 0; i < of.size(); ++i) {
        std::vector<const FlatLine*> lines;
        for (const FlatLine& line : of[i]->lines)
            lines.push_back(&line);
        std::sort(lines.begin(), lines.end(),
                  [](const FlatLine* a, const FlatLine* b) { return a->order > b->order; });
        const auto first = std::find_if(lines.begin(), lines.end(),
                                        [](const FlatLine* line) { return !area_of(*line).empty(); });
        if (first != lines.end()) foremost.emplace_back((*first)->order, i);
    }
    std::sort(foremost.begin(), foremost.end());
    std::vector<std::size_t> out;
    for (const auto& [order, layer] : foremost)
        out.push_back(layer);
    return out;
}

Plies plies_of(const std::vector<const WorkSet*>& of, const std::vector<int>& order, Progress& progress) {
    Plies out;
    struct Line {
        const FlatLine* line;
        std::size_t layer;
        Region area;
    };
    std::vector<Line> lines;
    for (const WorkSet* set : of) {
        out.layers.push_back({set, nullptr, {}, {}, {}});
        for (const FlatLine& line : set->lines) {
            Region area = area_of(line);
            if (area.empty())
                ++out.open;
            else
                lines.push_back({&line, out.layers.size() - 1, std::move(area)});
        }
    }
    std::stable_sort(lines.begin(), lines.end(),
                     [](const Line& a, const Line& b) { return a.line->order < b.line->order; });
    out.by_rank = layer_ranks(of);
    if (!order.empty()) { // as wholes, then
        std::vector<std::size_t> ranked, rank(out.layers.size());
        for (const int n : order)
            if (const auto layer = static_cast<std::size_t>(n) - 1;
                std::find(out.by_rank.begin(), out.by_rank.end(), layer) != out.by_rank.end())
                ranked.push_back(layer);
        for (const std::size_t layer : out.by_rank) // what is not named lies on top
            if (std::find(ranked.begin(), ranked.end(), layer) == ranked.end()) ranked.push_back(layer);
        for (std::size_t i = 0; i < ranked.size(); ++i)
            rank[ranked[i]] = i;
        std::stable_sort(lines.begin(), lines.end(),
                         [&](const Line& a, const Line& b) { return rank[a.layer] < rank[b.layer]; });
        out.by_rank = std::move(ranked);
    }
    std::vector<Piled> pile;
    std::vector<std::vector<Region>> all(out.layers.size());
    std::set<std::size_t> done;
    std::size_t points = 0;
    for (Line& l : lines) {
        if (!pile.empty() && pile.back().layer != l.layer) done.insert(pile.back().layer);
        out.by_turns |= done.contains(l.layer);
        points += point_count(l.area);
        out.layers[l.layer].foremost = l.line;
        all[l.layer].push_back(l.area);
        pile.push_back({std::move(l.area), l.layer});
    }
    std::vector<Region> seen = seen_of(pile, out.layers.size(), progress);
    if (progress.cancelled()) return out;
    in_parallel(out.layers.size(), points, [&](std::size_t i) {
        if (!progress.cancelled()) out.layers[i].whole = united(all[i]);
        out.layers[i].seen = std::move(seen[i]);
    });
    return out;
}

} // namespace dotlane
