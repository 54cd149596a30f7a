#include "core/plan/route.h"

#include <algorithm>
#include <numeric>

#include "core/plan/tour.h"

namespace dotlane {
namespace {

/// For each line the closed lines around it.
std::vector<std::vector<int>> containers(const Polylines& lines, const std::vector<double>& areas) {
    const auto n = lines.size();
    std::vector<std::vector<int>> out(n);
    std::vector<Box> boxes;
    for (const Polyline& line : lines)
        boxes.push_back(bounds(line));
    std::vector<std::size_t> by_left(n);
    std::iota(by_left.begin(), by_left.end(), 0U);
    std::sort(by_left.begin(), by_left.end(), [&](auto a, auto b) {
        return boxes[a].x0 != boxes[b].x0 ? boxes[a].x0 < boxes[b].x0 : areas[a] > areas[b];
    });
    std::vector<std::size_t> open; // closed lines whose right side is still ahead
    for (const std::size_t i : by_left) {
        std::erase_if(open, [&](std::size_t o) { return boxes[o].x1 < boxes[i].x0; });
        for (const std::size_t o : open)
            if (areas[o] > areas[i] && boxes[o].contains(boxes[i]) &&
                ring_contains(lines[o].points, lines[i].points[lines[i].points.size() / 2]))
                out[i].push_back(static_cast<int>(o));
        if (areas[i] > 0) open.push_back(i);
    }
    return out;
}

/// For each line the smallest closed line that must wait for it, or -1. Where outlines overlap, a line may
/// lie in two that do not lie in one another: then the smaller of them is made to come before the larger as
/// well, so that one chain of waiting holds for all. Waiting always goes from smaller to larger, hence never
/// round in a circle.
std::vector<int> parents(const Polylines& lines) {
    std::vector<double> areas;
    for (const Polyline& line : lines)
        areas.push_back(line.closed ? std::abs(signed_area_mm2(line.points)) : 0);
    auto around = containers(lines, areas);
    std::vector<std::size_t> by_area(lines.size());
    std::iota(by_area.begin(), by_area.end(), 0U);
    std::stable_sort(by_area.begin(), by_area.end(), [&](auto a, auto b) { return areas[a] < areas[b]; });
    std::vector<int> parent(lines.size(), -1);
    const auto smaller = [&](int a, int b) { // equal ones in the order given, so that there is no tie
        const double p = areas[static_cast<std::size_t>(a)], q = areas[static_cast<std::size_t>(b)];
        return p != q ? p < q : a < b;
    };
    for (const std::size_t i : by_area) {
        if (around[i].empty()) continue;
        const auto least = std::min_element(around[i].begin(), around[i].end(), smaller);
        parent[i] = *least;
        auto& next = around[static_cast<std::size_t>(*least)];
        for (const int other : around[i])
            if (other != *least && std::find(next.begin(), next.end(), other) == next.end())
                next.push_back(other);
    }
    return parent;
}

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
    const auto parent = options.inner_first ? parents(lines) : std::vector<int>(lines.size(), -1);
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
                for (Polyline& p : b.strokes)
                    block.strokes.push_back(std::move(p));
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
