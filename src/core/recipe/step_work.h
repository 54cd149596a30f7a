// What each step of a recipe is given, and what it makes of that: aside where it takes long, and before its
// turn where nothing that runs until then is seen to touch what it works on.
#pragma once

#include <memory>
#include <optional>

#include "core/base/aside.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

class StepWork {
  public:
    /// `base`: the lines before any step. `before`: what the steps did last; null at first. All must outlive
    /// it; the part's steps are not changed meanwhile.
    StepWork(const Part& part, const RecipeInputs& inputs, const RecipeState& base, const RecipeChain* before,
             Progress& progress);
    StepWork(const StepWork&) = delete;
    StepWork& operator=(const StepWork&) = delete;
    ~StepWork();

    RecipeChain::Given given_to(const Step& step, const RecipeState& state) const;
    /// What the step did when it was last given the same; null when it was not.
    std::shared_ptr<const RecipeChain::Link> known(const Step& step, const RecipeChain::Given& given) const;
    /// None when cancelled. `state`: of the lines as they are when it is the step's turn.
    std::optional<StepOutcome> outcome_of(const Step& step, const RecipeChain::Given& given,
                                          const RecipeState& state);

  private:
    /// A step whose work goes on aside.
    struct Begun {
        StepId step;
        RecipeChain::Given given;
        std::shared_ptr<Progress> own;
        Aside<StepOutcome> work;
    };

    void begin_a_later_one(const Step& now, const RecipeState& state);

    const Part& part_;
    const RecipeInputs& inputs_;
    const RecipeState& base_;
    const RecipeChain* before_;
    Progress& progress_;
    std::optional<Begun> begun_; ///< before its turn
};

} // namespace dotlane
