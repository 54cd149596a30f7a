// Pictures: PNG (libpng) and JPEG (libjpeg-turbo) to a grey or coloured image on white, and what
// is inside at a threshold or of a colour.
#pragma once

#include <array>
#include <cstdint>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/formats/limits.h"

namespace dotlane {

struct GreyImage {
    int width = 0, height = 0;
    std::vector<std::uint8_t> grey; ///< row by row from the top, 0 black .. 255 white
    std::uint8_t at(int x, int y) const {
        return grey[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) +
                    static_cast<std::size_t>(x)];
    }
};

/// Red, green and blue of each pixel, 0..255, row by row from the top.
struct ColourImage {
    int width = 0, height = 0;
    std::vector<std::uint8_t> rgb;
};

/// Which pixels are inside: one byte each, 0 or 1, row by row from the top.
struct Mask {
    int width = 0, height = 0;
    std::vector<std::uint8_t> inside;
    bool at(int x, int y) const {
        return x >= 0 && y >= 0 && x < width && y < height &&
               inside[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) +
                      static_cast<std::size_t>(x)];
    }
};
/// Darker than the threshold (1..255), or not darker.
Mask mask_of(const GreyImage& image, int threshold, bool invert);

/// Whether the bytes begin like a PNG or JPEG file.
bool looks_like_picture(const std::string& bytes);
/// Pixels to the inch that the file states (PNG: pHYs, ISO/IEC 15948; JPEG: JFIF, ITU-T T.871); 0 when it
/// states none.
double pixels_per_inch(const std::string& bytes);
/// Transparent parts are white. Errors: "picture.format" (neither PNG nor JPEG), "picture.damaged" (also when
/// it is cut short), "picture.large".
Result<GreyImage> read_picture(const std::string& bytes, std::size_t most_pixels = ReadLimits{}.pixels);
Result<ColourImage> read_colours(const std::string& bytes, std::size_t most_pixels = ReadLimits{}.pixels);
/// What tracing costs grows with: sides of pixels between inside and outside, and separate spots of either.
struct Roughness {
    std::size_t edges = 0, spots = 0;
};
Roughness roughness_of(const Mask& mask);

struct ColourLevel {
    std::array<std::uint8_t, 3> rgb;
    Mask mask;
};
/// The picture's pixels put to so many colours beside the paper's, which is the one most of its edge has;
/// lightest first. By k-means (S. Lloyd, Least squares quantization in PCM, IEEE Trans. IT 28 (1982)), begun
/// with the colours that lie farthest apart. Fewer when the picture has fewer.
std::vector<ColourLevel> colour_levels(const ColourImage& image, int colours);
/// The threshold that parts dark from light best. Source: N. Otsu, A threshold selection method from
/// gray-level histograms, IEEE Trans. SMC 9 (1979).
int otsu_threshold(const GreyImage& image);

} // namespace dotlane
