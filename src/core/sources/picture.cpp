// A picture traced to outlines, one role for each level of grey or colour.
#include "core/base/aside.h"
#include "core/base/text.h"
#include "core/formats/trace/trace.h"
#include "core/sources/parts.h"

namespace dotlane::sources {
namespace {

struct Levels {
    std::vector<Mask> masks;
    std::vector<std::optional<Colour>> colours;
    int width = 0, height = 0, threshold = 0; ///< threshold: 0 when told apart by colour
};

ReadLimits limits_of(const Picture& picture) {
    return picture.patient ? ReadLimits::large() : ReadLimits{};
}

/// Noise, a screen of dots or a photograph has no outlines that anybody would cut, and takes minutes to find
/// out.
Result<void> check_rough(const std::vector<Mask>& masks, const ReadLimits& limits) {
    Roughness all;
    for (const Mask& mask : masks) {
        const Roughness one = roughness_of(mask);
        all.edges += one.edges;
        all.spots += one.spots;
    }
    if (all.edges <= limits.edges && all.spots <= limits.spots) return {};
    return fail("source.rough", say("It is too rough to be traced: it falls into %1 spots with %2 sides of "
                                    "pixels around them. Take a smaller or smoother picture, fewer levels or "
                                    "colours, or another threshold; or let it take its time.",
                                    with_thousands(all.spots), with_thousands(all.edges)));
}

Result<Levels> levels_of(const Picture& picture) {
    Levels out;
    const std::size_t most_pixels = limits_of(picture).pixels;
    if (picture.by == Picture::By::colour) {
        const auto image = read_colours(*picture.bytes, most_pixels);
        if (!image) return tl::make_unexpected(image.error());
        out.width = image->width, out.height = image->height;
        for (ColourLevel& level : colour_levels(*image, picture.levels)) {
            out.masks.push_back(std::move(level.mask));
            out.colours.push_back(Colour{level.rgb[0], level.rgb[1], level.rgb[2]});
        }
        return out;
    }
    const auto image = read_picture(*picture.bytes, most_pixels);
    if (!image) return tl::make_unexpected(image.error());
    out.width = image->width, out.height = image->height;
    out.threshold = picture.threshold > 0 ? picture.threshold : otsu_threshold(*image);
    for (int level = 0; level < picture.levels; ++level) {
        // Level 1 is all that is dark enough; those above it are darker by equal steps and lie on it.
        const double share = 1 - static_cast<double>(level) / picture.levels;
        const int threshold = picture.invert ? 255 - static_cast<int>((255 - out.threshold) * share)
                                             : std::max(1, static_cast<int>(out.threshold * share));
        out.masks.push_back(mask_of(*image, threshold, picture.invert));
        out.colours.emplace_back();
    }
    return out;
}

Result<SourceLines> traced(const Picture& picture) {
    auto levels = levels_of(picture);
    if (!levels) return tl::make_unexpected(levels.error());
    if (const auto ok = check_rough(levels->masks, limits_of(picture)); !ok)
        return tl::make_unexpected(ok.error());
    const double scale = in_mm(picture.width) / levels->width;
    TraceOptions options;
    options.speckle = picture.speckle;
    options.reconnect = picture.reconnect;
    options.corner = picture.corner;
    options.tolerance = picture.tolerance;
    Lines lines;
    std::size_t segments = 0, pieces = 0;
    double deviation = 0;
    for (std::size_t i = 0; i < levels->masks.size(); ++i) {
        if (picture.levels > 1 && picture.only > 0 && picture.only != static_cast<int>(i) + 1) continue;
        const std::string name =
            picture.levels == 1 ? role::traced : role::traced + (" " + std::to_string(i + 1));
        const Tracing tracing = trace(std::move(levels->masks[i]), options);
        deviation = std::max(deviation, tracing.deviation);
        for (const Shape& shape : tracing.shapes) {
            ++pieces;
            segments += segment_count(shape);
            if (pieces > 50000)
                return fail("source.picture",
                            say("The picture falls into more than 50,000 pieces. Leave out more speckles."));
            lines.add(name.c_str(), transformed(shape, Affine::scaling(scale, scale)),
                      levels->colours[i] ? to_hex(*levels->colours[i]) : std::string());
        }
    }
    if (pieces == 0 && picture.by == Picture::By::colour)
        return fail("source.picture",
                    say("The picture has no colour beside its paper's that is large enough."));
    if (pieces == 0)
        return fail(
            "source.picture",
            picture.invert
                ? say("Nothing of the picture is lighter than the threshold of %1.", levels->threshold)
                : say("Nothing of the picture is darker than the threshold of %1.", levels->threshold));
    lines.figure("pixels_across", "", levels->width);
    lines.figure("pixels_down", "", levels->height);
    if (levels->threshold > 0)
        lines.figure("threshold", "", levels->threshold);
    else
        lines.figure("colours", "", static_cast<double>(levels->masks.size()));
    lines.figure("pieces", "", static_cast<double>(pieces));
    lines.figure("segments", "", static_cast<double>(segments));
    lines.figure("greatest_deviation", "mm", deviation * scale);
    return lines.take();
}

} // namespace

} // namespace dotlane::sources

namespace dotlane {

std::optional<TracedFrom> traced_from(const SourceSpec& spec) {
    const auto* picture = std::get_if<Picture>(&spec);
    if (!picture || !picture->bytes) return {};
    return TracedFrom{picture->bytes, picture->width};
}

Result<SourceLines> make(const Picture& picture, const MakeInput& in) {
    using namespace sources;
    Progress& progress = in.progress;
    if (!picture.bytes || picture.bytes->empty())
        return fail("source.picture", say("A picture is opened from a PNG or JPEG file."));
    // Neither the decoders nor Potrace can be stopped half way.
    auto made = run_aside([picture] { return traced(picture); }, progress);
    if (!made) return fail("cancelled", say("The tracing was cancelled."));
    return std::move(*made);
}

} // namespace dotlane
