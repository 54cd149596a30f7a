#include "core/recipe/step_work.h"

#include <algorithm>
#include <set>

#include "core/recipe/step.h"

namespace dotlane {
namespace {

using Given = RecipeChain::Given;

/// Lanes and switches do not change what a step does to the lines.
bool same_work(Step a, Step b) {
    a.lane = b.lane = {};
    a.aside = b.aside = false;
    return a == b;
}

/// Whether it can take long enough to be cancelled: one boolean of thousands of pieces takes a second, and
/// cannot be stopped half way.
bool takes_long(const Step& step, const Given& given) {
    constexpr std::size_t quick = 2000; // points
    if (kind_of(step.what).inks) return true;
    std::size_t points = 0;
    for (const auto* sets : {&given.of, &given.by, &given.rest})
        for (const auto& set : *sets)
            for (const FlatLine& line : set->lines)
                for (const Polyline& contour : line.contours)
                    points += contour.points.size();
    return points > quick;
}

/// What the step does to what it is given, which it holds itself.
auto work_of(const Step& step, const Given& given, const RecipeInputs& inputs,
             std::shared_ptr<Progress> own) {
    const auto it = inputs.inserted.find(step.id);
    auto brought =
        it == inputs.inserted.end() ? nullptr : std::make_shared<const Result<SourceLines>>(it->second);
    return [what = step.what, given, brought = std::move(brought), own = std::move(own)] {
        StepInput in = input_of(given);
        in.inserted = brought.get();
        return run_step(what, in, *own);
    };
}

} // namespace

StepWork::StepWork(const Part& part, const RecipeInputs& inputs, const RecipeState& base,
                   const RecipeChain* before, Progress& progress)
    : part_(part)
    , inputs_(inputs)
    , base_(base)
    , before_(before)
    , progress_(progress) {}

StepWork::~StepWork() {
    if (begun_) begun_->own->cancel();
}

Given StepWork::given_to(const Step& step, const RecipeState& state) const {
    Given out;
    const StepKind& kind = kind_of(step.what);
    if (kind.inks) {
        const auto tip = inputs_.tips.find(step.lane);
        out.tip = tip == inputs_.tips.end() ? mm(0.4) : tip->second;
    }
    const bool adds = kind.brings; // works on nothing that is there
    // Others would be done again for nothing whenever the part changes its size.
    const bool around = looks_around(step.what), places = adds || kind.places || around;
    if (const auto it = inputs_.inserted.find(step.id); it != inputs_.inserted.end() && it->second)
        out.inserted = it->second->drawing;
    for (const auto& set : state.sets) {
        const bool named = std::find(step.of.begin(), step.of.end(), set->id) != step.of.end();
        if (step.of.empty() && !adds)
            out.of.push_back(set);
        else if (!named && places)
            out.part.add(set->box());
        if (around && !named && !step.of.empty()) out.rest.push_back(set);
        if (std::find(step.by.begin(), step.by.end(), set->id) != step.by.end()) out.by.push_back(set);
    }
    for (const LineSetId id : step.of) // in the order in which they were named
        for (const auto& set : state.sets)
            if (set->id == id) out.of.push_back(set);
    out.traced = kind.prints && !out.of.empty() &&
                 std::all_of(out.of.begin(), out.of.end(), [&](const std::shared_ptr<const WorkSet>& set) {
                     const LineSet* own = dotlane::find(part_, set->id);
                     return own && own->role.starts_with(role::traced) && base_.find(set->id) == set.get();
                 });
    return out;
}

std::shared_ptr<const RecipeChain::Link> StepWork::known(const Step& step, const Given& given) const {
    if (!before_) return nullptr;
    const auto it = before_->links.find(step.id);
    const bool same =
        it != before_->links.end() && it->second->given == given && same_work(it->second->step, step);
    return same ? it->second : nullptr;
}

std::optional<StepOutcome> StepWork::outcome_of(const Step& step, const Given& given,
                                                const RecipeState& state) {
    std::optional<Begun> begun;
    if (begun_ && begun_->step == step.id) {
        begun.swap(begun_);
        if (begun->given != given) { // a step in between did more than it was taken to do
            begun->own->cancel();
            begun.reset();
        }
    }
    if (!begun && !takes_long(step, given)) {
        StepInput in = input_of(given);
        const auto it = inputs_.inserted.find(step.id);
        in.inserted = it == inputs_.inserted.end() ? nullptr : &it->second;
        return run_step(step.what, in, progress_);
    }
    if (!begun) {
        const auto own = std::make_shared<Progress>();
        auto work = work_of(step, given, inputs_, own);
        auto aside = Aside<StepOutcome>::begin_when_free(work, progress_);
        if (!aside) return {};
        begun.emplace(Begun{step.id, {}, own, std::move(*aside)});
    }
    begin_a_later_one(step, state);
    auto out = begun->work.await(progress_);
    if (!out) begun->own->cancel();
    return out;
}

/// One is enough for two cores. Whether it was given what it will be given is seen when it is its turn: steps
/// that make lines are taken to leave alone what they work on, which few do not.
void StepWork::begin_a_later_one(const Step& now, const RecipeState& state) {
    if (begun_) return;
    auto at = std::find_if(part_.steps.begin(), part_.steps.end(),
                           [&](const Step& step) { return step.id == now.id; });
    std::set<LineSetId> changed;
    const auto waits = [&](LineSetId id) { return changed.contains(id) || !state.find(id); };
    for (; at != part_.steps.end(); ++at) {
        if (!at->on) continue;
        const StepKind& kind = kind_of(at->what);
        const bool needs_rest = kind.brings || kind.places || looks_around(at->what);
        if (at->id != now.id && !needs_rest && !at->of.empty() &&
            std::none_of(at->of.begin(), at->of.end(), waits) &&
            std::none_of(at->by.begin(), at->by.end(), waits)) {
            Given given = given_to(*at, state);
            if (takes_long(*at, given) && !known(*at, given)) {
                const auto own = std::make_shared<Progress>();
                auto work = work_of(*at, given, inputs_, own);
                if (auto aside = Aside<StepOutcome>::begin(work))
                    begun_.emplace(Begun{at->id, std::move(given), own, std::move(*aside)});
                return;
            }
        }
        if (kind.makes || kind.brings) continue;
        if (at->of.empty()) return; // it changes all that there is
        changed.insert(at->of.begin(), at->of.end());
    }
}

} // namespace dotlane
