#include "core/project/steps/fill.h"

#include "core/base/finding_kind.h"
#include "core/base/text.h"
#include "core/recipe/fill_ground.h"
#include "core/recipe/fill_pieces.h"
#include "core/recipe/limbs.h"
#include "core/recipe/seams.h"
#include "core/recipe/step.h"
#include "core/recipe/tone_windows.h"

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
constexpr FindingKind<Mm<2, 3>, Mm<2, 3>> striped{
    "fill.wide",
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
constexpr FindingKind<> no_picture{
    "fill.no-picture",
    Grade::caution,
    to_say("The fill is to be as dark as a picture, but has none: it is as light "
           "as the picture's white would be."),
    {}};
constexpr FindingKind<Percent, Mm<0>, Mm<0>, Mm<2>> tone_off{
    "fill.tone-off",
    Grade::caution,
    to_say("The fill is not as light and dark as wished: around %2, %3 mm it is %1 % off. A finer tip than "
           "%4 mm "
           "comes nearer, or dots."),
    {"percent", "x_mm", "y_mm", "tip_mm"},
    {{{"fill.stipple", to_say("Fill with dots")}}}};
constexpr FindingKind<Name> places_unread{
    "fill.places", Grade::error, to_say("\"%1\" is no list of places such as 20 50; 80 50."), {"text"}};

Findings judged(const FillStep& step, const InkReport& ink) {
    Findings out;
    if (ink.open_lines > 0) out.push_back(open_lines_left({}, Count{ink.open_lines}));
    if (!places_in(step.only)) out.push_back(places_unread({}, as_is(step.only)));
    if (step.toned() && step.tone.by == FillTone::By::picture &&
        !graymap_read(std::string(step.tone.bytes())))
        out.push_back(no_picture({}));
    if (!ink.refused.empty()) {
        out.push_back(no_lines({}, ink.refused));
        return out;
    }
    if (ink.too_thin > 0 && !step.centre_lines)
        out.push_back(too_thin({}, Count{ink.too_thin}, {in_mm(ink.tip)}));
    const auto passed = std::count_if(ink.left_out.begin(), ink.left_out.end(),
                                      [](const LeftOut& l) { return l.why == LeftOut::Why::edge; });
    if (passed > 0) out.push_back(missed({}, Count{static_cast<int>(passed)}, {in_mm(ink.spacing)}));
    const bool solid = kind_of(step.style).open_mm == 0 && !step.toned();
    if (solid && ink.spacing > ink.tip) out.push_back(striped({}, {in_mm(ink.spacing)}, {in_mm(ink.tip)}));
    if (ink.coverage.overspill_percent > 2 && ink.inset < ink.tip / 2)
        out.push_back(overspill({}, {ink.coverage.overspill_percent}));
    return out;
}

/// How far the worst 8 x 8 mm of a fill are off its tone, where an eye would see it.
Findings judged_tone(const Polylines& lines, const FillGround& ground, Length tip, const Progress& progress) {
    constexpr double seen = 0.035; // 0.03 is aimed at, and squares misjudge a little
    if (!ground.tone || lines.empty()) return {};
    const ToneFault worst = tone_fault(lines, tip, ground.inked, *ground.tone, progress);
    if (std::abs(worst.off) <= seen) return {};
    return {tone_off({}, {100 * std::abs(worst.off)}, {worst.middle.x}, {worst.middle.y}, {in_mm(tip)})};
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
    ink->style = kind_of(step.style).key, ink->repeats = step.repeats;
    ink->spacing = step.spaced(in.tip), ink->angle = step.angle, ink->tip = in.tip;
    FillGround ground = ground_of(step, in);
    Surface& surface = ground.surface;
    const Region& inner = ground.inner;
    ink->inset = ground.inset;
    ink->open_lines = surface.open_lines;
    ink->left_out = std::move(surface.left_out);
    const auto thin = thin_ones(surface.areas, surface.whole, inner, ink->inset, progress);
    ink->too_thin = static_cast<int>(thin.size());
    if (progress.cancelled()) return out;
    out.made.emplace();
    const auto finish = [&] {
        out.report.findings = judged(step, *ink);
        out.report.ink = std::move(ink);
    };
    if (const double many = expected_segments(step, ground, in.tip); many > most_fill_segments) {
        const double enough = in_mm(ink->spacing) * std::sqrt(many / most_fill_segments) * 1.05;
        ink->refused =
            step.toned() // whose stretches are as fine as the tip
                ? say("That would be %1 million segments, more than %2 million. A wider tip would do.",
                      number(many / 1e6, 0), number(most_fill_segments / 1e6, 0))
                : say("That would be %1 million segments, more than %2 million. A spacing of %3 mm would do.",
                      number(many / 1e6, 0), number(most_fill_segments / 1e6, 0), number(enough, 2));
        finish();
        return out;
    }
    if (!step.roles().empty()) {
        out.also.push_back({role::edge, {}});
        for (const Region& piece : pieces(inner))
            out.also.back().lines.push_back(line_of(piece, {}));
    }
    FillPieces made = fill_pieces(step, input_on(ground, step, in.tip), progress);
    if (progress.cancelled()) return out;
    for (const Box& box : made.missed)
        ink->left_out.push_back({LeftOut::Why::edge, {}, box});
    Polylines& lines = made.lines.lines;
    if (step.centre_lines) {
        Polylines middle = limb_lines(ground, in.tip);
        ink->centre_lines = middle.size();
        lines.insert(lines.end(), std::make_move_iterator(middle.begin()),
                     std::make_move_iterator(middle.end()));
    } else {
        for (const std::size_t k : thin)
            ink->left_out.push_back({LeftOut::Why::thin, surface.of[k], bounds(surface.areas[k])});
    }
    put_in_order(lines, step.order, inner);
    ink->rows = made.lines.rows, ink->pieces = made.lines.pieces, ink->runs = lines.size();
    ink->cells = made.lines.cells, ink->edge_cells = made.lines.edge_cells;
    ink->lifts = lines.empty() ? 0 : lines.size() - 1;
    // Between the lines of a tone, or of a pattern, there are gaps by intention.
    if (!step.toned() && ink->spacing <= in.tip) ink->seams = seams(lines, ink->spacing);
    if (!step.toned()) ink->widest_gap = widest_gap(lines, inner);
    ink->coverage = coverage(surface.whole, lines, in.tip, step.angle, progress);
    if (lines.empty())
        ink->refused =
            !surface.any                                  ? say("Its lines are gone.")
            : surface.whole.empty() && !step.only.empty() ? say("No piece of it lies where it was pressed.")
            : surface.whole.empty()                       ? say("Its lines leave no surface of this kind.")
            : step.toned() && !inner.empty()              ? say("It is to be white throughout.")
                                             : say("Nothing is wide enough for this tip and inset.");
    Findings tone = judged_tone(lines, ground, in.tip, progress);
    if (progress.cancelled()) return out;
    ink->surface = std::make_shared<const Region>(std::move(ground.surface.whole));
    run_again(lines, step.repeats);
    ink->length = length(lines);
    out.made->strokes = std::move(lines);
    finish();
    std::move(tone.begin(), tone.end(), std::back_inserter(out.report.findings));
    return out;
}

bool mend(FillStep& step, const Finding& finding, const InkReport*) {
    if (finding.remedy.code == "fill.inset-auto") return step.inset.reset(), true;
    if (finding.remedy.code == "fill.solid") {
        step.spacing.reset(), step.of_tip = FillStep::solid;
        return true;
    }
    if (finding.remedy.code == "fill.centre-lines") return step.centre_lines = true;
    if (finding.remedy.code == "fill.stipple")
        for (const FillKind& kind : fill_kinds())
            if (std::string_view(kind.key) == "stipple") return step.style = kind.fresh, true;
    if (finding.remedy.code == "fill.each-piece") {
        step.phase = FillPhase::piece;
        return true;
    }
    return false;
}

} // namespace dotlane
