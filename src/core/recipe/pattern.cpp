#include "core/recipe/pattern.h"

#include <cmath>

#include "core/recipe/hatch.h"
#include "core/recipe/line_joins.h"
#include "core/recipe/one_stroke.h"

namespace dotlane {

Frame frame_of(const FillInput& in) {
    const Point origin =
        in.phase == FillPhase::corner ? Point{in.anchor.x0, in.anchor.y0} : in.anchor.centre();
    Frame out;
    out.to_part = Affine::translation(origin) * Affine::rotation(in_radians(in.angle));
    const Affine level =
        Affine::rotation(-in_radians(in.angle)) * Affine::translation({-origin.x, -origin.y});
    for (const Ring& ring : in.region.rings)
        for (const Point p : ring)
            out.box.add(level(p));
    return out;
}

Around around(const FillCentre& centre, const FillInput& in) {
    Around out{{in.anchor.x0 + in.anchor.width() * centre.x / 100,
                in.anchor.y0 + in.anchor.height() * centre.y / 100}};
    for (const Ring& ring : in.region.rings)
        for (const Point p : ring)
            out.far = std::max(out.far, distance(p, out.centre));
    return out;
}

Span span_of(double from, double to, double step) {
    return {static_cast<long>(std::floor(from / step)) - 1, static_cast<long>(std::ceil(to / step)) + 1};
}

FillLines ended(LineNet net, const FillInput& in, Progress& progress, bool alternate) {
    FillLines out;
    if (progress.cancelled()) return out;
    out.pieces = net.order.size() + net.loose.size();
    std::uint32_t row = ~0U;
    for (const std::uint32_t end : net.order)
        if (net.ends[end].row != row) ++out.rows, row = net.ends[end].row;
    switch (in.ends) {
    case FillEnds::apart:
        out.lines = apart(std::move(net), alternate);
        break;
    case FillEnds::joined:
        out.lines = joined(net);
        break;
    case FillEnds::one_stroke:
        out.lines = one_stroke(net, progress);
        break;
    }
    return out;
}

FillLines woven(const Pattern& pattern, const Frame& frame, const FillInput& in, Progress& progress) {
    NetMaker maker(in.region.rings);
    add_cut(maker, in.region, pattern, frame.to_part, in_mm(in.least), progress);
    if (progress.cancelled()) return {};
    return ended(maker.done(), in, progress);
}

FillLines woven(std::vector<PatternLine> pattern, const Frame& frame, const FillInput& in,
                Progress& progress) {
    return woven(pattern_of(std::move(pattern)), frame, in, progress);
}

FillLines families(const std::vector<Angle>& turned, const FillInput& in, Progress& progress) {
    NetMaker maker(in.region.rings);
    std::uint32_t row = 0;
    const Frame frame = frame_of(in);
    for (const Angle angle : turned) {
        if (progress.cancelled()) return {};
        HatchOptions options;
        options.spacing = in.spacing;
        options.angle = in.angle + angle;
        options.phase = HatchOptions::Phase::through;
        options.through = frame.to_part({0, 0});
        options.least = in.least;
        add_rows(maker, in.region, options, row);
    }
    if (progress.cancelled()) return {};
    return ended(maker.done(), in, progress);
}

} // namespace dotlane
