#include "core/checks/part_checks.h"

#include <algorithm>
#include <functional>
#include <map>

#include "core/base/text.h"
#include "core/checks/brought_fills.h"
#include "core/checks/findings.h"
#include "core/checks/fit_checks.h"
#include "core/checks/piece_checks.h"
#include "core/geometry/doubled.h"
#include "core/geometry/point_grid.h"
#include "core/recipe/step.h"
#include "core/sources/make.h"

namespace dotlane {
namespace {

class Check {
  public:
    Check(const Project& project, const Catalog& catalog, const EvaluatedPart& part,
          const std::vector<const Stock*>& stocks, Progress& progress)
        : project_(project)
        , catalog_(catalog)
        , part_(part)
        , stocks_(stocks)
        , progress_(progress) {}

    Findings run() {
        const auto pieces = [&] { check_pieces(project_, part_, piece_needs(stocks_), out_, progress_); };
        const std::function<void()> all[] = {[&] { doubled(); },
                                             [&] { gaps(); },
                                             [&] { open_lines(); },
                                             pieces,
                                             [&] { badge(); },
                                             [&] { resized_fills(); },
                                             [&] { check_fit(project_, catalog_, part_, out_); }};
        for (const auto& check : all)
            if (!progress_.cancelled()) check();
        return std::move(out_);
    }

  private:
    FindingPlace place(const Box& box, LineSetId set = {}) const {
        return {part_.part, {}, set, {}, place_of(box)};
    }
    bool cuts(const RunSet& run) const {
        const Lane* lane = find(project_, run.lane);
        return lane && lane->action == Action::cut;
    }

    /// What is printed lies below the tool that follows its edge.
    bool runs_along(const RunSet& run) const {
        const Lane* lane = find(project_, run.lane);
        return !lane || row(lane->action).run;
    }

    void doubled() {
        std::vector<const Polyline*> lines;
        std::vector<const RunSet*> owner;
        for (const RunSet& run : part_.runs) {
            if (run.ink) continue;
            for (const Polyline& line : run.lines)
                lines.push_back(&line), owner.push_back(&run);
        }
        const auto doubles = doubles_of(lines);
        std::map<LineSetId, std::pair<std::size_t, Box>> same;
        std::size_t crossed = 0;
        Box where;
        for (std::size_t i = 0; i < lines.size(); ++i) {
            if (doubles[i] < 0) continue;
            const RunSet &a = *owner[i], &b = *owner[static_cast<std::size_t>(doubles[i])];
            if (a.lane == b.lane) {
                ++same[a.set].first;
                same[a.set].second.add(bounds(*lines[i]));
            } else if (runs_along(a) && runs_along(b)) {
                ++crossed;
                where.add(bounds(*lines[i]));
            }
        }
        for (const auto& [set, found] : same)
            out_.push_back(checks::lines_doubled(place(found.second, set), Count{found.first}));
        if (crossed > 0) out_.push_back(checks::lines_two_lanes(place(where), Count{crossed}));
    }

    void gaps() {
        const double meet = 1e-3;
        PointGrid<Point> ends(in_mm(gap_under));
        std::size_t count = 0;
        double widest = 0;
        Box where;
        for (const RunSet& run : part_.runs) {
            if (!cuts(run)) continue;
            for (const Polyline& line : run.lines) {
                if (line.closed || line.points.size() < 2 || length(line) <= gap_under) continue;
                for (const Point p : {line.points.front(), line.points.back()}) {
                    ends.near(p, [&](Point end, double d) {
                        if (d <= meet) return;
                        ++count;
                        widest = std::max(widest, d);
                        where.add(end), where.add(p);
                    });
                    ends.add(p, p, 50);
                }
            }
        }
        if (count > 0) out_.push_back(checks::lines_gaps(place(where), Count{count}, {widest}));
    }

    /// A cut line that comes back to its beginning, but not quite, was meant to close: what it bounds stays
    /// hanging.
    void open_lines() {
        struct Found {
            std::size_t count = 0;
            double widest = 0;
            Box where;
        };
        std::map<LineSetId, Found> found;
        for (const RunSet& run : part_.runs) {
            if (!cuts(run)) continue;
            for (const Polyline& line : run.lines) {
                if (line.closed || line.points.size() < 4) continue;
                const double d = distance(line.points.front(), line.points.back());
                if (d <= in_mm(gap_under) || d > 2 || in_mm(length(line)) < 10 * d) continue;
                Found& f = found[run.set];
                ++f.count;
                f.widest = std::max(f.widest, d);
                f.where.add(line.points.front()), f.where.add(line.points.back());
            }
        }
        for (const auto& [set, f] : found)
            out_.push_back(checks::lines_open(place(f.where, set), Count{f.count}, {f.widest}));
    }

    /// Text and art must stay in the visible ring; the rest wraps around.
    void badge() {
        const Part* part = find(project_, part_.part);
        const auto* spec = part ? std::get_if<Badge>(&part->source.spec) : nullptr;
        if (!spec || part_.source_box.empty()) return;
        const double scale = part->scale;
        const double room = (in_mm(circles_of(*spec).visible) / 2 - in_mm(spec->safe)) * scale;
        const Point middle = part_.source_box.centre();
        double over = 0;
        Box where;
        for (const RunSet& run : part_.runs) {
            const LineSet* set = find(*part, run.set);
            if (set && set->role == role::outline) continue;
            for (const Polyline& line : run.lines)
                for (const Point p : line.points)
                    if (const double d = distance(p, middle) - room; d > 0.005)
                        over = std::max(over, d), where.add(p);
        }
        if (over > 0) out_.push_back(checks::badge_over(place(where), {over}));
    }

    /// A fill that was lines before it came keeps them, and is lighter or darker at another size.
    void resized_fills() {
        const Part* part = find(project_, part_.part);
        if (!part || is_made(*part)) return;
        if (std::abs(part_.scale - 1) < 0.005 && !resized(*part)) return;
        for (const BroughtFill& fill : brought_fills(part_, progress_)) {
            const LineSet* set = find(*part, fill.set);
            if (!set || set->set_aside || std::abs(fill.grown - 1) < 0.005) continue;
            out_.push_back(with_remedies_if(
                !fill.outlines.empty(), checks::fill_resized(place(fill.box, fill.set), {in_mm(fill.spacing)},
                                                             {in_mm(fill.spacing) / fill.grown})));
        }
    }

    const Project& project_;
    const Catalog& catalog_;
    const EvaluatedPart& part_;
    const std::vector<const Stock*>& stocks_;
    Progress& progress_;
    Findings out_;
};

} // namespace

bool resized(const Part& part) {
    return std::any_of(part.steps.begin(), part.steps.end(),
                       [](const Step& s) { return s.on && std::holds_alternative<ResizeStep>(s.what); });
}

std::vector<const Stock*> stocks_of(const Project& project, const Catalog& catalog, PartId part) {
    std::vector<const Stock*> out;
    const auto add = [&](const std::string& id) {
        const Stock* stock = catalog.stock(id);
        if (stock && std::find(out.begin(), out.end(), stock) == out.end()) out.push_back(stock);
    };
    for (const Sheet& sheet : project.sheets)
        if (std::any_of(sheet.placements.begin(), sheet.placements.end(),
                        [&](const Placement& p) { return p.part == part; }))
            add(sheet.stock);
    if (const Part* p = find(project, part); p && out.empty()) add(p->stock);
    return out;
}

Findings check_part(const Project& scope, const Catalog& catalog, const EvaluatedPart& part,
                    const std::vector<const Stock*>& stocks, Progress& progress) {
    return Check(scope, catalog, part, stocks, progress).run();
}

} // namespace dotlane
