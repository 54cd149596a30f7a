// One derivation: asks the stages in their order for what one version of a project needs.
#pragma once

#include <functional>

#include "core/derive/derived.h"
#include "core/derive/stages.h"

namespace dotlane {

class Derivation {
  public:
    using Early = std::function<void(std::shared_ptr<const Derived>)>;
    Derivation(std::shared_ptr<const Project> project, const Fixed& fixed, Stages& stages, Progress& progress,
               const Wanted& wanted);
    /// Null when cancelled.
    std::shared_ptr<const Derived> run(const Early& early);

  private:
    template<class What>
    typename Stage<What>::Made get(const typename What::Id& id, typename What::Key key) {
        return stages_.of<What>().get(id, std::move(key), fixed_, progress_);
    }
    using Loans = std::map<PartId, std::shared_ptr<const Borrowed>>;

    /// One part and those that it takes lines of.
    bool evaluate_into(Derived& derived, const Part& part);
    bool lend_to(const Part& part, const Derived& derived, Loans& out);
    /// All that take lines of nobody, side by side.
    bool evaluate_independent();
    /// What its evaluation may read; none when cancelled.
    std::optional<RecipeOf::Key> recipe_key(const Part& part, const Loans& loans);
    bool lay_out();
    void check_lanes();
    bool check_parts();
    bool check_overlaps();
    bool plan();
    Affine corrected(const Sheet& sheet, const PrintSheet* print);
    void check_faces(const Sheet& sheet, const LaidSheet& laid);
    std::shared_ptr<const LayoutOf::Value>
    without_left_out(const std::shared_ptr<const LayoutOf::Value>& layout) const;
    struct LaneWay {
        const Sheet& sheet;
        Box reach;
        ToolPath path;
        bool corrected; ///< its lines follow the print, off where they were laid
    };
    LaneWay way_of(LaneWork& work, const Sheet& sheet, const Stock& stock, const Box& reach,
                   bool corrected) const;
    bool route_lanes(std::vector<SheetWork>& works, const std::vector<LaneWay>& ways);
    void check_reach(const LaneWork& work, const LaneWay& way);
    bool add_works(std::vector<SheetWork>& works);
    void tell(const Findings& findings);

    std::shared_ptr<const Project> shared_;
    const Project& project_;
    const Fixed& fixed_;
    Stages& stages_;
    Progress& progress_;
    const Wanted& wanted_;
    LaneTips tips_;
    std::shared_ptr<Derived> out_;
    std::vector<std::shared_ptr<const LayoutOf::Value>> layouts_; ///< as the sheets
};

} // namespace dotlane
