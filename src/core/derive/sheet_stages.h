// The stages that make sheets and the plan: where everything lies, what lies on one another, the lines of
// each lane, their route, their pass, the plan.
#pragma once

#include "core/derive/laid.h"
#include "core/derive/stage.h"
#include "core/plan/plan.h"

namespace dotlane {

struct LayoutOf {
    using Id = SheetId;
    struct Lying {
        Phrase name;
        std::shared_ptr<const Footprint> footprint;
        bool operator==(const Lying&) const = default;
    };
    struct Key {
        Sheet sheet;
        std::string machine;
        std::vector<Lying> lying; ///< as the placements of the sheet
        bool operator==(const Key&) const = default;
    };
    struct Value {
        LaidSheet laid;
        Findings findings;
        bool known = true; ///< its stock and mat are in the catalog
    };
    static Value make(const Key& key, const Value* before, const Fixed& fixed, Progress& progress);
};

/// "sheet.cut-through" (error) and "sheet.overlap" (caution), each once for a pair. Overlaps of under 0.05 mm
/// are edges that touch. A part in the hole of another, or two that interlock, overlap in nothing but boxes.
struct OverlapsOf {
    using Id = SheetId;
    struct Key {
        std::string sheet; ///< its name
        std::shared_ptr<const LayoutOf::Value> layout;
        bool operator==(const Key&) const = default;
    };
    using Value = Findings;
    static Value make(const Key& key, const Value* before, const Fixed& fixed, Progress& progress);
};

/// The lines of one lane on one sheet.
struct LinesOf {
    using Id = std::pair<SheetId, LaneId>;
    struct Placed {
        PlacementId placement;
        int piece = 0;
        Affine to_sheet;
        std::shared_ptr<const Footprint> footprint; ///< of which only the part is read
        std::vector<StepId> kept = {};              ///< whose strokes are run in the order they stand in
        bool operator==(const Placed&) const = default;
    };
    struct Key {
        LaneId lane;
        std::vector<Placed> placed;
        bool operator==(const Key&) const = default;
    };
    using Value = LaneLines;
    static Value make(const Key& key, const Value* before, const Fixed& fixed, Progress& progress);
    static bool same(const Value& a, const Value& b) { return a == b; }
};

/// The order in which they are run.
struct RouteOf {
    using Id = std::pair<SheetId, LaneId>;
    struct Key {
        std::shared_ptr<const LaneLines> lines;
        RouteOptions options;
        LineStart start = LineStart::anywhere; ///< of closed lines
        /// What was made with more effort than is wanted does as well.
        bool operator==(const Key& wanted) const {
            RouteOptions same = wanted.options;
            same.effort = std::max(same.effort, options.effort);
            return lines == wanted.lines && options == same && start == wanted.start;
        }
    };
    using Value = RouteResult;
    static Value make(const Key& key, const Value* before, const Fixed& fixed, Progress& progress);
};

/// The same as they are run.
struct PassOf {
    using Id = std::pair<SheetId, LaneId>;
    struct Key {
        std::shared_ptr<const LaneLines> lines;
        std::shared_ptr<const RouteResult> route;
        Point rest;
        ToolPath path;
        int repeats = 1;
        bool operator==(const Key&) const = default;
    };
    using Value = RoutedPass;
    static Value make(const Key& key, const Value* before, const Fixed& fixed, Progress& progress);
};

/// What is printed on a sheet before the machine has it.
struct PrintOf {
    using Id = SheetId;
    struct Key {
        ProgramSheet sheet;
        std::shared_ptr<const LayoutOf::Value> layout;
        Project scope; ///< with the lanes and the parts that lie there
        bool operator==(const Key&) const = default;
    };
    struct Value {
        std::shared_ptr<const PrintSheet> sheet; ///< null: nothing
        Findings findings;
    };
    static Value make(const Key& key, const Value* before, const Fixed& fixed, Progress& progress);
};

struct PlanOf {
    using Id = int; ///< there is one
    struct Key {
        std::string project, machine;
        std::vector<SheetWork> sheets;
        PlanOptions options;
        std::vector<ProgramPart> parts;
        /// What was made with more effort than is wanted does as well.
        bool operator==(const Key& wanted) const {
            PlanOptions same = wanted.options;
            same.effort = std::max(same.effort, options.effort);
            return project == wanted.project && machine == wanted.machine && options == same &&
                   sheets == wanted.sheets && parts == wanted.parts;
        }
    };
    using Value = Result<Plan>;
    static Value make(const Key& key, const Value* before, const Fixed& fixed, Progress& progress);
};

} // namespace dotlane
