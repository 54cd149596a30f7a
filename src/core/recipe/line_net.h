// The lines of a fill, cut at the edge of the region that they fill, and where their ends lie along it: what
// all ways of joining ends work on. Internal to recipe.
//
// Contract: ends stand in the order in which they follow one another along each ring; each line has two of
// them. Lines from outside the region's box leave an even number of ends on each ring.
#pragma once

#include <cstdint>

#include "core/geometry/region.h"

namespace dotlane {

struct LineNet {
    struct End {
        Point at;
        std::uint32_t edge; ///< of its ring: from point `edge` to the next one
        std::uint32_t row;  ///< of the pattern: lines of one row are drawn as one where there is no edge
    };
    std::vector<Ring> rings;
    std::vector<End> ends;
    std::vector<std::uint32_t> ring_start{0}; ///< the first end of each ring, and how many there are in all
    std::vector<std::uint32_t> mate;          ///< the other end of each one's line
    std::vector<std::uint32_t> order;         ///< one end of each line, in the order of the pattern
    /// Points between the two ends, for lines that are not straight: from the end with the lower index to the
    /// other.
    std::vector<Ring> bends;
    std::vector<std::uint32_t>
        bend_of; ///< index into `bends` for each end, or `straight`; empty: all are straight
    /// Lines wholly inside that begin or end on other ones, such as the joints of bricks, or that close.
    Polylines loose;

    static constexpr std::uint32_t straight = ~0U;

    std::uint32_t ring_of(std::uint32_t end) const;
    /// Adds the points behind `end` up to its mate, which is the last of them.
    void walk_line(std::uint32_t end, std::vector<Point>& points) const;
    /// Adds the ring's own points strictly between two neighbouring ends on it.
    void walk_edge(std::uint32_t ring, std::uint32_t from, std::uint32_t to, bool ahead,
                   std::vector<Point>& points) const;
    /// Way along the ring from each end to the next one, mm.
    std::vector<double> ways() const;
};

/// The lines one by one, every other row backwards when `alternate`.
Polylines apart(LineNet net, bool alternate);

/// Puts a net together from lines in any order.
class NetMaker {
  public:
    explicit NetMaker(std::vector<Ring> rings);
    struct Place {
        Point at;
        std::uint32_t ring, edge;
    };
    /// `bends`: the points between the ends.
    void add(const Place& from, const Place& to, std::uint32_t row, Ring bends = {});
    void add_loose(Polyline line) { net_.loose.push_back(std::move(line)); }
    LineNet done();

  private:
    struct Raw {
        Place place;
        double along; ///< of its edge, mm
        std::uint32_t row, bend;
    };
    LineNet net_;
    std::vector<Raw> raw_; ///< two for each line
};

} // namespace dotlane
