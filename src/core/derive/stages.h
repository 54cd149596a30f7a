// All stages, in the order in which one reads the other; one place that prunes.
#pragma once

#include <tuple>

#include "core/derive/part_stages.h"
#include "core/derive/sheet_stages.h"

namespace dotlane {

class Stages {
  public:
    template<class What>
    Stage<What>& of() {
        return std::get<Stage<What>>(all_);
    }
    /// What was not asked for since the last time belongs to what is gone.
    void prune() {
        std::apply([](auto&... stage) { (stage.prune(), ...); }, all_);
    }
    /// How many things are kept.
    std::size_t size() const {
        return std::apply([](const auto&... stage) { return (stage.size() + ...); }, all_);
    }

  private:
    std::tuple<Stage<SourceOf>, Stage<BroughtOf>, Stage<RecipeOf>, Stage<LentOf>, Stage<PartChecksOf>,
               Stage<TipChecksOf>, Stage<FootprintOf>, Stage<LayoutOf>, Stage<OverlapsOf>, Stage<LinesOf>,
               Stage<RouteOf>, Stage<PassOf>, Stage<PrintOf>, Stage<PlanOf>>
        all_;
};

} // namespace dotlane
