// Parts that start from what is meant: made from a source's numbers, with lanes proposed for the lines'
// roles; and steps added to a recipe with sensible first numbers.
#pragma once

#include "core/catalog/catalog.h"
#include "core/commands/command.h"
#include "core/lettering/outliner.h"
#include "core/project/edits.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

/// The name, or the name with the least number that makes it free.
std::string free_name(const Project& project, const std::string& wanted);

/// A new part. Its name is the kind's, or the text of lettering; numbered when there is one of that name
/// already. A source that takes another part's outline and names none takes that of `lender`, or of the last
/// part. Errors: "source.file", "field.range", and those of make_lines.
struct MakePart {
    SourceSpec spec;
    std::string name = {};
    PartId lender = {};
    std::vector<StepWhat> steps = {}; ///< that it begins with, on all its lines
};
Result<Done> apply(const MakePart& command, Project& project, const Catalog& catalog, FontShelf& fonts);

/// So many layers (1..20), the first on the lender and each further one on the one before, all with this
/// reveal. Errors: "layers.range", and those of MakePart.
struct AddLayers {
    Layer layer;
    int count = 1;
    std::string name = {};
    PartId lender = {};
};
Result<Done> apply(const AddLayers& command, Project& project, const Catalog& catalog, FontShelf& fonts);

/// New numbers for a part's source; roles that come up get a line set and a lane. Numbers that do not go
/// together are taken all the same, as they may be on the way to ones that do: the part then says why it
/// cannot be made. Errors: "source.kind", "field.range".
struct ChangeSource {
    PartId part;
    SourceSpec spec;
};
Result<Done> apply(const ChangeSource& command, Project& project, const Catalog& catalog, FontShelf& fonts);

/// Gives lettering whose kind was switched a font of that kind.
void fit_font(Lettering& lettering, const FontShelf& fonts);

/// Turns a choice of lines into whole line sets: sets that are computed or that a step has changed are taken
/// whole, the other lines are gathered into a set of their own.
Result<std::vector<LineSetId>> sets_of_lines(Project& project, const EvaluatedPart& evaluated,
                                             const std::vector<LineId>& lines, const std::string& name);
/// Sends lines to a lane (or to "no lane"); whole sets where `sets_of_lines` takes whole sets.
Result<void> send_lines(Project& project, const EvaluatedPart& evaluated, const std::vector<LineId>& lines,
                        LaneId lane);

/// Appends a step of a kind, with its first numbers. `of` empty: everything (not for steps that make lines).
/// A step that makes lines sends them where `of` runs (a fill to a lane that marks) and, a fill, sets its
/// sources aside.
Result<StepId> append_step(Project& project, const Catalog& catalog, PartId part, StepWhat what,
                           std::vector<LineSetId> of, std::vector<LineSetId> by = {});
/// The same for any kind: with `of` empty a step that makes lines works on all of the source's that are not
/// set aside, a fill on those of them with closed lines. Error "step.no-lines" when there are none.
Result<StepId> append_step(Project& project, const Catalog& catalog, const EvaluatedPart& evaluated,
                           StepWhat what, std::vector<LineSetId> of, std::vector<LineSetId> by = {});

/// The lane of a step that is sent by the role of what it makes: `now` where that does what the role asks
/// for, otherwise another one.
LaneId lane_by_role(Project& project, const Catalog& catalog, const StepWhat& what, LaneId now);

/// Lanes for the line sets of a step's roles that have none, but those in `known`, which the maker may have
/// left without: by what the role is for, rather another lane than the step's own.
void propose_lanes(Project& project, const Catalog& catalog, PartId part, StepId step,
                   const std::vector<LineSet>& known = {});

struct EnvelopeFit {
    const Envelope* envelope;
    bool tight; ///< less than about 6 mm (1/4 in) larger each way, which is common practice
};
/// Envelopes of the catalog that take a card of this size, turned where need be: larger by 3 to 25 mm each
/// way. The closest first, tight ones last.
std::vector<EnvelopeFit> envelopes_for(const Catalog& catalog, Length width, Length height);

} // namespace dotlane
