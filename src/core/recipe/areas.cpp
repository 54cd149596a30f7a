#include "core/recipe/areas.h"

#include <algorithm>
#include <memory>
#include <set>

#include "core/base/parallel.h"
#include "core/geometry/narrow.h"
#include "core/geometry/region_index.h"
#include "core/recipe/findings.h"

namespace dotlane {

Areas areas_of(const std::vector<const WorkSet*>& sets) {
    std::vector<const FlatLine*> lines;
    std::vector<std::size_t> points;
    for (const WorkSet* set : sets)
        for (const FlatLine& line : set->lines) {
            lines.push_back(&line);
            points.push_back(0);
            if (!line.area) // else it is known
                for (const Polyline& contour : line.contours)
                    points.back() += contour.points.size();
        }
    std::vector<Region> areas(lines.size());
    in_parallel(points, [&](std::size_t i) { areas[i] = area_of(*lines[i]); });
    Areas out;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        if (areas[i].empty()) {
            ++out.open;
            continue;
        }
        out.each.push_back(std::move(areas[i]));
        out.lines.push_back(lines[i]);
    }
    return out;
}

Region covered(const Areas& areas) {
    // Pieces of one area are apart: nothing has to be united where they are all there, each once. (Small
    // areas are united all the same: their outlines begin where they always did.)
    constexpr std::size_t worth_it = 4000; // points
    const auto whole = areas.lines.empty() ? nullptr : areas.lines.front()->whole;
    if (!whole || point_count(*whole) < worth_it) return united(areas.each);
    std::set<const Region*> there;
    for (const FlatLine* line : areas.lines)
        if (line->area && line->whole == whole) there.insert(line->area.get());
    const auto outer = std::count_if(whole->rings.begin(), whole->rings.end(),
                                     [](const Ring& ring) { return signed_area_mm2(ring) > 0; });
    const bool all = std::ssize(there) == outer && there.size() == areas.lines.size();
    return all ? *whole : united(areas.each);
}

namespace {

/// Which of many areas lie in one another.
class Within {
  public:
    explicit Within(const std::vector<Region>& each)
        : each_(each)
        , indexes_(each.size()) {
        for (const Region& region : each)
            boxes_.push_back(bounds(region)), sizes_.push_back(in_square_mm(area(region)));
    }
    double size(std::size_t i) const { return sizes_[i]; }
    bool boxes(std::size_t i, std::size_t j) const { return boxes_[j].contains(boxes_[i]); }

    /// Whether i, which is no larger, lies in j, and is not the same outline drawn twice.
    bool operator()(std::size_t i, std::size_t j) {
        if (!indexes_[j]) indexes_[j] = std::make_unique<RegionIndex>(each_[j]);
        bool inside = true, outside = true;
        for (const Ring& ring : each_[i].rings) {
            const bool in = indexes_[j]->contains(Polyline{ring, true});
            inside = inside && in;
            outside = outside && !in && std::none_of(ring.begin(), ring.end(), [&](Point p) {
                          return indexes_[j]->contains(p);
                      });
        }
        // Where edges lie on one another, only the areas can tell.
        if (outside || (!inside && !subtracted(each_[i], each_[j]).empty())) return false;
        constexpr Length doubled = mm(0.1); // nowhere farther apart
        return sizes_[j] - sizes_[i] > 2 * in_mm(doubled) * in_mm(perimeter(each_[j])) ||
               is_wider_than(subtracted(each_[j], each_[i]), doubled);
    }

  private:
    const std::vector<Region>& each_;
    std::vector<std::unique_ptr<RegionIndex>> indexes_; ///< of those that were asked for
    std::vector<Box> boxes_;
    std::vector<double> sizes_;
};

} // namespace

Nested nested(const Areas& areas, const Progress& progress) {
    Within within(areas.each);
    std::vector<std::size_t> outlines; // the largest first
    for (std::size_t i = 0; i < areas.each.size(); ++i)
        if (!areas.lines[i]->filled) outlines.push_back(i);
    std::stable_sort(outlines.begin(), outlines.end(),
                     [&](std::size_t a, std::size_t b) { return within.size(a) > within.size(b); });
    std::vector<int> depth(areas.each.size(), 0);
    std::vector<std::vector<std::size_t>> inside(areas.each.size()); // one deeper
    for (auto at = outlines.begin(); at != outlines.end(); ++at) {
        if (progress.cancelled()) return {};
        const std::size_t i = *at;
        std::vector<std::size_t> around;
        std::copy_if(outlines.begin(), at, std::back_inserter(around), [&](std::size_t j) {
            return areas.lines[i]->set == areas.lines[j]->set && within.boxes(i, j);
        });
        // The deepest first: what it lies in there holds it further out as well.
        std::stable_sort(around.begin(), around.end(),
                         [&](std::size_t a, std::size_t b) { return depth[a] > depth[b]; });
        for (const std::size_t j : around) {
            if (depth[j] + 1 < depth[i]) break;
            if (!within(i, j)) continue;
            depth[i] = depth[j] + 1;
            inside[j].push_back(i);
        }
    }
    Nested out;
    for (std::size_t i = 0; i < areas.each.size(); ++i) {
        if (progress.cancelled()) return {};
        out.inner += depth[i] > 0;
        if (depth[i] % 2 != 0) continue;
        std::vector<Region> islands;
        for (const std::size_t k : inside[i])
            islands.push_back(areas.each[k]);
        out.each.push_back(islands.empty() ? areas.each[i] : subtracted(areas.each[i], united(islands)));
    }
    return out;
}

FlatLine line_along(Polylines contours) {
    FlatLine out;
    out.box = bounds(contours);
    out.contours = std::move(contours);
    return out;
}

Polylines edge_of(const Region& region) {
    Polylines out;
    for (const Ring& ring : region.rings)
        out.push_back({ring, true});
    return out;
}

Figure figure(const char* key, std::size_t n) {
    return {key, "", static_cast<double>(n)};
}

void tell_open(StepReport& report, int open, const Phrase& did) {
    if (open == 0) return;
    report.findings.push_back(recipes::step_open_lines({}, Count{open}, did));
}

} // namespace dotlane
