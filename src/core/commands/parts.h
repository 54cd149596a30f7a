// What can be done to a part as a whole.
#pragma once

#include <optional>

#include "core/commands/command.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

/// Error "part.name": empty, or another part is called so.
struct RenamePart {
    PartId part;
    std::string name;
};
Result<Done> apply(const RenamePart& command, Project& project);

/// A part like it, with its lanes and its recipe; on no sheet yet. `name` empty: the next free "Heron 2".
struct CopyPart {
    PartId part;
    std::string name;
};
Result<Done> apply(const CopyPart& command, Project& project);

/// Its copies leave their sheets. Error "part.used" while another part takes its lines.
struct RemovePart {
    PartId part;
};
Result<Done> apply(const RemovePart& command, Project& project);

/// How many are wanted, 1..9999. Error "part.quantity".
struct WantPart {
    PartId part;
    int quantity = 1;
};
Result<Done> apply(const WantPart& command, Project& project);

/// Its finished size: by width or height of what it started from, before its steps, or by its scale against
/// the source, 0.0001..10,000; the first that is given. Error "part.scale".
struct SizePart {
    PartId part;
    std::optional<Length> width = {}, height = {};
    std::optional<double> scale = {};
};
Result<Done> apply(const SizePart& command, Project& project, const Catalog& catalog,
                   const EvaluatedPart& evaluated);

/// The stock that it is meant for (catalog id); empty: none in particular. Sheets keep theirs. Error
/// "command.unknown".
struct StockPart {
    PartId part;
    std::string stock;
};
Result<Done> apply(const StockPart& command, Project& project, const Catalog& catalog);

} // namespace dotlane
