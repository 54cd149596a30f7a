// Candidates by where they stand: a dense grid, as they stand everywhere and are asked for a million times.
// Internal to recipe.
#pragma once

#include "core/recipe/thinned.h"

namespace dotlane {

class Nearby {
  public:
    /// `reach`: mm, > 0. `all`: not empty, and must outlive it.
    Nearby(const std::vector<Candidate>& all, double reach)
        : all_(all)
        , reach_(reach) {
        for (const Candidate& c : all)
            box_.add(c.middle());
        columns_ = static_cast<long>(box_.width() / reach) + 1;
        rows_ = static_cast<long>(box_.height() / reach) + 1;
        start_.assign(static_cast<std::size_t>(columns_ * rows_) + 1, 0);
        for (const Candidate& c : all)
            ++start_[square(c.middle()) + 1];
        for (std::size_t k = 1; k < start_.size(); ++k)
            start_[k] += start_[k - 1];
        which_.resize(all.size());
        std::vector<std::uint32_t> at(start_.begin(), start_.end() - 1);
        for (std::uint32_t i = 0; i < all.size(); ++i)
            which_[at[square(all[i].middle())]++] = i;
    }

    /// each(k, square of the distance): all within the reach, itself too.
    template<class Each>
    void around(std::size_t i, Each each) const {
        const Point p = all_[i].middle();
        const long c = column(p.x), r = row(p.y);
        for (long j = std::max(0L, r - 1); j <= std::min(rows_ - 1, r + 1); ++j)
            for (long k = std::max(0L, c - 1); k <= std::min(columns_ - 1, c + 1); ++k) {
                const auto s = static_cast<std::size_t>(j * columns_ + k);
                for (std::uint32_t n = start_[s]; n < start_[s + 1]; ++n) {
                    const double d2 = distance2(p, all_[which_[n]].middle());
                    if (d2 <= reach_ * reach_) each(which_[n], d2);
                }
            }
    }

  private:
    long column(double x) const { return static_cast<long>((x - box_.x0) / reach_); }
    long row(double y) const { return static_cast<long>((y - box_.y0) / reach_); }
    std::size_t square(Point p) const { return static_cast<std::size_t>(row(p.y) * columns_ + column(p.x)); }

    const std::vector<Candidate>& all_;
    double reach_;
    Box box_;
    long columns_ = 1, rows_ = 1;
    std::vector<std::uint32_t> start_, which_;
};

} // namespace dotlane
