#include "core/plan/order.h"

#include <algorithm>
#include <cmath>

namespace dotlane {
namespace {

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
    const auto risk = [&](const char* code, const LaneWork& late, const LaneWork& early,
                          const Phrase& message) {
        out.push_back({code,
                       Grade::caution,
                       message,
                       {{"late", late.plate}, {"early", early.plate}},
                       {},
                       {"order.usual", say("Usual order")}});
    };
    for (std::size_t i = 0; i < lanes.size(); ++i)
        for (std::size_t k = 0; k < i; ++k) {
            const LaneWork &late = lanes[i], &early = lanes[k];
            if (parts(early) && !parts(late))
                risk("order.after-cut", late, early,
                     say("%1 (%2) runs after %3 (%4): pieces that are cut free may shift before it reaches "
                         "them.",
                         late.plate, word(late.lane.action), early.plate, word(early.lane.action)));
            else if (row(late.lane.action).light_first && early.lane.action == late.lane.action &&
                     light_step(late) > light_step(early))
                risk("order.dark-first", late, early,
                     say("The paler %1 draws after the darker %2: where it crosses, its tip picks up dark "
                         "ink.",
                         late.plate, early.plate));
        }
    return out;
}

} // namespace dotlane
