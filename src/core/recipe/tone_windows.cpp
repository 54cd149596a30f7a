#include "core/recipe/tone_windows.h"

namespace dotlane {
namespace {

constexpr long wide = static_cast<long>(ToneWindows::side / ToneWindows::step);
constexpr double allowed = 0.012; ///< windows that are off by less count as right

/// Sums over boxes of squares.
class Sums {
  public:
    Sums(long columns, long rows, const std::vector<double>& values)
        : width_(columns + 1)
        , height_(rows + 1)
        , sums_(static_cast<std::size_t>(width_ * height_), 0) {
        for (long r = 0; r < rows; ++r)
            for (long c = 0; c < columns; ++c)
                at(c + 1, r + 1) = at(c, r + 1) + at(c + 1, r) - at(c, r) +
                                   values[static_cast<std::size_t>(r * columns + c)];
    }
    /// From column and row to those before `column + wide` and `row + wide`, as far as they are there.
    double window(long column, long row) const {
        const long c0 = std::max(column, 0L), r0 = std::max(row, 0L),
                   c1 = std::min(column + wide, width_ - 1), r1 = std::min(row + wide, height_ - 1);
        return at(c1, r1) - at(c0, r1) - at(c1, r0) + at(c0, r0);
    }

  private:
    double& at(long c, long r) { return sums_[static_cast<std::size_t>(r * width_ + c)]; }
    double at(long c, long r) const { return sums_[static_cast<std::size_t>(r * width_ + c)]; }
    long width_, height_;
    std::vector<double> sums_;
};

/// Fourth powers are made as large as squares are at this much, beyond what is allowed.
constexpr double as_large = 0.01;

} // namespace

double ToneWindows::badness_of(double off) const {
    const double more = std::max(std::abs(off) - allowed, 0.0), square = more * more;
    return sharp_ ? square * square / (as_large * as_large) : square;
}

double ToneWindows::slope(double off) const {
    const double more = std::max(std::abs(off) - allowed, 0.0);
    return std::copysign(sharp_ ? 2 * more * more * more / (as_large * as_large) : more, off);
}

ToneWindows::ToneWindows(const Box& box, const ToneInk& ink)
    : squares_(box, step)
    , columns_(squares_.columns() - wide + 1)
    , rows_(squares_.rows() - wide + 1)
    , pull_(squares_.size(), 0)
    , last_(squares_.size(), 0) {
    if (!any()) return;
    std::vector<double> off(squares_.size(), 0), outside(squares_.size(), 0);
    ink.all([&](Point p, bool inside, double more) {
        if (!box.contains(p)) return;
        const std::size_t at = squares_.at(p);
        off[at] += more;
        if (!inside) outside[at] += ink.square();
    });
    const Sums sums(squares_.columns(), squares_.rows(), off),
        bare(squares_.columns(), squares_.rows(), outside);
    for (long r = 0; r < rows_; ++r)
        for (long c = 0; c < columns_; ++c) {
            counts_.push_back(bare.window(c, r) <= 2 * step * side);
            off_.push_back(sums.window(c, r) / (side * side));
        }
}

double ToneWindows::look() {
    double worst = 0;
    std::vector<double> slopes(squares_.size(), 0);
    for (long r = 0; r < rows_; ++r)
        for (long c = 0; c < columns_; ++c) {
            const auto w = static_cast<std::size_t>(r * columns_ + c);
            if (!counts_[w]) continue;
            if (std::abs(off_[w]) > worst) {
                worst = std::abs(off_[w]);
                worst_ = {off_[w],
                          squares_.middle(squares_.at(c, r)) + Point{side - step, side - step} * 0.5};
            }
            if (std::abs(off_[w]) > allowed) slopes[squares_.at(c, r)] = slope(off_[w]);
        }
    const Sums sums(squares_.columns(), squares_.rows(), slopes);
    for (long r = 0; r < squares_.rows(); ++r)
        for (long c = 0; c < squares_.columns(); ++c)
            pull_[squares_.at(c, r)] = sums.window(c - wide + 1, r - wide + 1);
    return worst;
}

double ToneWindows::badness() const {
    double out = 0;
    for (std::size_t w = 0; w < off_.size(); ++w)
        if (counts_[w]) out += badness_of(off_[w]);
    return out;
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
    double out = 0;
    each(bits, [&](std::size_t w, double ink) {
        if (counts_[w]) out += badness_of(off_[w] + ink) - badness_of(off_[w]);
    });
    return out;
}

void ToneWindows::take(const InkBits& bits) {
    each(bits, [&](std::size_t w, double ink) { off_[w] += ink; });
}

/// Windows that hold some of the bits, with how much darker they become.
template<class Each>
void ToneWindows::each(const InkBits& bits, Each each) {
    if (bits.empty()) return;
    long c0 = columns_, c1 = -1, r0 = rows_, r1 = -1;
    for (const InkBit& b : bits) {
        c0 = std::min(c0, b.column), c1 = std::max(c1, b.column);
        r0 = std::min(r0, b.row), r1 = std::max(r1, b.row);
    }
    c0 = std::max(0L, c0 - wide + 1), c1 = std::min(columns_ - 1, c1);
    r0 = std::max(0L, r0 - wide + 1), r1 = std::min(rows_ - 1, r1);
    if (c1 < c0 || r1 < r0) return;
    // Each bit is in a box of windows: its corners are noted, and added up from the left and from above.
    const long width = c1 - c0 + 2, height = r1 - r0 + 2;
    patch_.assign(static_cast<std::size_t>(width * height), 0);
    const auto at = [&](long c, long r) -> double& {
        return patch_[static_cast<std::size_t>(r * width + c)];
    };
    for (const InkBit& b : bits) {
        const long left = std::max(c0, b.column - wide + 1) - c0, right = std::min(c1, b.column) - c0 + 1,
                   top = std::max(r0, b.row - wide + 1) - r0, bottom = std::min(r1, b.row) - r0 + 1;
        if (right <= left || bottom <= top) continue;
        at(left, top) += b.ink, at(right, top) -= b.ink;
        at(left, bottom) -= b.ink, at(right, bottom) += b.ink;
    }
    for (long r = 0; r < height - 1; ++r) {
        double ink = 0;
        for (long c = 0; c < width; ++c) {
            if (r > 0) at(c, r) += at(c, r - 1);
            ink += at(c, r);
            if (c < width - 1 && std::abs(ink) > 1e-12)
                each(static_cast<std::size_t>((r + r0) * columns_ + c + c0), ink / (side * side));
        }
    }
}

ToneFault tone_fault(const Polylines& strokes, Length tip, const Region& region, const Tone& tone) {
    const bool dots = std::all_of(strokes.begin(), strokes.end(),
                                  [](const Polyline& line) { return line.points.size() == 1; });
    ToneInk ink(tip, region, tone, dots ? 11 : 5);
    for (const Polyline& line : strokes) {
        const std::size_t n = line.points.size();
        if (n == 1) ink.draw({line.points[0], line.points[0]});
        for (std::size_t i = 0; i + (line.closed ? 0 : 1) < n; ++i)
            ink.draw({line.points[i], line.points[(i + 1) % n]});
    }
    ToneWindows windows(bounds(region), ink);
    if (!windows.any()) return {};
    windows.look();
    return windows.worst();
}

} // namespace dotlane
