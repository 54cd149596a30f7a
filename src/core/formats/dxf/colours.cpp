#include <cmath>

#include "core/formats/dxf/entities.h"

namespace dotlane::dxf {

/// The nine named colours of the index; others by their hue wheel, the last six greys (DXF reference, colour
/// index).
Colour colour_of_index(int index) {
    static constexpr Colour named[] = {{0, 0, 0},       {255, 0, 0},    {255, 255, 0}, {0, 255, 0},
                                       {0, 255, 255},   {0, 0, 255},    {255, 0, 255}, {0, 0, 0},
                                       {128, 128, 128}, {192, 192, 192}};
    if (index < 0 || index > 255) return {};
    if (index <= 9) return named[index];
    if (index >= 250) {
        const auto grey = static_cast<std::uint8_t>(51 + (index - 250) * 40);
        return {grey, grey, grey};
    }
    static constexpr double values[] = {1, 0.65, 0.5, 0.3, 0.15};
    const double hue = (index / 10 - 1) * 15.0 / 60;
    const double v = values[(index % 10) / 2], low = index % 2 == 1 ? v / 2 : 0, f = hue - std::floor(hue);
    const double up = low + (v - low) * f, down = v - (v - low) * f;
    const double rgb[6][3] = {{v, up, low},   {down, v, low}, {low, v, up},
                              {low, down, v}, {up, low, v},   {v, low, down}};
    const auto& c = rgb[static_cast<int>(hue) % 6];
    const auto byte = [](double x) { return static_cast<std::uint8_t>(std::lround(x * 255)); };
    return {byte(c[0]), byte(c[1]), byte(c[2])};
}

} // namespace dotlane::dxf
