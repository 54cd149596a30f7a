#include "core/project/steps/fill.h"

#include "core/base/finding_kind.h"
#include "core/base/text.h"
#include "core/geometry/centre_lines.h"
#include "core/recipe/fill.h"
#include "core/recipe/fill_pieces.h"
#include "core/recipe/step.h"
#include "core/recipe/surface.h"

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
    {"count", nullptr},
    {{{"fill.centre-lines", to_say("Run them as one line")}}}};
constexpr FindingKind<Count, Mm<2>> missed{
    "fill.missed",
    Grade::caution,
    to_say("No line of the fill meets %n [piece|pieces] of its surface: %2 mm apart, the lines pass beside."),
    {"count", "spacing_mm"},
    {{{"fill.each-piece", to_say("Anchor the lines to each piece")}}}};
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
constexpr FindingKind<Name> places_unread{
    "fill.places", Grade::error, to_say("\"%1\" is no list of places such as 20 50; 80 50."), {"text"}};

Findings judged(const FillStep& step, const InkReport& ink) {
    Findings out;
    if (ink.open_lines > 0) out.push_back(open_lines_left({}, Count{ink.open_lines}));
    if (!places_in(step.only)) out.push_back(places_unread({}, as_is(step.only)));
    if (!ink.refused.empty()) {
        out.push_back(no_lines({}, ink.refused));
        return out;
    }
    if (ink.too_thin > 0 && !step.centre_lines)
        out.push_back(too_thin({}, Count{ink.too_thin}, {in_mm(ink.tip)}));
    const auto passed = std::count_if(ink.left_out.begin(), ink.left_out.end(),
                                      [](const LeftOut& l) { return l.why == LeftOut::Why::edge; });
    if (passed > 0) out.push_back(missed({}, Count{static_cast<int>(passed)}, {in_mm(ink.spacing)}));
    const bool solid = kind_of(step.style).open_mm == 0;
    if (solid && ink.spacing > ink.tip) out.push_back(wide({}, {in_mm(ink.spacing)}, {in_mm(ink.tip)}));
    if (ink.coverage.overspill_percent > 2 && ink.inset < ink.tip / 2)
        out.push_back(overspill({}, {ink.coverage.overspill_percent}));
    return out;
}

/// The areas that are too thin for the inset, by index. `inner` is what it leaves of all of them.
std::vector<std::size_t> thin_ones(const std::vector<Region>& areas, const Region& whole, const Region& inner,
                                   Length inset, const Progress& progress) {
    double sum = 0;
    for (const Region& one : areas)
        sum += in_square_mm(area(one));
    // What lies apart is inset as if it were alone: something of it is left where a ring of `inner` lies in
    // it.
    const bool apart = sum - in_square_mm(area(whole)) < 1e-6 * sum;
    std::vector<Box> boxes;
    for (const Ring& ring : inner.rings)
        boxes.push_back(bounds(Polyline{ring, true}));
    std::vector<std::size_t> thin;
    for (std::size_t k = 0; k < areas.size(); ++k) {
        if (progress.cancelled()) break;
        const Region& one = areas[k];
        bool left = false;
        const Box box = bounds(one);
        for (std::size_t i = 0; apart && !left && i < boxes.size(); ++i)
            left = box.contains(boxes[i]) && contains(one, inner.rings[i].front());
        if (!left && offset(one, -inset).empty()) thin.push_back(k);
    }
    return thin;
}

/// What of the surface no tip reaches that stays inside: limbs that are too narrow, not mere corners.
Region narrow_of(const Region& whole, const Region& inner, Length inset, Length tip) {
    // A little more is taken off, so that slivers along curves do not count.
    const Region rest = subtracted(whole, offset(inner, inset * 1.02 + mm(0.005)));
    Region out;
    for (const Region& piece : pieces(rest)) {
        const double size = in_square_mm(area(piece)), around = in_mm(perimeter(piece));
        // A corner's rest is about as long as it is wide; a limb is longer than the tip.
        if (around > 3 * in_mm(tip) && size > 0.1 * in_mm(tip) * in_mm(tip))
            out.rings.insert(out.rings.end(), piece.rings.begin(), piece.rings.end());
    }
    return out;
}

/// Lines that make it solid along the middle of what is too narrow.
Polylines along_the_middle(const Region& narrow, const Region& whole, Length tip) {
    Polylines out;
    for (const Region& piece : pieces(narrow)) {
        // Grown a little, so that the line runs on to the ink that it continues.
        const Region limb = intersected(offset(piece, tip / 2), whole);
        for (Polyline& line : centre_lines(limb, {0.5, 0.9, mm(0.02)}).lines)
            if (in_mm(length(line)) >= in_mm(tip) / 2) out.push_back(std::move(line));
    }
    return out;
}

/// Segments that the fill would have, about.
double expected(const FillStep& step, const Region& inner, Length spacing) {
    const double s = in_mm(spacing), around = in_mm(perimeter(inner));
    return step.repeats * (around / s + kind_of(step.style).dense * in_square_mm(area(inner)) / (s * s));
}

void run_again(Polylines& lines, int times) {
    if (times < 2) return;
    for (Polyline& line : lines) {
        const std::vector<Point> once = line.points;
        line.points.reserve(once.size() * static_cast<std::size_t>(times));
        for (int k = 1; k < times; ++k) {
            if (line.closed)
                line.points.insert(line.points.end(), once.begin(), once.end());
            else if (k % 2 == 1)
                line.points.insert(line.points.end(), once.rbegin() + 1, once.rend());
            else
                line.points.insert(line.points.end(), once.begin() + 1, once.end());
        }
    }
}

} // namespace

StepOutcome run(const FillStep& step, const StepInput& in, Progress& progress) {
    StepOutcome out;
    auto ink = std::make_shared<InkReport>();
    ink->style = kind_of(step.style).key;
    ink->spacing = step.spaced(in.tip), ink->angle = step.angle, ink->tip = in.tip;
    ink->inset = step.inset.value_or(in.tip / 2);
    Surface surface = surface_of(step, in);
    ink->open_lines = surface.open_lines;
    ink->left_out = std::move(surface.left_out);
    const Region inner = offset(surface.whole, -ink->inset);
    const auto thin = thin_ones(surface.areas, surface.whole, inner, ink->inset, progress);
    ink->too_thin = static_cast<int>(thin.size());
    if (progress.cancelled()) return out;
    out.made.emplace();
    const auto finish = [&] {
        out.report.findings = judged(step, *ink);
        out.report.ink = std::move(ink);
    };
    if (const double many = expected(step, inner, ink->spacing); many > most_fill_segments) {
        const double enough = in_mm(ink->spacing) * std::sqrt(many / most_fill_segments) * 1.05;
        ink->refused =
            say("That would be %1 million segments, more than %2 million. A spacing of %3 mm would do.",
                number(many / 1e6, 0), number(most_fill_segments / 1e6, 0), number(enough, 2));
        finish();
        return out;
    }
    Box part = surface.box;
    part.add(in.part);
    const FillInput input{inner,
                          ink->spacing,
                          step.angle,
                          step.ends,
                          in.tip,
                          step.phase,
                          step.phase == FillPhase::corner ? part : surface.box,
                          &surface.whole,
                          step.least};
    FillPieces made = fill_pieces(step, input, progress);
    if (progress.cancelled()) return out;
    for (const Box& box : made.missed)
        ink->left_out.push_back({LeftOut::Why::edge, {}, box});
    Polylines& lines = made.lines.lines;
    if (step.centre_lines) {
        // By the tip, whatever the inset: what a wide inset leaves bare is not too narrow.
        const Length half = in.tip / 2;
        const Region narrow =
            narrow_of(surface.whole, ink->inset == half ? inner : offset(surface.whole, -half), half, in.tip);
        Polylines middle = along_the_middle(narrow, surface.whole, in.tip);
        ink->centre_lines = middle.size();
        lines.insert(lines.end(), std::make_move_iterator(middle.begin()),
                     std::make_move_iterator(middle.end()));
    } else {
        for (const std::size_t k : thin)
            ink->left_out.push_back({LeftOut::Why::thin, surface.of[k], bounds(surface.areas[k])});
    }
    ink->rows = made.lines.rows, ink->pieces = made.lines.pieces, ink->runs = lines.size();
    ink->cells = made.lines.cells, ink->edge_cells = made.lines.edge_cells;
    ink->lifts = lines.empty() ? 0 : lines.size() - 1;
    ink->coverage = coverage(surface.whole, lines, in.tip, step.angle, progress);
    if (lines.empty())
        ink->refused =
            surface.any ? say("Nothing is wide enough for this tip and inset.") : say("Its lines are gone.");
    run_again(lines, step.repeats);
    ink->length = length(lines);
    out.made->strokes = std::move(lines);
    finish();
    return out;
}

bool mend(FillStep& step, const Finding& finding, const InkReport*) {
    if (finding.remedy.code == "fill.inset-auto") return step.inset.reset(), true;
    if (finding.remedy.code == "fill.solid") {
        step.spacing.reset(), step.of_tip = FillStep::solid;
        return true;
    }
    if (finding.remedy.code == "fill.centre-lines") return step.centre_lines = true;
    if (finding.remedy.code == "fill.each-piece") {
        step.phase = FillPhase::piece;
        return true;
    }
    return false;
}

} // namespace dotlane
