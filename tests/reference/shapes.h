// Shapes by chance for tests against outside libraries: made ones, letters, and clip art of Debian's
// packages.
#pragma once

#include <filesystem>

#include "core/formats/svg/reader.h"
#include "core/lettering/outliner.h"
#include "tests/support/support.h"

namespace dotlane::test {

inline Region random_surface(Random& random) {
    Region r = region_of({ring(random_ring(random, random.whole(4, 40), 4, 22))}, FillRule::nonzero);
    for (int h = random.whole(0, 4); h > 0; --h)
        r = subtracted(
            r, region_of({ring(random_ring(random, 7, 1, 5, {random.real(-12, 12), random.real(-12, 12)}))},
                         FillRule::nonzero));
    // An island in a hole, now and then.
    if (random.coin())
        r = united(r,
                   region_of({ring(random_ring(random, 6, 0.5, 2, {random.real(-9, 9), random.real(-9, 9)}))},
                             FillRule::nonzero));
    return r;
}

/// Letters at a random size, each a region of its own.
inline Region random_glyph(Random& random) {
    static const std::string letters = "RgSa&8eBOimkwQ%HXAtfhnpqzM?j";
    static const char* families[] = {"Lobster Two", "Dancing Script", "League Spartan", "EB Garamond"};
    const auto text =
        must(fonts().outline({families[random.whole(0, 3)]}, mm(random.real(6, 30)),
                             std::string(1, letters[static_cast<std::size_t>(random.whole(0, 27))])));
    Shape shape;
    for (const auto& glyph : text.glyphs)
        shape.contours.insert(shape.contours.end(), glyph.shape.contours.begin(), glyph.shape.contours.end());
    return region_of(shape, mm(0.01));
}

/// A filled shape of a drawing of Debian's openclipart-svg, at a random size.
inline Region random_clip_art(Random& random) {
    static const std::vector<std::string> paths = [] {
        std::vector<std::string> out;
        for (const auto& entry : std::filesystem::recursive_directory_iterator("/usr/share/openclipart/svg"))
            if (entry.is_regular_file() && entry.path().extension() == ".svg" && entry.file_size() < 60'000)
                out.push_back(entry.path());
        std::sort(out.begin(), out.end()); // the same seed chooses the same on another machine
        return out;
    }();
    REQUIRE(paths.size() > 1000);
    for (;;) {
        const auto& path =
            paths[static_cast<std::size_t>(random.whole(0, static_cast<int>(paths.size()) - 1))];
        const auto read = read_svg(file(path), {path});
        if (!read || read->drawing.lines.empty()) continue;
        const auto& lines = read->drawing.lines;
        const DrawnLine& line =
            lines[static_cast<std::size_t>(random.whole(0, static_cast<int>(lines.size()) - 1))];
        const Box box = bounds(line.shape);
        if (!line.drawn.fill || box.empty() || std::min(box.width(), box.height()) < 0.05) continue;
        const double by = random.real(12, 60) / std::max(box.width(), box.height());
        Region out = region_of(transformed(line.shape, Affine::scaling(by, by)), mm(0.01));
        if (!out.empty()) return out;
    }
}

/// Mostly letters and clip art.
inline Region random_shape(Random& random) {
    const int kind = random.whole(0, 9);
    return kind < 5 ? random_glyph(random) : kind < 9 ? random_clip_art(random) : random_surface(random);
}

} // namespace dotlane::test
