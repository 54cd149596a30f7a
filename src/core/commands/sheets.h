// What can be done to a sheet as a whole.
#pragma once

#include <optional>

#include "core/commands/command.h"

namespace dotlane {

/// Empty name: the next free "sheet 3". Empty stock and mat: those of the last sheet, otherwise the catalog's
/// first stock and the machine's first mat. Errors: "sheet.name" (there is one), "command.unknown".
struct AddSheet {
    std::string name, stock, mat;
};
Result<Done> apply(const AddSheet& command, Project& project, const Catalog& catalog);

/// What is not given stays; what lies on it stays where it is. Errors: "sheet.name", "command.unknown",
/// "sheet.marks".
struct ChangeSheet {
    SheetId sheet;
    std::optional<std::string> name = {}, stock = {}, mat = {};
    std::optional<std::vector<Point>> found = {}; ///< Sheet::found; none: to forget them
};
Result<Done> apply(const ChangeSheet& command, Project& project, const Catalog& catalog);

/// All that lies on it lies nowhere then; the sheet stays. Error "sheet.empty".
struct ClearSheet {
    SheetId sheet;
};
Result<Done> apply(const ClearSheet& command, Project& project);

/// What lies on it lies nowhere then.
struct RemoveSheet {
    SheetId sheet;
};
Result<Done> apply(const RemoveSheet& command, Project& project);

} // namespace dotlane
