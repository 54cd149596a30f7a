#include "core/plan/route.h"

#include <algorithm>
#include <numeric>

#include "core/plan/tour.h"
#include "core/plan/waits.h"

namespace dotlane {
namespace {

/// A line, or an outline with all that must come before it.
struct Block {
    Polylines strokes; ///< in running order
    bool reversible() const { return strokes.size() == 1; }
    bool free_start() const { return strokes.size() == 1 && strokes.front().closed; }
};

Point first_of(const Polyline& line) {
    return line.points.front();
}
Point last_of(const Polyline& line) {
    return line.closed ? line.points.front() : line.points.back();
}

void start_at(Polyline& ring, std::size_t index) {
    std::rotate(ring.points.begin(), ring.points.begin() + static_cast<std::ptrdiff_t>(index),
                ring.points.end());
}

/// Starts a closed line where the way from `from` over it to `to` is shortest.
bool start_between(Polyline& ring, Point from, Point to) {
    std::size_t best = 0;
    double least = distance(from, ring.points[0]) + distance(ring.points[0], to) - 1e-9;
    for (std::size_t i = 1; i < ring.points.size(); ++i) {
        const double d = distance(from, ring.points[i]) + distance(ring.points[i], to);
        if (d < least) least = d, best = i;
    }
    if (best == 0) return false;
    start_at(ring, best);
    return true;
}

std::vector<Block> routed(std::vector<Block> blocks, Point rest, Progress& progress) {
    if (blocks.empty()) return blocks;
    std::vector<TourItem> items{{rest, rest, true}};
    for (const Block& b : blocks)
        items.push_back({first_of(b.strokes.front()), last_of(b.strokes.back()), b.reversible()});
    Tour tour(std::move(items));
    tour.improve(progress);
    // Closed lines start where it suits their neighbours; a few rounds settle it, as each moves the next
    // one's best.
    const bool any_free =
        std::any_of(blocks.begin(), blocks.end(), [](const Block& b) { return b.free_start(); });
    for (int round = 0; any_free && round < 3; ++round) {
        bool changed = false;
        const auto order = tour.order();
        for (std::size_t i = 0; i < order.size(); ++i) {
            Block& block = blocks[order[i] - 1];
            if (!block.free_start()) continue;
            const Point from = i == 0 ? rest : tour.exit(order[i - 1]),
                        to = i + 1 == order.size() ? rest : tour.entry(order[i + 1]);
            if (!start_between(block.strokes.front(), from, to)) continue;
            tour.set_item(order[i], block.strokes.front().points.front());
            changed = true;
        }
        if (!changed || progress.cancelled()) break;
        tour.improve(progress);
    }
    std::vector<Block> out;
    out.reserve(blocks.size());
    for (const std::uint32_t item : tour.order()) {
        Block& block = blocks[item - 1];
        if (tour.flipped(item) && block.reversible() && !block.free_start())
            std::reverse(block.strokes.front().points.begin(), block.strokes.front().points.end());
        out.push_back(std::move(block));
    }
    return out;
}

} // namespace

Length travel_of(const Polylines& lines, Point rest) {
    double total = 0;
    Point at = rest;
    for (const Polyline& line : lines) {
        total += distance(at, first_of(line));
        at = last_of(line);
    }
    return mm(total + distance(at, rest));
}

RouteResult route(Polylines lines, const RouteOptions& options, Progress& progress) {
    std::erase_if(lines, [](const Polyline& line) { return line.points.empty(); });
    RouteResult out;
    out.travel_as_drawn = travel_of(lines, options.rest);
    const auto parent = options.inner_first ? waits_for(lines) : std::vector<int>(lines.size(), -1);
    std::vector<std::vector<std::size_t>> inner(lines.size());
    for (std::size_t i = 0; i < lines.size(); ++i)
        if (parent[i] >= 0) inner[static_cast<std::size_t>(parent[i])].push_back(i);
    // Innermost first: a line is finished when all inside it are blocks. Depth is bounded by nesting, small
    // in practice, but a stack of a hundred thousand rings must not overflow ours.
    std::vector<std::size_t> order;
    std::vector<std::size_t> todo;
    for (std::size_t i = 0; i < lines.size(); ++i)
        if (parent[i] < 0) todo.push_back(i);
    while (!todo.empty()) {
        const std::size_t i = todo.back();
        todo.pop_back();
        order.push_back(i);
        todo.insert(todo.end(), inner[i].begin(), inner[i].end());
    }
    std::vector<Block> block_of(lines.size());
    for (auto it = order.rbegin(); it != order.rend(); ++it) {
        const std::size_t i = *it;
        Block block;
        if (!inner[i].empty()) {
            ++out.outlines_waiting;
            std::vector<Block> within;
            for (const std::size_t k : inner[i])
                within.push_back(std::move(block_of[k]));
            for (Block& b : routed(std::move(within), first_of(lines[i]), progress))
                if (block.strokes.empty()) // of rings in rings, all that has been gathered goes on at once
                    block.strokes = std::move(b.strokes);
                else
                    std::move(b.strokes.begin(), b.strokes.end(), std::back_inserter(block.strokes));
            start_between(lines[i], last_of(block.strokes.back()), last_of(block.strokes.back()));
        }
        block.strokes.push_back(std::move(lines[i]));
        block_of[i] = std::move(block);
    }
    std::vector<Block> top;
    for (std::size_t i = 0; i < lines.size(); ++i)
        if (parent[i] < 0) top.push_back(std::move(block_of[i]));
    for (Block& b : routed(std::move(top), options.rest, progress))
        for (Polyline& p : b.strokes)
            out.strokes.push_back(std::move(p));
    out.travel = travel_of(out.strokes, options.rest);
    return out;
}

} // namespace dotlane
