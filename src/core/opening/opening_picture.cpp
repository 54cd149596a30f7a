// Opening a picture: read to its end, so that a damaged one is refused before anything is made of it.
#include "core/base/text.h"
#include "core/formats/svg/render.h"
#include "core/formats/trace/picture.h"
#include "core/opening/opening.h"

namespace dotlane {
namespace {

ScaleChoice at(const OpenedPicture& opened, double per_inch) {
    return {say("%1 pixels per inch", number(per_inch, 1)), mm_per_inch / per_inch,
            inches(opened.width / per_inch), inches(opened.height / per_inch)};
}

} // namespace

Result<OpenedPicture> open_picture(std::string bytes, const std::string& file_name,
                                   const ReadLimits& limits) {
    const auto in_file = [&](Error error) {
        error.place.file = file_name;
        return tl::make_unexpected(std::move(error));
    };
    if (bytes.size() > limits.bytes)
        return in_file({"open.large",
                        say("The file has more than %1 MB. Take a smaller picture, or open it all the same, "
                            "which may take minutes. Nothing has changed.",
                            limits.bytes / 1'000'000),
                        {}});
    const auto image = read_picture(bytes, limits.pixels);
    if (!image) return in_file(image.error());
    OpenedPicture out;
    out.name = file_stem(file_name);
    out.width = image->width, out.height = image->height;
    out.per_inch = pixels_per_inch(bytes);
    out.picture.file_name = valid_utf8(dotlane::file_name(file_name));
    out.picture.patient = limits.pixels > ReadLimits{}.pixels;
    out.picture.bytes = std::make_shared<const std::string>(std::move(bytes));
    out.asks_scale = out.per_inch == 0 || !settle_width(out, inches(out.width / out.per_inch));
    return out;
}

Result<OpenedPicture> open_as_picture(const std::string& bytes, const std::string& file_name,
                                      FontShelf& fonts, const ReadLimits& limits) {
    constexpr int larger_side = 1600; // of A4 0.2 mm a pixel; the tracer's curves are finer than that
    const auto in_file = [&](Error error) {
        error.place.file = file_name;
        return tl::make_unexpected(std::move(error));
    };
    auto png = render_svg(bytes, larger_side);
    if (!png) return in_file(png.error());
    auto out = open_picture(std::move(*png), file_name, limits);
    if (!out) return out;
    // What is drawn is the page; how large that is, the reader of lines knows.
    const auto read = read_svg(bytes, SvgOptions{file_name, &fonts, limits});
    if (!read || !read->physical_size || !settle_width(*out, read->drawing.page_width))
        out->asks_scale = true;
    return out;
}

Result<void> settle_width(OpenedPicture& opened, Length width) {
    if (!(in_mm(width) >= 1 && in_mm(width) <= 5000))
        return fail("open.width", say("The finished width of a picture must lie between 1 mm and 5 m."));
    opened.picture.width = width;
    opened.asks_scale = false;
    return {};
}

std::vector<ScaleChoice> scale_choices(const OpenedPicture& opened) {
    return {at(opened, 300), at(opened, 150), at(opened, 96)};
}

} // namespace dotlane
