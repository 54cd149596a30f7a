#include "core/project/steps/fill.h"

#include "core/base/finding_kind.h"
#include "core/base/text.h"
#include "core/recipe/fill.h"
#include "core/recipe/step.h"

namespace dotlane {
namespace {

constexpr RemedyKind inset_half{"fill.inset-auto", to_say("Inset half the tip")};
constexpr FindingKind<Name> no_lines{
    "fill.empty", Grade::error, to_say("A fill made no lines. %1"), {nullptr}, {{inset_half}}};
constexpr FindingKind<Count> open_lines_left{
    "fill.open-lines",
    Grade::caution,
    to_say("%n [open line|open lines] cannot be filled and were left out of the fill."),
    {"count"}};
constexpr FindingKind<Count, Mm<2>> too_thin{
    "fill.too-thin",
    Grade::caution,
    to_say("%n [line is|lines are] too thin to be filled with a %2 mm tip."),
    {"count", nullptr}};
constexpr FindingKind<Mm<2, 3>, Mm<2, 3>> wide{"fill.wide",
                                               Grade::hint,
                                               to_say("The fill's lines are %1 mm apart, more than the %2 mm "
                                                      "tip is wide: it will look striped, not solid."),
                                               {"spacing_mm", "tip_mm"},
                                               {{{"fill.solid", to_say("Make it solid")}}}};
constexpr FindingKind<Percent> overspill{
    "fill.overspill",
    Grade::caution,
    to_say("The fill runs over its outline by %1 % of its area. Inset it by half the tip."),
    {"percent"},
    {{inset_half}}};

Findings judged(const InkReport& ink) {
    Findings out;
    if (ink.open_lines > 0) out.push_back(open_lines_left({}, Count{ink.open_lines}));
    if (!ink.refused.empty()) {
        out.push_back(no_lines({}, ink.refused));
        return out;
    }
    if (ink.too_thin > 0) out.push_back(too_thin({}, Count{ink.too_thin}, {in_mm(ink.tip)}));
    if (ink.spacing > ink.tip) out.push_back(wide({}, {in_mm(ink.spacing)}, {in_mm(ink.tip)}));
    if (ink.coverage.overspill_percent > 2) out.push_back(overspill({}, {ink.coverage.overspill_percent}));
    return out;
}

/// How many of the areas are too thin for the inset. `inner` is what it leaves of all of them.
int count_too_thin(const std::vector<Region>& areas, const Region& whole, const Region& inner, Length inset,
                   const Progress& progress) {
    double sum = 0;
    for (const Region& one : areas)
        sum += in_square_mm(area(one));
    // What lies apart is inset as if it were alone: something of it is left where a ring of `inner` lies in
    // it.
    const bool apart = sum - in_square_mm(area(whole)) < 1e-6 * sum;
    std::vector<Box> boxes;
    for (const Ring& ring : inner.rings)
        boxes.push_back(bounds(Polyline{ring, true}));
    int thin = 0;
    for (const Region& one : areas) {
        if (progress.cancelled()) break;
        bool left = false;
        const Box box = bounds(one);
        for (std::size_t i = 0; apart && !left && i < boxes.size(); ++i)
            left = box.contains(boxes[i]) && contains(one, inner.rings[i].front());
        if (!left && offset(one, -inset).empty()) ++thin;
    }
    return thin;
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
    const Region whole = areas.size() == 1 ? areas.front() : united(areas);
    const Region inner = offset(whole, -ink->inset);
    ink->too_thin = count_too_thin(areas, whole, inner, ink->inset, progress);
    if (progress.cancelled()) return out;
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
