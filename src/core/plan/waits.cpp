#include "core/plan/waits.h"

#include <algorithm>
#include <numeric>

namespace dotlane {
namespace {

class Waits {
  public:
    explicit Waits(const Polylines& lines)
        : lines_(lines)
        , around_(lines.size(), -1)
        , further_(lines.size())
        , depth_(lines.size(), 0)
        , seen_(lines.size(), -1) {
        for (const Polyline& line : lines) {
            boxes_.push_back(bounds(line));
            areas_.push_back(line.closed ? std::abs(signed_area_mm2(line.points)) : 0);
        }
    }

    std::vector<int> run() {
        nest();
        return chain();
    }

  private:
    struct Open {
        Box box;
        double area;
        int line;
        bool may_hold(const Open& other) const { return area > other.area && box.contains(other.box); }
    };

    double area(int line) const { return areas_[static_cast<std::size_t>(line)]; }
    std::vector<int>& further(int line) { return further_[static_cast<std::size_t>(line)]; }
    std::vector<int> sorted(auto before) const {
        std::vector<int> out(lines_.size());
        std::iota(out.begin(), out.end(), 0);
        std::stable_sort(out.begin(), out.end(), before);
        return out;
    }
    bool contains(int outer, int inner) const {
        const auto& points = lines_[static_cast<std::size_t>(inner)].points;
        return ring_contains(lines_[static_cast<std::size_t>(outer)].points, points[points.size() / 2]);
    }
    bool smaller(int a, int b) const { // equal ones in the order given, so that there is no tie
        return area(a) != area(b) ? area(a) < area(b) : a < b;
    }

    static std::vector<int> holding(const Open& own, const std::vector<Open>& open, int but) {
        std::vector<int> out;
        for (const Open& o : open)
            if (o.line != but && o.may_hold(own)) out.push_back(o.line);
        return out;
    }

    /// From the left, so that what may lie around a line has been seen before it.
    void nest() {
        const auto box = [&](int i) -> const Box& { return boxes_[static_cast<std::size_t>(i)]; };
        std::vector<Open> open; // closed lines whose right side is still ahead
        for (const int i : sorted([&](int a, int b) {
                 return box(a).x0 != box(b).x0 ? box(a).x0 < box(b).x0 : area(a) > area(b);
             })) {
            std::erase_if(open, [&](const Open& o) { return o.box.x1 < box(i).x0; });
            const Open own{box(i), area(i), i};
            look_around(own, open);
            if (own.area > 0) open.push_back(own);
        }
    }

    /// The smallest of the lines that is around `i`, and those others that are not around that one. In a nest
    /// of thousands a line is compared with one: what is around its neighbour is around it.
    void look_around(const Open& own, const std::vector<Open>& open) {
        std::size_t count = 0;
        const Open* nearest = nullptr;
        for (const Open& o : open)
            if (o.may_hold(own)) {
                ++count;
                if (!nearest || o.area < nearest->area || (o.area == nearest->area && o.line < nearest->line))
                    nearest = &o;
            }
        if (!nearest) return;
        const int i = own.line, first = nearest->line;
        int& least = around_[static_cast<std::size_t>(i)];
        std::vector<int> others;
        if (contains(first, i)) {
            least = first;
        } else {
            const auto later = [&](int a, int b) { return smaller(b, a); };
            others = holding(own, open, first);
            std::make_heap(others.begin(), others.end(), later);
            while (!others.empty() && least < 0) {
                std::pop_heap(others.begin(), others.end(), later);
                if (contains(others.back(), i)) least = others.back();
                others.pop_back();
            }
            if (least < 0) return;
        }
        std::size_t& depth = depth_[static_cast<std::size_t>(i)];
        depth = depth_[static_cast<std::size_t>(least)] + 1;
        if (depth == count) return; // there is nothing but it and what is around it
        if (least == first) others = holding(own, open, first);
        const auto see = [&](int o) { seen_[static_cast<std::size_t>(o)] = i; };
        for (int o = least; o >= 0; o = around_[static_cast<std::size_t>(o)]) {
            see(o);
            for (const int f : further(o))
                see(f);
        }
        for (const int o : others)
            if (seen_[static_cast<std::size_t>(o)] != i && contains(o, i)) further(i).push_back(o);
    }

    /// From small to large; what waits for a line and not for the next in its chain is handed on to that one.
    std::vector<int> chain() {
        std::vector<int> out(lines_.size(), -1);
        for (const int i : sorted([&](int a, int b) { return area(a) < area(b); })) {
            std::vector<int> all = std::move(further(i));
            if (const int least = around_[static_cast<std::size_t>(i)]; least >= 0) all.push_back(least);
            if (all.empty()) continue;
            const int next =
                *std::min_element(all.begin(), all.end(), [&](int a, int b) { return smaller(a, b); });
            out[static_cast<std::size_t>(i)] = next;
            auto& handed = further(next);
            for (const int other : all)
                if (other != next && other != around_[static_cast<std::size_t>(next)] &&
                    std::find(handed.begin(), handed.end(), other) == handed.end())
                    handed.push_back(other);
        }
        return out;
    }

    const Polylines& lines_;
    std::vector<Box> boxes_;
    std::vector<double> areas_;
    std::vector<int> around_;               ///< the smallest closed line around each, or -1
    std::vector<std::vector<int>> further_; ///< around it, but not around that one
    std::vector<std::size_t> depth_;        ///< lines met by following `around_`
    std::vector<int> seen_;                 ///< by which line
};

} // namespace

std::vector<int> waits_for(const Polylines& lines) {
    return Waits(lines).run();
}

} // namespace dotlane
