#include "core/project/steps/weed.h"

#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/geometry/narrow.h"
#include "core/recipe/areas.h"

namespace dotlane {
namespace {

constexpr int most_cuts = 400; ///< each way; more would be strips that no hand can pull off

int cuts_across(double length, double strip) {
    return static_cast<int>(std::min(std::ceil(length / strip - 1e-9) - 1, 1e6));
}

/// Where an upright or a level line runs inside, from and to along it.
std::vector<std::pair<double, double>> inside_along(const Region& region, double at, bool upright) {
    std::vector<double> crossed;
    for (const Ring& ring : region.rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            Point a = ring[i], b = ring[(i + 1) % ring.size()];
            if (!upright) a = {a.y, a.x}, b = {b.y, b.x};
            if ((a.x <= at) == (b.x <= at)) continue;
            crossed.push_back(a.y + (b.y - a.y) * (at - a.x) / (b.x - a.x));
        }
    std::sort(crossed.begin(), crossed.end());
    std::vector<std::pair<double, double>> out;
    for (std::size_t i = 0; i + 1 < crossed.size(); i += 2)
        if (crossed[i + 1] - crossed[i] > 1e-6) out.emplace_back(crossed[i], crossed[i + 1]);
    return out;
}

/// A place well inside, for a number: in the middle of where a level line through the box's middle runs
/// longest.
Point place_in(const Region& piece) {
    const Box box = bounds(piece);
    const double y = box.centre().y;
    const auto spans = inside_along(piece, y, false);
    const auto longest = std::max_element(spans.begin(), spans.end(), [](const auto& a, const auto& b) {
        return a.second - a.first < b.second - b.first;
    });
    return longest == spans.end() ? box.centre() : Point{(longest->first + longest->second) / 2, y};
}

/// Cuts across the box, along x or along y, each moved from its even place to where it meets least.
Polylines quiet_cuts(const Box& box, double strip, bool upright, const Region& waste, Progress& progress) {
    const double from = upright ? box.x0 : box.y0, to = upright ? box.x1 : box.y1;
    const int count = cuts_across(to - from, strip);
    Polylines out;
    constexpr int tries = 12; // to each side
    for (int k = 1; k <= count && !progress.cancelled(); ++k) {
        const double even = from + (to - from) * k / (count + 1), reach = (to - from) / (count + 1) / 3;
        Polylines best;
        double most = -1;
        for (int t = -tries; t <= tries; ++t) {
            const double at = even + reach * t / tries;
            const auto open = inside_along(waste, at, upright);
            double length = 0;
            for (const auto& [begin, end] : open)
                length += end - begin;
            // A cut that runs through is worth more than one in many bits; nearer to its place more than far.
            const double worth = length / std::max<double>(1, std::sqrt(static_cast<double>(open.size()))) -
                                 0.02 * std::abs(t) * (upright ? box.height() : box.width()) / tries;
            if (worth <= most) continue;
            most = worth, best.clear();
            for (const auto& [begin, end] : open)
                best.push_back(upright ? Polyline{{{at, begin}, {at, end}}, false}
                                       : Polyline{{{begin, at}, {end, at}}, false});
        }
        out.insert(out.end(), best.begin(), best.end());
    }
    return out;
}

/// The pieces of waste that are wider than a strip: what is narrower, as most counters, comes off in one.
Region wider_than_strip(const std::vector<Region>& free, double strip, bool upright) {
    Region out;
    for (const Region& piece : free) {
        const Box box = bounds(piece);
        if ((upright ? box.width() : box.height()) > strip)
            out.rings.insert(out.rings.end(), piece.rings.begin(), piece.rings.end());
    }
    return out;
}

/// Without pieces and holes that are smaller, which would be lost or picked out one by one.
Region without_small(const Region& region, Length small) {
    const Area least = square_mm(in_mm(small) * in_mm(small));
    std::vector<Region> kept;
    for (const Region& piece : pieces(region))
        if (area(without_holes(piece)) >= least) kept.push_back(without_holes(piece, least));
    return united(kept);
}

/// In which hands pull the waste off: what lies around the lines first, strip by strip, each beside the last,
/// so that it takes along what hangs on it; then what lies inside them, which a hook lifts, in the same rows.
/// Common practice, without a source.
std::vector<Point> order_of(const std::vector<Region>& bits, const Region& art, const Box& box,
                            double strip) {
    struct Bit {
        bool inside;
        int row;
        double x;
        Point at;
    };
    const double high = strip > 0 ? box.height() / (cuts_across(box.height(), strip) + 1) : box.height();
    const Region filled = without_holes(art);
    std::vector<Bit> all;
    for (const Region& bit : bits) {
        const Point at = place_in(bit);
        all.push_back({contains(filled, at), static_cast<int>((at.y - box.y0) / high), at.x, at});
    }
    std::stable_sort(all.begin(), all.end(), [](const Bit& a, const Bit& b) {
        if (a.inside != b.inside) return b.inside;
        if (a.row != b.row) return a.row < b.row;
        return a.row % 2 == 0 ? a.x < b.x : a.x > b.x; // there and back
    });
    std::vector<Point> out;
    for (const Bit& bit : all)
        out.push_back(bit.at);
    return out;
}

std::size_t count_of(const Region& region) {
    return pieces(region).size() + static_cast<std::size_t>(hole_count(region));
}

} // namespace

StepOutcome run(const WeedStep& step, const StepInput& in, Progress& progress) {
    const Areas areas = areas_of(in.of);
    if (areas.each.empty()) return refused(say("There are no closed lines to weed around."));
    const Region drawn = covered(areas);
    const bool picks = in_mm(step.small) > 0;
    const Region art = picks ? without_small(drawn, step.small) : drawn;
    if (art.empty()) return refused(say("All pieces are smaller than what is left out."));
    const Box box = bounds(art).grown(in_mm(step.margin));
    const double longer = std::max(box.width(), box.height());
    if (in_mm(step.strip) > 0 && cuts_across(longer, in_mm(step.strip)) > most_cuts)
        return refused(say("That would be more than %1 cuts. Strips of %2 mm would do.", most_cuts,
                           number(longer / most_cuts + 0.005, 2)));
    const Region frame = region_of(Shape{{rectangle(box)}});
    const Region waste = subtracted(frame, art);
    const std::vector<Region> free = pieces(subtracted(frame, offset(art, step.clear)));
    if (progress.cancelled()) return {};
    StepOutcome out;
    out.made.emplace();
    if (picks)
        for (const WorkSet* set : in.of)
            out.changed.push_back(each_area(*set, [&](const Region& region, const FlatLine&) {
                return without_small(region, step.small);
            }));
    if (in_mm(step.margin) > 0) out.made->lines.push_back(line_of(frame, {}));
    Polylines made;
    if (in_mm(step.strip) > 0)
        for (const bool upright : {true, false}) {
            const Region wide = wider_than_strip(free, in_mm(step.strip), upright);
            Polylines some = quiet_cuts(box, in_mm(step.strip), upright, wide, progress);
            made.insert(made.end(), some.begin(), some.end());
        }
    if (progress.cancelled()) return {};
    for (const Polyline& cut : made)
        out.made->lines.push_back(line_along({cut}));
    // A cut ends a little before the lines: what hangs on by less tears off there.
    const Region apart = made.empty() ? waste : subtracted(waste, stroked(made, step.clear * 2 + mm(0.02)));
    double longest = 0, around = 0;
    std::vector<Region> bits = pieces(apart);
    std::erase_if(bits, [](const Region& bit) { return !is_wider_than(bit, mm(0.1)); });
    for (const Region& bit : bits) {
        const Box b = bounds(bit);
        longest = std::max(longest, std::hypot(b.width(), b.height()));
        around += in_mm(perimeter(bit));
    }
    if (progress.cancelled()) return {};
    out.report.order = order_of(bits, art, box, in_mm(step.strip));
    out.report.figures = {figure("waste_pieces", bits.size()),
                          figure("cuts", made.size()),
                          {"longest_waste", "mm", longest},
                          {"pulled", "mm", around},
                          {"waste", "mm2", in_square_mm(area(waste))}};
    if (picks)
        out.report.figures.push_back(
            figure("left_out", count_of(drawn) - std::min(count_of(drawn), count_of(art))));
    tell_open(out.report, areas.open, say("weeded around"));
    return out;
}

} // namespace dotlane
