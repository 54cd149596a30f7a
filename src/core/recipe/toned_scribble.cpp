#include <algorithm>
#include <cmath>

#include "core/geometry/region_index.h"
#include "core/recipe/mended_scribble.h"
#include "core/recipe/nearby.h"
#include "core/recipe/strewn.h"
#include "core/recipe/toned_lines.h"

namespace dotlane {
namespace {

/// From place to place, along the edge where the straight way leaves the piece: there it comes back through
/// the same ring that it left by.
class Walk {
  public:
    explicit Walk(const Region& piece)
        : piece_(piece)
        , index_(piece) {}

    Polyline through(const std::vector<Point>& places) const {
        Polyline out;
        for (const Point p : places) {
            if (!out.points.empty() && index_.crosses(out.points.back(), p)) detour(out.points, p);
            out.points.push_back(p);
        }
        return out;
    }

  private:
    struct Crossing {
        double share; ///< of the way
        std::size_t ring, edge;
        Point at;
    };
    void detour(std::vector<Point>& points, Point to) const {
        const Point from = points.back();
        std::vector<Crossing> met;
        for (std::size_t r = 0; r < piece_.rings.size(); ++r) {
            const Ring& ring = piece_.rings[r];
            for (std::size_t e = 0; e < ring.size(); ++e) {
                const Point a = ring[e], b = ring[(e + 1) % ring.size()], way = to - from, side = b - a;
                const double turn = cross(way, side);
                if (std::abs(turn) < 1e-15) continue;
                const double share = cross(a - from, side) / turn, on = cross(a - from, way) / turn;
                if (share > 0 && share < 1 && on >= 0 && on < 1) met.push_back({share, r, e, mix(a, b, on)});
            }
        }
        std::sort(met.begin(), met.end(),
                  [](const Crossing& a, const Crossing& b) { return a.share < b.share; });
        for (std::size_t k = 0; k + 1 < met.size(); k += 2)
            if (met[k].ring == met[k + 1].ring) along(points, met[k], met[k + 1]);
    }
    /// The shorter way around the ring.
    void along(std::vector<Point>& points, const Crossing& a, const Crossing& b) const {
        const Ring& ring = piece_.rings[a.ring];
        const std::size_t n = ring.size();
        std::vector<Point> on{a.at}, back{a.at};
        for (std::size_t e = a.edge; e != b.edge; e = (e + 1) % n)
            on.push_back(ring[(e + 1) % n]);
        on.push_back(b.at);
        for (std::size_t e = a.edge; e != b.edge; e = (e + n - 1) % n)
            back.push_back(ring[e]);
        back.push_back(b.at);
        const bool forwards = length(Polyline{on, false}) <= length(Polyline{back, false});
        points.insert(points.end(), (forwards ? on : back).begin(), (forwards ? on : back).end());
    }
    const Region& piece_;
    RegionIndex index_;
};

/// Stretches of the way are turned around where that makes it shorter (2-opt: G. Croes 1958), those of up to
/// this many places, so that a long way takes no longer for its length.
constexpr std::size_t longest_turned = 1000;

void shorten(std::vector<Point>& way, double reach, double least, const Progress& progress) {
    const std::size_t n = way.size();
    if (n < 4) return;
    std::vector<Candidate> places;
    for (const Point p : way)
        places.push_back({{p, p}, 0});
    const Nearby nearby(places, reach);
    std::vector<std::uint32_t> at(n), which(n); // where each place stands in the way, and which stands there
    for (std::uint32_t i = 0; i < n; ++i)
        at[i] = which[i] = i;
    const auto place = [&](std::size_t k) { return places[which[k]].a; };
    for (int round = 0; round < 12; ++round) {
        bool shorter = false;
        for (std::size_t i = 0; i + 1 < n; ++i) {
            if (i % 1024 == 0 && progress.cancelled()) return;
            const double gone = distance(place(i), place(i + 1));
            if (gone < least) continue;
            double best = 1e-9;
            std::size_t to = 0;
            nearby.around(which[i], [&](std::uint32_t o, double d2) {
                const std::size_t j = at[o];
                if (j < i + 2 || j + 1 >= n || j - i > longest_turned || d2 >= gone * gone) return;
                const double saved = gone + distance(place(j), place(j + 1)) - std::sqrt(d2) -
                                     distance(place(i + 1), place(j + 1));
                if (saved > best) best = saved, to = j;
            });
            if (to == 0) continue;
            std::reverse(which.begin() + static_cast<std::ptrdiff_t>(i) + 1,
                         which.begin() + static_cast<std::ptrdiff_t>(to) + 1);
            for (std::size_t k = i + 1; k <= to; ++k)
                at[which[k]] = static_cast<std::uint32_t>(k);
            shorter = true;
        }
        if (!shorter) break;
    }
    for (std::size_t k = 0; k < n; ++k)
        way[k] = place(k);
}

/// The share of the places of a lattice 0.6 tips apart that a short way goes through to be so dark: measured
/// on even tones. A way through n places is as long as the root of n (J. Beardwood, J. Halton and J.
/// Hammersley, The shortest path through many points, 1959), until its stretches cover one another.
double share_for(double dark) {
    constexpr std::pair<double, double> measured[] = {
        {0.063, 0.002}, {0.108, 0.005}, {0.153, 0.01}, {0.226, 0.02}, {0.333, 0.04},
        {0.444, 0.07},  {0.529, 0.1},   {0.656, 0.15}, {0.749, 0.2},  {0.862, 0.3},
        {0.919, 0.4},   {0.956, 0.5},   {0.977, 0.6},  {0.988, 0.7},  {1, 1}};
    if (dark <= measured[0].first) return measured[0].second * dark * dark / (0.063 * 0.063);
    for (std::size_t k = 1; k < std::size(measured); ++k)
        if (const auto [d, share] = measured[k]; dark <= d)
            return std::lerp(measured[k - 1].second, share,
                             (dark - measured[k - 1].first) / (d - measured[k - 1].first));
    return 1;
}

/// A way through as many places of the lattice as the tone wishes.
Polyline scribble(const Region& piece, const FillInput& in, double wild, std::uint32_t seed,
                  Progress& progress) {
    const double pitch = 0.6 * in_mm(in.tip);
    const std::vector<Candidate> lattice = lattice_of(piece, pitch, wild, seed, progress);
    if (lattice.empty() || progress.cancelled()) return {};
    const std::vector<char> drawn = thinned_evenly(
        lattice, pitch, [&](std::size_t i) { return share_for(in.tone->at(lattice[i].a)); }, progress);
    std::vector<Point> places;
    for (std::size_t i = 0; i < lattice.size(); ++i)
        if (drawn[i]) places.push_back(lattice[i].a);
    if (progress.cancelled()) return {};
    short_way(places, bounds(piece));
    shorten(places, 4 * pitch, 0, progress);
    shorten(places, 20 * pitch, 3 * pitch, progress);
    if (progress.cancelled()) return {};
    return mended_scribble(Walk(piece).through(places), lattice, piece, in.tip, *in.tone, seed, progress);
}

} // namespace

FillLines toned_scribble(const FillInput& in, double wild, std::uint32_t seed, Progress& progress) {
    FillLines out;
    for (const Region& piece : pieces(in.region)) {
        if (progress.cancelled()) break;
        Polyline line = scribble(piece, in, wild, seed, progress);
        if (line.points.size() > 1) out.lines.push_back(std::move(line));
    }
    out.rows = out.pieces = out.lines.size();
    return out;
}

} // namespace dotlane
