#include "core/formats/trace/trace.h"

#include <algorithm>
#include <cmath>
#include <memory>
#include <potracelib.h>

#include "core/geometry/polyline.h"

namespace dotlane {
namespace {

/// A pixel becomes `value` when any within `reach` in its row (or column) is: squares, row by row and column
/// by column.
void spread(std::vector<std::uint8_t>& mask, int width, int height, int reach, std::uint8_t value,
            bool rows) {
    const int lines = rows ? height : width, along = rows ? width : height;
    const std::ptrdiff_t step = rows ? 1 : width, next = rows ? width : 1;
    std::vector<std::uint8_t> line(static_cast<std::size_t>(along));
    for (int l = 0; l < lines; ++l) {
        std::uint8_t* first = mask.data() + l * next;
        int last = -reach - 1; // the nearest one behind
        for (int i = 0; i < along; ++i) {
            if (first[i * step] == value) last = i;
            line[static_cast<std::size_t>(i)] =
                i - last <= reach ? value : static_cast<std::uint8_t>(1 - value);
        }
        last = along + reach + 1;
        for (int i = along; i-- > 0;) {
            if (first[i * step] == value) last = i;
            if (last - i <= reach) line[static_cast<std::size_t>(i)] = value;
        }
        for (int i = 0; i < along; ++i)
            first[i * step] = line[static_cast<std::size_t>(i)];
    }
}

struct Bitmap {
    potrace_bitmap_t map{};
    std::vector<potrace_word> words;

    Bitmap(const std::vector<std::uint8_t>& mask, int width, int height) {
        constexpr int bits = static_cast<int>(8 * sizeof(potrace_word));
        const int stride = (width + bits - 1) / bits;
        words.assign(static_cast<std::size_t>(stride) * static_cast<std::size_t>(height), 0);
        for (int y = 0; y < height; ++y) // Potrace counts rows from the foot
            for (int x = 0; x < width; ++x)
                if (mask[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) +
                         static_cast<std::size_t>(x)])
                    words[static_cast<std::size_t>(height - 1 - y) * static_cast<std::size_t>(stride) +
                          static_cast<std::size_t>(x / bits)] |= potrace_word{1} << (bits - 1 - x % bits);
        map = {width, height, stride, words.data()};
    }
};

Contour contour_of(const potrace_curve_t& curve, int height) {
    const auto point = [height](const potrace_dpoint_t& p) { return Point{p.x, height - p.y}; };
    Contour out{point(curve.c[curve.n - 1][2]), {}, true};
    for (int i = 0; i < curve.n; ++i) {
        const bool last = i + 1 == curve.n;
        if (curve.tag[i] == POTRACE_CORNER) {
            out.line_to(point(curve.c[i][1]));
            if (!last) out.line_to(point(curve.c[i][2])); // the closing edge is implied
        } else {
            out.cubic_to(point(curve.c[i][0]), point(curve.c[i][1]), point(curve.c[i][2]));
        }
    }
    return out;
}

/// The nearest edge between a pixel inside and one outside; looked for up to four pixels away.
double to_edge(Point p, const Mask& mask) {
    constexpr int reach = 4;
    double least = reach;
    const int cx = static_cast<int>(std::floor(p.x)), cy = static_cast<int>(std::floor(p.y));
    for (int around = 1; around <= reach && around - 1 < least; ++around)
        for (int y = cy - around; y <= cy + around; ++y)
            for (int x = cx - around; x <= cx + around; ++x) {
                if (around > 1 && std::max(std::abs(x - cx), std::abs(y - cy)) < around) continue;
                const Point corner{static_cast<double>(x), static_cast<double>(y)};
                if (mask.at(x, y) != mask.at(x - 1, y))
                    least = std::min(least, distance_to_segment(p, corner, corner + Point{0, 1}));
                if (mask.at(x, y) != mask.at(x, y - 1))
                    least = std::min(least, distance_to_segment(p, corner, corner + Point{1, 0}));
            }
    return least;
}

/// Along all lines, half a pixel at a time.
double deviation_of(const std::vector<Shape>& shapes, const Mask& mask) {
    double most = 0;
    for (const Shape& shape : shapes)
        for (const Polyline& line : flattened(shape, mm(0.05)))
            for (std::size_t i = 0, n = line.points.size(); i < n; ++i) {
                const Point a = line.points[i], b = line.points[(i + 1) % n];
                const int steps = std::max(1, static_cast<int>(std::ceil(distance(a, b) * 2)));
                for (int k = 0; k < steps; ++k)
                    most = std::max(most, to_edge(a + (b - a) * (static_cast<double>(k) / steps), mask));
            }
    return most;
}

} // namespace

Tracing trace(Mask mask, const TraceOptions& options) {
    Tracing out;
    if (mask.width < 1 || mask.height < 1) return out;
    if (options.reconnect > 0)
        for (const std::uint8_t value : {std::uint8_t{1}, std::uint8_t{0}}) // grown, then shrunk again
            for (const bool rows : {true, false})
                spread(mask.inside, mask.width, mask.height, options.reconnect, value, rows);
    const Bitmap bitmap(mask.inside, mask.width, mask.height);
    const std::unique_ptr<potrace_param_t, void (*)(potrace_param_t*)> param(potrace_param_default(),
                                                                             potrace_param_free);
    param->turdsize = options.speckle;
    param->alphamax = options.corner;
    param->opttolerance = options.tolerance;
    param->opticurve = options.tolerance > 0;
    const std::unique_ptr<potrace_state_t, void (*)(potrace_state_t*)> state(
        potrace_trace(param.get(), &bitmap.map), potrace_state_free);
    if (!state || state->status != POTRACE_STATUS_OK) return out;
    for (const potrace_path_t* p = state->plist; p; p = p->next) {
        if (p->sign != '+') continue;
        Shape shape;
        shape.rule = FillRule::evenodd;
        shape.contours.push_back(contour_of(p->curve, mask.height));
        for (const potrace_path_t* hole = p->childlist; hole; hole = hole->sibling)
            shape.contours.push_back(contour_of(hole->curve, mask.height));
        out.shapes.push_back(std::move(shape));
    }
    out.deviation = deviation_of(out.shapes, mask);
    return out;
}

} // namespace dotlane
