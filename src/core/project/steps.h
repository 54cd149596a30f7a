// The steps of a recipe. Each kind is a file below steps/ and one line in the list here. Steps that change
// lines in place keep their line sets and lanes; steps that make new lines have a line set of their own for
// them.
#pragma once

#include <string_view>
#include <variant>
#include <vector>

#include "core/base/id.h"
#include "core/project/steps/align.h"
#include "core/project/steps/backing.h"
#include "core/project/steps/clean.h"
#include "core/project/steps/copies.h"
#include "core/project/steps/corners.h"
#include "core/project/steps/cut_out.h"
#include "core/project/steps/dash.h"
#include "core/project/steps/distribute.h"
#include "core/project/steps/fill.h"
#include "core/project/steps/fill_holes.h"
#include "core/project/steps/foil_piece.h"
#include "core/project/steps/hinge.h"
#include "core/project/steps/join.h"
#include "core/project/steps/knock_out.h"
#include "core/project/steps/lay_apart.h"
#include "core/project/steps/mirror.h"
#include "core/project/steps/outline.h"
#include "core/project/steps/part.h"
#include "core/project/steps/patch.h"
#include "core/project/steps/pieces.h"
#include "core/project/steps/points.h"
#include "core/project/steps/pop_up.h"
#include "core/project/steps/print.h"
#include "core/project/steps/registration.h"
#include "core/project/steps/relief.h"
#include "core/project/steps/resize.h"
#include "core/project/steps/seam.h"
#include "core/project/steps/stencil.h"
#include "core/project/steps/turn.h"
#include "core/project/steps/weed.h"
#include "core/project/steps/words.h"

namespace dotlane {

/// In the order in which they are offered.
using StepWhat = std::variant<FillStep, OutlineStep, BackingStep, PrintStep, PatchStep, SeamStep, StencilStep,
                              WordsStep, PartStep, JoinStep, CutOutStep, KnockOutStep, FillHolesStep,
                              PiecesStep, ApartStep, CleanStep, CornersStep, DashStep, ReliefStep, HingeStep,
                              PopUpStep, ResizeStep, MirrorStep, TurnStep, AlignStep, DistributeStep,
                              CopiesStep, PointsStep, FoilPieceStep, RegistrationStep, WeedStep>;

/// Shows every member to the visitor.
void fields(StepWhat& what, Fields& f);

struct StepKind : StepRow {
    StepWhat fresh;
};
/// In the order in which they are offered.
const std::vector<StepKind>& step_kinds();
const StepKind& kind_of(const StepWhat& what);
inline Phrase word(const StepKind& kind) {
    return as_word("Steps", kind.name);
}
const StepKind* step_kind(std::string_view key);
/// "Lines along the edge": the heading under which steps with it are offered, in the order of the
/// enumerators.
const char* title(StepRow::Wanted wanted);

/// Where a step that takes lines of another part names that part; null for all others.
PartId* lender_of(StepWhat& what);
/// The part whose lines the step brings or follows; none when it does neither.
PartId borrows_from(const StepWhat& what);
/// Whether it follows the outline of the part that it is on.
bool follows_own(const StepWhat& what);
/// Of the lines that a step brings, or that stand for others; "outline" for all others.
const char* role_of(const StepWhat& what);
/// Roles of lines that it makes, as it is set, for lanes beside its own: each has a line set of the part.
std::vector<const char*> roles_of(const StepWhat& what);
/// Gives a step that inks its first choices for what its lane does.
void suit(StepWhat& what, Action action);
/// Whether the step needs the lines that it does not work on, and their box.
bool looks_around(const StepWhat& what);
/// Makes a step's lines of one of its line sets alone, from 1, for steps that can; false for others.
bool keep_only(StepWhat& what, int layer);
/// What a press on a numbered piece changes, for steps that count pieces.
void press_piece(StepWhat& what, int piece);
/// A press on the bench puts something there, or takes away what is there; false when it does neither.
bool press_place(StepWhat& what, const StepInput& in, Point at);
/// The lettering in a step; null for steps without.
Lettering* lettering_in(StepWhat& what);
const Lettering* lettering_in(const StepWhat& what);
/// How dark a step that inks is from place to place; null for steps that are the same everywhere.
FillTone* tone_in(StepWhat& what);
/// Applies the remedy of a finding that the step itself raised; false when it is not one of its own. `ink`:
/// what it reported, for steps that ink.
bool mend(StepWhat& what, const Finding& finding, const InkReport* ink);

/// One live operation of a recipe.
struct Step {
    StepId id;
    bool on = true;
    LaneId lane; ///< receives the lines it makes
    StepWhat what;
    std::vector<LineSetId> of = {}; ///< line sets it works on; empty: all that is there
    std::vector<LineSetId> by = {}; ///< the second choice, such as what is cut out
    LineSetId result = {};          ///< of the lines it makes; later steps name it in `of`
    bool aside = false;             ///< the lines it makes are not run; only later steps use them
    bool operator==(const Step&) const = default;
};

} // namespace dotlane
