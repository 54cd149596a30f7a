// Pictures: PNG (libpng) and JPEG (libjpeg-turbo) to a grey image on white.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "core/base/result.h"

namespace dotlane {

struct GreyImage {
    int width = 0, height = 0;
    std::vector<std::uint8_t> grey; ///< row by row from the top, 0 black .. 255 white
    std::uint8_t at(int x, int y) const {
        return grey[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) +
                    static_cast<std::size_t>(x)];
    }
};

/// Whether the bytes begin like a PNG or JPEG file.
bool looks_like_picture(const std::string& bytes);
/// Transparent parts are white. Errors: "picture.format" (neither PNG nor JPEG), "picture.damaged",
/// "picture.large" (over 40 million pixels).
Result<GreyImage> read_picture(const std::string& bytes);
/// The threshold that parts dark from light best. Source: N. Otsu, A threshold selection method from
/// gray-level histograms, IEEE Trans. SMC 9 (1979).
int otsu_threshold(const GreyImage& image);

} // namespace dotlane
