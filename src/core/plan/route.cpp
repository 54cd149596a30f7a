#include "core/plan/route.h"

#include <algorithm>
#include <numeric>

#include "core/plan/tour.h"
#include "core/plan/waits.h"

namespace dotlane {
namespace {

/// A line, or an outline with all that must come before it.
struct Block {
    std::vector<std::uint32_t> lines; ///< in running order
    bool reversible() const { return lines.size() == 1; }
};

Point first_of(const Polyline& line) {
    return line.points.front();
}
Point last_of(const Polyline& line) {
    return line.closed ? line.points.front() : line.points.back();
}

class Router {
  public:
    Router(const Polylines& lines, Progress& progress)
        : lines_(lines)
        , how_(lines.size())
        , progress_(progress) {
        for (std::uint32_t i = 0; i < lines.size(); ++i)
            how_[i].line = i;
    }

    RouteResult run(const RouteOptions& options);

  private:
    std::vector<Block> routed(std::vector<Block> blocks, Point rest);

    Point first(std::uint32_t i) const {
        const auto& points = lines_[i].points;
        return how_[i].reversed ? points.back() : points[how_[i].start];
    }
    Point last(std::uint32_t i) const {
        const auto& points = lines_[i].points;
        return lines_[i].closed ? points[how_[i].start] : how_[i].reversed ? points.front() : points.back();
    }
    bool free_start(const Block& b) const { return b.lines.size() == 1 && lines_[b.lines.front()].closed; }

    /// Starts a closed line where the way from `from` over it to `to` is shortest.
    bool start_between(std::uint32_t ring, Point from, Point to) {
        const auto& points = lines_[ring].points;
        const auto way = [&](std::size_t i) { return distance(from, points[i]) + distance(points[i], to); };
        std::uint32_t& start = how_[ring].start;
        std::size_t best = start;
        double least = way(start) - 1e-9;
        for (std::size_t k = 1; k < points.size(); ++k) { // from where it starts now: of equal ones the next
            const std::size_t i = (start + k) % points.size();
            if (const double d = way(i); d < least) least = d, best = i;
        }
        if (best == start) return false;
        start = static_cast<std::uint32_t>(best);
        return true;
    }

    const Polylines& lines_;
    std::vector<RoutedLine> how_; ///< each line
    Progress& progress_;
};

std::vector<Block> Router::routed(std::vector<Block> blocks, Point rest) {
    if (blocks.empty()) return blocks;
    std::vector<TourItem> items{{rest, rest, true}};
    for (const Block& b : blocks)
        items.push_back({first(b.lines.front()), last(b.lines.back()), b.reversible()});
    Tour tour(std::move(items));
    tour.improve(progress_);
    // Closed lines start where it suits their neighbours; a few rounds settle it, as each moves the next
    // one's best.
    const bool any_free =
        std::any_of(blocks.begin(), blocks.end(), [&](const Block& b) { return free_start(b); });
    for (int round = 0; any_free && round < 3; ++round) {
        bool changed = false;
        const auto order = tour.order();
        for (std::size_t i = 0; i < order.size(); ++i) {
            Block& block = blocks[order[i] - 1];
            if (!free_start(block)) continue;
            const Point from = i == 0 ? rest : tour.exit(order[i - 1]),
                        to = i + 1 == order.size() ? rest : tour.entry(order[i + 1]);
            if (!start_between(block.lines.front(), from, to)) continue;
            tour.set_item(order[i], first(block.lines.front()));
            changed = true;
        }
        if (!changed || progress_.cancelled()) break;
        tour.improve(progress_);
    }
    std::vector<Block> out;
    out.reserve(blocks.size());
    for (const std::uint32_t item : tour.order()) {
        Block& block = blocks[item - 1];
        if (tour.flipped(item) && block.reversible() && !free_start(block))
            how_[block.lines.front()].reversed = true;
        out.push_back(std::move(block));
    }
    return out;
}

RouteResult Router::run(const RouteOptions& options) {
    RouteResult out;
    const auto parent = options.inner_first ? waits_for(lines_) : std::vector<int>(lines_.size(), -1);
    std::vector<std::vector<std::uint32_t>> inner(lines_.size());
    for (std::uint32_t i = 0; i < lines_.size(); ++i)
        if (parent[i] >= 0) inner[static_cast<std::size_t>(parent[i])].push_back(i);
    // Innermost first: a line is finished when all inside it are blocks. Depth is bounded by nesting, small
    // in practice, but a stack of a hundred thousand rings must not overflow ours.
    std::vector<std::uint32_t> order, todo, top;
    for (std::uint32_t i = 0; i < lines_.size(); ++i)
        if (parent[i] < 0 && !lines_[i].points.empty()) top.push_back(i);
    todo = top;
    while (!todo.empty()) {
        const std::uint32_t i = todo.back();
        todo.pop_back();
        order.push_back(i);
        todo.insert(todo.end(), inner[i].begin(), inner[i].end());
    }
    std::vector<Block> block_of(lines_.size());
    const auto taken = [&](const std::vector<std::uint32_t>& which) {
        std::vector<Block> blocks;
        for (const std::uint32_t i : which)
            blocks.push_back(std::move(block_of[i]));
        return blocks;
    };
    for (auto it = order.rbegin(); it != order.rend(); ++it) {
        const std::uint32_t i = *it;
        Block block;
        if (!inner[i].empty()) {
            ++out.outlines_waiting;
            for (Block& b : routed(taken(inner[i]), first(i)))
                if (block.lines.empty()) // of rings in rings, all that has been gathered goes on at once
                    block.lines = std::move(b.lines);
                else
                    block.lines.insert(block.lines.end(), b.lines.begin(), b.lines.end());
            start_between(i, last(block.lines.back()), last(block.lines.back()));
        }
        block.lines.push_back(i);
        block_of[i] = std::move(block);
    }
    for (const Block& b : routed(taken(top), options.rest))
        for (const std::uint32_t i : b.lines)
            out.order.push_back(how_[i]);
    double travel = 0;
    Point at = options.rest;
    for (const RoutedLine& line : out.order)
        travel += distance(at, first(line.line)), at = last(line.line);
    out.travel = mm(travel + distance(at, options.rest));
    return out;
}

} // namespace

Length travel_of(const Polylines& lines, Point rest, int repeats) {
    double between = 0;
    const Polyline *first = nullptr, *before = nullptr;
    for (const Polyline& line : lines) {
        if (line.points.empty()) continue;
        if (before) between += distance(last_of(*before), first_of(line));
        if (!first) first = &line;
        before = &line;
    }
    if (!first) return {};
    return mm(distance(rest, first_of(*first)) + between * repeats +
              distance(last_of(*before), first_of(*first)) * (repeats - 1) +
              distance(last_of(*before), rest));
}

Polyline run(Polyline line, const RoutedLine& how) {
    if (how.reversed) std::reverse(line.points.begin(), line.points.end());
    std::rotate(line.points.begin(), line.points.begin() + how.start, line.points.end());
    return line;
}

RouteResult route(const Polylines& lines, const RouteOptions& options, Progress& progress) {
    return Router(lines, progress).run(options);
}

} // namespace dotlane
