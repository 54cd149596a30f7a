// The order, direction and start point of the lines of one pass: as little travel as can be found quickly.
//
// Method: the greedy tour, then 2-opt, 3-opt and Lin-Kernighan chains on neighbour lists, shaken again and
// again (tour.h), for lines that may be run either way. Closed lines may be started at any of their points.
// Where inner lines must come first, an outline and all that lies in it form one block: the inner lines in
// their own best order, then the outline. Where small pieces come first, blocks of about one size make up a
// tour, one such tour after another. Deterministic: the same lines give the same route.
#pragma once

#include "core/base/progress.h"
#include "core/geometry/polyline.h"
#include "core/plan/effort.h"

namespace dotlane {

struct RouteOptions {
    Point rest;               ///< the carriage starts and ends here
    bool inner_first = false; ///< lines inside a closed line are run before it
    Effort effort = Effort::first;
    /// Of lines that lie in the same outline, or in none, no closed one is run before another of less than a
    /// quarter of its area; open lines come first.
    bool small_first = false;
    bool operator==(const RouteOptions&) const = default;
};

/// A line as it is run.
struct RoutedLine {
    std::uint32_t line = 0;  ///< index among those given
    std::uint32_t start = 0; ///< a closed one: at which of its points
    bool reversed = false;   ///< an open one: from its last point to its first
    bool operator==(const RoutedLine&) const = default;
};

struct RouteResult {
    std::vector<RoutedLine> order;    ///< lines without points are left out
    Length travel;                    ///< with the tool up, rest to rest
    std::size_t outlines_waiting = 0; ///< closed lines that were put behind what lies in them
};

/// Of each line the points at which it may begin; an empty list: any. Of open ones they do not count.
using Starts = std::vector<std::vector<std::uint32_t>>;

/// `starts`: empty, or one for each line.
RouteResult route(const Polylines& lines, const RouteOptions& options, Progress& progress = no_progress(),
                  const Starts& starts = {});

/// The line turned to how it is run.
Polyline run(Polyline line, const RoutedLine& how);

/// Travel of lines in their order, rest to rest, when all of them are run so many times before the carriage
/// returns.
Length travel_of(const Polylines& lines, Point rest, int repeats = 1);

} // namespace dotlane
