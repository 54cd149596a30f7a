#include "core/derive/step_picture.h"

#include "core/derive/lending.h"
#include "core/recipe/step.h"

namespace dotlane {
namespace {

constexpr double wide = 60, high = 44;     // mm: at this size first numbers show
constexpr std::size_t blink_points = 8000; // what the slowest step, a fill, does within some 60 ms
constexpr LineSetId worked{1}, second{2};

Box box_of(const Polylines& lines) {
    return bounds(lines);
}

FlatLine line_from(Polylines contours) {
    FlatLine line;
    line.contours = std::move(contours);
    line.box = bounds(line.contours);
    return line;
}

/// A leaf with a hole: closed, with corners, curves and a counter.
WorkSet sample() {
    WorkSet set{worked};
    Contour leaf{{0, high / 2}, {}, true};
    leaf.cubic_to({wide * 0.2, 0}, {wide * 0.6, 0}, {wide * 0.75, high / 2});
    leaf.cubic_to({wide * 0.6, high}, {wide * 0.2, high}, {0, high / 2});
    set.lines.push_back(line_from(flattened(Shape{{leaf, ellipse({wide * 0.4, high / 2}, 6, 6)}})));
    set.lines.push_back(line_from(flattened(Shape{{ellipse({wide * 0.8, high / 2}, 9, 9)}})));
    return set;
}

/// A card with two folds that cross, for steps that a leaf gives nothing to do.
WorkSet folded_sample() {
    WorkSet set{worked};
    set.lines.push_back(line_from(flattened(Shape{{rectangle({0, 0, wide, high})}})));
    set.lines.push_back(line_from({{{{0, high / 2}, {wide, high / 2}}, false}}));
    set.lines.push_back(line_from({{{{wide * 0.7, 0}, {wide * 0.7, high}}, false}}));
    return set;
}

std::optional<WorkSet> lines_of_part(const EvaluatedPart& part, const std::set<LineId>& chosen) {
    WorkSet set{worked};
    std::size_t points = 0;
    for (const FlatLine& line : part.lines) {
        if (!chosen.empty() && !chosen.contains(line.id)) continue;
        for (const Polyline& c : line.contours)
            points += c.points.size();
        set.lines.push_back(line);
    }
    if (points == 0 || points > blink_points) return std::nullopt;
    return set;
}

void bring_to(WorkSet& set, const Box& room) {
    Box now;
    for (const FlatLine& line : set.lines)
        now.add(bounds(line.contours));
    const double scale =
        std::min(room.width() / std::max(now.width(), 1e-6), room.height() / std::max(now.height(), 1e-6));
    const Affine by = Affine::translation(room.centre()) * Affine::scaling(scale, scale) *
                      Affine::translation({-now.centre().x, -now.centre().y});
    for (FlatLine& line : set.lines) {
        line.contours = transformed(line.contours, by);
        line.box = bounds(line.contours);
        line.area = nullptr;
    }
}

Polylines all_of(const WorkSet& set) {
    Polylines out = set.strokes;
    for (const FlatLine& line : set.lines)
        out.insert(out.end(), line.contours.begin(), line.contours.end());
    return out;
}

/// Nothing when the step cannot work on these lines.
std::optional<StepPicture> tried(const StepKind& kind, WorkSet set, FontShelf& fonts, Progress& progress) {
    // A step that puts lines somewhere is given less than the whole room.
    bring_to(set, kind.places ? Box{0, 0, wide * 0.45, high * 0.45} : Box{0, 0, wide, high});
    const Polylines before = all_of(set);
    WorkSet other{second};
    other.lines.push_back(line_from(flattened(Shape{{ellipse({wide * 0.7, high * 0.35}, 12, 12)}})));
    StepInput in;
    if (!kind.brings) in.of = {&set};
    if (kind.second == StepRow::Second::wanted) in.by = {&other};
    in.part = kind.brings ? box_of(before) : Box{0, 0, wide, high};
    in.tip = mm(3);
    StepWhat what = kind.fresh;
    suit(what, Action::draw);
    std::optional<Result<SourceLines>> brought;
    if (kind.brings || kind.numbers) {
        SourceLines lender;
        auto drawing = std::make_shared<Drawing>();
        DrawnLine line;
        line.shape = Shape{{ellipse({8, 8}, 8, 8)}};
        drawing->lines.push_back(std::move(line));
        lender.drawing = std::move(drawing);
        const Borrowed borrowed = lend(lender, 1);
        brought = make_lines(what, fonts, &borrowed, progress);
        in.inserted = &*brought;
    }
    const StepOutcome outcome = run_step(what, in, progress);
    if (!outcome.report.refused.empty() || progress.cancelled()) return std::nullopt;
    StepPicture out;
    out.before = before;
    for (const auto& changed : outcome.changed)
        for (Polyline& line : all_of(*changed))
            out.after.push_back(std::move(line));
    if (outcome.made)
        for (Polyline& line : all_of(*outcome.made))
            out.after.push_back(std::move(line));
    for (const MadeLines& also : outcome.also)
        for (const FlatLine& line : also.lines)
            out.after.insert(out.after.end(), line.contours.begin(), line.contours.end());
    if (out.after.empty()) out.after = before; // what it does shows in numbers alone
    out.box.add(box_of(out.before));
    out.box.add(box_of(out.after));
    return out;
}

} // namespace

StepPicture picture_of(const StepKind& kind, const EvaluatedPart* part, const std::set<LineId>& chosen,
                       FontShelf& fonts, Progress& progress) {
    if (part)
        if (auto lines = lines_of_part(*part, chosen))
            if (auto picture = tried(kind, std::move(*lines), fonts, progress)) {
                picture->own = true;
                return *picture;
            }
    for (WorkSet& lines : std::array{sample(), folded_sample()})
        if (auto picture = tried(kind, std::move(lines), fonts, progress)) return *picture;
    return {};
}

} // namespace dotlane
