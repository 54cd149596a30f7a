// What differs between two versions of a project: so that what shows it need not be built anew for all else.
#pragma once

#include <set>

#include "core/project/project.h"

namespace dotlane {

struct Changes {
    bool name = false, unit = false, machine = false, order = false, lanes = false;
    bool part_list = false, sheet_list = false; ///< some came, went or changed places
    std::set<PartId> parts;                     ///< that differ, and those that came
    std::set<SheetId> sheets;

    bool part(PartId id) const { return part_list || parts.contains(id); }
    bool sheet(SheetId id) const { return sheet_list || sheets.contains(id); }
    /// Another project: everything.
    static Changes all(const Project& now);
};

Changes changes_between(const Project& before, const Project& now);

} // namespace dotlane
