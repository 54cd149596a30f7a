// The ink of a tool on a fine grid, beside what is wished there. Internal to recipe.
//
// The grid lies askew to the ways: those along its squares, or at a slope of one to two, would all meet them
// alike, and what they cover be misjudged alike.
#pragma once

#include "core/base/progress.h"
#include "core/recipe/raster.h"
#include "core/recipe/tone.h"

namespace dotlane {

/// A straight way of the tool; a dot when both are the same.
struct InkWay {
    Point a, b;
};

class ToneInk {
  public:
    /// `fine`: squares to the tip's width, > 0, or more where they were larger than 0.1 mm. Dots need more
    /// than lines, along which what is misjudged evens out: of a disc, five squares wide, some places cover a
    /// seventh more than others, and mending would find them. `along`: the direction that the ways mostly
    /// have, radians. When it is cancelled, not all is known that was wished.
    ToneInk(Length tip, const Region& region, const Tone& tone, const Progress& progress, double fine = 5,
            double along = 0);

    /// How much ink is wished in the squares that are nearest to each of the ways, mm2.
    std::vector<double> wished_by(const std::vector<InkWay>& ways, Progress& progress) const;

    /// Squares of this way that are inked by so many ways: 0 are those that it would add, 1 (when it is
    /// drawn) those that it alone inks. each(where it is on the part)
    template<class Each>
    void covered(InkWay way, int by, Each each) const {
        marked(way, [&](std::size_t from, std::size_t to) {
            for (; from < to; ++from)
                if (ink_[from] == by) each(place(from));
        });
    }
    double adds(InkWay way) const {
        std::size_t count = 0;
        covered(way, 0, [&](Point) { ++count; });
        return static_cast<double>(count) * square();
    }
    void draw(InkWay way) { change(way, 1); }
    void erase(InkWay way) { change(way, -1); }

    /// By how many ways each square is inked: what drawing and erasing changes.
    const std::vector<std::uint16_t>& inked() const { return ink_; }
    void put_back(const std::vector<std::uint16_t>& inked) { ink_ = inked; }

    double square() const { return raster_.cell() * raster_.cell(); } ///< mm2
    /// each(place on the part, whether it lies in the region, ink there less what is wished, mm2), until it
    /// is cancelled
    template<class Each>
    void all(const Progress& progress, Each each) const {
        for (std::size_t at = 0; at < raster_.size() && (at % 65536 != 0 || !progress.cancelled()); ++at)
            each(place(at), inside_[at] != 0,
                 inside_[at] ? square() * ((ink_[at] > 0) - static_cast<double>(tone_[at])) : 0);
    }

  private:
    template<class Each>
    void marked(InkWay way, Each each) const {
        raster_.mark(askew_(way.a), askew_(way.b), radius_, each);
    }
    void change(InkWay way, int by) {
        marked(way, [&](std::size_t from, std::size_t to) {
            for (; from < to; ++from)
                ink_[from] = static_cast<std::uint16_t>(ink_[from] + by);
        });
    }
    Point place(std::size_t at) const { return to_part_(raster_.middle(at)); }

    Affine askew_, to_part_;
    Raster raster_;
    double radius_;
    std::vector<char> inside_;
    std::vector<float> tone_;
    std::vector<std::uint16_t> ink_; ///< ways that cover it
};

} // namespace dotlane
