#include "core/recipe/state.h"

namespace dotlane {

Box WorkSet::box() const {
    Box out;
    for (const FlatLine& line : lines)
        out.add(line.box);
    out.add(bounds(strokes));
    return out;
}

const WorkSet* RecipeState::find(LineSetId id) const {
    for (const auto& set : sets)
        if (set->id == id) return set.get();
    return nullptr;
}

} // namespace dotlane
