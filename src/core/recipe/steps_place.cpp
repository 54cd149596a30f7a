// Steps that move lines without changing their shape: resize, mirror, turn, align, copies.
#include "core/recipe/step.h"

namespace dotlane {
namespace {

Box box_of(const StepInput& in) {
    Box box;
    for (const WorkSet* set : in.of)
        box.add(set->box());
    return box;
}

void move(FlatLine& line, const Affine& by) {
    line.contours = transformed(line.contours, by);
    if (line.area) line.area = std::make_shared<const Region>(transformed(*line.area, by));
    line.box = bounds(line.contours);
}

void move(WorkSet& set, const Affine& by) {
    for (FlatLine& line : set.lines)
        move(line, by);
    set.strokes = transformed(set.strokes, by);
}

StepOutcome moved(const StepInput& in, const Affine& by) {
    StepOutcome out;
    for (const WorkSet* set : in.of) {
        out.changed.push_back(copy_of(*set));
        move(*out.changed.back(), by);
        out.changed.back()->worked = set->worked; // its lines still stand for single source lines
    }
    return out;
}

Affine about(Point middle, const Affine& by) {
    return Affine::translation(middle) * by * Affine::translation({-middle.x, -middle.y});
}

} // namespace

StepOutcome run(const ResizeStep& step, const StepInput& in, Progress&) {
    const Box box = box_of(in);
    if (box.empty()) return refused("There are no lines to resize.");
    const double now = step.by == ResizeStep::By::width ? box.width() : box.height();
    if (step.by != ResizeStep::By::percent && now < 1e-9)
        return refused("The lines have no extent that way, so they cannot be given a size.");
    const double factor = step.by == ResizeStep::By::percent ? step.percent / 100 : in_mm(step.size) / now;
    StepOutcome out = moved(in, about(box.centre(), Affine::scaling(factor, factor)));
    out.report.figures = {{"width", "mm", box.width() * factor}, {"height", "mm", box.height() * factor}};
    return out;
}

StepOutcome run(const MirrorStep& step, const StepInput& in, Progress&) {
    const bool across = step.way == MirrorStep::Way::left_right;
    return moved(in, about(box_of(in).centre(), Affine::scaling(across ? -1 : 1, across ? 1 : -1)));
}

StepOutcome run(const TurnStep& step, const StepInput& in, Progress&) {
    return moved(in, about(box_of(in).centre(), Affine::rotation(in_radians(step.by))));
}

StepOutcome run(const AlignStep& step, const StepInput& in, Progress&) {
    const Box box = box_of(in);
    if (box.empty()) return refused("There are no lines to move.");
    Box target = in.part;
    if (!in.by.empty()) {
        target = {};
        for (const WorkSet* set : in.by)
            target.add(set->box());
    }
    if (target.empty() && (step.across != AlignStep::Across::leave || step.down != AlignStep::Down::leave))
        return refused("There is nothing else in the part to align to.");
    const auto shift = [](int way, double lo, double hi, double to_lo, double to_hi) {
        return way == 1 ? to_lo - lo : way == 2 ? (to_lo + to_hi - lo - hi) / 2 : way == 3 ? to_hi - hi : 0.0;
    };
    const Point by{
        shift(static_cast<int>(step.across), box.x0, box.x1, target.x0, target.x1) + in_mm(step.right_by),
        shift(static_cast<int>(step.down), box.y0, box.y1, target.y0, target.y1) + in_mm(step.down_by)};
    return moved(in, Affine::translation(by));
}

StepOutcome run(const DistributeStep& step, const StepInput& in, Progress&) {
    struct Thing {
        std::size_t set, line; ///< line: none when the whole set is one thing
        double lo, hi;
    };
    const bool across = step.way == DistributeStep::Way::across, whole = in.of.size() > 1;
    constexpr std::size_t all = ~std::size_t{0};
    std::vector<Thing> things;
    const auto add = [&](std::size_t set, std::size_t line, const Box& box) {
        if (!box.empty()) things.push_back({set, line, across ? box.x0 : box.y0, across ? box.x1 : box.y1});
    };
    for (std::size_t s = 0; s < in.of.size(); ++s)
        if (whole)
            add(s, all, in.of[s]->box());
        else
            for (std::size_t l = 0; l < in.of[s]->lines.size(); ++l)
                add(s, l, in.of[s]->lines[l].box);
    if (things.size() < 2) return refused("There is only one thing: nothing can be spread.");
    if (!whole && !in.of.front()->strokes.empty()) return refused("The strokes of a fill cannot be spread.");
    const bool gaps = step.even == DistributeStep::Even::gaps;
    std::stable_sort(things.begin(), things.end(),
                     [](const Thing& a, const Thing& b) { return a.lo + a.hi < b.lo + b.hi; });
    double lo = things.front().lo, hi = things.back().hi;
    if (step.within == DistributeStep::Within::rest) {
        if (in.part.empty()) return refused("There is nothing else in the part to spread within.");
        lo = (across ? in.part.x0 : in.part.y0) + in_mm(step.inset);
        hi = (across ? in.part.x1 : in.part.y1) - in_mm(step.inset);
    }
    double sum = 0;
    for (const Thing& t : things)
        sum += t.hi - t.lo;
    const double n = static_cast<double>(things.size() - 1), gap = (hi - lo - sum) / n;
    const double first = lo + (things.front().hi - things.front().lo) / 2,
                 last = hi - (things.back().hi - things.back().lo) / 2;
    StepOutcome out;
    for (const WorkSet* set : in.of) {
        out.changed.push_back(copy_of(*set));
        out.changed.back()->worked = set->worked;
    }
    double at = lo;
    for (std::size_t i = 0; i < things.size(); ++i) {
        const Thing& t = things[i];
        const double by =
            gaps ? at - t.lo : first + (last - first) * static_cast<double>(i) / n - (t.lo + t.hi) / 2;
        at += t.hi - t.lo + gap;
        const Affine shift = Affine::translation(across ? Point{by, 0} : Point{0, by});
        WorkSet& set = *out.changed[t.set];
        if (t.line == all)
            move(set, shift);
        else
            move(set.lines[t.line], shift);
    }
    out.report.figures = {{"things", "", static_cast<double>(things.size())}};
    if (gaps) out.report.figures.push_back({"gap", "mm", gap});
    if (gaps && gap < 0)
        out.report.findings.push_back(
            {"distribute.overlap", Grade::caution, "There is not room for all of them: they overlap.", {}});
    return out;
}

namespace {

/// Lines that a step brings, turned and put at their place.
StepOutcome put(const StepInput& in, Angle turned, AlignStep place, bool as_they_lie) {
    WorkSet lines;
    const Affine turn = Affine::rotation(in_radians(turned));
    for (const DrawnLine& drawn : (*in.inserted)->drawing->lines) {
        FlatLine line;
        line.rule = drawn.shape.rule;
        line.contours = flattened(transformed(drawn.shape, turn));
        line.box = bounds(line.contours);
        lines.lines.push_back(std::move(line));
    }
    StepInput alone{{&lines}, {}, in.part, {}};
    if (in.part.empty() || as_they_lie)
        place.across = AlignStep::Across::leave, place.down = AlignStep::Down::leave;
    StepOutcome out = run(place, alone, no_progress());
    if (!out.report.refused.empty()) return out;
    out.made.emplace(std::move(*out.changed.front()));
    out.changed.clear();
    out.report.figures = (*in.inserted)->figures;
    out.report.findings = (*in.inserted)->findings;
    return out;
}

} // namespace

StepOutcome run(const WordsStep& step, const StepInput& in, Progress&) {
    if (!in.inserted) return refused("The words have not been lettered.");
    if (!*in.inserted) return refused(in.inserted->error().message);
    // Words that follow the part's own outline lie where they belong.
    const bool follow = step.lettering.path == Lettering::Path::outline && !step.lettering.of;
    return put(in, step.turn, step.place, follow);
}

StepOutcome run(const PartStep& step, const StepInput& in, Progress&) {
    if (!in.inserted) return refused("The other part has not been made.");
    if (!*in.inserted) return refused(in.inserted->error().message);
    return put(in, step.turn, step.place, false);
}

StepOutcome run(const CopiesStep& step, const StepInput& in, Progress& progress) {
    const Box box = box_of(in);
    if (box.empty()) return refused("There are no lines to copy.");
    std::vector<Affine> places;
    if (step.layout == CopiesStep::Layout::grid) {
        for (int row = 0; row < step.rows; ++row)
            for (int column = 0; column < step.columns; ++column)
                places.push_back(Affine::translation({column * (box.width() + in_mm(step.gap_across)),
                                                      row * (box.height() + in_mm(step.gap_down))}));
    } else {
        for (int i = 0; i < step.count; ++i) {
            const Affine turn = Affine::rotation(2 * std::numbers::pi * i / step.count);
            const Point at = turn({0, -in_mm(step.radius)});
            places.push_back(about(box.centre(), Affine::translation(at) * (step.turned ? turn : Affine{})));
        }
    }
    std::size_t points = 0;
    for (const WorkSet* set : in.of)
        for (const FlatLine& line : set->lines)
            for (const Polyline& c : line.contours)
                points += c.points.size();
    if (points * places.size() > 20'000'000)
        return refused("So many copies of so many lines would not fit into memory.");
    StepOutcome out;
    for (const WorkSet* set : in.of) {
        auto copies = std::make_shared<WorkSet>();
        copies->id = set->id, copies->step = set->step, copies->worked = true;
        for (const Affine& place : places) {
            if (progress.cancelled()) return out;
            WorkSet one = *set;
            move(one, place);
            std::move(one.lines.begin(), one.lines.end(), std::back_inserter(copies->lines));
            std::move(one.strokes.begin(), one.strokes.end(), std::back_inserter(copies->strokes));
        }
        out.changed.push_back(std::move(copies));
    }
    out.report.figures = {{"copies", "", static_cast<double>(places.size())}};
    return out;
}

} // namespace dotlane
