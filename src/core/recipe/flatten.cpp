#include "core/recipe/flatten.h"

#include <unordered_map>

namespace dotlane {
namespace {

/// Ends that meet make a closed line, whether or not its file says so.
void close_up(Polyline& flat, const Contour& drawn) {
    if (flat.closed || !closes(drawn) || flat.points.size() < 4) return;
    flat.closed = true;
    flat.points.pop_back();
}

} // namespace

std::shared_ptr<const RecipeState> flatten_source(const Part& part, const Drawing& drawing, bool made) {
    std::unordered_map<LineId, std::size_t> set_of_line;
    std::unordered_map<std::string, std::size_t> set_of_role;
    std::vector<std::shared_ptr<WorkSet>> sets;
    for (const LineSet& set : part.sets) {
        if (set.step) continue;
        for (const LineId line : set.lines)
            set_of_line[line] = sets.size();
        if (!set.role.empty()) set_of_role[set.role] = sets.size();
        sets.push_back(std::make_shared<WorkSet>());
        sets.back()->id = set.id;
        sets.back()->worked = !set.role.empty();
        sets.back()->lines.reserve(set.lines.size());
    }
    std::shared_ptr<WorkSet> loose;
    const Affine by = Affine::scaling(part.scale, part.scale);
    for (std::size_t i = 0; i < drawing.lines.size(); ++i) {
        const DrawnLine& line = drawing.lines[i];
        FlatLine flat{line.id,
                      {},
                      line.shape.rule,
                      line.drawn.fill.has_value(),
                      {},
                      {},
                      static_cast<std::ptrdiff_t>(i)};
        // Flattened at finished size, so the tolerance means what it says.
        flat.contours = part.scale == 1 ? flattened(line.shape) : flattened(transformed(line.shape, by));
        for (std::size_t c = 0; c < flat.contours.size(); ++c)
            close_up(flat.contours[c], line.shape.contours[c]);
        flat.box = bounds(flat.contours);
        const auto role = made ? set_of_role.find(line.group) : set_of_role.end();
        const auto of = made ? set_of_line.end() : set_of_line.find(line.id);
        WorkSet* set = nullptr;
        if (role != set_of_role.end())
            set = sets[role->second].get();
        else if (of != set_of_line.end())
            set = sets[of->second].get();
        else {
            if (!loose) loose = std::make_shared<WorkSet>();
            set = loose.get();
        }
        set->lines.push_back(std::move(flat));
    }
    auto state = std::make_shared<RecipeState>();
    state->sets.assign(sets.begin(), sets.end());
    if (loose) state->sets.push_back(loose);
    return state;
}

} // namespace dotlane
