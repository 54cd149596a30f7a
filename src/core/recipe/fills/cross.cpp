#include "core/project/fills/cross.h"

#include "core/recipe/pattern.h"

namespace dotlane {

FillLines fill(const CrossFill& style, const FillInput& in, Progress& progress) {
    return families({degrees(0), style.between}, in, progress);
}

} // namespace dotlane
