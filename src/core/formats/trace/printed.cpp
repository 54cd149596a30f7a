#include "core/formats/trace/printed.h"

#include <algorithm>
#include <cmath>
#include <png.h>

namespace dotlane {
namespace {

constexpr double half_paper = 1.2; ///< pixels along the art's edge that have some of the paper's colour

/// Pixels whose middles lie inside, even-odd.
Mask mask_inside(const Polylines& contours, int width, int height) {
    Mask out{width, height,
             std::vector<std::uint8_t>(static_cast<std::size_t>(width) * static_cast<std::size_t>(height))};
    std::vector<std::vector<double>> rows(static_cast<std::size_t>(height));
    for (const Polyline& line : contours)
        for (std::size_t i = 0; i < line.points.size(); ++i) {
            Point a = line.points[i], b = line.points[(i + 1) % line.points.size()];
            if (a.y > b.y) std::swap(a, b);
            const int from = std::max(0, static_cast<int>(std::ceil(a.y - 0.5))),
                      to = std::min(height, static_cast<int>(std::ceil(b.y - 0.5)));
            for (int y = from; y < to; ++y)
                rows[static_cast<std::size_t>(y)].push_back(a.x +
                                                            (b.x - a.x) * (y + 0.5 - a.y) / (b.y - a.y));
        }
    for (int y = 0; y < height; ++y) {
        auto& at = rows[static_cast<std::size_t>(y)];
        std::sort(at.begin(), at.end());
        for (std::size_t i = 0; i + 1 < at.size(); i += 2)
            for (int x = std::max(0, static_cast<int>(std::ceil(at[i] - 0.5))),
                     end = std::min(width, static_cast<int>(std::ceil(at[i + 1] - 0.5)));
                 x < end; ++x)
                out.inside[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) +
                           static_cast<std::size_t>(x)] = 1;
    }
    return out;
}

/// For each pixel the offset of the nearest one that is inside.
class NearestInside {
  public:
    explicit NearestInside(const Mask& mask)
        : width_(mask.width)
        , height_(mask.height)
        , to_(mask.inside.size()) {
        for (std::size_t i = 0; i < to_.size(); ++i)
            to_[i] = mask.inside[i] ? Offset{0, 0} : Offset{far, far};
        for (int y = 0; y < height_; ++y) {
            for (int x = 0; x < width_; ++x)
                for (const auto& [dx, dy] : {std::pair{-1, 0}, {0, -1}, {-1, -1}, {1, -1}})
                    look(x, y, dx, dy);
            for (int x = width_ - 1; x >= 0; --x)
                look(x, y, 1, 0);
        }
        for (int y = height_ - 1; y >= 0; --y) {
            for (int x = width_ - 1; x >= 0; --x)
                for (const auto& [dx, dy] : {std::pair{1, 0}, {0, 1}, {-1, 1}, {1, 1}})
                    look(x, y, dx, dy);
            for (int x = 0; x < width_; ++x)
                look(x, y, -1, 0);
        }
    }
    /// Index of the pixel; its own when nothing is inside.
    std::size_t of(int x, int y) const {
        const Offset o = to_[index(x, y)];
        return o.x == far ? index(x, y) : index(x + o.x, y + o.y);
    }

  private:
    static constexpr int far =
        1 << 14; ///< more pixels than a picture has across, and its square still an int
    struct Offset {
        std::int16_t x, y; // pictures are large
        int squared() const { return x * x + y * y; }
    };
    std::size_t index(int x, int y) const {
        return static_cast<std::size_t>(y) * static_cast<std::size_t>(width_) + static_cast<std::size_t>(x);
    }
    void look(int x, int y, int dx, int dy) {
        if (x + dx < 0 || y + dy < 0 || x + dx >= width_ || y + dy >= height_) return;
        Offset there = to_[index(x + dx, y + dy)];
        if (there.x == far) return;
        there.x = static_cast<std::int16_t>(there.x + dx), there.y = static_cast<std::int16_t>(there.y + dy);
        Offset& here = to_[index(x, y)];
        if (here.x == far || there.squared() < here.squared()) here = there;
    }

    int width_, height_;
    std::vector<Offset> to_;
};

/// The art as far as it has none of the paper's colour; all of it where nothing would be left.
Polylines solid(const Polylines& art) {
    const Region whole = region_of(art, FillRule::evenodd);
    Polylines out;
    for (const Region& piece : pieces(whole)) {
        const Region inner = offset(piece, mm(-half_paper)); // pixels, here
        for (const Ring& ring : (inner.empty() ? piece : inner).rings)
            out.push_back({ring, true});
    }
    return out;
}

} // namespace

Result<PlacedImage> printed_image(const std::string& bytes, Length width, const Affine& to_sheet,
                                  const Polylines& art, const Polylines& whole) {
    const std::size_t most = ReadLimits::large().pixels;
    const auto picture = read_colours(bytes, most);
    if (!picture) return tl::make_unexpected(picture.error());
    const double pixel = in_mm(width) / picture->width;
    const Affine to_pixels = (to_sheet * Affine::scaling(pixel, pixel)).inverse();
    const Box box = bounds(transformed(whole, to_pixels));
    const double x0 = std::floor(box.x0) - 1, y0 = std::floor(box.y0) - 1, wide = std::ceil(box.x1) + 1 - x0,
                 high = std::ceil(box.y1) + 1 - y0;
    if (!(wide * high <= static_cast<double>(most)) || wide > 16'000 || high > 16'000)
        return fail("picture.large", say("What is printed has more than %1 million pixels. Make the picture "
                                         "or its bleed smaller.",
                                         most / 1'000'000));
    const Affine from_corner = Affine::translation({-x0, -y0}) * to_pixels;
    PlacedImage out{{static_cast<int>(wide), static_cast<int>(high), {}}, from_corner.inverse(), whole};
    Mask own = mask_inside(solid(transformed(art, from_corner)), out.image.width, out.image.height);
    const auto left = static_cast<int>(x0), top = static_cast<int>(y0);
    const auto there = [&](int x, int y) {
        return x + left >= 0 && y + top >= 0 && x + left < picture->width && y + top < picture->height;
    };
    const auto at = [](const ColourImage& image, int x, int y) {
        return (static_cast<std::size_t>(y) * static_cast<std::size_t>(image.width) +
                static_cast<std::size_t>(x)) *
               3;
    };
    std::vector<std::uint8_t>& rgb = out.image.rgb;
    rgb.assign(own.inside.size() * 3, 255);
    for (int y = 0; y < out.image.height; ++y)
        for (int x = 0; x < out.image.width; ++x) {
            const std::size_t here = at(out.image, x, y);
            if (!there(x, y))
                own.inside[here / 3] = 0;
            else
                std::copy_n(&picture->rgb[at(*picture, x + left, y + top)], 3, &rgb[here]);
        }
    const NearestInside nearest(own);
    for (int y = 0; y < out.image.height; ++y)
        for (int x = 0; x < out.image.width; ++x)
            // What is inside keeps its own, so that it can be copied from here.
            std::copy_n(&rgb[nearest.of(x, y) * 3], 3, &rgb[at(out.image, x, y)]);
    return out;
}

std::string write_png(const ColourImage& image) {
    png_image png{};
    png.version = PNG_IMAGE_VERSION;
    png.width = static_cast<png_uint_32>(image.width), png.height = static_cast<png_uint_32>(image.height);
    png.format = PNG_FORMAT_RGB;
    png_alloc_size_t size = PNG_IMAGE_PNG_SIZE_MAX(png);
    std::string out(size, '\0');
    if (!png_image_write_to_memory(&png, out.data(), &size, 0, image.rgb.data(), 0, nullptr))
        throw std::bad_alloc();
    out.resize(size);
    return out;
}

} // namespace dotlane
