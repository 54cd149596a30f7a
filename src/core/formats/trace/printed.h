// The pixels of a picture that is printed and cut: within the art its own, beyond it those of the art that
// are nearest, so that the colour runs on below the cut and the paper around the art is not seen.
//
// Method: a two-pass propagation of the nearest pixel's offset (P.-E. Danielsson, Euclidean distance mapping,
// Computer Graphics and Image Processing 14 (1980)), which is off by a fraction of a pixel at the most.
#pragma once

#include "core/formats/trace/picture.h"
#include "core/geometry/region.h"

namespace dotlane {

struct PlacedImage {
    ColourImage image;
    Affine to_sheet;  ///< from its pixels, origin at its top left corner, to mm
    Polylines inside; ///< mm; nothing of it is printed outside of them; even-odd
};

/// `to_sheet`: from mm of the picture, whose whole width is `width`. `art`, `whole`: even-odd, mm on the
/// sheet. Pixels along the art's edge are half the paper's and count as beyond it. Errors: those of
/// read_colours, and "picture.large" when what is printed has more pixels than may be.
Result<PlacedImage> printed_image(const std::string& bytes, Length width, const Affine& to_sheet,
                                  const Polylines& art, const Polylines& whole);

/// A PNG file, without loss. Throws std::bad_alloc only.
std::string write_png(const ColourImage& image);

} // namespace dotlane
