#include "core/recipe/surface.h"

#include <algorithm>

#include "core/base/text.h"

namespace dotlane {
namespace {

/// The rings of all lines, each filled, in two groups: those that lie in no other, and the outermost of the
/// rest.
struct Nested {
    std::vector<Region> outlines, inside;
};

Nested nested(const Polylines& contours) {
    struct One {
        Region region;
        Box box;
        double area;
    };
    std::vector<One> all;
    for (const Polyline& c : contours) {
        if (!c.closed) continue;
        Region region = without_holes(region_of({c}, FillRule::nonzero));
        if (!region.empty()) all.push_back({region, bounds(region), in_square_mm(area(region))});
    }
    std::stable_sort(all.begin(), all.end(), [](const One& a, const One& b) { return a.area > b.area; });
    Nested out;
    for (std::size_t i = 0; i < all.size(); ++i) {
        const Point p = all[i].region.rings.front().front();
        const bool held =
            std::any_of(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(i),
                        [&](const One& o) { return o.box.contains(all[i].box) && contains(o.region, p); });
        (held ? out.inside : out.outlines).push_back(all[i].region);
    }
    return out;
}

Region by_rule(const FillStep& step, const Surface& surface, const Polylines& contours) {
    if (step.surface != FillStep::Surface::inside) {
        const Nested n = nested(contours);
        const Region inside = united(n.inside);
        return step.surface == FillStep::Surface::within ? inside : subtracted(united(n.outlines), inside);
    }
    switch (step.rule) {
    case FillStep::Rule::even_odd:
        return region_of(contours, FillRule::evenodd);
    case FillStep::Rule::nonzero:
        return region_of(contours, FillRule::nonzero);
    case FillStep::Rule::own:
        break;
    }
    return surface.areas.size() == 1 ? surface.areas.front() : united(surface.areas);
}

void keep_chosen(const FillStep& step, Surface& surface) {
    const auto places = places_in(step.only);
    if (!places || places->empty()) return;
    std::vector<Region> kept;
    for (Region& piece : pieces(surface.whole)) {
        const bool chosen = std::any_of(places->begin(), places->end(), [&](Point share) {
            return contains(piece, place_of(share, surface.box));
        });
        if (chosen)
            kept.push_back(std::move(piece));
        else
            surface.left_out.push_back({LeftOut::Why::unchosen, {}, bounds(piece)});
    }
    surface.whole = Region{};
    for (Region& piece : kept)
        surface.whole.rings.insert(surface.whole.rings.end(), piece.rings.begin(), piece.rings.end());
}

} // namespace

Surface surface_of(const FillStep& step, const StepInput& in) {
    Surface out;
    const bool together = step.rule != FillStep::Rule::own || step.surface != FillStep::Surface::inside;
    Polylines contours;
    for (const WorkSet* set : in.of)
        for (const FlatLine& line : set->lines) {
            out.any = true;
            Region area = area_of(line);
            if (area.empty()) {
                ++out.open_lines;
                out.left_out.push_back({LeftOut::Why::open, set->id, line.box});
                continue;
            }
            out.box.add(bounds(area));
            for (const Polyline& c : line.contours)
                if (together) contours.push_back({c.points, c.closed || line.filled});
            out.areas.push_back(std::move(area));
            out.of.push_back(set->id);
        }
    out.whole = by_rule(step, out, contours);
    if (!in.by.empty()) {
        std::vector<Region> spared;
        for (const WorkSet* set : in.by)
            for (const FlatLine& line : set->lines)
                spared.push_back(area_of(line));
        out.whole = subtracted(out.whole, united(spared));
    }
    keep_chosen(step, out);
    if (in_mm(step.clear) > 0) {
        Polylines others;
        for (const WorkSet* set : in.rest)
            for (const FlatLine& line : set->lines)
                others.insert(others.end(), line.contours.begin(), line.contours.end());
        if (!others.empty()) out.whole = subtracted(out.whole, stroked(others, step.clear * 2));
    }
    // What is judged and listed by lines otherwise: less than that is filled here, or something else.
    if (together || !step.only.empty() || !in.by.empty() || in_mm(step.clear) > 0) {
        out.areas = pieces(out.whole);
        out.of.assign(out.areas.size(), {});
    }
    return out;
}

std::optional<std::vector<Point>> places_in(const std::string& text) {
    std::vector<Point> out;
    for (std::size_t at = 0; at <= text.size();) {
        const std::size_t end = std::min(text.find(';', at), text.size());
        std::vector<double> numbers;
        for (std::size_t i = at; i < end;) {
            if (text[i] == ' ' || text[i] == '\t') {
                ++i;
                continue;
            }
            std::size_t stop = i;
            while (stop < end && text[stop] != ' ' && text[stop] != '\t')
                ++stop;
            const auto value = plain_number(std::string_view(text).substr(i, stop - i));
            if (!value) return std::nullopt;
            numbers.push_back(*value);
            i = stop;
        }
        if (!numbers.empty() && numbers.size() != 2) return std::nullopt;
        if (numbers.size() == 2) out.push_back({numbers[0], numbers[1]});
        at = end + 1;
    }
    return out;
}

std::string places_text(const std::vector<Point>& places) {
    std::string out;
    for (const Point p : places)
        out += (out.empty() ? "" : "; ") + number(p.x, 2) + " " + number(p.y, 2);
    return out;
}

Point place_of(Point share, const Box& box) {
    return {box.x0 + box.width() * share.x / 100, box.y0 + box.height() * share.y / 100};
}

Point share_of(Point place, const Box& box) {
    return {box.width() > 0 ? (place.x - box.x0) / box.width() * 100 : 50,
            box.height() > 0 ? (place.y - box.y0) / box.height() * 100 : 50};
}

} // namespace dotlane
