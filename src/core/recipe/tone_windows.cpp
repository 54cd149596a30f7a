#include "core/recipe/tone_windows.h"

#include <numeric>

namespace dotlane {
namespace {

constexpr double allowed = 0.012; ///< windows that are off by less count as right

/// Sums over windows of so many squares each way.
class Sums {
  public:
    Sums(long columns, long rows, const std::vector<double>& values, long across)
        : across_(across)
        , width_(columns + 1)
        , height_(rows + 1)
        , sums_(static_cast<std::size_t>(width_ * height_), 0) {
        for (long r = 0; r < rows; ++r)
            for (long c = 0; c < columns; ++c)
                at(c + 1, r + 1) = at(c, r + 1) + at(c + 1, r) - at(c, r) +
                                   values[static_cast<std::size_t>(r * columns + c)];
    }
    /// From column and row to those before `column + across` and `row + across`, as far as they are there.
    double window(long column, long row) const {
        const long c0 = std::max(column, 0L), r0 = std::max(row, 0L),
                   c1 = std::min(column + across_, width_ - 1), r1 = std::min(row + across_, height_ - 1);
        return at(c1, r1) - at(c0, r1) - at(c1, r0) + at(c0, r0);
    }

  private:
    double& at(long c, long r) { return sums_[static_cast<std::size_t>(r * width_ + c)]; }
    double at(long c, long r) const { return sums_[static_cast<std::size_t>(r * width_ + c)]; }
    long across_, width_, height_;
    std::vector<double> sums_;
};

/// Fourth powers are made as large as squares are at this much, beyond what is allowed.
constexpr double as_large = 0.01;

} // namespace

/// `more`: than allowed.
template<bool sharp>
double ToneWindows::badness_of(double more) const {
    const double square = share_ * more * more;
    return sharp ? square * more * more / (as_large * as_large) : square;
}

void ToneWindows::sharpen() {
    sharp_ = true;
    note_badness(0, off_.size());
}

void ToneWindows::note_badness(std::size_t from, std::size_t end) {
    for (std::size_t w = from; w < end; ++w) {
        const double more = std::max(std::abs(off_[w]) - allowed, 0.0);
        bad_[w] = counts_[w] * (sharp_ ? badness_of<true>(more) : badness_of<false>(more));
    }
}

double ToneWindows::slope(double off) const {
    const double more = std::max(std::abs(off) - allowed, 0.0);
    return std::copysign(share_ * (sharp_ ? 2 * more * more * more / (as_large * as_large) : more), off);
}

ToneWindows::ToneWindows(const Box& box, const ToneInk& ink, const Progress& progress, double step)
    : wide_(std::lround(side / step))
    , share_(step * step / (usual * usual))
    , squares_(box, step)
    , columns_(squares_.columns() - wide_ + 1)
    , rows_(squares_.rows() - wide_ + 1)
    , pull_(squares_.size(), 0)
    , last_(squares_.size(), 0) {
    if (!any()) return;
    std::vector<double> off(squares_.size(), 0), outside(squares_.size(), 0);
    ink.all(progress, [&](Point p, bool inside, double more) {
        if (!box.contains(p)) return;
        const std::size_t at = squares_.at(p);
        off[at] += more;
        if (!inside) outside[at] += ink.square();
    });
    if (progress.cancelled()) return; // a large part's sums take a while each
    const Sums sums(squares_.columns(), squares_.rows(), off, wide_);
    if (progress.cancelled()) return;
    const Sums bare(squares_.columns(), squares_.rows(), outside, wide_);
    if (progress.cancelled()) return;
    for (long r = 0; r < rows_; ++r)
        for (long c = 0; c < columns_; ++c) {
            counts_.push_back(bare.window(c, r) <= 2 * step * side);
            off_.push_back(sums.window(c, r) / (side * side));
        }
    bad_.assign(off_.size(), 0);
    note_badness(0, off_.size());
}

double ToneWindows::look() {
    double worst = 0;
    std::vector<double> slopes(squares_.size(), 0);
    for (long r = 0; r < rows_; ++r)
        for (long c = 0; c < columns_; ++c) {
            const auto w = static_cast<std::size_t>(r * columns_ + c);
            if (counts_[w] == 0) continue;
            if (std::abs(off_[w]) > worst) {
                worst = std::abs(off_[w]);
                worst_ = {off_[w], squares_.middle(c, r) +
                                       Point{side - squares_.cell(), side - squares_.cell()} * 0.5};
            }
            if (std::abs(off_[w]) > allowed) slopes[squares_.at(c, r)] = slope(off_[w]);
        }
    const Sums sums(squares_.columns(), squares_.rows(), slopes, wide_);
    for (long r = 0; r < squares_.rows(); ++r)
        for (long c = 0; c < squares_.columns(); ++c)
            pull_[squares_.at(c, r)] = sums.window(c - wide_ + 1, r - wide_ + 1);
    return worst;
}

double ToneWindows::badness() const {
    return std::accumulate(bad_.begin(), bad_.end(), 0.0);
}

void ToneWindows::add(InkBits& bits, Point p, double ink) {
    const std::size_t at = squares_.at(p);
    const auto c = static_cast<long>(at) % squares_.columns(), r = static_cast<long>(at) / squares_.columns();
    // Where this square's was put last; another list may have another one there, or none.
    std::uint32_t& last = last_[at];
    if (last < bits.size() && bits[last].column == c && bits[last].row == r) {
        bits[last].ink += ink;
        return;
    }
    last = static_cast<std::uint32_t>(bits.size());
    bits.push_back({c, r, ink});
}

double ToneWindows::change(const InkBits& bits) {
    return sharp_ ? change_by<true>(bits) : change_by<false>(bits);
}

template<bool sharp>
double ToneWindows::change_by(const InkBits& bits) {
    double out = 0;
    each_row(bits, [&](std::size_t w, const std::vector<double>& ink) {
        // Without a branch: most of the time that a tone takes is spent here.
        const double *off = &off_[w], *counts = &counts_[w], *bad = &bad_[w];
        double row = 0;
        for (std::size_t k = 0; k < ink.size(); ++k) {
            const double more = std::max(std::abs(off[k] + ink[k]) - allowed, 0.0);
            row += counts[k] * badness_of<sharp>(more) - bad[k];
        }
        out += row;
    });
    return out;
}

void ToneWindows::take(const InkBits& bits) {
    each_row(bits, [&](std::size_t w, const std::vector<double>& ink) {
        for (std::size_t k = 0; k < ink.size(); ++k)
            off_[w + k] += ink[k];
        note_badness(w, w + ink.size());
    });
}

/// Windows that hold some of the bits, by row: the first, and how much darker it and those after it become.
template<class Row>
void ToneWindows::each_row(const InkBits& bits, Row row) {
    if (bits.empty()) return;
    long c0 = columns_, c1 = -1, r0 = rows_, r1 = -1;
    for (const InkBit& b : bits) {
        c0 = std::min(c0, b.column), c1 = std::max(c1, b.column);
        r0 = std::min(r0, b.row), r1 = std::max(r1, b.row);
    }
    c0 = std::max(0L, c0 - wide_ + 1), c1 = std::min(columns_ - 1, c1);
    r0 = std::max(0L, r0 - wide_ + 1), r1 = std::min(rows_ - 1, r1);
    if (c1 < c0 || r1 < r0) return;
    // Each bit is in a box of windows: its corners are noted, and added up from the left and from above.
    const long width = c1 - c0 + 2, height = r1 - r0 + 2;
    patch_.assign(static_cast<std::size_t>(width * height), 0);
    const auto at = [&](long c, long r) -> double& {
        return patch_[static_cast<std::size_t>(r * width + c)];
    };
    for (const InkBit& b : bits) {
        const long left = std::max(c0, b.column - wide_ + 1) - c0, right = std::min(c1, b.column) - c0 + 1,
                   top = std::max(r0, b.row - wide_ + 1) - r0, bottom = std::min(r1, b.row) - r0 + 1;
        if (right <= left || bottom <= top) continue;
        at(left, top) += b.ink, at(right, top) -= b.ink;
        at(left, bottom) -= b.ink, at(right, bottom) += b.ink;
    }
    const auto n = static_cast<std::size_t>(width - 1);
    row_.assign(n, 0);
    for (long r = 0; r < height - 1; ++r) {
        const double* corners = &at(0, r);
        double ink = 0;
        for (std::size_t c = 0; c < n; ++c) {
            ink += corners[c] / (side * side);
            row_[c] += ink;
        }
        row(static_cast<std::size_t>((r + r0) * columns_ + c0), row_);
    }
}

double ToneWindows::step_for(const Box& box, double wished) {
    const double step = std::clamp(std::sqrt(box.width() * box.height() / 2e6), wished, usual);
    return side / std::ceil(side / step);
}

ToneFault tone_fault(const Polylines& strokes, Length tip, const Region& region, const Tone& tone,
                     const Progress& progress) {
    const bool dots = std::all_of(strokes.begin(), strokes.end(),
                                  [](const Polyline& line) { return line.points.size() == 1; });
    ToneInk ink(tip, region, tone, progress, dots ? 11 : 5);
    for (const Polyline& line : strokes) {
        if (progress.cancelled()) return {};
        const std::size_t n = line.points.size();
        if (n == 1) ink.draw({line.points[0], line.points[0]});
        for (std::size_t i = 0; i + (line.closed ? 0 : 1) < n; ++i)
            ink.draw({line.points[i], line.points[(i + 1) % n]});
    }
    const Box box = bounds(region);
    constexpr double sixteenth = 1.0 / 16; // mm, see the constructor
    ToneWindows windows(box, ink, progress, ToneWindows::step_for(box, sixteenth));
    if (!windows.any() || progress.cancelled()) return {};
    windows.look();
    return windows.worst();
}

} // namespace dotlane
