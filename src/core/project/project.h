// The document: plain comparable values. It holds sources, steps, lanes and choices, never anything that
// can be computed from them. Objects name one another by typed ids.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/finding.h"
#include "core/base/id.h"
#include "core/base/measure.h"
#include "core/base/units.h"
#include "core/project/actions.h"
#include "core/project/drawing.h"
#include "core/project/fold.h"
#include "core/project/running.h"
#include "core/project/sources.h"
#include "core/project/steps.h"

namespace dotlane {

/// Action + tool + settings that lines are assigned to.
struct Lane {
    LaneId id;
    Action action = Action::cut;
    std::string name;         ///< as the maker calls it: "rust pen 0.4"
    std::string tool;         ///< catalog id of the tool
    Colour colour;            ///< of the pen or foil; also the lane's colour on screen
    int repeats = 1;          ///< times the same lines are run, 1..8 (engraving is deepened so)
    Fold fold = Fold::valley; ///< of a score lane
    LineRun run = {};
    bool operator==(const Lane&) const = default;
};

/// Named lines of a part that share a lane. Each line of the source is in exactly one line set; of the lines
/// that a step makes, those that go to another lane than the step's own are in sets as well.
struct LineSet {
    LineSetId id;
    std::string name;
    LaneId lane;            ///< none: the lines are not assigned yet, an error-grade finding
    bool set_aside = false; ///< deliberately not run: guides, or outlines that only a step uses
    std::vector<LineId> lines;
    std::string role =
        {}; ///< of a source that computes its lines: those with this role are in the set; `lines` is empty
    /// That makes its lines, beside those of its own lane: those with this role; none: the source makes them.
    StepId step = {};
    bool operator==(const LineSet&) const = default;
};

/// Where a part's lines come from. What follows `spec` belongs to FromFile; the drawing is shared between
/// versions of the document, never changed. The lines of all other sources are computed from their numbers.
struct Source {
    SourceSpec spec = FromFile{};
    std::string file_name = {};  ///< without folder; for showing only
    std::uint64_t file_hash = 0; ///< FNV-1a of the file's bytes
    std::shared_ptr<const Drawing> drawing = std::make_shared<Drawing>();
    Findings notes; ///< what was left out or changed when the file was read; until dismissed
    bool operator==(const Source& o) const {
        return spec == o.spec && file_name == o.file_name && file_hash == o.file_hash && notes == o.notes &&
               (drawing == o.drawing || *drawing == *o.drawing);
    }
};

/// One thing to be made.
struct Part {
    PartId id;
    std::string name;
    int quantity = 1;  ///< 1..9999
    std::string stock; ///< catalog id
    double scale = 1;  ///< of the source; the finished size is the source's box times this
    /// Colours of the drawing that differ by no more (CIEDE2000) count as one, 0: only the same, 0..50.
    double one_colour = 0;
    Source source;
    std::vector<LineSet> sets;
    std::vector<Step> steps;
    bool operator==(const Part&) const = default;
};

/// A part on a sheet. The part is mirrored (left to right), then turned, then its anchor (see Extent) is put
/// with its top-left corner at (left, top).
struct Placement {
    PlacementId id;
    PartId part;
    Length left, top;
    Angle turn;
    bool mirrored = false;
    /// 0: the whole part. Otherwise one arrangement of a part whose pieces lie apart, by its first piece.
    int piece = 0;
    int group = 0; ///< placements of one sheet with the same number are moved together; 0: none
    /// Of a file before version 6: (left, top) is the corner of the box of all that the recipe made. Settled
    /// when the project is opened (commands/placing.h), as only an evaluated part knows its box.
    bool by_box = false;
    bool operator==(const Placement&) const = default;
};

/// What a part, or an arrangement of its pieces, covers; part coordinates, before it is mirrored or turned.
struct Extent {
    Box box;
    /// What placements hold on to: of a part its source's box, of an arrangement the middle of its own.
    /// Recipe edits that grow the part around it move nothing that lies on a sheet.
    Box anchor;
    Extent(const Box& both = {}) // NOLINT: a plain box is its own anchor
        : box(both)
        , anchor(both) {}
    Extent(const Box& b, const Box& a)
        : box(b)
        , anchor(a) {}
};

/// One piece of stock on one mat. Origin: the mat's top-left corner as loaded.
struct Sheet {
    SheetId id;
    std::string name, stock, mat; ///< catalog ids
    std::vector<Placement> placements;
    /// The first three marks of its print, as they were printed, then where the machine found them, mm on the
    /// mat; empty: they were not looked for. See derive/correction.h.
    std::vector<Point> found = {};
    bool operator==(const Sheet&) const = default;
};

struct Project {
    std::string name;
    LengthUnit unit = LengthUnit::mm; ///< shown and typed
    std::string machine;              ///< catalog id
    std::vector<LaneId> pass_order;   ///< wished by the maker; empty: the usual order
    PlanWishes wishes;
    std::vector<Lane> lanes;
    std::vector<Part> parts;
    std::vector<Sheet> sheets;
    std::uint32_t next_id = 1; ///< every id is below this
    bool operator==(const Project&) const = default;
};

const Lane* find(const Project& project, LaneId id);
const Part* find(const Project& project, PartId id);
const Sheet* find(const Project& project, SheetId id);
Lane* find(Project& project, LaneId id);
Part* find(Project& project, PartId id);
Sheet* find(Project& project, SheetId id);
const DrawnLine* find(const Drawing& drawing, LineId id);
LineSet* find(Part& part, LineSetId id);
const LineSet* find(const Part& part, LineSetId id);
const Step* find(const Part& part, StepId id);
Step* find(Part& part, StepId id);
const Placement* find_placement(const Project& project, PlacementId placement, SheetId* sheet = nullptr);
/// These and all that are grouped with one of them, in the order in which they lie on the sheet.
std::vector<PlacementId> with_groups(const Sheet& sheet, const std::vector<PlacementId>& placements);
/// The step that makes the lines of this set as those of its own lane, if one does.
const Step* maker_of(const Part& part, LineSetId result);
/// The line set of a role of the source (no step), or of a step; null when there is none.
const LineSet* set_of(const Part& part, StepId step, std::string_view role);
/// The parts whose outlines or lines its source and its steps take, each once.
std::vector<PartId> borrows_from(const Part& part);
/// Whether the part's lines are computed rather than taken from a file.
bool is_made(const Part& part);

/// "D" for the only draw lane, "D2" for the second of several.
std::string plate(const Project& project, LaneId id);

} // namespace dotlane
