#include "core/geometry/narrow.h"

#include <algorithm>
#include <cmath>
#include <deque>
#include <map>
#include <numbers>
#include <optional>

#include "core/base/parallel.h"
#include "core/geometry/crops.h"

namespace dotlane {
namespace {

constexpr double hair = 0.01;       ///< mm, below what offsets are exact to
constexpr double sliver_long = 3;   ///< times the least width; shorter ones are corners of over 19 degrees
constexpr double sliver_thin = 0.6; ///< of the least width, on the mean
constexpr double limb_long = 2.5;   ///< times as far as it joins: a corner of 26 degrees is so long

const OffsetOptions round_off{Corner::round, 2, mm(0.01)};

Region shrunk(const Region& region, double by) {
    return offset(region, mm(-by), round_off);
}

/// The greatest width at which `holds` is still true, to a hundredth of `most`.
template<class Holds>
double widest(double most, Holds holds) {
    double low = 0, high = most;
    for (int i = 0; i < 7; ++i) {
        const double middle = (low + high) / 2;
        (holds(middle) ? low : high) = middle;
    }
    return (low + high) / 2;
}

/// Of a spot of the piece that joins wider parts. Other parts of the piece may pass by.
double neck_width(const Crops& piece, const Region& spot, double least) {
    const Box here = bounds(spot).grown(least);
    std::vector<Region> parts =
        pieces(intersected(piece.near(here.grown(least)), region_of(Shape{{rectangle(here)}})));
    if (parts.size() > 1)
        std::erase_if(parts, [&](const Region& part) { return intersected(part, spot).empty(); });
    Region local;
    for (Region& part : parts)
        std::move(part.rings.begin(), part.rings.end(), std::back_inserter(local.rings));
    return widest(least, [&](double w) { return pieces(shrunk(local, w / 2)).size() == 1; });
}

double across(const Box& box) {
    return length(Point{box.width(), box.height()});
}

class Finder {
  public:
    /// What hangs on at one end is told when it is thin, or when it is long.
    enum class Ends { slivers, limbs };
    Finder(Length width, Length size, Progress& progress, Ends ends = Ends::slivers)
        : width_(in_mm(width))
        , size_(in_mm(size))
        , progress_(progress)
        , ends_(ends) {}

    void look(const Region& piece) {
        const double size = std::sqrt(in_square_mm(area(piece)));
        if (size < size_) return add(NarrowPlace::Kind::small_piece, piece, size);
        if (width_ <= 0) return;
        const Region core = shrunk(piece, width_ / 2 - hair);
        if (core.empty())
            return add(NarrowPlace::Kind::piece, piece,
                       widest(width_, [&](double w) { return !shrunk(piece, w / 2).empty(); }));
        const Region opened = offset(core, mm(width_ / 2 - hair), round_off);
        // A little more than opened: what is left of straight edges by rounding is no spot.
        if (progress_.cancelled()) return;
        const Region spots = subtracted(piece, offset(opened, mm(2 * hair), round_off));
        const Crops around(piece), wide(opened);
        const std::vector<Region> each = pieces(spots);
        std::vector<std::optional<NarrowPlace>> told(each.size());
        in_parallel(each.size(), point_count(spots) * 20, [&](std::size_t i) {
            if (!progress_.cancelled()) told[i] = place_at(each[i], around, wide);
        });
        for (std::optional<NarrowPlace>& place : told)
            if (place) found.push_back(std::move(*place));
    }

    std::vector<NarrowPlace> found;

  private:
    void add(NarrowPlace::Kind kind, const Region& area, double width) {
        found.push_back(place(kind, area, width));
    }
    static NarrowPlace place(NarrowPlace::Kind kind, const Region& area, double width) {
        return {kind, bounds(area), mm(width), area};
    }

    std::optional<NarrowPlace> place_at(const Region& spot, const Crops& piece, const Crops& opened) const {
        const Box box = bounds(spot);
        const double extent = across(box);
        const double mean = 2 * in_square_mm(area(spot)) / std::max(in_mm(perimeter(spot)), 1e-9);
        std::vector<Region> contacts =
            pieces(intersected(offset(spot, mm(4 * hair), round_off), opened.near(box.grown(20 * hair))));
        // Smaller than what the spot was grown by is but what rounding leaves.
        std::erase_if(contacts, [](const Region& c) { return across(bounds(c)) < 4 * hair; });
        Box joined;
        for (const Region& contact : contacts)
            joined.add(bounds(contact));
        if (contacts.size() >= 2) {
            const double width = neck_width(piece, spot, width_);
            if (width < width_ * 0.97) // else it is as wide as it must be
                return place(NarrowPlace::Kind::neck, spot, width);
        } else if (ends_ == Ends::slivers ? extent > sliver_long * width_ && mean < sliver_thin * width_
                                          : extent > limb_long * across(joined)) {
            return place(NarrowPlace::Kind::sliver, spot, mean);
        }
        return std::nullopt;
    }

    double width_, size_;
    Progress& progress_;
    Ends ends_;
};

/// What has been looked at, for copies to be looked at once.
class Looked {
  public:
    struct One {
        Region piece;
        Point corner;
        std::vector<NarrowPlace> found;
    };

    /// What a piece is a copy of, within a micrometre.
    const One* like(const Region& piece, Point corner) const {
        const auto alike = known_.find(form_of(piece));
        if (alike == known_.end()) return nullptr;
        for (const One& one : alike->second)
            if (same(piece, one.piece, corner - one.corner)) return &one;
        return nullptr;
    }
    const One* keep(One one) {
        std::deque<One>& alike = known_[form_of(one.piece)];
        if (alike.size() >= most_alike) alike.pop_front();
        return &alike.emplace_back(std::move(one));
    }

  private:
    /// Of as many points; or a thousand strips would all be compared.
    static constexpr std::size_t most_alike = 16;

    static std::vector<std::size_t> form_of(const Region& piece) {
        std::vector<std::size_t> out;
        for (const Ring& ring : piece.rings)
            out.push_back(ring.size());
        return out;
    }
    static bool same(const Region& a, const Region& b, Point by) {
        for (std::size_t r = 0; r < a.rings.size(); ++r)
            for (std::size_t i = 0; i < a.rings[r].size(); ++i)
                if (distance(a.rings[r][i], b.rings[r][i] + by) > 1e-3) return false;
        return true;
    }
    std::map<std::vector<std::size_t>, std::deque<One>> known_;
};

NarrowPlace shifted(const NarrowPlace& place, Point by) {
    const Box& b = place.box;
    return {place.kind,
            {b.x0 + by.x, b.y0 + by.y, b.x1 + by.x, b.y1 + by.y},
            place.width,
            transformed(place.area, Affine::translation(by))};
}

} // namespace

NarrowPlaces narrow_places(const Region& region, Length least_width, Length least_size,
                           std::size_t most_points, Progress& progress) {
    NarrowPlaces out;
    Finder finder(least_width, least_size, progress);
    Looked looked;
    for (const Region& piece : pieces(region)) {
        if (progress.cancelled()) break;
        if (point_count(piece) > most_points) {
            ++out.unchecked;
            continue;
        }
        const Box box = bounds(piece);
        const Point corner{box.x0, box.y0};
        const Looked::One* known = looked.like(piece, corner);
        if (!known) {
            finder.found.clear();
            finder.look(piece);
            known = looked.keep({piece, corner, finder.found});
        }
        for (const NarrowPlace& place : known->found)
            out.places.push_back(shifted(place, corner - known->corner));
    }
    std::stable_sort(out.places.begin(), out.places.end(),
                     [](const NarrowPlace& a, const NarrowPlace& b) { return a.box.x0 < b.box.x0; });
    return out;
}

std::vector<NarrowPlace> narrow_limbs(const Region& piece, Length width) {
    Finder finder(width, mm(0), no_progress(), Finder::Ends::limbs);
    finder.look(piece);
    return std::move(finder.found);
}

namespace {

/// Whether a disc has room about the middle of the widest span at one of some heights: when it has not, it
/// may have elsewhere.
bool seen_to_hold(const Region& region, double radius) {
    constexpr int heights = 9;
    const Box box = bounds(region);
    for (int k = 0; k < heights; ++k) {
        const double y = box.y0 + box.height() * (k + 0.47) / heights;
        std::vector<double> at;
        for (const Ring& ring : region.rings)
            for (std::size_t i = 0; i < ring.size(); ++i) {
                const Point a = ring[i], b = ring[i + 1 < ring.size() ? i + 1 : 0];
                if ((a.y > y) != (b.y > y)) at.push_back(a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y));
            }
        std::sort(at.begin(), at.end());
        Point middle;
        double widest = 2 * radius;
        for (std::size_t i = 0; i + 1 < at.size(); i += 2)
            if (at[i + 1] - at[i] > widest) widest = at[i + 1] - at[i], middle = {(at[i] + at[i + 1]) / 2, y};
        if (widest == 2 * radius) continue;
        if (std::all_of(region.rings.begin(), region.rings.end(), [&](const Ring& ring) {
                for (std::size_t i = 0; i < ring.size(); ++i)
                    if (distance_to_segment(middle, ring[i], ring[i + 1 < ring.size() ? i + 1 : 0]) <= radius)
                        return false;
                return true;
            }))
            return true;
    }
    return false;
}

} // namespace

bool is_wider_than(const Region& region, Length width) {
    // What lies within d of an edge of length P is covered by discs of radius 2 d about the middles of pieces
    // of it that are 2 d long: what is larger than all of them needs no offset to be seen.
    const double d = in_mm(width) / 2;
    const double discs = in_mm(perimeter(region)) / (2 * d) + static_cast<double>(region.rings.size());
    return in_square_mm(area(region)) > discs * 4 * std::numbers::pi * d * d ||
           seen_to_hold(region, d + 2 * hair) || !offset(region, -width / 2).empty();
}

} // namespace dotlane
