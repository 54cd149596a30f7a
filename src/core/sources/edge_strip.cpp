#include "core/sources/parts.h"

namespace dotlane::sources {
namespace {

/// A small generator of its own, so that a deckle is the same on every machine (splitmix64, Steele et al.
/// 2014).
double chance(std::uint64_t& state) {
    std::uint64_t z = (state += 0x9e3779b97f4a7c15ULL);
    z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9ULL;
    z = (z ^ (z >> 27)) * 0x94d049bb133111ebULL;
    return static_cast<double>((z ^ (z >> 31)) >> 11) * 0x1p-53;
}

/// Runs from `c`'s end along the x axis by n repeats of `pitch`; the edge rises towards `up` (-1: to smaller
/// y).
void run_edge(Contour& c, const EdgeStrip& strip, int n, double pitch, double up) {
    const double depth = in_mm(strip.depth), ahead = pitch > 0 ? 1 : -1, rise = up * depth;
    std::uint64_t state = static_cast<std::uint64_t>(strip.seed) * 2654435761U + (pitch > 0 ? 0 : 1);
    // Cubics between crest and trough of a sine: the handle that meets the sine's curvature at its crests.
    const double handle = pitch / 2 * 0.3642;
    for (int i = 0; i < n; ++i) {
        const Point at = c.end();
        const Point next = at + Point{pitch, 0}, crest = at + Point{pitch / 2, rise};
        switch (strip.edge) {
        case EdgeStrip::Edge::scallop:
            c.arc_to(std::abs(pitch) / 2, depth, 0, false, ahead * up < 0, next);
            break;
        case EdgeStrip::Edge::wave:
            c.cubic_to(at + Point{handle, 0}, crest - Point{handle, 0}, crest);
            c.cubic_to(crest + Point{handle, 0}, next - Point{handle, 0}, next);
            break;
        case EdgeStrip::Edge::zigzag:
            c.line_to(crest);
            c.line_to(next);
            break;
        case EdgeStrip::Edge::deckle:
            for (int k = 1; k < 6; ++k)
                c.line_to(at + Point{pitch * (k + 0.7 * (chance(state) - 0.5)) / 6, rise * chance(state)});
            c.line_to(next);
            break;
        }
    }
}

} // namespace

} // namespace dotlane::sources

namespace dotlane {

Result<SourceLines> make(const EdgeStrip& strip, const MakeInput&) {
    using namespace sources;
    const double length = in_mm(strip.length), height = in_mm(strip.height), depth = in_mm(strip.depth);
    if (depth * (strip.both_sides ? 2 : 1) >= height)
        return fail("source.strip", say("The edge is as deep as the strip is high: nothing would be left."));
    const int n = strip.ask == EdgeStrip::Ask::count
                      ? strip.count
                      : std::max(1, static_cast<int>(std::lround(length / in_mm(strip.pitch))));
    const double pitch = length / n;
    if (n > 2000) return fail("source.strip", say("So many repeats on this length are too fine to be cut."));
    Contour c{{0, depth}, {}, true};
    run_edge(c, strip, n, pitch, -1);
    if (strip.both_sides) {
        c.line_to({length, height - depth});
        run_edge(c, strip, n, -pitch, 1);
    } else {
        c.line_to({length, height});
        c.line_to({0, height});
    }
    Lines lines;
    lines.add(role::outline, c);
    lines.figure("repeats", "", n);
    lines.figure("pitch", "mm", pitch);
    return lines.take();
}

} // namespace dotlane
