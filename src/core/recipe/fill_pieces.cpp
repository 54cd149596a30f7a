#include "core/recipe/fill_pieces.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace dotlane {
namespace {

constexpr std::size_t nowhere = ~std::size_t{0};

/// The piece that each line lies in.
std::vector<std::size_t> pieces_of(const Polylines& lines, const std::vector<Region>& all) {
    std::vector<std::size_t> out(lines.size(), nowhere);
    if (all.size() == 1) {
        std::fill(out.begin(), out.end(), 0);
        return out;
    }
    std::vector<Box> boxes;
    std::vector<double>
        reach; // furthest right of all boxes so far: boxes stand in the order of their left edges
    for (const Region& piece : all) {
        boxes.push_back(bounds(piece).grown(1e-4));
        reach.push_back(reach.empty() ? boxes.back().x1 : std::max(reach.back(), boxes.back().x1));
    }
    for (std::size_t i = 0; i < lines.size(); ++i) {
        const auto& points = lines[i].points;
        const Point p = points.size() > 1 ? (points[0] + points[1]) * 0.5 : points.front();
        auto k = static_cast<std::size_t>(std::upper_bound(boxes.begin(), boxes.end(), p.x,
                                                           [](double x, const Box& b) { return x < b.x0; }) -
                                          boxes.begin());
        while (k-- > 0 && reach[k] >= p.x)
            if (boxes[k].contains(p) && contains(all[k], p)) {
                out[i] = k;
                break;
            }
    }
    return out;
}

void reorder(Polylines& lines, const std::vector<std::size_t>& of, FillStep::Order order) {
    if (order == FillStep::Order::as_drawn) return;
    std::vector<std::size_t> at(lines.size());
    std::iota(at.begin(), at.end(), std::size_t{0});
    const auto top = [&](std::size_t i) {
        double y = 1e300;
        for (const Point p : lines[i].points)
            y = std::min(y, p.y);
        return y;
    };
    if (order == FillStep::Order::by_piece) {
        std::stable_sort(at.begin(), at.end(), [&](std::size_t a, std::size_t b) { return of[a] < of[b]; });
    } else {
        std::vector<double> tops(lines.size());
        for (std::size_t i = 0; i < lines.size(); ++i)
            tops[i] = top(i);
        std::stable_sort(at.begin(), at.end(),
                         [&](std::size_t a, std::size_t b) { return tops[a] < tops[b]; });
    }
    Polylines out;
    out.reserve(lines.size());
    for (const std::size_t i : at)
        out.push_back(std::move(lines[i]));
    lines = std::move(out);
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
    std::vector<std::size_t> of;
    if (!sure || step.order == FillStep::Order::by_piece) {
        of = pieces_of(out.lines.lines, all);
        for (const std::size_t k : of)
            if (k != nowhere) met[k] = 1;
    }
    for (std::size_t k = 0; k < all.size(); ++k) {
        if (met[k]) continue;
        // Its own middle has a line.
        FillLines own = solid ? filled(step.style, alone(in, all[k]), progress) : FillLines{};
        if (own.lines.empty() && solid) own = filled(ParallelFill{}, alone(in, all[k]), progress);
        if (own.lines.empty()) out.missed.push_back(bounds(all[k]));
        if (!of.empty()) of.resize(of.size() + own.lines.size(), k);
        out.lines.add(std::move(own));
    }
    reorder(out.lines.lines, of, step.order);
    if (step.boundary && !step.edge_apart) {
        Polylines rim = edges(in.region);
        out.lines.lines.insert(out.lines.lines.end(), std::make_move_iterator(rim.begin()),
                               std::make_move_iterator(rim.end()));
    }
    return out;
}

} // namespace dotlane
