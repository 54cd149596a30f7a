#include "core/commands/colours.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/base/text.h"
#include "core/commands/apart.h"
#include "core/geometry/polyline.h"
#include "core/project/colour_difference.h"
#include "core/project/edits.h"

namespace dotlane {
namespace {

double covered_by(const DrawnLine& line) {
    double out = 0;
    for (const Polyline& contour : flattened(line.shape))
        out += contour.closed || line.drawn.fill ? std::abs(signed_area_mm2(contour.points))
                                                 : in_mm(length(contour)) * 0.3;
    return out;
}

} // namespace

std::vector<ColourGroup> colour_groups(const Drawing& drawing, double within) {
    struct One {
        Colour colour;
        Lab lab;
        double covers = 0;
        std::size_t group = 0;
    };
    std::vector<One> all;
    std::map<Colour, std::size_t> at;
    for (const DrawnLine& line : drawing.lines) {
        const auto& colour = line.drawn.fill ? line.drawn.fill : line.drawn.stroke;
        if (!colour) continue;
        const auto [entry, fresh] = at.try_emplace(*colour, all.size());
        if (fresh) all.push_back({*colour, lab_of(*colour), 0, 0});
        all[entry->second].covers += covered_by(line);
    }
    std::vector<std::size_t> by_cover(all.size());
    for (std::size_t i = 0; i < all.size(); ++i)
        by_cover[i] = i;
    std::stable_sort(by_cover.begin(), by_cover.end(),
                     [&](std::size_t a, std::size_t b) { return all[a].covers > all[b].covers; });
    std::vector<ColourGroup> groups;
    for (const std::size_t i : by_cover) {
        std::size_t best = groups.size();
        double least = within;
        for (std::size_t g = 0; g < groups.size(); ++g) {
            const double d = colour_difference(lab_of(groups[g].shown), all[i].lab);
            if (d <= least) least = d, best = g;
        }
        if (best == groups.size())
            groups.push_back({all[i].colour, {}, {}, 0});
        else
            groups[best].farthest = std::max(groups[best].farthest, least);
        groups[best].members.push_back(all[i].colour);
        all[i].group = best;
    }
    for (const DrawnLine& line : drawing.lines)
        if (const auto& colour = line.drawn.fill ? line.drawn.fill : line.drawn.stroke)
            groups[all[at.at(*colour)].group].lines.push_back(line.id);
    std::sort(groups.begin(), groups.end(),
              [](const ColourGroup& a, const ColourGroup& b) { return a.lines.front() < b.lines.front(); });
    return groups;
}

Result<Done> apply(const JoinColours& command, Project& project) {
    if (!(command.within >= 0 && command.within <= 50))
        return fail("colours.range", say("Colours may count as one up to a difference of 50."));
    const Part* found = find(project, command.part);
    if (!found) return fail("edit.missing", say("There is no such part in this project."));
    if (is_made(*found))
        return fail("colours.none", say("Only a drawing has colours; \"%1\" is computed.", found->name));
    const std::size_t before = colour_groups(*found->source.drawing, 0).size();
    Project next = project;
    find(next, command.part)->one_colour = command.within;
    if (const auto ok = layers_by_colour(next, command.part); !ok) return tl::make_unexpected(ok.error());
    const std::size_t after = colour_groups(*found->source.drawing, command.within).size();
    project = std::move(next);
    Done done{before == after ? say_n(before, "%n [colour|colours], none alike.")
                              : say_n(before, "%n [colour|colours] count as %1.", after),
              command.part};
    done.parts = {command.part};
    return done;
}

} // namespace dotlane
