// Everything derived from one version of a project.
#pragma once

#include <map>

#include "core/derive/laid.h"
#include "core/plan/plan.h"

namespace dotlane {

/// Immutable once made; shared between threads.
struct Derived {
    std::shared_ptr<const Project> project;
    std::map<PartId, std::shared_ptr<const EvaluatedPart>> parts;
    std::vector<LaidSheet> sheets;
    Findings findings;
    std::shared_ptr<const Plan> plan; ///< null: `no_plan` says why
    Error no_plan;
    bool planned = true; ///< false in what is handed out early: neither a plan nor its findings are there yet

    const EvaluatedPart* part(PartId id) const;
    const LaidSheet* sheet(SheetId id) const;
};

} // namespace dotlane
