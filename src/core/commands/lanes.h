// Lanes that lines are sent to: named, found, made.
#pragma once

#include "core/catalog/catalog.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

/// Lane name for an action, tool and colour: "rust pen 0.4", "fold stylus".
std::string lane_name(const Catalog& catalog, Action action, const std::string& tool, Colour colour);
/// As what is drawn without a colour is shown.
inline constexpr Colour plain_ink{0x22, 0x28, 0x2c};
/// A lane of the project with this action, tool and (for pens and foil) colour; made when there is none.
/// `tool` empty: the catalog's first that does the action.
LaneId lane_for(Project& project, const Catalog& catalog, Action action, std::string tool, Colour colour);
/// The same in the colour that a line was drawn in: its stroke's, else its fill's, else plain ink.
LaneId lane_for(Project& project, const Catalog& catalog, Action action, std::string tool,
                const EvaluatedPart& part, LineId line);

} // namespace dotlane
