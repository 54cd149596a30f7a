#include "core/plan/order.h"
#include "core/base/finding_kind.h"

#include <algorithm>
#include <cmath>

namespace dotlane {
namespace {

constexpr RemedyKind usual_order{"order.usual", to_say("Usual order")};
/// The plates of the later and the earlier lane, what they do.
constexpr FindingKind<Name, Name, Name, Name> after_cut{
    "order.after-cut",
    Grade::caution,
    to_say("%1 (%3) runs after %2 (%4): pieces that are cut free may shift before it reaches them."),
    {"late", "early", nullptr, nullptr},
    {{usual_order}}};
constexpr FindingKind<Name, Name> dark_first{
    "order.dark-first",
    Grade::caution,
    to_say("The paler %1 draws after the darker %2: where it crosses, its tip picks up dark ink."),
    {"late", "early"},
    {{usual_order}}};

int usual_rank(const LaneWork& work) {
    return row(work.lane.action).rank;
}

/// Whole steps of lightness, so that "lighter" is a proper order; steps that small are one ink to the eye.
long light_step(const LaneWork& work) {
    return std::lround(lightness(work.lane.colour));
}

bool usually_before(const LaneWork& a, const LaneWork& b) {
    if (usual_rank(a) != usual_rank(b)) return usual_rank(a) < usual_rank(b);
    return row(a.lane.action).light_first && light_step(a) > light_step(b);
}

bool parts(const LaneWork& work) {
    return parts_material(work.lane.action);
}

} // namespace

bool must_precede(const LaneWork& a, const LaneWork& b) {
    if (parts(b)) return !parts(a) || usual_rank(a) < usual_rank(b);
    return a.lane.action == b.lane.action && row(a.lane.action).light_first && light_step(a) > light_step(b);
}

Phrase tool_label(const LaneWork& work) {
    return row(work.lane.action).tool_colour ? say("%1 %2", word(work.lane.colour), word(*work.tool))
                                             : word(*work.tool);
}

void sort_lanes(std::vector<LaneWork>& lanes, const std::vector<LaneId>& wished) {
    std::stable_sort(lanes.begin(), lanes.end(), usually_before);
    if (wished.empty()) return;
    const auto wish = [&](const LaneWork& w) {
        return std::find(wished.begin(), wished.end(), w.lane.id) - wished.begin();
    };
    const auto none = static_cast<std::ptrdiff_t>(wished.size());
    std::vector<LaneWork> named, others;
    for (LaneWork& work : lanes)
        (wish(work) == none ? others : named).push_back(std::move(work));
    std::stable_sort(named.begin(), named.end(),
                     [&](const auto& a, const auto& b) { return wish(a) < wish(b); });
    for (LaneWork& work : others) {
        auto after = named.end();
        while (after != named.begin() && usually_before(work, *(after - 1)))
            --after;
        named.insert(after, std::move(work));
    }
    lanes = std::move(named);
}

std::vector<Reason> order_reasons(const std::vector<LaneWork>& lanes) {
    std::vector<Reason> out;
    const auto first_cut = std::find_if(lanes.begin(), lanes.end(), parts);
    if (first_cut != lanes.begin() && first_cut != lanes.end() && std::all_of(first_cut, lanes.end(), parts))
        out.push_back({"order.cut-last",
                       say("Marking tools run before anything is cut, because released pieces can shift.")});
    const LaneWork* before = nullptr;
    for (const LaneWork& work : lanes) {
        if (!row(work.lane.action).light_first) continue;
        if (before && light_step(*before) > light_step(work))
            out.push_back({"order.light-first",
                           say("The %1 draws before the %2: a pale pen that runs over dark ink picks it up.",
                               tool_label(*before), tool_label(work))});
        before = &work;
    }
    return out;
}

Findings order_risks(const std::vector<LaneWork>& lanes) {
    Findings out;
    for (std::size_t i = 0; i < lanes.size(); ++i)
        for (std::size_t k = 0; k < i; ++k) {
            const LaneWork &late = lanes[i], &early = lanes[k];
            if (parts(early) && !parts(late))
                out.push_back(
                    after_cut({}, late.plate, early.plate, word(late.lane.action), word(early.lane.action)));
            else if (row(late.lane.action).light_first && early.lane.action == late.lane.action &&
                     light_step(late) > light_step(early))
                out.push_back(dark_first({}, late.plate, early.plate));
        }
    return out;
}

} // namespace dotlane
