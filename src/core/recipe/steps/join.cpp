#include "core/project/steps/join.h"

#include <set>

#include "core/base/finding_kind.h"
#include "core/recipe/areas.h"

namespace dotlane {
namespace {

constexpr FindingKind<Count> counters_filled{
    "join.counters",
    Grade::caution,
    to_say("%n [counter is|counters are] filled by joining: letters cover one another there."),
    {"count"}};
constexpr FindingKind<Count> left_behind{"join.left-behind",
                                         Grade::hint,
                                         to_say("%n [small piece does|small pieces do] not touch the rest: "
                                                "dots and accents will come off on their own."),
                                         {"count"}};

/// The line among those that went into a piece that stands for it: the first that touches it.
const FlatLine& stands_for(const Region& piece, const Areas& areas) {
    const Box box = bounds(piece);
    for (std::size_t i = 0; i < areas.each.size(); ++i)
        if (box.meets(areas.lines[i]->box) && box.contains(areas.each[i].rings.front().front()))
            return *areas.lines[i];
    return *areas.lines.front();
}

} // namespace

StepOutcome run(const JoinStep& step, const StepInput& in, Progress& progress) {
    const Areas areas = areas_of(in.of);
    if (areas.each.empty()) return refused(say("There are no closed lines to join."));
    Region whole;
    if (step.fill_overlaps) {
        whole = united(areas.each);
    } else {
        Polylines all;
        for (const Region& area : areas.each)
            for (const Ring& ring : area.rings)
                all.push_back({ring, true});
        whole = region_of(all, FillRule::evenodd);
    }
    int counters = 0;
    std::size_t before = 0;
    for (const Region& area : areas.each) {
        counters += hole_count(area);
        before += pieces(area).size();
    }
    if (progress.cancelled()) return {};
    StepOutcome out;
    const std::vector<FlatLine> joined =
        lines_of(whole, [&](const Region& piece) -> const FlatLine& { return stands_for(piece, areas); });
    const std::set<const FlatLine*> bound(areas.lines.begin(), areas.lines.end());
    // The outline goes to the first set that gave something; what is open stays where it is.
    for (const WorkSet* set : in.of) {
        auto next = copy_of(*set);
        next->lines.clear();
        for (const FlatLine& line : set->lines)
            if (!bound.contains(&line)) next->lines.push_back(line);
        out.changed.push_back(std::move(next));
    }
    for (std::size_t i = 0; i < in.of.size(); ++i) {
        const auto& lines = in.of[i]->lines;
        if (lines.size() == out.changed[i]->lines.size()) continue;
        out.changed[i]->lines.insert(out.changed[i]->lines.end(), joined.begin(), joined.end());
        break;
    }
    const int kept = hole_count(whole);
    out.report.figures = {figure("pieces_before", before),
                          figure("pieces_after", joined.size()),
                          {"counters_before", "", static_cast<double>(counters)},
                          {"counters_after", "", static_cast<double>(kept)}};
    tell_open(out.report, areas.open, say("joined"));
    if (kept < counters) {
        const std::string n = std::to_string(counters - kept);
        out.report.findings.push_back(counters_filled({}, Count{counters - kept}));
    }
    if (joined.size() > 1) {
        // A dot that is left behind falls out of the sheet as a crumb.
        double largest = 0;
        for (const FlatLine& piece : joined)
            largest = std::max(largest, in_square_mm(area(*piece.area)));
        int small = 0;
        for (const FlatLine& piece : joined)
            small += in_square_mm(area(*piece.area)) < largest / 20;
        if (small > 0) out.report.findings.push_back(left_behind({}, Count{small}));
    }
    return out;
}

} // namespace dotlane
