#include "core/formats/trace/picture.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <png.h>
#include <turbojpeg.h>

namespace dotlane {
namespace {

tl::unexpected<Error> too_large(std::size_t most_pixels) {
    return fail("picture.large", say("The picture has more than %1 million pixels. Make it smaller, or open "
                                     "it all the same, which may take minutes. Nothing has changed.",
                                     most_pixels / 1'000'000));
}
tl::unexpected<Error> damaged() {
    return fail("picture.damaged", say("The picture is damaged or cut short. Nothing has changed."));
}

/// Bytes of pixels, row by row.
struct Pixels {
    int width = 0, height = 0;
    std::vector<std::uint8_t> bytes;
};

Result<Pixels> read_png(const std::string& bytes, bool colour, std::size_t most_pixels) {
    png_image png{};
    png.version = PNG_IMAGE_VERSION;
    if (!png_image_begin_read_from_memory(&png, bytes.data(), bytes.size())) return damaged();
    if (static_cast<std::size_t>(png.width) * png.height > most_pixels) {
        png_image_free(&png);
        return too_large(most_pixels);
    }
    png.format = colour ? PNG_FORMAT_RGB : PNG_FORMAT_GRAY;
    Pixels out{static_cast<int>(png.width), static_cast<int>(png.height), {}};
    out.bytes.resize(PNG_IMAGE_SIZE(png));
    const png_color white{255, 255, 255};
    if (!png_image_finish_read(&png, &white, out.bytes.data(), 0, nullptr)) return damaged();
    return out;
}

Result<Pixels> read_jpeg(const std::string& bytes, bool colour, std::size_t most_pixels) {
    struct Handle {
        tjhandle tj = tjInitDecompress();
        ~Handle() { tjDestroy(tj); }
    } handle;
    const auto* data = reinterpret_cast<const unsigned char*>(bytes.data());
    int width = 0, height = 0, sampling = 0, space = 0;
    if (tjDecompressHeader3(handle.tj, data, bytes.size(), &width, &height, &sampling, &space) != 0)
        return damaged();
    if (width <= 0 || height <= 0) return damaged();
    if (static_cast<std::size_t>(width) * static_cast<std::size_t>(height) > most_pixels)
        return too_large(most_pixels);
    Pixels out{width, height, {}};
    out.bytes.resize(static_cast<std::size_t>(width) * static_cast<std::size_t>(height) * (colour ? 3 : 1));
    if (tjDecompress2(handle.tj, data, bytes.size(), out.bytes.data(), width, 0, height,
                      colour ? TJPF_RGB : TJPF_GRAY, 0) == 0)
        return out;
    // Grey stands for what a damaged file no longer holds. Only what lies behind or between whole parts of it
    // does no harm.
    const std::string_view why = tjGetErrorStr2(handle.tj);
    if (tjGetErrorCode(handle.tj) == TJERR_WARNING && why.find("extraneous") != std::string_view::npos)
        return out;
    return damaged();
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

namespace {

std::uint32_t big_endian(const std::string& bytes, std::size_t at, int count) {
    std::uint32_t v = 0;
    for (int i = 0; i < count; ++i)
        v = v << 8 | static_cast<unsigned char>(bytes[at + static_cast<std::size_t>(i)]);
    return v;
}

/// Of a count to the inch that makes sense for a picture.
double sensible(double per_inch) {
    return per_inch >= 10 && per_inch <= 10'000 ? per_inch : 0;
}

double png_density(const std::string& b) {
    for (std::size_t at = 8; at + 12 <= b.size();) {
        const std::size_t length = big_endian(b, at, 4);
        const std::string_view kind = std::string_view(b).substr(at + 4, 4);
        if (kind == "IDAT" || length > b.size() - at - 12) return 0;
        if (kind == "pHYs" && length == 9) // pixels to the metre, the same both ways
            return b[at + 16] == 1 && big_endian(b, at + 8, 4) == big_endian(b, at + 12, 4)
                       ? sensible(big_endian(b, at + 8, 4) * 0.0254)
                       : 0;
        at += length + 12;
    }
    return 0;
}

double jpeg_density(const std::string& b) {
    if (b.size() < 18 || b.compare(2, 2, "\xff\xe0") != 0 || b.compare(6, 5, std::string("JFIF\0", 5)) != 0)
        return 0;
    const double across = big_endian(b, 14, 2), down = big_endian(b, 16, 2);
    if (across != down) return 0;
    return sensible(b[13] == 1 ? across : b[13] == 2 ? across * 2.54 : 0);
}

Result<Pixels> read_pixels(const std::string& bytes, bool colour, std::size_t most_pixels) {
    if (is_png(bytes)) return read_png(bytes, colour, most_pixels);
    if (is_jpeg(bytes)) return read_jpeg(bytes, colour, most_pixels);
    return fail("picture.format", say("This is neither a PNG nor a JPEG picture."));
}

using Rgb = std::array<double, 3>;

double apart(const Rgb& a, const Rgb& b) {
    double sum = 0;
    for (std::size_t i = 0; i < 3; ++i)
        sum += (a[i] - b[i]) * (a[i] - b[i]);
    return sum;
}

std::size_t nearest(const std::vector<Rgb>& colours, const Rgb& c) {
    std::size_t best = 0;
    for (std::size_t i = 1; i < colours.size(); ++i)
        if (apart(colours[i], c) < apart(colours[best], c)) best = i;
    return best;
}

/// Colours that stand for the samples.
std::vector<Rgb> palette_of(const std::vector<Rgb>& samples, std::size_t count) {
    std::vector<Rgb> palette{samples.front()};
    while (palette.size() < count) {
        const auto far = std::max_element(samples.begin(), samples.end(), [&](const Rgb& a, const Rgb& b) {
            return apart(a, palette[nearest(palette, a)]) < apart(b, palette[nearest(palette, b)]);
        });
        if (apart(*far, palette[nearest(palette, *far)]) < 300) break; // the eye would not tell them apart
        palette.push_back(*far);
    }
    for (int round = 0; round < 12; ++round) {
        std::vector<Rgb> sum(palette.size());
        std::vector<double> n(palette.size());
        for (const Rgb& s : samples) {
            const std::size_t at = nearest(palette, s);
            for (std::size_t i = 0; i < 3; ++i)
                sum[at][i] += s[i];
            ++n[at];
        }
        for (std::size_t c = 0; c < palette.size(); ++c)
            for (std::size_t i = 0; i < 3; ++i)
                if (n[c] > 0) palette[c][i] = sum[c][i] / n[c];
    }
    return palette;
}

} // namespace

double pixels_per_inch(const std::string& bytes) {
    return is_png(bytes) ? png_density(bytes) : is_jpeg(bytes) ? jpeg_density(bytes) : 0;
}

Result<GreyImage> read_picture(const std::string& bytes, std::size_t most_pixels) {
    return read_pixels(bytes, false, most_pixels).map([](Pixels p) {
        return GreyImage{p.width, p.height, std::move(p.bytes)};
    });
}

Result<ColourImage> read_colours(const std::string& bytes, std::size_t most_pixels) {
    return read_pixels(bytes, true, most_pixels).map([](Pixels p) {
        return ColourImage{p.width, p.height, std::move(p.bytes)};
    });
}

Roughness roughness_of(const Mask& mask) {
    // Runs of one row that touch runs of the row above are one spot; spots are counted by joining
    // (union-find).
    struct Run {
        int from, to;
        std::uint8_t inside;
        std::uint32_t id;
    };
    std::vector<std::uint32_t> root;
    const auto find = [&](std::uint32_t i) {
        while (root[i] != i)
            i = root[i] = root[root[i]];
        return i;
    };
    Roughness out;
    std::vector<Run> above, here;
    for (int y = 0; y < mask.height; ++y) {
        here.clear();
        for (int x = 0; x < mask.width; ++x) {
            const bool inside = mask.at(x, y);
            if (here.empty() || here.back().inside != inside) {
                out.edges += here.empty() ? (inside ? 1 : 0) : 1;
                here.push_back({x, x, inside, static_cast<std::uint32_t>(root.size())});
                root.push_back(here.back().id);
                ++out.spots;
            }
            here.back().to = x;
            out.edges += inside != mask.at(x, y - 1);
        }
        if (!here.empty()) out.edges += here.back().inside;
        for (std::size_t i = 0, k = 0; i < above.size() && k < here.size();) {
            const Run &a = above[i], &b = here[k];
            if (a.inside == b.inside && a.from <= b.to && b.from <= a.to) {
                const auto ra = find(a.id), rb = find(b.id);
                if (ra != rb) root[rb] = ra, --out.spots;
            }
            a.to < b.to ? ++i : ++k;
        }
        std::swap(above, here);
    }
    for (int x = 0; x < mask.width; ++x)
        out.edges += mask.at(x, mask.height - 1);
    return out;
}

Mask mask_of(const GreyImage& image, int threshold, bool invert) {
    Mask mask{image.width, image.height, std::vector<std::uint8_t>(image.grey.size())};
    for (std::size_t i = 0; i < image.grey.size(); ++i)
        mask.inside[i] = (image.grey[i] < threshold) != invert;
    return mask;
}

std::vector<ColourLevel> colour_levels(const ColourImage& image, int colours) {
    const std::size_t count = image.rgb.size() / 3;
    if (count == 0) return {};
    const auto pixel = [&](std::size_t i) {
        return Rgb{double(image.rgb[3 * i]), double(image.rgb[3 * i + 1]), double(image.rgb[3 * i + 2])};
    };
    std::vector<Rgb> samples;
    for (std::size_t i = 0, step = std::max<std::size_t>(1, count / 40000); i < count; i += step)
        samples.push_back(pixel(i));
    const auto palette = palette_of(samples, static_cast<std::size_t>(colours) + 1);
    std::vector<std::uint8_t> label(count);
    std::vector<std::size_t> on_edge(palette.size());
    // Neighbours are mostly of one colour: the last answer is looked at first.
    std::array<std::uint8_t, 3> last{};
    std::uint8_t last_label = 0;
    const auto width = static_cast<std::size_t>(image.width), height = static_cast<std::size_t>(image.height);
    for (std::size_t i = 0; i < count; ++i) {
        const std::array<std::uint8_t, 3> now{image.rgb[3 * i], image.rgb[3 * i + 1], image.rgb[3 * i + 2]};
        if (i == 0 || now != last)
            last_label = static_cast<std::uint8_t>(nearest(palette, pixel(i))), last = now;
        label[i] = last_label;
        const std::size_t x = i % width, y = i / width;
        if (x == 0 || y == 0 || x + 1 == width || y + 1 == height) ++on_edge[last_label];
    }
    const auto paper =
        static_cast<std::size_t>(std::max_element(on_edge.begin(), on_edge.end()) - on_edge.begin());
    std::vector<std::size_t> order;
    for (std::size_t c = 0; c < palette.size(); ++c)
        if (c != paper) order.push_back(c);
    const auto light = [&](std::size_t c) { // ITU-R BT.601 luma
        return 0.299 * palette[c][0] + 0.587 * palette[c][1] + 0.114 * palette[c][2];
    };
    std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return light(a) > light(b); });
    std::vector<ColourLevel> out;
    for (const std::size_t c : order) {
        ColourLevel level{{}, {image.width, image.height, std::vector<std::uint8_t>(count)}};
        for (std::size_t i = 0; i < 3; ++i)
            level.rgb[i] = static_cast<std::uint8_t>(std::lround(palette[c][i]));
        for (std::size_t i = 0; i < count; ++i)
            level.mask.inside[i] = label[i] == c;
        out.push_back(std::move(level));
    }
    return out;
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
