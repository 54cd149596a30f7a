// How dark a fill is wished to be: all the same, a gradient, or a grey picture laid over it.
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/project/fields.h"

namespace dotlane {

/// A grey picture: 0 black .. 255 white, row by row from the top.
struct GreyPixels {
    int width = 0, height = 0;
    std::vector<std::uint8_t> grey;
};

/// The most pixels that a picture is kept with, along its longer side: finer than a pen draws.
inline constexpr int most_tone_pixels = 512;

/// As a portable graymap (PGM, "P5", netpbm), the open format that a project keeps a tone's picture in.
std::string graymap(const GreyPixels& pixels);
/// Empty when the bytes are none, damaged, or larger than `most_tone_pixels`.
std::optional<GreyPixels> graymap_read(const std::string& bytes);

struct FillTone {
    enum class By { none, gradient, picture };

    By by = By::none;
    double from = 10, to = 90; ///< darkness at the gradient's begin and end, or of the picture's white and
                               ///< black, hundredths, 0..100
    Angle angle;               ///< in which the gradient runs; 0: to the right, 90: down
    std::shared_ptr<const std::string> picture; ///< a graymap; shared, never changed
    bool operator==(const FillTone& o) const {
        return by == o.by && from == o.from && to == o.to && angle == o.angle && bytes() == o.bytes();
    }
    bool wished() const { return by != By::none; }
    std::string_view bytes() const { return picture ? std::string_view(*picture) : std::string_view(); }

    friend void fields(FillTone& t, Fields& f) {
        f.one_of({"tone",
                  "tone",
                  "As dark as the lines make it, or lighter and darker by a gradient or a picture",
                  {9, R"("none")"},
                  true},
                 t.by, {"none", "gradient", "picture"});
        if (f.when(t.wished())) {
            f.percent({"tone-from",
                       t.by == By::picture ? "white is" : "dark at its begin",
                       "Share of ink",
                       {9, "10"}},
                      t.from, 0, 100);
            f.percent(
                {"tone-to", t.by == By::picture ? "black is" : "dark at its end", "Share of ink", {9, "90"}},
                t.to, 0, 100);
        }
        if (f.when(t.by == By::gradient))
            f.angle({"tone-angle", "runs at", "0: to the right; 90: down", {9, "0"}}, t.angle);
        f.data({"tone-picture", "picture", "", {9, R"("")"}}, t.picture);
    }
};

} // namespace dotlane
