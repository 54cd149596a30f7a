#include "core/recipe/fill_pieces.h"

#include <algorithm>
#include <cmath>

#include "core/recipe/kept_order.h"

namespace dotlane {
namespace {

constexpr std::size_t nowhere = ~std::size_t{0};

/// How far the place is from the region's edge, mm.
double off_edge(const Region& region, Point p) {
    double out = 1e300;
    for (const Ring& ring : region.rings)
        for (std::size_t i = 0; i < ring.size(); ++i)
            out = std::min(out, distance_to_segment(p, ring[i], ring[(i + 1) % ring.size()]));
    return out;
}

/// Pieces by the left edges of their boxes.
class Whose {
  public:
    explicit Whose(const std::vector<Region>& all)
        : all_(all) {
        for (const Region& piece : all) {
            boxes_.push_back(bounds(piece).grown(1e-4));
            reach_.push_back(reach_.empty() ? boxes_.back().x1 : std::max(reach_.back(), boxes_.back().x1));
        }
    }

    std::size_t piece_of(const Polyline& line) const {
        const auto& points = line.points;
        if (points.size() < 2) return piece_at(points.front());
        // Rings begin on the edge, of which none can say whether it lies inside: a few places are looked at,
        // and where all of them lie there, the nearest edge says whose it is.
        const std::size_t every = std::max<std::size_t>(1, (points.size() - 1) / 4);
        for (std::size_t i = 0; i + 1 < points.size(); i += every)
            if (const std::size_t k = piece_at((points[i] + points[i + 1]) * 0.5); k != nowhere) return k;
        const Point p = (points[0] + points[1]) * 0.5;
        std::size_t out = nowhere;
        double nearest = 1e-3;
        each_near(p, [&](std::size_t k) {
            if (const double off = off_edge(all_[k], p); off < nearest) nearest = off, out = k;
            return false;
        });
        return out;
    }

  private:
    std::size_t piece_at(Point p) const {
        std::size_t out = nowhere;
        each_near(p, [&](std::size_t k) {
            if (!contains(all_[k], p)) return false;
            out = k;
            return true;
        });
        return out;
    }
    /// Pieces whose box holds the place, until `found` says so.
    template<class Found>
    void each_near(Point p, Found found) const {
        auto k = static_cast<std::size_t>(std::upper_bound(boxes_.begin(), boxes_.end(), p.x,
                                                           [](double x, const Box& b) { return x < b.x0; }) -
                                          boxes_.begin());
        while (k-- > 0 && reach_[k] >= p.x)
            if (boxes_[k].contains(p) && found(k)) return;
    }

    const std::vector<Region>& all_;
    std::vector<Box> boxes_;
    std::vector<double> reach_; ///< furthest right of all boxes so far
};

/// The piece that each line lies in.
std::vector<std::size_t> pieces_of(const Polylines& lines, const std::vector<Region>& all) {
    std::vector<std::size_t> out(lines.size(), 0);
    if (all.size() == 1) return out;
    const Whose whose(all);
    std::transform(lines.begin(), lines.end(), out.begin(),
                   [&](const Polyline& line) { return whose.piece_of(line); });
    return out;
}

/// How far the piece reaches across lines at this angle, mm.
double across(const Region& piece, Angle angle) {
    const double s = std::sin(in_radians(angle)), c = std::cos(in_radians(angle));
    double least = 1e300, most = -1e300;
    for (const Point p : piece.rings.front()) {
        const double y = p.y * c - p.x * s;
        least = std::min(least, y), most = std::max(most, y);
    }
    return most - least;
}

FillInput alone(const FillInput& in, const Region& piece) {
    FillInput out = in.within(piece);
    out.phase = FillPhase::piece, out.anchor = bounds(piece), out.outline = &piece;
    return out;
}

/// Closed lines along the region's edge.
Polylines edges(const Region& region) {
    Polylines out;
    for (const Ring& ring : region.rings)
        out.push_back({ring, true});
    return out;
}

} // namespace

FillPieces fill_pieces(const FillStep& step, const FillInput& in, Progress& progress) {
    FillPieces out;
    if (in.region.empty()) return out;
    const std::vector<Region> all = pieces(in.region);
    if (step.phase == FillPhase::piece)
        for (const Region& piece : all) {
            if (progress.cancelled()) return out;
            out.lines.add(filled(step.style, alone(in, piece), progress));
        }
    else
        out.lines = filled(step.style, in, progress);
    if (progress.cancelled()) return out;
    const bool solid = kind_of(step.style).open_mm == 0;
    // What is wished white stays bare.
    std::vector<char> met(all.size(), in.tone ? 1 : 0);
    // Where rows must meet all pieces, no line need be looked at.
    const bool rows = kind_of(step.style).rows && in_mm(in.least) == 0;
    for (std::size_t k = 0; rows && !in.tone && k < all.size(); ++k)
        met[k] = across(all[k], in.angle) > in_mm(in.spacing) * 1.01;
    const bool sure = std::all_of(met.begin(), met.end(), [](char m) { return m != 0; });
    if (!sure)
        for (const std::size_t k : pieces_of(out.lines.lines, all))
            if (k != nowhere) met[k] = 1;
    for (std::size_t k = 0; k < all.size(); ++k) {
        if (met[k]) continue;
        // Its own middle has a line.
        FillLines own = solid ? filled(step.style, alone(in, all[k]), progress) : FillLines{};
        if (own.lines.empty() && solid) own = filled(ParallelFill{}, alone(in, all[k]), progress);
        if (own.lines.empty()) out.missed.push_back(bounds(all[k]));
        out.lines.add(std::move(own));
    }
    if (step.boundary && !step.edge_apart) {
        Polylines rim = edges(in.region);
        out.lines.lines.insert(out.lines.lines.end(), std::make_move_iterator(rim.begin()),
                               std::make_move_iterator(rim.end()));
    }
    return out;
}

bool keeps_order(const StepWhat& what) {
    const auto* fill = std::get_if<FillStep>(&what);
    return fill && fill->order != FillStep::Order::as_drawn;
}

void put_in_order(Polylines& lines, FillStep::Order order, const Region& region) {
    if (order == FillStep::Order::as_drawn) return;
    std::vector<std::pair<double, std::size_t>> at; // what each is put by
    at.reserve(lines.size());
    if (order == FillStep::Order::by_piece) {
        for (const std::size_t piece : pieces_of(lines, pieces(region)))
            at.emplace_back(static_cast<double>(piece), at.size());
    } else {
        for (const Polyline& line : lines)
            at.emplace_back(bounds(line).y0, at.size());
    }
    std::sort(at.begin(), at.end());
    Polylines out;
    out.reserve(lines.size());
    for (const auto& [by, i] : at)
        out.push_back(std::move(lines[i]));
    lines = std::move(out);
}

} // namespace dotlane
