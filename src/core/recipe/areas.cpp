#include "core/recipe/areas.h"

#include <algorithm>
#include <numeric>

#include "core/geometry/narrow.h"
#include "core/recipe/findings.h"

namespace dotlane {

Areas areas_of(const std::vector<const WorkSet*>& sets) {
    Areas out;
    for (const WorkSet* set : sets)
        for (const FlatLine& line : set->lines) {
            Region area = area_of(line);
            if (area.empty()) {
                ++out.open;
                continue;
            }
            out.each.push_back(std::move(area));
            out.lines.push_back(&line);
        }
    return out;
}

Nested nested(const Areas& areas) {
    constexpr Length doubled = mm(0.1); // outlines nowhere farther apart are one outline, drawn twice
    const std::size_t n = areas.each.size();
    std::vector<Box> boxes;
    std::vector<double> sizes;
    for (const Region& region : areas.each)
        boxes.push_back(bounds(region)), sizes.push_back(in_square_mm(area(region)));
    std::vector<std::size_t> largest_first(n);
    std::iota(largest_first.begin(), largest_first.end(), std::size_t{0});
    std::stable_sort(largest_first.begin(), largest_first.end(),
                     [&](std::size_t a, std::size_t b) { return sizes[a] > sizes[b]; });
    const auto within = [&](std::size_t i, std::size_t j) {
        return areas.lines[i]->set == areas.lines[j]->set && boxes[j].contains(boxes[i]) &&
               subtracted(areas.each[i], areas.each[j]).empty() &&
               is_wider_than(subtracted(areas.each[j], areas.each[i]), doubled);
    };
    std::vector<int> depth(n, 0);
    std::vector<std::vector<std::size_t>> inside(n); // of outlines
    for (std::size_t at = 0; at < n; ++at) {
        const std::size_t i = largest_first[at];
        if (areas.lines[i]->filled) continue;
        for (std::size_t before = 0; before < at; ++before) {
            const std::size_t j = largest_first[before];
            if (areas.lines[j]->filled || !within(i, j)) continue;
            depth[i] = std::max(depth[i], depth[j] + 1);
            inside[j].push_back(i);
        }
    }
    Nested out;
    for (std::size_t i = 0; i < n; ++i) {
        out.inner += depth[i] > 0;
        if (depth[i] % 2 != 0) continue;
        std::vector<Region> islands;
        for (const std::size_t k : inside[i])
            if (depth[k] == depth[i] + 1) islands.push_back(areas.each[k]);
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
