// What is done about a finding: ordinary edits of a project.
#pragma once

#include "core/commands/command.h"
#include "core/derive/derived.h"

namespace dotlane {

/// Its remedy (the first; another of them stands in `finding.remedy` to be taken). Error "remedy.none" when
/// there is nothing to mend any more.
struct MendFinding {
    Finding finding;
};
Result<Done> apply(const MendFinding& command, Project& project, const Catalog& catalog,
                   const Derived& derived);
/// Whether a remedy of this code is known, other than those of steps for their own findings.
bool has_remedy(std::string_view code);

/// Whose the finding is, for lists of those of many: the name of its part, or else of its sheet; empty where
/// its message says so itself, or it is nobody's.
std::string owner_of(const Project& project, const Finding& finding);

// Those of pieces and marks (core/checks/piece_checks.h). Error "remedy.none": the lines are gone since.
/// Adds a clean step that takes away what is narrower than the finding's least width.
Result<void> open_narrow(Project& project, const Finding& finding);
/// Adds an outline step around the narrow lines, which are set aside.
Result<void> thicken(Project& project, const Finding& finding);
/// Adds a pieces step that drops the piece.
Result<void> drop_piece(Project& project, const Derived& derived, const Finding& finding);
/// Remedies of "marks.beyond".
Result<void> bring_marks_in(Project& project, const Finding& finding);

// Those of what does not fit (core/checks/fit_checks.h). Error "remedy.none".
/// Turns what runs out and lays it in the middle of what the tool reaches: the placement that a finding on a
/// sheet tells of, or all that run out; a part that lies on no sheet is placed on one that takes it.
Result<void> turn_to_fit(Project& project, const Catalog& catalog, const Derived& derived,
                         const Finding& finding);
/// A folded card becomes panels with glued hinges, laid apart.
Result<void> make_panels(Project& project, const Finding& finding);

} // namespace dotlane
