// The one pipeline: project -> evaluated parts -> sheets -> plan, with the one list of checks. The window and
// the CLI both call it; neither computes anything on its own.
#pragma once

#include <functional>
#include <map>
#include <memory>
#include <mutex>

#include "core/base/finding.h"
#include "core/catalog/catalog.h"
#include "core/lettering/outliner.h"
#include "core/plan/plan.h"
#include "core/project/project.h"
#include "core/recipe/evaluate.h"
#include "core/sheets/layout.h"
#include "core/workflow/lending.h"

namespace dotlane {

struct PlacedPart {
    Placement placement;
    Affine to_sheet;
    Box box;     ///< on the sheet, of the part's own box turned with it
    Box outline; ///< on the sheet, of the lines themselves: smaller when the part is turned askew
};

struct LaidSheet {
    SheetId sheet;
    std::vector<PlacedPart> parts;
    Box usable, stock;
    Length mat_width, mat_height;
};

/// Everything derived from one version of a project. Immutable once made; shared between threads.
struct Derived {
    std::shared_ptr<const Project> project;
    std::map<PartId, std::shared_ptr<const EvaluatedPart>> parts;
    std::vector<LaidSheet> sheets;
    Findings findings;
    std::optional<Plan> plan; ///< empty: `no_plan` says why
    Error no_plan;
    bool planned = true; ///< false in what is handed out early: neither a plan nor its findings are there yet

    const EvaluatedPart* part(PartId id) const;
    const LaidSheet* sheet(SheetId id) const;
};

class Footprints;

class Workshop {
  public:
    explicit Workshop(Catalog catalog);
    ~Workshop();

    const Catalog& catalog() const { return catalog_; }
    /// The fonts that ship with the program are read when they are first asked for. Any thread.
    FontShelf& fonts();
    /// Called from the working thread with what can be drawn already: parts and sheets, before the plan; and
    /// before that, where a first part is asked for, with that part (and those it takes lines of) alone.
    using Early = std::function<void(std::shared_ptr<const Derived>)>;
    /// Evaluates, lays out, checks and plans. Null when cancelled. May be called from any thread; calls take
    /// turns.
    std::shared_ptr<const Derived> derive(std::shared_ptr<const Project> project,
                                          Progress& progress = no_progress(), const Early& early = {},
                                          PartId first = {});
    /// A project with the first machine of the catalog and nothing in it.
    Project new_project(std::string name) const;

  private:
    /// What a part takes of others, by the part it is taken of.
    using Loans = std::map<PartId, std::shared_ptr<const Borrowed>>;
    struct CachedPart {
        Part part;
        Loans loans;
        LaneTips tips;
        std::map<LaneId, Action> actions;
        std::shared_ptr<const EvaluatedPart> result;
        std::shared_ptr<const Borrowed> lent; ///< made when another part takes it
        std::vector<const Stock*> checked_for;
        std::string checked_on;         ///< machine
        std::optional<Findings> checks; ///< made after the part has been handed out
    };
    std::shared_ptr<const EvaluatedPart> evaluated(const Project& project, const Part& part,
                                                   const LaneTips& tips, const Loans& loans,
                                                   Progress& progress);
    Loans loans_of(const Project& project, const Part& part, const Derived& derived);
    /// One part and those that it takes lines of.
    bool evaluate_into(Derived& derived, const Part& part, const LaneTips& tips, Progress& progress);
    void check_parts(const Project& project, Derived& derived, Progress& progress);
    SourceLines source_lines(const Part& part, const Loans& loans, Progress& progress);
    std::map<StepId, Result<SourceLines>> brought(const Part& part, const SourceLines& source,
                                                  const Loans& loans);
    Result<std::vector<SheetWork>> sheet_works(const Project& project, Derived& derived) const;
    void check_lanes(const Project& project, Derived& derived) const;
    void lay_out(const Project& project, Derived& derived) const;

    Catalog catalog_;
    std::mutex turn_; ///< of derive: it guards the caches
    std::once_flag fonts_ready_;
    FontShelf fonts_;
    RecipeCache cache_;
    std::unique_ptr<Footprints> footprints_;
    std::map<PartId, CachedPart> parts_;
    struct CachedSource {
        SourceSpec spec;
        std::shared_ptr<const Borrowed> borrowed;
        SourceLines lines;
    };
    std::map<PartId, CachedSource> sources_; ///< of parts whose lines are computed
    struct CachedBrought {
        StepWhat what;
        std::shared_ptr<const Borrowed> borrowed;
        std::shared_ptr<const Drawing> own; ///< of the part, when words follow its outline
        Result<SourceLines> lines = SourceLines{};
    };
    std::map<StepId, CachedBrought> brought_;
};

/// "Lantern sleeve", "Bunting letters (piece 3)".
std::string placed_name(const Project& project, const Placement& placement);
/// "project.near-limit" when a project's file is about so large that it soon cannot be saved; an error
/// beyond.
std::optional<Finding> near_limit(std::uint64_t bytes);

/// Applies a finding's remedy. Error "remedy.none" when there is nothing to apply any more.
Result<void> apply_remedy(Project& project, const Catalog& catalog, const Derived& derived,
                          const Finding& finding);

} // namespace dotlane
