// A part that came from a file, changed in its drawing: strays treated, lines taken apart into parts of their
// own. What is placed stays where it lies. What TakeApart and the remedies of strays are made of.
#pragma once

#include "core/commands/apart.h"
#include "core/recipe/strays.h"

namespace dotlane {

/// Treats the strays of a part. Error "remedy.none".
Result<void> settle_strays(Project& project, PartId part, StrayChoice choice);

/// TakeApart of a file's lines.
Result<std::vector<PartId>> drawing_apart(Project& project, PartId part, ApartBy by);

} // namespace dotlane
