#include "core/recipe/fill.h"

namespace dotlane {

FillLines filled(const FillStyle& style, const FillInput& in, Progress& progress) {
    return std::visit([&](const auto& s) { return fill(s, in, progress); }, style);
}

} // namespace dotlane
