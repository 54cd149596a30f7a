// The styles of fill: one line each.
#pragma once

#include <variant>
#include <vector>

#include "core/project/fills/parallel.h"

namespace dotlane {

using FillStyle = std::variant<ParallelFill>;

struct FillKind : FillRow {
    FillStyle fresh;
};
/// In the order in which they are offered.
const std::vector<FillKind>& fill_kinds();

/// The choice of a style; another one has its first numbers.
void choose(FillStyle& style, Fields& f);
/// The numbers of the chosen one.
void fields(FillStyle& style, Fields& f);

} // namespace dotlane
