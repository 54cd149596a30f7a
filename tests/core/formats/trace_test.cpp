// Pictures: read, parted into dark and light, traced at their size.
#include <functional>
#include <numbers>
#include <png.h>
#include <set>
#include <thread>

#include "core/base/text.h"
#include "core/commands/making.h"
#include "core/derive/workshop.h"
#include "core/formats/trace/trace.h"
#include "core/geometry/region.h"
#include "core/project/format.h"
#include "core/sources/make.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

GreyImage paper(int w, int h, std::uint8_t grey = 255) {
    return {w, h, std::vector<std::uint8_t>(static_cast<std::size_t>(w) * static_cast<std::size_t>(h), grey)};
}
template<class Inside>
void paint(GreyImage& image, std::uint8_t grey, Inside inside) {
    for (int y = 0; y < image.height; ++y)
        for (int x = 0; x < image.width; ++x)
            if (inside(x + 0.5, y + 0.5)) image.grey[static_cast<std::size_t>(y * image.width + x)] = grey;
}
auto disc(double cx, double cy, double r) {
    return [=](double x, double y) { return std::hypot(x - cx, y - cy) < r; };
}
std::string png_bytes(int width, int height, png_uint_32 format, const std::vector<std::uint8_t>& pixels) {
    png_image png{};
    png.version = PNG_IMAGE_VERSION;
    png.width = static_cast<png_uint_32>(width), png.height = static_cast<png_uint_32>(height);
    png.format = format;
    png_alloc_size_t size = 0;
    png_image_write_to_memory(&png, nullptr, &size, 0, pixels.data(), 0, nullptr);
    std::string out(size, '\0');
    REQUIRE(png_image_write_to_memory(&png, out.data(), &size, 0, pixels.data(), 0, nullptr));
    out.resize(size);
    return out;
}
std::string png_of(const GreyImage& image) {
    return png_bytes(image.width, image.height, PNG_FORMAT_GRAY, image.grey);
}
Mask dark(const GreyImage& image) {
    return mask_of(image, 128, false);
}
double traced_area(const std::vector<Shape>& shapes) {
    double sum = 0;
    for (const Shape& s : shapes)
        sum += in_square_mm(area(region_of(s, mm(0.01))));
    return sum;
}

} // namespace

TEST_CASE("a disc and a ring are traced to their areas, holes and pieces kept") {
    GreyImage image = paper(300, 200);
    paint(image, 0, disc(80, 100, 60));
    paint(image, 255, disc(80, 100, 25));
    paint(image, 40, disc(220, 100, 40));
    const auto shapes = trace(dark(image), {}).shapes;
    REQUIRE(shapes.size() == 2);
    using std::numbers::pi;
    // Potrace lays its curves inside the stairs of the pixels: a little less than a third of a pixel around a
    // disc.
    CHECK(traced_area(shapes) == Approx(pi * (60 * 60 - 25 * 25 + 40 * 40)).epsilon(1e-2));
    std::size_t holes = 0;
    for (const Shape& s : shapes)
        holes += s.contours.size() - 1;
    CHECK(holes == 1);
    const Box box = bounds(shapes[0]);
    CHECK((box.y0 > 35 && box.y1 < 165)); // not upside down, not shifted: both discs lie about the middle row
}

TEST_CASE("what is above lies above: rows are not turned over") {
    GreyImage image = paper(100, 60);
    paint(image, 0, [](double x, double y) { return x > 10 && x < 30 && y > 5 && y < 15; });
    const auto shapes = trace(dark(image), {}).shapes;
    REQUIRE(shapes.size() == 1);
    const Box box = bounds(shapes[0]);
    CHECK(box.x0 == Approx(10).margin(0.6));
    CHECK(box.y0 == Approx(5).margin(0.6));
    CHECK(box.y1 == Approx(15).margin(0.6));
}

TEST_CASE("speckles are left out, gaps reconnected, light traced instead of dark") {
    GreyImage image = paper(200, 100);
    paint(image, 0,
          [](double x, double y) { return y > 40 && y < 60 && x > 20 && x < 180 && (x < 99 || x > 103); });
    paint(image, 0, disc(100, 10, 1.5));
    TraceOptions options;
    options.speckle = 0;
    CHECK(trace(dark(image), options).shapes.size() == 3);
    options.speckle = 20;
    CHECK(trace(dark(image), options).shapes.size() == 2);
    options.reconnect = 3;
    const auto joined = trace(dark(image), options).shapes;
    CHECK(joined.size() == 1);
    CHECK(traced_area(joined) == Approx(160 * 20).epsilon(0.02));
    options.reconnect = 0;
    const auto ground = trace(mask_of(image, 128, true), options).shapes;
    REQUIRE(ground.size() == 1);
    CHECK(ground[0].contours.size() == 3); // two bars as holes; the speckle is closed
}

TEST_CASE("Otsu's threshold lies between dark and light") {
    GreyImage image = paper(100, 100, 200);
    paint(image, 60, disc(50, 50, 20));
    const int t = otsu_threshold(image);
    CHECK(t == Approx(130).margin(5));
    CHECK(otsu_threshold(paper(10, 10, 77)) > 0);
}

TEST_CASE("a picture becomes a part whose numbers stay live, and survives the file") {
    GreyImage image = paper(400, 200);
    paint(image, 100, disc(100, 100, 80));
    paint(image, 0, disc(100, 100, 40));
    Workshop workshop(catalog());
    Project project = workshop.new_project("p");
    Picture picture;
    picture.bytes = std::make_shared<const std::string>(png_of(image));
    picture.width = mm(200);
    picture.threshold = 150;
    const PartId id = must(make_part(project, catalog(), workshop.fonts(), picture, "heron"));
    auto d = workshop.derive(std::make_shared<Project>(project));
    CHECK(d->part(id)->lines.size() == 1);
    CHECK(d->part(id)->box.width() == Approx(80).margin(0.5)); // 160 of 400 pixels at 200 mm
    picture.levels = 2; // at 150 and 75: the darker disc lies on the lighter one
    must(change_source(project, catalog(), workshop.fonts(), id, picture));
    d = workshop.derive(std::make_shared<Project>(project));
    REQUIRE(d->part(id)->lines.size() == 2);
    CHECK(d->part(id)->lines[1].box.width() == Approx(40).margin(0.5));
    CHECK_FALSE(has(d->findings, "lane.none"));
    picture.threshold = 3, picture.levels = 1;
    picture.invert = false;
    must(change_source(project, catalog(), workshop.fonts(), id, picture));
    const std::string text = write_project(project);
    CHECK(must(read_project(text)) == project);
    Picture none;
    none.bytes = std::make_shared<const std::string>("no picture");
    CHECK(make_part(project, catalog(), workshop.fonts(), none).error().code == "picture.format");
    none.bytes = std::make_shared<const std::string>(png_of(image).substr(0, 200));
    CHECK(make_lines(none, workshop.fonts()).error().code == "picture.damaged");
    none.bytes = std::make_shared<const std::string>(png_of(paper(20, 20)));
    none.threshold = 100;
    CHECK(make_lines(none, workshop.fonts()).error().code == "source.picture"); // nothing is dark
}

TEST_CASE("base64 is RFC 4648's") {
    // RFC 4648, section 10
    const std::pair<const char*, const char*> vectors[] = {{"", ""},
                                                           {"f", "Zg=="},
                                                           {"fo", "Zm8="},
                                                           {"foo", "Zm9v"},
                                                           {"foob", "Zm9vYg=="},
                                                           {"fooba", "Zm9vYmE="},
                                                           {"foobar", "Zm9vYmFy"}};
    for (const auto& [plain, coded] : vectors) {
        CHECK(base64(plain) == coded);
        CHECK(from_base64(coded) == std::string(plain));
    }
    for (const char* wrong : {"Zg=", "Z===", "Zg==Zg==", "Z g=", "=Zg="})
        CHECK_FALSE(from_base64(wrong));
}

namespace {

std::string colour_png(const ColourImage& image) {
    return png_bytes(image.width, image.height, PNG_FORMAT_RGB, image.rgb);
}
ColourImage coloured(int w, int h, const std::function<std::array<std::uint8_t, 3>(double, double)>& colour) {
    ColourImage image{w, h, {}};
    for (int y = 0; y < h; ++y)
        for (int x = 0; x < w; ++x)
            for (const std::uint8_t v : colour(x + 0.5, y + 0.5))
                image.rgb.push_back(v);
    return image;
}

} // namespace

TEST_CASE("colours: the paper's is left out, the others are traced lightest first, each with its holes") {
    const auto picture_of = coloured(240, 120, [](double x, double y) -> std::array<std::uint8_t, 3> {
        if (disc(60, 60, 20)(x, y)) return {230, 190, 60};
        if (disc(60, 60, 40)(x, y)) return {170, 50, 40};
        if (x > 140 && x < 220 && y > 30 && y < 90) return {30, 60, 90};
        return {static_cast<std::uint8_t>(244 + int(x) % 3), 240, 232}; // paper is never quite even
    });
    Picture picture;
    picture.bytes = std::make_shared<const std::string>(colour_png(picture_of));
    picture.by = Picture::By::colour, picture.levels = 3, picture.width = mm(240);
    const auto lines = must(make_lines(picture, fonts()));
    using std::numbers::pi;
    std::map<std::string, double> areas;
    for (const DrawnLine& line : lines.drawing->lines)
        areas[line.group + " " + line.name] += in_square_mm(area(region_of(line.shape)));
    REQUIRE(areas.size() == 3);
    CHECK(areas["traced 1 #e6be3c"] == Approx(pi * 400).epsilon(0.02));
    CHECK(areas["traced 2 #aa3228"] == Approx(pi * 1200).epsilon(0.02));
    CHECK(areas["traced 3 #1e3c5a"] == Approx(80 * 60).epsilon(0.02));
    picture.only = 2;
    const auto second = must(make_lines(picture, fonts()));
    for (const DrawnLine& line : second.drawing->lines)
        CHECK(line.group == "traced 2");
    // More colours are asked for than there are.
    picture.only = 0, picture.levels = 6;
    std::set<std::string> groups;
    const auto all = must(make_lines(picture, fonts()));
    for (const DrawnLine& line : all.drawing->lines)
        groups.insert(line.group);
    CHECK(groups.size() == 3);
    picture.bytes = std::make_shared<const std::string>(colour_png(coloured(20, 20, [](double, double) {
        return std::array<std::uint8_t, 3>{200, 200, 200};
    })));
    CHECK(make_lines(picture, fonts()).error().code == "source.picture");
}

TEST_CASE(
    "the greatest deviation is measured: nothing for a box, under a pixel for a disc, more when smoother") {
    GreyImage image = paper(300, 200);
    paint(image, 0, [](double x, double y) { return x > 50 && x < 250 && y > 40 && y < 160; });
    TraceOptions options;
    options.corner = 0, options.tolerance = 0;
    CHECK(trace(dark(image), options).deviation < 0.01);
    image = paper(300, 200);
    paint(image, 0, disc(150, 100, 80));
    options.corner = 1, options.tolerance = 0.2;
    const double fine = trace(dark(image), options).deviation;
    CHECK((fine > 0.2 && fine < 1.2)); // the stairs' corners lie 0.7 pixels off any smooth line
    options.corner = 1.34, options.tolerance = 5;
    image = paper(300, 200);
    paint(image, 0, [](double x, double y) { return x > 50 && x < 250 && y > 40 && y < 160; });
    CHECK(trace(dark(image), options).deviation > 2 * fine); // corners rounded away
}

TEST_CASE("a trace that is cancelled ends at once and says so") {
    GreyImage image = paper(2000, 1500);
    Random random("noise");
    for (auto& g : image.grey)
        g = static_cast<std::uint8_t>(random.whole(0, 255));
    Picture picture;
    picture.bytes = std::make_shared<const std::string>(png_of(image));
    Progress progress;
    std::thread hand([&] {
        std::this_thread::sleep_for(std::chrono::milliseconds(30));
        progress.cancel();
    });
    const auto made = make_lines(picture, fonts(), nullptr, progress);
    hand.join();
    REQUIRE_FALSE(made);
    CHECK(made.error().code == "cancelled");
}
