// What can be done to a part as a whole.
#pragma once

#include "core/commands/command.h"

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

/// The stock that it is meant for (catalog id); empty: none in particular. Sheets keep theirs. Error
/// "command.unknown".
struct StockPart {
    PartId part;
    std::string stock;
};
Result<Done> apply(const StockPart& command, Project& project, const Catalog& catalog);

} // namespace dotlane
