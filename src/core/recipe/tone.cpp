#include "core/recipe/tone.h"

#include <cmath>

namespace dotlane {

Tone::Tone(const FillTone& tone, const Box& box)
    : box_(box)
    , from_(tone.from / 100)
    , to_(tone.to / 100)
    , picture_(tone.by == FillTone::By::picture) {
    if (picture_) {
        if (auto pixels = tone.picture ? graymap_read(*tone.picture) : std::nullopt)
            pixels_ = std::move(*pixels);
        return;
    }
    along_ = {std::cos(in_radians(tone.angle)), std::sin(in_radians(tone.angle))};
    double least = 1e300, most = -1e300;
    for (const Point p : {Point{box.x0, box.y0}, {box.x1, box.y0}, {box.x0, box.y1}, {box.x1, box.y1}})
        least = std::min(least, dot(p, along_)), most = std::max(most, dot(p, along_));
    start_ = least, way_ = std::max(most - least, 1e-9);
}

double Tone::at(Point p) const {
    if (!picture_) return std::lerp(from_, to_, std::clamp((dot(p, along_) - start_) / way_, 0.0, 1.0));
    if (pixels_.grey.empty()) return from_;
    // So large that it covers the box, its middle on the box's.
    const double scale = std::max(box_.width() / pixels_.width, box_.height() / pixels_.height);
    const Point middle = box_.centre();
    const double x = (p.x - middle.x) / scale + pixels_.width / 2.0 - 0.5,
                 y = (p.y - middle.y) / scale + pixels_.height / 2.0 - 0.5;
    const auto grey = [&](double column, double row) {
        const auto c = static_cast<std::size_t>(std::clamp(column, 0.0, pixels_.width - 1.0)),
                   r = static_cast<std::size_t>(std::clamp(row, 0.0, pixels_.height - 1.0));
        return static_cast<double>(pixels_.grey[r * static_cast<std::size_t>(pixels_.width) + c]);
    };
    const double c = std::floor(x), r = std::floor(y);
    const double above = std::lerp(grey(c, r), grey(c + 1, r), x - c),
                 below = std::lerp(grey(c, r + 1), grey(c + 1, r + 1), x - c);
    return std::lerp(to_, from_, std::lerp(above, below, y - r) / 255);
}

} // namespace dotlane
