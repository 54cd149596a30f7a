#include "core/recipe/mended_scribble.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numbers>
#include <optional>
#include <random>

#include "core/geometry/region_index.h"
#include "core/recipe/nearby.h"
#include "core/recipe/tone_windows.h"

namespace dotlane {
namespace {

/// A change of the way that brings less, in squares of what windows are off by, is not made.
constexpr double least_better = 1e-4;
constexpr std::uint32_t no_one = ~0U;

/// A corner of the way. The first one stays the first, the last one the last.
struct Corner {
    Point at;
    std::uint32_t before, next;
    std::uint32_t place; ///< of the lattice; no_one: along the edge
    double rank;         ///< grows along the way
};

class Mending {
  public:
    Mending(const Polyline& way, const std::vector<Candidate>& lattice, const Region& piece, Length tip,
            const Tone& tone, std::uint32_t seed, Progress& progress)
        : tip_(in_mm(tip))
        , lattice_(lattice)
        , index_(piece)
        , near_(lattice, std::max(2.4 * tip_, 1.5))
        , far_(lattice, std::max(8 * tip_, 3.0))
        , corner_of_(lattice.size(), no_one)
        , reached_(offset(piece, tip / 2))
        , ink_(tip, reached_, tone, progress)
        , random_(seed)
        , progress_(progress) {
        take(way);
        for (std::uint32_t k = 0; corners_[k].next != no_one; k = corners_[k].next)
            ink_.draw(to_next(k));
        windows_.emplace(bounds(reached_), ink_, progress);
    }

    void mend() {
        if (!windows_->any()) return;
        const auto all = [](Point) { return true; };
        constexpr int half = 10, most = 30;
        for (int round = 0; round < most; ++round) {
            if (round == half) windows_->sharpen();
            if (windows_->look() <= ToneWindows::enough || progress_.cancelled()) return;
            if (!changed(all) && round >= half) break;
        }
        shake();
    }

    Polyline line() const {
        Polyline out;
        for (std::uint32_t k = 0; k != no_one; k = corners_[k].next)
            out.points.push_back(corners_[k].at);
        return out;
    }

  private:
    InkWay between(std::uint32_t a, std::uint32_t b) const { return {corners_[a].at, corners_[b].at}; }
    InkWay to_next(std::uint32_t k) const { return between(k, corners_[k].next); }
    bool leaves(std::uint32_t a, std::uint32_t b) const {
        return index_.crosses(corners_[a].at, corners_[b].at);
    }
    bool leaves(std::uint32_t a, Point p) const { return index_.crosses(corners_[a].at, p); }

    void take(const Polyline& line) {
        std::map<std::pair<double, double>, std::uint32_t> places;
        for (std::uint32_t i = 0; i < lattice_.size(); ++i)
            places[{lattice_[i].a.x, lattice_[i].a.y}] = i;
        for (const Point p : line.points) {
            const auto it = places.find({p.x, p.y});
            const auto k = static_cast<std::uint32_t>(corners_.size());
            const std::uint32_t place = it == places.end() ? no_one : it->second;
            corners_.push_back({p, k == 0 ? no_one : k - 1, k + 1, place, static_cast<double>(k)});
            if (place != no_one) corner_of_[place] = k;
        }
        corners_.back().next = no_one;
    }

    /// Goes through the places there once; whether anything was changed. What is far off first: small gains
    /// there are many times more of would take all the time.
    template<class There>
    bool changed(There there) {
        ++round_;
        double weak = 0;
        for (const Candidate& c : lattice_)
            if (there(c.a)) weak = std::max(weak, std::abs(windows_->pull(c.a)) / 10);
        bool any = false;
        for (std::uint32_t i = 0; i < lattice_.size(); ++i) {
            if (i % 64 == 0 && progress_.cancelled()) return false;
            if (!there(lattice_[i].a)) continue;
            const double pull = windows_->pull(lattice_[i].a);
            if (std::abs(pull) < weak) continue;
            const bool drawn = corner_of_[i] != no_one, dark = pull > 0;
            if (drawn && dark) any |= leave_out(corner_of_[i], -least_better);
            if (!drawn && pull < 0) any |= take_in(i, -least_better);
            if (corner_of_[i] != no_one) any |= shift(corner_of_[i]);
            if (corner_of_[i] != no_one) any |= turn(corner_of_[i], dark);
        }
        return any;
    }

    /// Makes changes at random around what is worst, and keeps those after which all is less bad.
    void shake() {
        constexpr double tolerable = 0.027; // 0.03 is wished, and squares misjudge a little
        constexpr int most = 300, most_in_vain = 40;
        int in_vain = 0;
        for (int n = 0; n < most && in_vain < most_in_vain; ++n) {
            if (windows_->look() <= tolerable || progress_.cancelled()) return;
            const Point worst = windows_->worst().middle;
            const double before = windows_->badness();
            const auto corners = corners_;
            const auto corner_of = corner_of_;
            const auto inked = ink_.inked();
            const ToneWindows windows = *windows_;
            disturb(worst);
            for (int round = 0; round < 6; ++round) {
                windows_->look();
                if (!changed([&](Point p) { return distance(p, worst) < 1.5 * ToneWindows::side; })) break;
            }
            if (windows_->badness() < 0.995 * before) {
                in_vain = 0;
                continue;
            }
            ++in_vain;
            corners_ = corners, corner_of_ = corner_of, windows_ = windows;
            ink_.put_back(inked);
        }
    }

    /// Three changes, most of them corners that are left out.
    void disturb(Point around) {
        std::vector<std::uint32_t> there;
        for (std::uint32_t i = 0; i < lattice_.size(); ++i)
            if (distance(lattice_[i].a, around) < 0.75 * ToneWindows::side) there.push_back(i);
        if (there.empty()) return;
        constexpr double any = 1e300;
        for (int n = 0, done = 0; n < 100 && done < 3; ++n) {
            const std::uint32_t i = there[random_() % there.size()];
            done += corner_of_[i] != no_one ? leave_out(corner_of_[i], any) : n % 8 == 0 && take_in(i, any);
        }
    }

    /// Where that changes the windows' badness by less than `most`.
    bool leave_out(std::uint32_t k, double most) {
        const std::uint32_t a = corners_[k].before, b = corners_[k].next;
        if (a == no_one || b == no_one || leaves(a, b)) return false;
        bits_.clear();
        off(between(a, k)), off(between(k, b)), on(between(a, b));
        if (windows_->change(bits_) < most) {
            windows_->take(bits_);
            corners_[a].next = b, corners_[b].before = a;
            corner_of_[corners_[k].place] = no_one;
            return true;
        }
        ink_.erase(between(a, b)), ink_.draw(between(a, k)), ink_.draw(between(k, b));
        return false;
    }

    /// A little to any side, where that is better: the ways to it become longer or shorter, or lie more on
    /// what is inked already.
    bool shift(std::uint32_t k) {
        const std::uint32_t a = corners_[k].before, b = corners_[k].next;
        if (a == no_one || b == no_one) return false;
        const Point from = corners_[k].at;
        bits_.clear();
        off(between(a, k)), off(between(k, b));
        const InkBits gone = bits_;
        double best = -least_better;
        Point to = from;
        InkBits taken;
        // Tips. Two near, two far: all at once took twice as long and found little more.
        for (const double far : round_ % 2 == 0 ? std::array{0.4, 1.8} : std::array{0.9, 3.6})
            for (int side = 0; side < 6; ++side) {
                const double angle = (side + far) * std::numbers::pi / 3;
                const Point p = from + Point{std::cos(angle), std::sin(angle)} * (far * tip_);
                if (!index_.contains(p) || leaves(a, p) || leaves(b, p)) continue;
                bits_ = gone;
                corners_[k].at = p;
                on(between(a, k)), on(between(k, b));
                if (const double change = windows_->change(bits_); change < best)
                    best = change, to = p, taken = bits_;
                ink_.erase(between(a, k)), ink_.erase(between(k, b));
            }
        corners_[k].at = to;
        ink_.draw(between(a, k)), ink_.draw(between(k, b));
        if (to == from) return false;
        windows_->take(taken);
        return true;
    }

    /// The stretch from here to another corner is gone the other way around, where that is better: two pieces
    /// of the way are exchanged for shorter ones (where it is too light, for longer ones).
    bool turn(std::uint32_t a, bool shorter) {
        const std::uint32_t a2 = corners_[a].next;
        if (a2 == no_one) return false;
        others_.clear();
        const double gone = distance(corners_[a].at, corners_[a2].at);
        far_.around(corners_[a].place, [&](std::uint32_t o, double) {
            const std::uint32_t b = corner_of_[o];
            if (b == no_one || b == a || b == a2) return;
            const std::uint32_t b2 = corners_[b].next;
            if (b2 == no_one || b2 == a) return;
            const double more = distance(corners_[a].at, corners_[b].at) +
                                distance(corners_[a2].at, corners_[b2].at) - gone -
                                distance(corners_[b].at, corners_[b2].at);
            if (shorter ? more < 0 : more > 0) others_.emplace_back(std::abs(more), b);
        });
        constexpr std::ptrdiff_t tried = 4;
        const auto end = others_.begin() + std::min(tried, std::ssize(others_));
        std::partial_sort(others_.begin(), end, others_.end());
        for (auto it = others_.begin(); it != end; ++it) {
            const std::uint32_t b = it->second, b2 = corners_[b].next;
            if (leaves(a, b) || leaves(a2, b2)) continue;
            bits_.clear();
            off(between(a, a2)), off(between(b, b2)), on(between(a, b)), on(between(a2, b2));
            if (windows_->change(bits_) < -least_better) {
                windows_->take(bits_);
                const bool first = corners_[a].rank < corners_[b].rank;
                reverse(first ? a : b, first ? b : a);
                return true;
            }
            ink_.erase(between(a, b)), ink_.erase(between(a2, b2));
            ink_.draw(between(a, a2)), ink_.draw(between(b, b2));
        }
        return false;
    }

    /// What follows `a`, up to `b`.
    void reverse(std::uint32_t a, std::uint32_t b) {
        const std::uint32_t after = corners_[b].next;
        turned_.clear();
        for (std::uint32_t k = corners_[a].next; k != after; k = corners_[k].next)
            turned_.emplace_back(corners_[k].rank, k);
        std::uint32_t before = a;
        for (std::size_t n = 0; n < turned_.size(); ++n) {
            const std::uint32_t k = turned_[turned_.size() - 1 - n].second;
            corners_[before].next = k, corners_[k].before = before, corners_[k].rank = turned_[n].first;
            before = k;
        }
        corners_[before].next = after;
        corners_[after].before = before;
    }

    /// Between the two corners that it lies best between, of those nearby.
    bool take_in(std::uint32_t i, double most) {
        const Point p = lattice_[i].a;
        double least = 1e300;
        std::uint32_t a = no_one;
        near_.around(i, [&](std::uint32_t o, double) {
            if (corner_of_[o] == no_one) return;
            for (const std::uint32_t k : {corners_[corner_of_[o]].before, corner_of_[o]}) {
                if (k == no_one || corners_[k].next == no_one) continue;
                const Point from = corners_[k].at, to = corners_[corners_[k].next].at;
                const double more = distance(from, p) + distance(p, to) - distance(from, to);
                if (more < least) least = more, a = k;
            }
        });
        if (a == no_one) return false;
        const std::uint32_t b = corners_[a].next;
        if (leaves(a, p) || leaves(b, p)) return false;
        bits_.clear();
        const InkWay there{corners_[a].at, p}, back{p, corners_[b].at};
        off(between(a, b)), on(there), on(back);
        if (windows_->change(bits_) < most) {
            windows_->take(bits_);
            const auto k = static_cast<std::uint32_t>(corners_.size());
            corners_.push_back({p, a, b, i, (corners_[a].rank + corners_[b].rank) / 2});
            corners_[a].next = corners_[b].before = corner_of_[i] = k;
            return true;
        }
        ink_.erase(there), ink_.erase(back), ink_.draw(between(a, b));
        return false;
    }

    void off(InkWay way) {
        ink_.covered(way, 1, [&](Point at) { windows_->add(bits_, at, -ink_.square()); });
        ink_.erase(way);
    }
    void on(InkWay way) {
        ink_.covered(way, 0, [&](Point at) { windows_->add(bits_, at, ink_.square()); });
        ink_.draw(way);
    }

    double tip_;
    const std::vector<Candidate>& lattice_;
    RegionIndex index_;
    Nearby near_, far_;
    std::vector<std::uint32_t> corner_of_; ///< of each place of the lattice, or no_one
    std::vector<Corner> corners_;
    Region reached_;
    ToneInk ink_;
    std::optional<ToneWindows> windows_;
    InkBits bits_;
    std::vector<std::pair<double, std::uint32_t>> others_, turned_; ///< while a stretch is turned
    int round_ = 0; ///< of going through the places: far and near shifts take turns
    std::mt19937 random_;
    Progress& progress_;
};

} // namespace

Polyline mended_scribble(const Polyline& way, const std::vector<Candidate>& lattice, const Region& piece,
                         Length tip, const Tone& tone, std::uint32_t seed, Progress& progress) {
    if (way.points.size() < 2 || progress.cancelled()) return way;
    Mending mending(way, lattice, piece, tip, tone, seed, progress);
    if (!progress.cancelled()) mending.mend();
    return mending.line();
}

} // namespace dotlane
