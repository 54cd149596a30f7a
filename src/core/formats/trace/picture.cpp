#include "core/formats/trace/picture.h"

#include <array>
#include <png.h>
#include <turbojpeg.h>

namespace dotlane {
namespace {

constexpr std::size_t most_pixels = 40'000'000;

tl::unexpected<Error> too_large() {
    return fail("picture.large", "The picture has more than 40 million pixels. Make it smaller first.");
}
tl::unexpected<Error> damaged() {
    return fail("picture.damaged", "The picture is damaged or cut short. Nothing has changed.");
}

Result<GreyImage> read_png(const std::string& bytes) {
    png_image png{};
    png.version = PNG_IMAGE_VERSION;
    if (!png_image_begin_read_from_memory(&png, bytes.data(), bytes.size())) return damaged();
    if (static_cast<std::size_t>(png.width) * png.height > most_pixels) {
        png_image_free(&png);
        return too_large();
    }
    png.format = PNG_FORMAT_GRAY;
    GreyImage out{static_cast<int>(png.width), static_cast<int>(png.height), {}};
    out.grey.resize(PNG_IMAGE_SIZE(png));
    const png_color white{255, 255, 255};
    if (!png_image_finish_read(&png, &white, out.grey.data(), 0, nullptr)) return damaged();
    return out;
}

Result<GreyImage> read_jpeg(const std::string& bytes) {
    struct Handle {
        tjhandle tj = tjInitDecompress();
        ~Handle() { tjDestroy(tj); }
    } handle;
    const auto* data = reinterpret_cast<const unsigned char*>(bytes.data());
    int width = 0, height = 0, sampling = 0, space = 0;
    if (tjDecompressHeader3(handle.tj, data, bytes.size(), &width, &height, &sampling, &space) != 0)
        return damaged();
    if (width <= 0 || height <= 0) return damaged();
    if (static_cast<std::size_t>(width) * static_cast<std::size_t>(height) > most_pixels) return too_large();
    GreyImage out{width, height, {}};
    out.grey.resize(static_cast<std::size_t>(width) * static_cast<std::size_t>(height));
    if (tjDecompress2(handle.tj, data, bytes.size(), out.grey.data(), width, 0, height, TJPF_GRAY, 0) != 0 &&
        tjGetErrorCode(handle.tj) != TJERR_WARNING)
        return damaged();
    return out;
}

bool is_png(const std::string& bytes) {
    return bytes.starts_with("\x89PNG");
}
bool is_jpeg(const std::string& bytes) {
    return bytes.starts_with("\xff\xd8\xff");
}

} // namespace

bool looks_like_picture(const std::string& bytes) {
    return is_png(bytes) || is_jpeg(bytes);
}

Result<GreyImage> read_picture(const std::string& bytes) {
    if (is_png(bytes)) return read_png(bytes);
    if (is_jpeg(bytes)) return read_jpeg(bytes);
    return fail("picture.format", "This is neither a PNG nor a JPEG picture.");
}

int otsu_threshold(const GreyImage& image) {
    std::array<double, 256> histogram{};
    for (const std::uint8_t g : image.grey)
        ++histogram[g];
    double all = 0, sum = 0;
    for (int i = 0; i < 256; ++i)
        all += histogram[static_cast<std::size_t>(i)], sum += i * histogram[static_cast<std::size_t>(i)];
    double dark = 0, dark_sum = 0, best = -1;
    int from = 128, to = 128;
    for (int t = 0; t < 255; ++t) {
        const double h = histogram[static_cast<std::size_t>(t)];
        dark += h, dark_sum += t * h;
        if (dark == 0 || dark == all) continue;
        const double apart = dark_sum / dark - (sum - dark_sum) / (all - dark);
        const double between = dark * (all - dark) * apart * apart;
        // Where nothing lies between the two, every threshold in the gap is as good: its middle is taken.
        if (between > best * (1 + 1e-12))
            best = between, from = to = t;
        else if (between >= best * (1 - 1e-12))
            to = t;
    }
    return (from + to) / 2 + 1; // below this is dark
}

} // namespace dotlane
