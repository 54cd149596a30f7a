#include "core/recipe/strays.h"

#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/geometry/polyline.h"
#include "core/recipe/evaluate.h"
#include "core/recipe/findings.h"

namespace dotlane {
namespace {

constexpr double near_share = 0.25;   ///< of the drawing's larger side
constexpr double least_share = 0.5;   ///< of the art's larger side: what is nearer is no stray
constexpr int most_halved = 2;        ///< times; so no more than some hundred clusters are ever told apart
constexpr double stray_size = 0.25;   ///< of the art's larger side
constexpr double stray_length = 0.05; ///< of the art's length
constexpr std::size_t most_lines = 200'000;

double side(const Box& box) {
    return std::max(box.width(), box.height());
}

struct Grouped {
    std::vector<std::size_t> lines;
    Box box;
    double length = 0;
};

/// Boxes near each other, swept from left to right: each joins the groups it comes near, which become one. A
/// group's box may be nearer than any of its lines: what is doubtful belongs to the art.
std::vector<Grouped> grouped(const std::vector<Box>& boxes, std::vector<std::size_t> order, double reach) {
    std::sort(order.begin(), order.end(),
              [&](std::size_t a, std::size_t b) { return boxes[a].x0 < boxes[b].x0; });
    std::vector<Grouped> out;
    for (const std::size_t i : order) {
        Grouped now{{i}, boxes[i]};
        for (bool grew = true; grew;) {
            grew = false;
            for (std::size_t g = 0; g < out.size();) {
                if (gap(out[g].box, now.box) > reach) {
                    ++g;
                    continue;
                }
                if (out[g].lines.size() > now.lines.size()) std::swap(out[g].lines, now.lines);
                now.lines.insert(now.lines.end(), out[g].lines.begin(), out[g].lines.end());
                now.box.add(out[g].box);
                std::swap(out[g], out.back());
                out.pop_back();
                grew = true;
            }
        }
        out.push_back(std::move(now));
    }
    return out;
}

struct Told {
    Box main;
    std::vector<Grouped> strays;
    std::vector<std::size_t> rest;
};

Told told_apart(const std::vector<Box>& boxes, const std::vector<double>& lengths,
                const std::vector<std::size_t>& lines, double reach) {
    auto groups = grouped(boxes, lines, reach);
    for (Grouped& group : groups)
        for (const std::size_t i : group.lines)
            group.length += lengths[i];
    std::sort(groups.begin(), groups.end(),
              [](const Grouped& a, const Grouped& b) { return a.length > b.length; });
    Told out{groups.front().box, {}, {}};
    const double length = groups.front().length;
    Box art;
    const auto to_rest = [&](const Grouped& group) {
        art.add(group.box);
        out.rest.insert(out.rest.end(), group.lines.begin(), group.lines.end());
    };
    const auto small = [&](std::size_t i) { return side(boxes[i]) <= stray_size * side(out.main); };
    for (Grouped& group : groups)
        if (group.length <= stray_length * length &&
            std::all_of(group.lines.begin(), group.lines.end(), small))
            out.strays.push_back(std::move(group));
        else
            to_rest(group);
    // What lies between two halves of the art is no stray.
    std::erase_if(out.strays, [&](const Grouped& group) {
        if (gap(group.box, art) > 0) return false;
        to_rest(group);
        return true;
    });
    return out;
}

/// From a box to the art, leaving the usual gap on the side where it lay.
Point towards(const Box& stray, const Box& art) {
    const Box rim = art.grown(stray_gap_mm);
    const auto shift = [](double lo, double hi, double a, double z) {
        return hi < a ? a - hi : lo > z ? z - lo : 0.0;
    };
    return {shift(stray.x0, stray.x1, rim.x0, rim.x1), shift(stray.y0, stray.y1, rim.y0, rim.y1)};
}

} // namespace

Strays strays_of(const Drawing& drawing) {
    Strays out;
    const auto& lines = drawing.lines;
    if (lines.size() < 2 || lines.size() > most_lines) return out;
    std::vector<Box> boxes(lines.size());
    std::vector<double> lengths(lines.size());
    std::vector<std::size_t> left(lines.size());
    for (std::size_t i = 0; i < lines.size(); ++i) {
        left[i] = i;
        boxes[i] = bounds(lines[i].shape);
        for (const Polyline& flat : flattened(lines[i].shape))
            lengths[i] += in_mm(length(flat));
    }
    constexpr double least_side = 0.01; // mm; points on one spot have no art among them
    double reach = 0;
    int halved = 0;
    while (left.size() > 1) {
        Box all;
        for (const std::size_t i : left)
            all.add(boxes[i]);
        out.art = all;
        if (side(all) < least_side) break;
        if (reach <= 0) reach = near_share * side(all), halved = 0;
        Told told = told_apart(boxes, lengths, left, reach);
        const bool small = reach < least_share * side(told.main); // as one may lead to the next within it
        if (small && told.strays.empty()) break;
        if (small || told.strays.empty()) {
            if (halved++ == most_halved) break;
            reach /= 2;
            continue;
        }
        for (Grouped& group : told.strays) {
            std::sort(group.lines.begin(), group.lines.end());
            out.boxes.push_back(group.box);
            out.clusters.push_back(std::move(group.lines));
        }
        left = std::move(told.rest);
        reach = 0; // those far off made nearer ones look near
    }
    for (const Box& box : out.boxes)
        out.farthest_mm = std::max(out.farthest_mm, gap(box, out.art));
    return out;
}

std::optional<StrayChoice> stray_choice(std::string_view word) {
    if (word.starts_with("stray.")) word.remove_prefix(6);
    if (word == "keep") return StrayChoice::keep;
    if (word == "near") return StrayChoice::near;
    if (word == "drop") return StrayChoice::drop;
    return {};
}

Drawing without_strays(const Drawing& drawing, StrayChoice choice) {
    Drawing out = drawing;
    const Strays strays = strays_of(drawing);
    if (choice == StrayChoice::near)
        for (std::size_t c = 0; c < strays.clusters.size(); ++c) {
            const Point by = towards(strays.boxes[c], strays.art);
            for (const std::size_t i : strays.clusters[c])
                out.lines[i].shape = transformed(out.lines[i].shape, Affine::translation(by));
        }
    if (choice == StrayChoice::drop) {
        std::vector<bool> gone(drawing.lines.size());
        for (const auto& cluster : strays.clusters)
            for (const std::size_t i : cluster)
                gone[i] = true;
        std::size_t at = 0;
        std::erase_if(out.lines, [&](const DrawnLine&) { return gone[at++]; });
    }
    return out;
}

std::optional<Finding> stray_finding(const Drawing& drawing, double scale) {
    const Strays strays = strays_of(drawing);
    if (strays.empty()) return {};
    std::size_t lines = 0;
    Box where;
    for (std::size_t c = 0; c < strays.clusters.size(); ++c) {
        lines += strays.clusters[c].size();
        where.add(strays.boxes[c]);
    }
    Box all = where;
    all.add(strays.art);
    const auto size = [scale](const Box& box) {
        return number(box.width() * scale, 1) + " x " + number(box.height() * scale, 1) + " mm";
    };
    const Box at{where.x0 * scale, where.y0 * scale, where.x1 * scale, where.y1 * scale};
    return recipes::open_stray({{}, {}, {}, {}, place_of(at)}, Count{lines}, {strays.farthest_mm * scale},
                               size(all), size(strays.art));
}

} // namespace dotlane
