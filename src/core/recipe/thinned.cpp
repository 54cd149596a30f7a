#include "core/recipe/thinned.h"

#include <cmath>
#include <optional>

#include "core/recipe/nearby.h"
#include "core/recipe/tone_windows.h"

namespace dotlane {
namespace {

/// Scattered evenly over 0..1 by a number (J. van der Corput 1935).
double scattered(std::size_t k) {
    double out = 0, part = 0.5;
    for (; k > 0; k /= 2, part /= 2)
        if (k % 2 == 1) out += part;
    return out;
}

/// The direction that pieces mostly have, but for quarter turns, which are all one to a grid of squares;
/// radians.
double prevailing(const std::vector<Candidate>& all) {
    double x = 0, y = 0;
    for (const Candidate& c : all) {
        const Point way = c.b - c.a;
        const double four = 4 * std::atan2(way.y, way.x), weight = length(way);
        x += weight * std::cos(four), y += weight * std::sin(four);
    }
    return std::atan2(y, x) / 4;
}

struct Wishes {
    std::function<double(std::size_t)> wished; ///< ink at a candidate
    std::function<double(std::size_t)> adds;   ///< ink that it would add now
    std::function<void(std::size_t)> draw;
};

std::vector<char> diffused(const std::vector<Candidate>& all, double pitch, const Wishes& wishes,
                           Progress& progress) {
    std::vector<char> drawn(all.size(), 0);
    std::vector<double> rest(all.size(), 0);
    const Nearby nearby(all, 1.7 * pitch); // the next line's, and not those of the one behind it
    std::vector<std::pair<std::size_t, double>> later;
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (i % 4096 == 0 && progress.cancelled()) break;
        const bool dot = all[i].dot();
        const double adds = wishes.adds(i), own = wishes.wished(i), wished = own + rest[i];
        const bool goes_on = i > 0 && all[i - 1].line == all[i].line && drawn[i - 1];
        // Dots stand in rows otherwise. A line that has begun goes on a while: fewer lifts.
        const double share = dot ? 0.4 + 0.2 * scattered(i) : goes_on ? 0.45 : 0.55;
        drawn[i] = wished > 0 && wished >= share * adds;
        if (drawn[i]) wishes.draw(i);
        double over = wished - (drawn[i] ? adds : 0);
        // Where all is drawn and more is wished, it cannot be made up for elsewhere.
        over = std::clamp(over, -3 * std::max(adds, own), 3 * std::max(adds, own));
        later.clear();
        double sum = 0;
        nearby.around(i, [&](std::uint32_t k, double d2) {
            if (k <= i || (!dot && all[k].line == all[i].line)) return;
            const double weight = 1 / std::max(d2, 1e-9);
            later.emplace_back(k, weight), sum += weight;
        });
        if (later.empty() && i + 1 < all.size()) later.emplace_back(i + 1, 1.0), sum = 1;
        for (const auto& [k, weight] : later)
            rest[k] += over * weight / sum;
    }
    return drawn;
}

/// What a further stroke costs, in squares of what windows are off by; where that leaves some off, less.
constexpr double lift = 1e-4, last_lift = 1e-5;
/// In the end ink moves as far as this, mm: a third of a window.
constexpr double far = 3;
/// And windows lie as close as this, mm, until none is off by more: of 0.03 that are wished, as squares
/// misjudge a little.
constexpr double fine = ToneWindows::usual / 2, fair = 0.024;

/// A candidate is drawn or left out, or one beside it drawn in its place, where the tone is off.
class Mending {
  public:
    Mending(const std::vector<Candidate>& all, double pitch, Length tip, const Box& box, ToneInk& ink,
            std::vector<char>& drawn, Progress& progress)
        : all_(all)
        , tip_(in_mm(tip))
        , ink_(ink)
        , drawn_(drawn)
        , box_(box)
        , progress_(progress)
        , windows_(box, ink, progress)
        , nearby_(std::in_place, all, 1.5 * pitch) {}

    void run() {
        if (!windows_.any() || progress_.cancelled()) return;
        mend_all(10, ToneWindows::enough);
        if (progress_.cancelled()) return;
        windows_ = ToneWindows(box_, ink_, progress_, ToneWindows::step_for(box_, fine));
        if (progress_.cancelled()) return;
        lift_ = last_lift;
        mend_all(6, fair);
        windows_.sharpen();
        nearby_.emplace(all_, far);
        mend_all(10, fair);
    }

  private:
    void mend_all(int most, double enough) {
        for (int round = 0; round < most && windows_.look() > enough; ++round) {
            bool moved = false;
            for (std::size_t i = 0; i < all_.size(); ++i) {
                if (i % 16 == 0 && progress_.cancelled()) return;
                moved |= mend(i);
            }
            if (!moved) return;
        }
    }

    bool mend(std::size_t i) {
        const double pull = windows_.pull(all_[i].middle());
        // Badness is convex: it cannot fall by more than its slope says, which most are told by.
        const double most = (distance(all_[i].a, all_[i].b) + 0.8 * tip_) * tip_ * 2 /
                            (ToneWindows::side * ToneWindows::side);
        best_ = -1e-9, with_ = i, bits_.clear();
        const double alone = lift_ * strokes(i, !drawn_[i]);
        if ((drawn_[i] ? pull > 0 : pull < 0) && alone < most * std::abs(pull)) {
            own_.clear();
            note(i, drawn_[i] ? 1 : 0, own_);
            consider(own_, alone, i);
        }
        if (drawn_[i]) consider_places_beside(i, pull, most);
        if (bits_.empty()) return drawn_[i] && pull > 0 && open(i, pull);
        windows_.take(bits_);
        if (drawn_[i])
            ink_.erase(all_[i]);
        else
            ink_.draw(all_[i]);
        drawn_[i] = !drawn_[i];
        if (with_ != i) ink_.draw(all_[with_]), drawn_[with_] = 1;
        return true;
    }

    /// Pieces shorter than the tip leave nothing bare by themselves, as those beside them reach over: as many
    /// from here on as open a gap.
    bool open(std::size_t i, double pull) {
        const double piece = distance(all_[i].a, all_[i].b), gap = 1.25 * tip_;
        if (all_[i].dot() || piece >= gap) return false;
        std::size_t end = i;
        for (double way = 0; end < all_.size() && way < gap; ++end) {
            if (!drawn_[end] || all_[end].line != all_[i].line) return false;
            way += distance(all_[end].a, all_[end].b);
        }
        const auto goes_on = [&](std::size_t k) {
            return k < all_.size() && all_[k].line == all_[i].line && drawn_[k];
        };
        const double cost = lift_ * (goes_on(i - 1) + goes_on(end) - 1);
        // Of the two discs' width that the gap is longer, at the most.
        if (cost >= gap * tip_ * 2 / (ToneWindows::side * ToneWindows::side) * pull) return false;
        own_.clear();
        for (std::size_t k = i; k < end; ++k)
            note(k, 1, own_), ink_.erase(all_[k]);
        if (windows_.change(own_) + cost < -1e-9) {
            windows_.take(own_);
            std::fill(drawn_.begin() + static_cast<std::ptrdiff_t>(i),
                      drawn_.begin() + static_cast<std::ptrdiff_t>(end), 0);
            return true;
        }
        for (std::size_t k = i; k < end; ++k)
            ink_.draw(all_[k]);
        return false;
    }

    void consider_places_beside(std::size_t i, double pull, double most) {
        bool lifted = false;
        nearby_->around(i, [&](std::uint32_t k, double) {
            // On the same line a stroke is shifted, but not by pieces that it is one with.
            if (drawn_[k] || (all_[k].line == all_[i].line && k <= i + 1 && i <= k + 1)) return;
            const double cost = lift_ * (strokes(i, false) + strokes(k, true));
            if (most * (pull - windows_.pull(all_[k].middle())) <= cost + 1e-9) return;
            if (!lifted) {
                own_.clear();
                note(i, 1, own_);
                ink_.erase(all_[i]); // what both cover stays inked
                lifted = true;
            }
            both_ = own_;
            note(k, 0, both_);
            consider(both_, cost, k);
        });
        if (lifted) ink_.draw(all_[i]);
    }

    void consider(const InkBits& bits, double cost, std::size_t with) {
        if (bits.empty()) return;
        if (const double change = windows_.change(bits) + cost; change < best_)
            best_ = change, with_ = with, bits_ = bits;
    }
    void note(std::size_t i, int by, InkBits& bits) {
        const double square = by == 0 ? ink_.square() : -ink_.square();
        ink_.covered(all_[i], by, [&](Point at) { windows_.add(bits, at, square); });
    }
    /// By how many strokes there are more when it is drawn, or not any longer.
    int strokes(std::size_t i, bool to) const {
        const auto on = [&](std::size_t k) { return all_[k].line == all_[i].line && drawn_[k]; };
        const int beside = (i > 0 && on(i - 1)) + (i + 1 < all_.size() && on(i + 1));
        return to ? 1 - beside : beside - 1;
    }

    const std::vector<Candidate>& all_;
    double tip_;
    ToneInk& ink_;
    std::vector<char>& drawn_;
    Box box_;
    Progress& progress_;
    ToneWindows windows_;
    std::optional<Nearby> nearby_;
    double best_ = 0, lift_ = lift;
    std::size_t with_ = 0;
    InkBits bits_, own_, both_;
};

} // namespace

std::vector<Candidate> candidates_of(const Polylines& lines, double piece) {
    std::vector<Candidate> out;
    std::uint32_t number = 0;
    for (const Polyline& line : lines) {
        const std::size_t n = line.points.size();
        for (std::size_t i = 0; i + (line.closed ? 0 : 1) < n; ++i) {
            const Point a = line.points[i], b = line.points[(i + 1) % n];
            const double way = distance(a, b);
            if (way == 0) continue;
            const Point along = (b - a) * (1 / way);
            const double begin = dot(a, along);
            Point p = a;
            for (double at = (std::floor(begin / piece) + 1) * piece - begin; at < way - piece / 2;
                 at += piece) {
                if (at < piece / 2) continue;
                const Point q = a + along * at;
                out.push_back({{p, q}, number});
                p = q;
            }
            out.push_back({{p, b}, number});
        }
        ++number;
    }
    return out;
}

std::vector<char> thinned(const std::vector<Candidate>& candidates, double pitch, Length tip,
                          const Region& region, const Tone& tone, Progress& progress) {
    const auto none = [&] { return std::vector<char>(candidates.size(), 0); };
    if (region.empty() || candidates.empty() || progress.cancelled()) return none();
    ToneInk ink(tip, region, tone, progress, candidates.front().dot() ? 11 : 5, prevailing(candidates));
    if (progress.cancelled()) return none();
    const auto wished = ink.wished_by({candidates.begin(), candidates.end()}, progress);
    std::vector<char> drawn = diffused(candidates, pitch,
                                       {[&](std::size_t i) { return wished[i]; },
                                        [&](std::size_t i) { return ink.adds(candidates[i]); },
                                        [&](std::size_t i) { ink.draw(candidates[i]); }},
                                       progress);
    if (progress.cancelled()) return none();
    Mending(candidates, pitch, tip, bounds(region), ink, drawn, progress).run();
    return drawn;
}

std::vector<char> thinned_evenly(const std::vector<Candidate>& candidates, double pitch,
                                 const std::function<double(std::size_t)>& wished, Progress& progress) {
    if (candidates.empty()) return {};
    return diffused(candidates, pitch, {wished, [](std::size_t) { return 1.0; }, [](std::size_t) {}},
                    progress);
}

Polylines kept(const std::vector<Candidate>& candidates, const std::vector<char>& drawn) {
    Polylines out;
    for (std::size_t i = 0; i < candidates.size();) {
        if (!drawn[i]) {
            ++i;
            continue;
        }
        Polyline line{{candidates[i].a}, false};
        const std::uint32_t number = candidates[i].line;
        for (; i < candidates.size() && drawn[i] && candidates[i].line == number; ++i) {
            const Point b = candidates[i].b;
            // Pieces of a straight line are one segment again.
            if (line.points.size() > 1) {
                const Point p = line.points[line.points.size() - 2], q = line.points.back();
                if (std::abs(cross(q - p, b - q)) < 1e-9 && dot(q - p, b - q) > 0) line.points.pop_back();
            }
            if (!(b == line.points.back())) line.points.push_back(b);
        }
        if (line.points.size() > 3 && line.points.front() == line.points.back())
            line.points.pop_back(), line.closed = true;
        out.push_back(std::move(line));
    }
    return out;
}

} // namespace dotlane
