// What is too light or too dark, as an eye sees it that takes in some millimetres at once. Internal to
// recipe.
//
// Method: on all windows of 8 x 8 mm, a quarter of a millimetre apart, the ink is compared with what is
// wished. Ink is moved when that makes the windows that are off by more than they may better by more than it
// costs in lifts (direct binary search: M. Analoui and J. Allebach, Model-based halftoning using direct
// binary search, 1992; here with windows instead of an eye's blur, and only where something is off).
#pragma once

#include "core/recipe/tone_ink.h"

namespace dotlane {

/// Ink that comes or goes, by squares of a windows' step, mm2.
struct InkBit {
    long column, row;
    double ink;
};
using InkBits = std::vector<InkBit>;

struct ToneFault {
    double off = 0; ///< too dark by so much, -1..1; less than 0: too light
    Point middle{0, 0};
};

class ToneWindows {
  public:
    static constexpr double side = 8, usual = 0.25; ///< mm
    static constexpr double enough = 0.019;         ///< when none is off by more, it is left at that

    /// `box`: of the region. Windows that reach out of the region are not asked of, but for a step to each
    /// side: else those that just touch an edge, which seldom lies where windows begin, were none's.
    /// `step`: from window to window, mm, a part of `side`. Strokes that run along windows' edges come in or
    /// drop out as a whole, and windows between the usual ones can be 1 to 1.5 % worse.
    ToneWindows(const Box& box, const ToneInk& ink, const Progress& progress, double step = usual);
    /// A step of about that, or more where there would be more than two million windows; up to the usual one.
    static double step_for(const Box& box, double wished);
    /// False when the region holds no window.
    bool any() const { return columns_ > 0 && rows_ > 0; }

    /// How far those around each place are off is worked out anew: see `pull`. The worst of all, 0..1.
    double look();
    /// From now on the fourth powers count: the worst windows before those that are nearly right, of which
    /// there are always more.
    void sharpen();
    /// More than 0: too dark around here; less: too light. Badness changes by at least 2 / 64 of it for each
    /// mm2 of ink.
    double pull(Point p) const { return pull_[squares_.at(p)]; }

    /// The window that is off the most, as `look` found it.
    ToneFault worst() const { return worst_; }
    /// The sum over all windows, see `change`, as of windows at the usual step.
    double badness() const;

    void add(InkBits& bits, Point p, double ink);
    /// By how much the sum of the squares (or, sharpened, fourth powers) of what windows are off by changes;
    /// less than 0 is better.
    double change(const InkBits& bits);
    void take(const InkBits& bits);

  private:
    template<class Row>
    void each_row(const InkBits& bits, Row row);
    template<bool sharp>
    double change_by(const InkBits& bits);
    template<bool sharp>
    double badness_of(double more) const;
    void note_badness(std::size_t from, std::size_t end);
    /// Half of how fast it grows.
    double slope(double off) const;

    long wide_;    ///< squares to a window's side
    double share_; ///< of a window in the badness: of those at the usual step
    bool sharp_ = false;
    ToneFault worst_;
    Raster squares_;
    long columns_, rows_;
    /// Of each window: 1 when it is asked of, else 0; what it is off by; and how bad that is.
    std::vector<double> counts_, off_, bad_;
    std::vector<double> pull_;        ///< of each square
    std::vector<double> patch_, row_; ///< while a change is looked at
    std::vector<std::uint32_t> last_; ///< of each square: its place in the list that it was added to last
};

/// Of strokes on a surface that are to be as dark as wished, what is off the most. Nothing is off where no
/// window lies in it, or when it is cancelled.
ToneFault tone_fault(const Polylines& strokes, Length tip, const Region& region, const Tone& tone,
                     const Progress& progress);

} // namespace dotlane
