#include "core/project/steps/fill.h"

#include "core/base/text.h"
#include "core/recipe/fill.h"
#include "core/recipe/step.h"

namespace dotlane {
namespace {

Finding empty(const Phrase& why) {
    return {"fill.empty", Grade::error, say("A fill made no lines. %1", why),
            {},           {},           {"fill.inset-auto", say("Inset half the tip")}};
}

Findings judged(const InkReport& ink) {
    Findings out;
    if (ink.open_lines > 0)
        out.push_back({"fill.open-lines",
                       Grade::caution,
                       say_n(static_cast<std::size_t>(ink.open_lines),
                             "%n [open line|open lines] cannot be filled and were left out of the fill."),
                       {{"count", std::to_string(ink.open_lines)}}});
    if (!ink.refused.empty()) {
        out.push_back(empty(ink.refused));
        return out;
    }
    if (ink.too_thin > 0)
        out.push_back({"fill.too-thin",
                       Grade::caution,
                       say_n(static_cast<std::size_t>(ink.too_thin),
                             "%n [line is|lines are] too thin to be filled with a %1 mm tip.",
                             number(in_mm(ink.tip), 2)),
                       {{"count", std::to_string(ink.too_thin)}}});
    if (ink.spacing > ink.tip)
        out.push_back({"fill.wide",
                       Grade::hint,
                       say("The fill's lines are %1 mm apart, more than the %2 mm tip is wide: it will look "
                           "striped, not solid.",
                           number(in_mm(ink.spacing), 2), number(in_mm(ink.tip), 2)),
                       {{"spacing_mm", number(in_mm(ink.spacing), 3)}, {"tip_mm", number(in_mm(ink.tip), 3)}},
                       {},
                       {"fill.solid", say("Make it solid")}});
    if (ink.coverage.overspill_percent > 2)
        out.push_back({"fill.overspill",
                       Grade::caution,
                       say("The fill runs over its outline by %1 % of its area. Inset it by half the tip.",
                           number(ink.coverage.overspill_percent, 1)),
                       {{"percent", number(ink.coverage.overspill_percent, 2)}},
                       {},
                       {"fill.inset-auto", say("Inset half the tip")}});
    return out;
}

} // namespace

StepOutcome run(const FillStep& step, const StepInput& in, Progress& progress) {
    StepOutcome out;
    auto ink = std::make_shared<InkReport>();
    ink->spacing = step.spacing, ink->angle = step.angle, ink->tip = in.tip;
    ink->inset = step.inset.value_or(in.tip / 2);
    std::vector<Region> areas;
    bool any = false;
    for (const WorkSet* set : in.of)
        for (const FlatLine& line : set->lines) {
            any = true;
            Region area = area_of(line);
            if (area.empty())
                ++ink->open_lines;
            else
                areas.push_back(std::move(area));
        }
    for (const Region& area : areas) {
        if (progress.cancelled()) return out;
        if (offset(area, -ink->inset).empty()) ++ink->too_thin;
    }
    const Region whole = areas.size() == 1 ? areas.front() : united(areas);
    const Region inner = offset(whole, -ink->inset);
    FillLines made = filled(step.style, {inner, step.spacing, step.angle, step.joined, in.tip}, progress);
    ink->rows = made.rows, ink->pieces = made.pieces, ink->runs = made.lines.size();
    ink->lifts = made.lines.empty() ? 0 : made.lines.size() - 1;
    ink->length = length(made.lines);
    ink->coverage = coverage(whole, made.lines, in.tip, step.angle, progress);
    if (made.lines.empty())
        ink->refused =
            any ? say("Nothing is wide enough for this tip and inset.") : say("Its lines are gone.");
    out.report.findings = judged(*ink);
    out.report.ink = std::move(ink);
    out.made.emplace();
    out.made->strokes = std::move(made.lines);
    return out;
}

bool mend(FillStep& step, const Finding& finding, const InkReport* ink) {
    if (finding.remedy.code == "fill.inset-auto") return step.inset.reset(), true;
    if (finding.remedy.code == "fill.solid" && ink) return step.suit(ink->tip), true;
    return false;
}

} // namespace dotlane
