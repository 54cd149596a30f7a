// What one run leaves out. No part of the project: so that a saved one can make just some of its things
// again.
#pragma once

#include <set>

#include "core/base/id.h"

namespace dotlane {

struct NotThisRun {
    std::set<PartId> parts;
    std::set<SheetId> sheets;
    std::set<LaneId> lanes;
    bool empty() const { return parts.empty() && sheets.empty() && lanes.empty(); }
    bool operator==(const NotThisRun&) const = default;
};

} // namespace dotlane
