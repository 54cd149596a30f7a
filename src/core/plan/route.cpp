#include "core/plan/route.h"

#include <algorithm>

#include "core/plan/starts.h"
#include "core/plan/tour.h"
#include "core/plan/waits.h"

namespace dotlane {
namespace {

/// A line, or an outline with all that must come before it.
struct Block {
    std::vector<std::uint32_t> lines; ///< in running order
};

Point first_of(const Polyline& line) {
    return line.points.front();
}
Point last_of(const Polyline& line) {
    return line.closed ? line.points.front() : line.points.back();
}

/// Of the tour and of where closed lines begin, each chosen anew for the other.
int rounds_of(Effort effort) {
    return effort == Effort::first ? 3 : 6;
}

/// Which of its points lies nearest.
std::uint32_t nearest_point(const Polyline& line, Point to) {
    const auto it = std::min_element(line.points.begin(), line.points.end(),
                                     [to](Point a, Point b) { return distance2(a, to) < distance2(b, to); });
    return static_cast<std::uint32_t>(it - line.points.begin());
}

/// Seven for each item come near to what can be reached; a shake takes some 30 to 200 microseconds. Routes
/// that are shown while better ones are looked for are to be there within a tenth of a second where an edit
/// asks for them, and soon enough when a large file was opened.
std::size_t shakes_of(std::size_t items, Effort effort) {
    if (effort == Effort::best) return std::min<std::size_t>(7 * items, 20'000);
    return std::max(std::min<std::size_t>(items, 200), std::min<std::size_t>(items / 16, 600));
}

class Router {
  public:
    /// `places`: the lines, of closed ones only the points at which they may begin.
    Router(const Polylines& places, const Polylines& lines, Effort effort, Progress& progress)
        : lines_(places)
        , whole_(lines)
        , how_(lines.size())
        , effort_(effort)
        , progress_(progress) {
        for (std::uint32_t i = 0; i < lines.size(); ++i)
            how_[i].line = i;
    }

    RouteResult run(const RouteOptions& options);

  private:
    std::vector<Block> routed(std::vector<Block> blocks, Point rest);
    std::vector<Block> small_before_large(std::vector<Block> blocks, Point rest);

    Point first(std::uint32_t i) const { return first_point(lines_, how_[i]); }
    Point last(std::uint32_t i) const { return last_point(lines_, how_[i]); }

    const Polylines &lines_, &whole_;
    std::vector<RoutedLine> how_; ///< each line
    Effort effort_;
    Progress& progress_;
};

std::vector<Block> Router::routed(std::vector<Block> blocks, Point rest) {
    if (blocks.size() < 2) return blocks; // where it begins is chosen at the end, among all
    // Where closed lines begin is chosen when their neighbours are known: they, and outlines with what lies
    // in them, count as places that can be run through either way; at first as their middles.
    const auto is_open = [&](const Block& b) { return !lines_[b.lines.back()].closed; };
    std::vector<TourItem> items{{rest, rest}};
    for (const Block& b : blocks) {
        const Point middle = bounds(lines_[b.lines.back()]).centre();
        items.push_back(is_open(b) ? TourItem{first(b.lines.front()), last(b.lines.front())}
                                   : TourItem{middle, middle});
    }
    const bool any_closed = !std::all_of(blocks.begin(), blocks.end(), is_open);
    // Of outlines with much in them that is left to the end, too: else rings in rings would be gone through
    // again at each depth.
    std::size_t within = 0;
    for (const Block& b : blocks)
        within += b.lines.size();
    const bool begins = any_closed && within <= 4 * blocks.size() + 64;
    Tour tour(std::move(items));
    const std::size_t shakes = shakes_of(blocks.size(), effort_);
    std::vector<std::uint32_t> best_order;
    std::vector<RoutedLine> best_how; // of the lines in that order
    double least = 1e300;
    for (int round = 0; round < rounds_of(effort_); ++round) {
        tour.improve(round == 0 ? shakes : shakes / 8, progress_);
        const auto order = tour.order();
        std::vector<std::uint32_t> lines;
        for (const std::uint32_t item : order) {
            const Block& block = blocks[item - 1];
            if (is_open(block)) how_[block.lines.front()].reversed = tour.flipped(item);
            if (begins) lines.insert(lines.end(), block.lines.begin(), block.lines.end());
        }
        if (!begins) {
            best_order = order;
            break;
        }
        begin_best(lines_, lines, rest, how_, progress_);
        const double travel = travel_of(lines_, lines, how_, rest);
        const bool better = travel < least * (1 - 1e-4);
        if (travel < least) {
            least = travel, best_order = order;
            best_how.clear();
            for (const std::uint32_t i : lines)
                best_how.push_back(how_[i]);
        }
        if (!better || progress_.cancelled()) break;
        for (const std::uint32_t item : order)
            if (const Block& block = blocks[item - 1]; !is_open(block))
                tour.set_item(item, last(block.lines.back()));
    }
    for (const RoutedLine& how : best_how)
        how_[how.line] = how;
    std::vector<Block> out;
    out.reserve(blocks.size());
    for (const std::uint32_t item : best_order)
        out.push_back(std::move(blocks[item - 1]));
    return out;
}

/// Of pieces that come loose the smallest first, those of up to four times its area as it is shortest, then
/// the rest in the same way.
std::vector<Block> Router::small_before_large(std::vector<Block> blocks, Point rest) {
    const auto size_of = [&](const Block& b) {
        const Polyline& line = whole_[b.lines.back()];
        return line.closed ? std::abs(signed_area_mm2(line.points)) : 0;
    };
    constexpr double alike = 4;
    std::vector<std::pair<double, Block>> by_size;
    by_size.reserve(blocks.size());
    for (Block& b : blocks) {
        const double size = size_of(b);
        by_size.emplace_back(size, std::move(b));
    }
    std::stable_sort(by_size.begin(), by_size.end(),
                     [](const auto& a, const auto& b) { return a.first < b.first; });
    std::vector<Block> out;
    for (auto from = by_size.begin(); from != by_size.end();) {
        const auto to =
            std::find_if(from, by_size.end(), [&](const auto& b) { return b.first > alike * from->first; });
        std::vector<Block> of_a_size;
        for (auto it = from; it != to; ++it)
            of_a_size.push_back(std::move(it->second));
        for (Block& b : routed(std::move(of_a_size), rest)) {
            rest = last(b.lines.back());
            out.push_back(std::move(b));
        }
        from = to;
    }
    return out;
}

RouteResult Router::run(const RouteOptions& options) {
    RouteResult out;
    const auto in_order = [&](std::vector<Block> blocks, Point from) {
        return options.small_first ? small_before_large(std::move(blocks), from)
                                   : routed(std::move(blocks), from);
    };
    const auto parent = options.inner_first ? waits_for(whole_) : std::vector<int>(lines_.size(), -1);
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
            for (Block& b : in_order(taken(inner[i]), first(i)))
                if (block.lines.empty()) // of rings in rings, all that has been gathered goes on at once
                    block.lines = std::move(b.lines);
                else
                    block.lines.insert(block.lines.end(), b.lines.begin(), b.lines.end());
            how_[i].start = nearest_point(lines_[i], last(block.lines.back()));
        }
        block.lines.push_back(i);
        block_of[i] = std::move(block);
    }
    std::vector<std::uint32_t> all;
    for (const Block& b : in_order(taken(top), options.rest))
        all.insert(all.end(), b.lines.begin(), b.lines.end());
    begin_best(lines_, all, options.rest, how_, progress_);
    for (const std::uint32_t i : all)
        out.order.push_back(how_[i]);
    out.travel = mm(travel_of(lines_, all, how_, options.rest));
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

RouteResult route(const Polylines& lines, const RouteOptions& options, Progress& progress,
                  const Starts& starts) {
    const auto few = [&](std::size_t i) { return !starts.empty() && lines[i].closed && !starts[i].empty(); };
    Polylines places;
    if (!starts.empty()) {
        places = lines;
        for (std::size_t i = 0; i < lines.size(); ++i) {
            if (!few(i)) continue;
            places[i].points.clear();
            for (const std::uint32_t p : starts[i])
                places[i].points.push_back(lines[i].points[p]);
        }
    }
    const Polylines& begins = starts.empty() ? lines : places;
    RouteResult out = Router(begins, lines, Effort::first, progress).run(options);
    if (shakes_of(lines.size(), options.effort) != shakes_of(lines.size(), Effort::first)) {
        // Where closed lines begin is chosen between the tours, so longer looking could end up with more.
        RouteResult best = Router(begins, lines, Effort::best, progress).run(options);
        if (best.travel < out.travel) out = std::move(best);
    }
    for (RoutedLine& line : out.order)
        if (few(line.line)) line.start = starts[line.line][line.start];
    return out;
}

} // namespace dotlane
