// Where the lines of a fill meet a region: what joined and separate fills share.
#pragma once

#include <algorithm>
#include <cstdint>
#include <functional>
#include <span>

#include "core/recipe/hatch.h"

namespace dotlane {

/// The lines of a fill, level and evenly spaced.
struct HatchRows {
    double first = 0; ///< y of row 0, mm
    double spacing = 1;
    std::uint32_t count = 0;
    double y(std::uint32_t row) const { return first + row * spacing; }
};

/// The part of an edge that meets rows: those from `begin` up to, not including, `end`.
struct HatchEdge {
    Point a, b;
    double slope = 0;
    std::uint32_t begin = 0, end = 0;
    double x(double y) const {
        return std::clamp(a.x + (y - a.y) * slope, std::min(a.x, b.x), std::max(a.x, b.x));
    }
};

/// A region turned so that the rows run level.
class HatchScan {
  public:
    HatchScan(const Region& region, const HatchOptions& options);

    /// The edge from point `i` of a ring. An edge owns its upper end only, so a vertex on a row counts once
    /// or twice as it must.
    HatchEdge edge(const Ring& ring, std::size_t i) const;
    /// About how many crossings there are.
    std::size_t expected() const;
    /// Calls `each` with every row that meets the region, upwards, and the x of its crossings in order. Rows
    /// are worked a band at a time, so that the time for each crossing stays the same however many there are.
    void sweep(const std::function<void(std::uint32_t row, std::span<const double> x)>& each) const;

    std::vector<Ring> rings;
    HatchRows rows;

  private:
    void choose_rows(const Box& box, double spacing, HatchOptions::Phase phase, double through);
};

} // namespace dotlane
