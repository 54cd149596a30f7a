#include "core/plan/time_reasons.h"

#include "core/base/text.h"

namespace dotlane {
namespace {

Reason of_hands(const PlanTotals& totals, const Sequence& sequence, const PlanOptions& options) {
    const double hands = in_seconds(totals.hands);
    const Phrase stops = say_n(static_cast<std::size_t>(totals.stops), "%n [stop|stops]"),
                 time = as_is(spoken_seconds(hands)),
                 least = as_is(spoken_seconds(hands - sequence.hands + sequence.least));
    if (options.wishes.school == School::tools) {
        const Phrase each = say("This order takes %1 of your time at %2.", time, stops);
        return {"hands.tools", each};
    }
    const bool free = options.order.empty() && options.wishes.rules.empty() && options.wishes.pins.empty();
    const Phrase sentence =
        !sequence.proven
            ? say("This order takes %1 of your time at %2. That none takes less is not proven: below %3 "
                  "there is none.",
                  time, stops, least)
        : free ? say("No order of the sheets, the passes and the swaps takes less of your time: %1 at %2, "
                     "the last of them only to unload.",
                     time, stops)
               : say("As you wish the order, no sequence of the sheets and the swaps takes less of "
                     "your time: %1 at %2, the last of them only to unload.",
                     time, stops);
    return {"hands.least", sentence};
}

} // namespace

void explain_time(Plan& plan, const Sequence& sequence, const PlanOptions& options) {
    const PlanTotals& t = plan.totals;
    if (t.passes > 0) plan.reasons.insert(plan.reasons.begin(), of_hands(t, sequence, options));
    if (t.meanwhile != Duration()) { // there are passes then
        const Phrase saved =
            say("With spare mats, sheets are laid and lifted off while the machine runs: %1 of your "
                "time, for which it need not wait.",
                spoken_seconds(in_seconds(t.meanwhile)));
        plan.reasons.insert(plan.reasons.begin() + 1, Reason{"hands.meanwhile", saved});
    }
    if (in_mm(t.travel_as_drawn) - in_mm(t.travel) <= 100) return;
    const Phrase travel = say("Lines are run in the order that travels least: %1 m with the tool up instead "
                              "of %2 m in the order they "
                              "were drawn.",
                              number(in_mm(t.travel) / 1000, 1), number(in_mm(t.travel_as_drawn) / 1000, 1));
    plan.reasons.push_back({"route.travel", travel});
}

} // namespace dotlane
