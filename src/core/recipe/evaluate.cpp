#include "core/recipe/evaluate.h"

#include <algorithm>
#include <unordered_map>

#include "core/base/text.h"
#include "core/recipe/hatch.h"

namespace dotlane {
namespace {

PlaceBox place_of(const Box& box) {
    return box.empty() ? PlaceBox{} : PlaceBox{box.x0, box.y0, box.x1, box.y1};
}

std::string counted(std::size_t n, const char* one, const char* many) {
    return std::to_string(n) + " " + (n == 1 ? one : many);
}

/// The area of each line under its own fill rule; lines that bound none are counted.
std::vector<Region> areas_of(const std::vector<const FlatLine*>& lines, FillReport& report) {
    std::vector<Region> areas;
    for (const FlatLine* line : lines) {
        Region area = region_of(line->contours, line->rule, line->filled);
        if (area.empty())
            ++report.open_lines;
        else
            areas.push_back(std::move(area));
    }
    return areas;
}

std::shared_ptr<const RecipeCache::Fill>
run_fill(RecipeCache::Fill fill, const std::vector<const FlatLine*>& lines, Progress& progress) {
    FillReport& report = fill.report;
    report.tip = fill.tip;
    report.inset = fill.step.inset.value_or(fill.tip / 2);
    const std::vector<Region> areas = areas_of(lines, report);
    for (const Region& area : areas) {
        if (progress.cancelled()) return nullptr;
        if (offset(area, -report.inset).empty()) ++report.too_thin;
    }
    const Region whole = areas.size() == 1 ? areas.front() : united(areas);
    const Region inner = offset(whole, -report.inset);
    auto hatched =
        hatch(inner, {fill.step.spacing, fill.step.angle, fill.step.joined, fill.step.alternate}, progress);
    report.rows = hatched.rows;
    report.pieces = hatched.pieces;
    report.runs = hatched.lines.size();
    report.lifts = hatched.lines.empty() ? 0 : hatched.lines.size() - 1;
    report.length = length(hatched.lines);
    report.coverage = coverage(whole, hatched.lines, fill.tip, fill.step.angle, progress);
    fill.result = std::make_shared<Polylines>(std::move(hatched.lines));
    return std::make_shared<RecipeCache::Fill>(std::move(fill));
}

class Evaluation {
  public:
    Evaluation(const Part& part, const LaneTips& tips, RecipeCache& cache, Progress& progress)
        : part_(part)
        , tips_(tips)
        , cache_(cache)
        , progress_(progress) {
        out_.part = part.id;
    }

    EvaluatedPart run() {
        for (Finding note : part_.source.notes) {
            note.place.part = part_.id;
            note.remedy = {"note.dismiss", "Dismiss"};
            out_.findings.push_back(std::move(note));
        }
        flatten_source();
        for (const LineSet& set : part_.sets)
            take_set(set);
        for (const Step& step : part_.steps) {
            if (progress_.cancelled()) break;
            if (step.on) take_fill(step, std::get<FillStep>(step.what));
        }
        for (const RunSet& run : out_.runs) {
            out_.box.add(bounds(run.lines));
            for (const Polyline& line : run.lines)
                out_.points += line.points.size();
        }
        for (const FlatLine& line : out_.lines)
            for (const Polyline& c : line.contours)
                out_.points += c.points.size();
        if (out_.box.empty()) out_.box = out_.source_box;
        return std::move(out_);
    }

  private:
    void flatten_source() {
        std::unordered_map<LineId, LineSetId> set_of;
        for (const LineSet& set : part_.sets)
            for (const LineId line : set.lines)
                set_of[line] = set.id;
        const Affine by = Affine::scaling(part_.scale, part_.scale);
        out_.lines.reserve(part_.source.drawing->lines.size());
        for (const DrawnLine& line : part_.source.drawing->lines) {
            FlatLine flat{line.id, set_of[line.id], line.shape.rule, line.drawn.fill.has_value(), {}, {}};
            // Flattened at finished size, so the tolerance means what it says.
            flat.contours = part_.scale == 1 ? flattened(line.shape) : flattened(transformed(line.shape, by));
            for (std::size_t i = 0; i < flat.contours.size(); ++i)
                close_up(flat.contours[i], line.shape.contours[i]);
            flat.box = bounds(flat.contours);
            out_.source_box.add(flat.box);
            index_[line.id] = out_.lines.size();
            out_.lines.push_back(std::move(flat));
        }
    }

    /// Ends that meet make a closed line, whether or not its file says so.
    static void close_up(Polyline& flat, const Contour& drawn) {
        if (flat.closed || !closes(drawn) || flat.points.size() < 4) return;
        flat.closed = true;
        flat.points.pop_back();
    }

    void take_set(const LineSet& set) {
        Box box;
        for (const LineId id : set.lines)
            box.add(out_.lines[index_[id]].box);
        if (set.lines.empty()) return;
        const std::string n = std::to_string(set.lines.size());
        if (set.set_aside) {
            out_.findings.push_back(
                {"lines.set-aside",
                 Grade::hint,
                 counted(set.lines.size(), "line", "lines") + " of \"" + set.name + "\" set aside: not run.",
                 {{"count", n}, {"set", set.name}},
                 {part_.id, {}, set.id, {}, place_of(box)}});
            return;
        }
        out_.box.add(box);
        if (!set.lane) {
            out_.findings.push_back({"lane.none",
                                     Grade::error,
                                     counted(set.lines.size(), "line has", "lines have") +
                                         " no lane. Choose " + (set.lines.size() == 1 ? "it" : "them") +
                                         " and press a lane's letter.",
                                     {{"count", n}},
                                     {part_.id, {}, set.id, {}, place_of(box)},
                                     {"set-aside", "Set aside"}});
            return;
        }
        RunSet run{set.lane, set.id, {}, set.name, {}};
        for (const LineId id : set.lines)
            for (const Polyline& c : out_.lines[index_[id]].contours)
                run.lines.push_back(c);
        out_.runs.push_back(std::move(run));
    }

    void take_fill(const Step& step, const FillStep& fill) {
        std::vector<const FlatLine*> lines;
        RecipeCache::Fill inputs{fill, part_.source.drawing, part_.scale, {}, {}, {}, {}};
        Box box;
        for (const LineSetId id : fill.of) {
            const LineSet* set = find(part_, id);
            inputs.lines.push_back(set->lines);
            for (const LineId line : set->lines) {
                lines.push_back(&out_.lines[index_[line]]);
                box.add(lines.back()->box);
            }
        }
        const FindingPlace place{part_.id, {}, {}, step.id, place_of(box)};
        FillReport& report = out_.fills[step.id];
        if (!step.lane) {
            report.refused = "The fill has no lane.";
            out_.findings.push_back(
                {"fill.no-lane", Grade::error, "A fill has no lane, so it cannot be run.", {}, place});
            return;
        }
        const auto tip = tips_.find(step.lane);
        inputs.tip = tip == tips_.end() ? mm(0.4) : tip->second;
        auto done = cache_.find(step.id, inputs);
        if (!done) {
            done = run_fill(std::move(inputs), lines, progress_);
            if (progress_.cancelled()) return;
            cache_.store(step.id, done);
        }
        report = done->report;
        if (report.open_lines > 0)
            out_.findings.push_back(
                {"fill.open-lines",
                 Grade::caution,
                 counted(static_cast<std::size_t>(report.open_lines), "open line", "open lines") +
                     " cannot be filled and were left out of the fill.",
                 {{"count", std::to_string(report.open_lines)}},
                 place});
        if (done->result->empty()) {
            report.refused =
                lines.empty() ? "Its lines are gone." : "Nothing is wide enough for this tip and inset.";
            out_.findings.push_back({"fill.empty",
                                     Grade::error,
                                     "A fill made no lines: " + lower_case(report.refused.substr(0, 1)) +
                                         report.refused.substr(1),
                                     {},
                                     place,
                                     {"fill.inset-auto", "Inset half the tip"}});
            return;
        }
        judge(report, fill, place);
        out_.runs.push_back({step.lane, {}, step.id, "fill", *done->result});
    }

    void judge(const FillReport& report, const FillStep& fill, const FindingPlace& place) {
        if (report.too_thin > 0)
            out_.findings.push_back(
                {"fill.too-thin",
                 Grade::caution,
                 counted(static_cast<std::size_t>(report.too_thin), "line is", "lines are") +
                     " too thin to be filled with a " + number(in_mm(report.tip), 2) + " mm tip.",
                 {{"count", std::to_string(report.too_thin)}},
                 place});
        if (fill.spacing > report.tip)
            out_.findings.push_back(
                {"fill.wide",
                 Grade::hint,
                 "The fill's lines are " + number(in_mm(fill.spacing), 2) + " mm apart, more than the " +
                     number(in_mm(report.tip), 2) + " mm tip is wide: it will look striped, not solid.",
                 {{"spacing_mm", number(in_mm(fill.spacing), 3)}, {"tip_mm", number(in_mm(report.tip), 3)}},
                 place,
                 {"fill.solid", "Make it solid"}});
        if (report.coverage.overspill_percent > 2)
            out_.findings.push_back({"fill.overspill",
                                     Grade::caution,
                                     "The fill runs over its outline by " +
                                         number(report.coverage.overspill_percent, 1) +
                                         " % of its area. Inset it by half the tip.",
                                     {{"percent", number(report.coverage.overspill_percent, 2)}},
                                     place,
                                     {"fill.inset-auto", "Inset half the tip"}});
    }

    const Part& part_;
    const LaneTips& tips_;
    RecipeCache& cache_;
    Progress& progress_;
    EvaluatedPart out_;
    std::unordered_map<LineId, std::size_t> index_;
};

} // namespace

std::shared_ptr<const RecipeCache::Fill> RecipeCache::find(StepId id, const Fill& in) const {
    const std::lock_guard lock(guard_);
    const auto it = fills_.find(id);
    if (it == fills_.end()) return nullptr;
    const Fill& have = *it->second;
    const bool same = have.step == in.step && have.scale == in.scale && have.tip == in.tip &&
                      have.lines == in.lines && (have.drawing == in.drawing || *have.drawing == *in.drawing);
    return same ? it->second : nullptr;
}

void RecipeCache::store(StepId id, std::shared_ptr<const Fill> fill) {
    const std::lock_guard lock(guard_);
    fills_[id] = std::move(fill);
}

EvaluatedPart evaluate(const Part& part, const LaneTips& tips, RecipeCache& cache, Progress& progress) {
    return Evaluation(part, tips, cache, progress).run();
}

} // namespace dotlane
