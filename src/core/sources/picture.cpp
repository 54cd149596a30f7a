// A picture traced to outlines, one role for each level of grey.
#include "core/base/text.h"
#include "core/formats/trace/trace.h"
#include "core/sources/parts.h"

namespace dotlane {

std::vector<std::string> picture_roles(const Picture& picture) {
    if (picture.levels == 1) return {role::traced};
    std::vector<std::string> out;
    for (int i = 1; i <= picture.levels; ++i)
        out.push_back(std::string(role::traced) + " " + std::to_string(i));
    return out;
}

Result<SourceLines> sources::make(const Picture& picture) {
    if (!picture.bytes || picture.bytes->empty())
        return fail("source.picture", "A picture is opened from a PNG or JPEG file.");
    const auto image = read_picture(*picture.bytes);
    if (!image) return tl::make_unexpected(image.error());
    const int threshold = picture.threshold > 0 ? picture.threshold : otsu_threshold(*image);
    const double scale = in_mm(picture.width) / image->width;
    const auto roles = picture_roles(picture);
    Lines lines;
    std::size_t segments = 0, pieces = 0;
    for (std::size_t level = 0; level < roles.size(); ++level) {
        TraceOptions options;
        // Level 1 is all that is dark enough; those above it are darker by equal steps and lie on it.
        const double share = 1 - static_cast<double>(level) / static_cast<double>(roles.size());
        options.threshold = picture.invert ? 255 - static_cast<int>((255 - threshold) * share)
                                           : std::max(1, static_cast<int>(threshold * share));
        options.invert = picture.invert;
        options.speckle = picture.speckle;
        options.reconnect = picture.reconnect;
        options.corner = picture.corner;
        options.tolerance = picture.tolerance;
        for (const Shape& shape : trace(*image, options)) {
            ++pieces;
            segments += segment_count(shape);
            if (pieces > 50000)
                return fail("source.picture",
                            "The picture falls into more than 50,000 pieces. Leave out more speckles.");
            lines.add(roles[level].c_str(), transformed(shape, Affine::scaling(scale, scale)));
        }
    }
    if (pieces == 0)
        return fail("source.picture", "Nothing of the picture is " +
                                          std::string(picture.invert ? "lighter" : "darker") +
                                          " than the threshold of " + std::to_string(threshold) + ".");
    lines.figure("pixels_across", "", image->width);
    lines.figure("pixels_down", "", image->height);
    lines.figure("threshold", "", threshold);
    lines.figure("pieces", "", static_cast<double>(pieces));
    lines.figure("segments", "", static_cast<double>(segments));
    // How far the outline may be from the edge of the pixels: half a pixel of Potrace's polygon, and the
    // tolerance.
    lines.figure("deviation_at_most", "mm", (0.5 + picture.tolerance) * scale);
    return lines.take();
}

} // namespace dotlane
