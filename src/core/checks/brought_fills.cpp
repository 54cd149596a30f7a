#include "core/checks/brought_fills.h"

#include <algorithm>
#include <map>
#include <unordered_set>

#include "core/geometry/parallels.h"
#include "core/recipe/step.h"

namespace dotlane {
namespace {

/// Closed lines that places of the fill lie in, the innermost of each place; and closed lines in those that
/// no place lies in: counters.
std::vector<LineId> outlines_of(const EvaluatedPart& part, const BroughtFill& fill,
                                const std::vector<Point>& places) {
    const std::unordered_set<LineId> own(fill.lines.begin(), fill.lines.end());
    struct Area {
        const FlatLine* line;
        Region region;
        double size;
        bool met = false, around = false;
    };
    std::vector<Area> areas;
    for (const FlatLine& line : part.lines) {
        if (own.contains(line.id) || !fillable(line) || part.worked.contains(line.set) ||
            !line.box.meets(fill.box))
            continue;
        areas.push_back({&line, area_of(line), line.box.width() * line.box.height()});
    }
    std::sort(areas.begin(), areas.end(), [](const Area& a, const Area& b) { return a.size < b.size; });
    std::size_t inside = 0;
    for (const Point p : places) {
        Area* innermost = nullptr;
        for (Area& area : areas) {
            if (!area.line->box.contains(p) || !contains(area.region, p)) continue;
            if (!innermost)
                innermost = &area;
            else
                area.around = true;
        }
        if (innermost) innermost->met = true, ++inside;
    }
    std::vector<LineId> out;
    // A fill that mostly lies in no outline is not that outline's.
    if (2 * inside < places.size()) return out;
    for (const Area& area : areas) {
        const bool counter =
            !area.met && !area.around && std::any_of(areas.begin(), areas.end(), [&](const Area& outer) {
                return outer.met && outer.size > area.size &&
                       outer.line->box.contains(area.line->box.centre());
            });
        if (area.met || counter) out.push_back(area.line->id);
    }
    std::sort(out.begin(), out.end());
    return out;
}

/// How long a line is now, as a share of how long it was drawn.
double growth(const EvaluatedPart& part, const FlatLine& line) {
    if (!part.drawing) return part.scale;
    for (const DrawnLine& drawn : part.drawing->lines)
        if (drawn.id == line.id)
            if (const Length before = length(flattened(drawn.shape)); in_mm(before) > 0)
                return length(line.contours) / before;
    return part.scale;
}

} // namespace

std::vector<BroughtFill> brought_fills(const EvaluatedPart& part, Progress& progress) {
    std::map<LineSetId, std::vector<const FlatLine*>> sets;
    for (const FlatLine& line : part.lines)
        if (!line.id.step && line.set && !part.worked.contains(line.set)) sets[line.set].push_back(&line);
    std::vector<BroughtFill> out;
    for (const auto& [set, lines] : sets) {
        if (progress.cancelled()) break;
        std::vector<const Polyline*> open;
        std::vector<const FlatLine*> of;
        for (const FlatLine* line : lines)
            for (const Polyline& c : line->contours)
                if (!c.closed && !line->filled) open.push_back(&c), of.push_back(line);
        if (open.empty()) continue;
        const auto found = parallels_in(open);
        if (!found) continue;
        const FlatLine& longest = **std::max_element(of.begin(), of.end(), [](const auto* a, const auto* b) {
            return std::max(a->box.width(), a->box.height()) < std::max(b->box.width(), b->box.height());
        });
        BroughtFill fill{set, {}, {}, found->angle, found->spacing, {}, growth(part, longest)};
        std::vector<Point> places; // in the middles of its long ways: short ones may lie on the outline
        for (const std::size_t k : found->lines) {
            if (fill.lines.empty() || fill.lines.back() != of[k]->id) fill.lines.push_back(of[k]->id);
            fill.box.add(bounds(*open[k]));
            const auto& points = open[k]->points;
            for (std::size_t i = 1; i < points.size(); ++i)
                if (distance(points[i - 1], points[i]) > 3 * in_mm(fill.spacing))
                    places.push_back((points[i - 1] + points[i]) * 0.5);
        }
        if (const std::size_t every = places.size() / 400; every > 1) {
            for (std::size_t i = 0; i * every < places.size(); ++i)
                places[i] = places[i * every];
            places.resize(places.size() / every);
        }
        fill.outlines = outlines_of(part, fill, places);
        out.push_back(std::move(fill));
    }
    return out;
}

} // namespace dotlane
