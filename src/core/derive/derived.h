// Everything derived from one version of a project.
#pragma once

#include <map>

#include "core/derive/laid.h"
#include "core/plan/plan.h"
#include "core/project/not_this_run.h"

namespace dotlane {

/// How a project is derived.
struct Wanted {
    PartId first = {};             ///< this part before all others
    Effort effort = Effort::first; ///< how long short routes are looked for; those that were found stay as
                                   ///< long as their lines do
    NotThisRun left_out = {};      ///< of the plan
};

/// Immutable once made; shared between threads.
struct Derived {
    std::shared_ptr<const Project> project;
    std::map<PartId, std::shared_ptr<const EvaluatedPart>> parts;
    std::vector<LaidSheet> sheets;
    Findings findings;
    std::shared_ptr<const Plan> plan; ///< null: `no_plan` says why
    Error no_plan;
    NotThisRun left_out;                                 ///< of the plan
    std::shared_ptr<const std::vector<SheetWork>> works; ///< that were planned; null before
    bool planned = true; ///< false in what is handed out early: neither a plan nor its findings are there yet

    const EvaluatedPart* part(PartId id) const;
    const LaidSheet* sheet(SheetId id) const;
};

} // namespace dotlane
