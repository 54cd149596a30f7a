#include "core/recipe/digits.h"

#include "core/project/drawing.h"

namespace dotlane {

Digits::Digits(const Result<SourceLines>* made) {
    if (!made || !*made || !(*made)->drawing) return;
    const std::vector<DrawnLine>& lines = (*made)->drawing->lines;
    // One line for each digit, and beside it the one that all others are as high as.
    double high = 0;
    for (const DrawnLine& line : lines)
        high = std::max(high, bounds(line.shape).height());
    if (high <= 0) return;
    for (const DrawnLine& line : lines) {
        const int digit = line.group.empty() ? -1 : line.group.front() - '0';
        if (digit < 0 || digit > 9) continue;
        const Box box = bounds(line.shape);
        const Affine to = Affine::scaling(1 / high, 1 / high) * Affine::translation({-box.x0, -box.y0});
        for (const Polyline& stroke : transformed(flattened(line.shape), to))
            digit_[digit].push_back(stroke);
        wide_[digit] = std::max(wide_[digit], box.width() / high);
        any_ = true;
    }
}

std::optional<FlatLine> Digits::number(std::size_t n, Point at, Length height) const {
    if (!any_) return std::nullopt;
    constexpr double space = 0.25; // of the height
    const std::string text = std::to_string(n);
    double wide = -space;
    for (const char c : text)
        wide += wide_[c - '0'] + space;
    const double h = in_mm(height);
    FlatLine out;
    double x = -wide / 2;
    for (const char c : text) {
        const Affine to = Affine::translation(at) * Affine::scaling(h, h) * Affine::translation({x, -0.5});
        for (const Polyline& stroke : digit_[c - '0'])
            out.contours.push_back(transformed(stroke, to));
        x += wide_[c - '0'] + space;
    }
    out.box = bounds(out.contours);
    return out;
}

} // namespace dotlane
