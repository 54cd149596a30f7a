#include "core/workflow/workshop.h"

#include <algorithm>

#include "core/base/text.h"
#include "core/project/format.h"
#include "core/sources/make.h"
#include "core/workflow/data_folder.h"
#include "core/workflow/fit_checks.h"
#include "core/workflow/overlaps.h"
#include "core/workflow/part_checks.h"
#include "core/workflow/placing.h"
#include "core/workflow/printing.h"

namespace dotlane {

std::string placed_name(const Project& project, const Placement& p) {
    return find(project, p.part)->name + (p.piece > 0 ? " (piece " + std::to_string(p.piece) + ")" : "");
}

std::optional<Finding> near_limit(std::uint64_t bytes) {
    if (bytes < static_cast<std::uint64_t>(project_bytes_near * project_max_bytes)) return {};
    const std::string mb = std::to_string(bytes >> 20), most = std::to_string(project_max_bytes >> 20);
    return Finding{"project.near-limit",
                   bytes > project_max_bytes ? Grade::error : Grade::caution,
                   "The project takes about " + mb + " MB of the " + most +
                       " MB that a project file may have; beyond that it cannot be saved. Simplify its "
                       "drawings, or move parts to another project.",
                   {{"mb", mb}},
                   {}};
}

namespace {

/// "path3781" is what a drawing program calls what nobody has named.
bool named_by_a_maker(std::string_view name) {
    constexpr std::string_view elements[] = {"path",    "rect", "circle", "ellipse", "line",  "polyline",
                                             "polygon", "use",  "g",      "text",    "tspan", "image"};
    const auto digits = name.find_last_not_of("0123456789-_.") + 1;
    return !name.empty() &&
           std::find(std::begin(elements), std::end(elements), name.substr(0, digits)) == std::end(elements);
}

/// What strokes may name, with the names that makers know.
std::vector<ProgramPart> program_parts(const Project& project, const Derived& derived) {
    std::vector<ProgramPart> out;
    for (const Part& part : project.parts) {
        ProgramPart p{part.id, part.name, {}, {}, {}};
        for (const Sheet& sheet : project.sheets)
            for (const Placement& placement : sheet.placements)
                if (placement.part == part.id) p.placements.push_back(placement.id);
        if (p.placements.empty()) continue;
        for (const LineSet& set : part.sets)
            p.line_sets[set.id] = set.name;
        for (const Step& step : part.steps)
            if (step.result) p.line_sets[step.result] = kind_of(step.what).name;
        for (const DrawnLine& line : derived.part(part.id)->drawing->lines)
            if (named_by_a_maker(line.name)) p.lines[line.id.value] = line.name;
        out.push_back(std::move(p));
    }
    return out;
}

} // namespace

const EvaluatedPart* Derived::part(PartId id) const {
    const auto it = parts.find(id);
    return it == parts.end() ? nullptr : it->second.get();
}

const LaidSheet* Derived::sheet(SheetId id) const {
    for (const LaidSheet& s : sheets)
        if (s.sheet == id) return &s;
    return nullptr;
}

Project Workshop::new_project(std::string name) const {
    Project p;
    p.name = std::move(name);
    if (!catalog_.machines.empty()) p.machine = catalog_.machines.front().id;
    return p;
}

Workshop::Workshop(Catalog catalog)
    : catalog_(std::move(catalog))
    , footprints_(std::make_unique<Footprints>()) {}

Workshop::~Workshop() = default;

FontShelf& Workshop::fonts() {
    // Without them lettering uses what is installed, and says so.
    std::call_once(fonts_ready_, [this] { (void)fonts_.add_folder(disk(), data_folder() + "/fonts"); });
    return fonts_;
}

Workshop::Loans Workshop::loans_of(const Project& project, const Part& part, const Derived& derived) {
    Loans out;
    for (const PartId id : borrows_from(part)) {
        const auto cached = parts_.find(id);
        const auto lender = derived.parts.find(id);
        if (lender == derived.parts.end()) continue;
        // The same evaluation lends the same lines: what is made of them is then not made again.
        if (cached != parts_.end() && cached->second.result == lender->second) {
            auto& lent = cached->second.lent;
            if (!lent)
                lent = std::make_shared<const Borrowed>(lend(project, *find(project, id), *lender->second));
            out[id] = lent;
        }
    }
    return out;
}

SourceLines Workshop::source_lines(const Part& part, const Loans& loans, Progress& progress) {
    if (!is_made(part)) return {part.source.drawing, {}, {}};
    const auto loan = loans.find(borrows_from(part.source.spec));
    const auto borrowed = loan == loans.end() ? nullptr : loan->second;
    const auto it = sources_.find(part.id);
    if (it != sources_.end() && it->second.spec == part.source.spec && it->second.borrowed == borrowed)
        return it->second.lines;
    auto made = make_lines(part.source.spec, fonts(), borrowed.get(), progress);
    if (!made) {
        // The last lines that could be made stay in view, and the part says why there are no newer ones.
        SourceLines old =
            it != sources_.end() ? it->second.lines : SourceLines{std::make_shared<Drawing>(), {}, {}};
        old.findings.push_back({"source.failed",
                                Grade::error,
                                "\"" + part.name + "\" cannot be made: " + made.error().message,
                                {{"part", part.name}}});
        return old;
    }
    sources_[part.id] = {part.source.spec, borrowed, *made};
    return *made;
}

std::map<StepId, Result<SourceLines>> Workshop::brought(const Part& part, const SourceLines& source,
                                                        const Loans& loans) {
    std::map<StepId, Result<SourceLines>> out;
    for (const Step& step : part.steps) {
        if (!kind_of(step.what).brings) continue;
        const auto loan = loans.find(borrows_from(step.what));
        auto borrowed = loan == loans.end() ? nullptr : loan->second;
        const auto own = follows_own(step.what) ? source.drawing : nullptr;
        auto [it, fresh] = brought_.try_emplace(step.id);
        CachedBrought& known = it->second;
        if (fresh || known.what != step.what || known.own != own || (!own && known.borrowed != borrowed)) {
            if (own) borrowed = std::make_shared<const Borrowed>(lend(source, part.scale));
            known = {step.what, borrowed, own, make_lines(step.what, fonts(), borrowed.get())};
        }
        out.emplace(step.id, known.lines);
    }
    return out;
}

std::shared_ptr<const EvaluatedPart> Workshop::evaluated(const Project& project, const Part& part,
                                                         const LaneTips& tips, const Loans& loans,
                                                         Progress& progress) {
    const auto it = parts_.find(part.id);
    std::map<LaneId, Action> actions;
    for (const Lane& lane : project.lanes)
        actions[lane.id] = lane.action;
    if (it != parts_.end() && it->second.part == part && it->second.loans == loans &&
        it->second.tips == tips && it->second.actions == actions)
        return it->second.result;
    SourceLines source = source_lines(part, loans, progress);
    if (progress.cancelled()) return nullptr;
    auto steps = brought(part, source, loans);
    EvaluatedPart made = evaluate(part, {std::move(source), std::move(steps), tips}, cache_, progress);
    auto result = std::make_shared<const EvaluatedPart>(std::move(made));
    if (!progress.cancelled()) parts_[part.id] = {part, loans, tips, std::move(actions), result, {}, {}, {}};
    return result;
}

bool Workshop::evaluate_into(Derived& derived, const Part& part, const LaneTips& tips, Progress& progress) {
    if (derived.parts.contains(part.id)) return true;
    const Project& project = *derived.project;
    for (const PartId from : borrows_from(part))
        if (const Part* lender = find(project, from))
            if (!evaluate_into(derived, *lender, tips, progress)) return false;
    if (progress.cancelled()) return false;
    derived.parts[part.id] = evaluated(project, part, tips, loans_of(project, part, derived), progress);
    return !progress.cancelled();
}

/// Slower than making the part: its picture does not wait for them.
void Workshop::check_parts(const Project& project, Derived& derived, Progress& progress) {
    for (auto& [id, cached] : parts_) {
        if (progress.cancelled()) return;
        auto stocks = stocks_of(project, catalog_, id);
        if (!cached.checks || stocks != cached.checked_for || project.machine != cached.checked_on)
            cached.checks = check_part(project, catalog_, *cached.result, progress);
        if (progress.cancelled()) { // half a list is none
            cached.checks.reset();
            return;
        }
        cached.checked_for = std::move(stocks), cached.checked_on = project.machine;
        for (const Finding& f : *cached.checks)
            if (f.code != "part.turn" || !lies_turned(project, f)) derived.findings.push_back(f);
    }
}

std::shared_ptr<const Derived> Workshop::derive(std::shared_ptr<const Project> project, Progress& progress,
                                                const Early& early, PartId first) {
    const std::lock_guard lock(turn_);
    auto out = std::make_shared<Derived>();
    out->project = project;
    LaneTips tips;
    for (const Lane& lane : project->lanes)
        if (const Tool* tool = catalog_.tool(lane.tool)) tips[lane.id] = tool->tip;
    if (const Part* part = find(*project, first); part && early) {
        Derived alone;
        alone.project = project, alone.planned = false;
        if (!evaluate_into(alone, *part, tips, progress)) return nullptr;
        out->parts = alone.parts;
        early(std::make_shared<const Derived>(std::move(alone)));
    }
    for (const Part& part : project->parts)
        if (!evaluate_into(*out, part, tips, progress)) return nullptr;
    if (const auto told = near_limit(estimated_bytes(*project))) out->findings.push_back(*told);
    for (const Part& part : project->parts) {
        const auto& findings = out->parts[part.id]->findings;
        out->findings.insert(out->findings.end(), findings.begin(), findings.end());
    }
    const auto gone = [&](const auto& entry) { return !out->parts.contains(entry.first); };
    std::erase_if(parts_, gone);
    std::erase_if(sources_, gone);
    std::set<PartId> present;
    for (const Part& part : project->parts)
        present.insert(part.id);
    cache_.keep_only(present);
    check_lanes(*project, *out);
    lay_out(*project, *out);
    if (early) {
        auto drawn = std::make_shared<Derived>(*out);
        drawn->planned = false;
        early(std::move(drawn));
    }
    check_parts(*project, *out, progress);
    if (progress.cancelled()) return nullptr;
    footprints_->keep_only(out->parts);
    auto overlaps = check_overlaps(*project, *out, *footprints_);
    std::move(overlaps.begin(), overlaps.end(), std::back_inserter(out->findings));
    const Machine* machine = catalog_.machine(project->machine);
    if (!machine) {
        out->no_plan = {"plan.no-machine",
                        "The machine \"" + project->machine + "\" is not in the catalog. Choose another.",
                        {}};
    } else if (auto works = sheet_works(*project, *out); !works) {
        out->no_plan = works.error();
    } else if (auto plan =
                   make_plan(project->name, *machine, std::move(*works), {project->pass_order}, progress);
               !plan) {
        out->no_plan = plan.error();
    } else {
        out->findings.insert(out->findings.end(), plan->findings.begin(), plan->findings.end());
        out->plan = std::move(*plan);
        out->plan->program.parts = program_parts(*project, *out);
    }
    if (progress.cancelled()) return nullptr;
    if (!out->plan && out->no_plan.code != "plan.nothing")
        out->findings.push_back({out->no_plan.code, Grade::error, out->no_plan.message, {}});
    std::stable_sort(out->findings.begin(), out->findings.end(),
                     [](const Finding& a, const Finding& b) { return a.grade > b.grade; });
    return out;
}

void Workshop::check_lanes(const Project& project, Derived& derived) const {
    std::set<LaneId> used;
    for (const auto& [id, part] : derived.parts)
        for (const RunSet& run : part->runs)
            used.insert(run.lane);
    for (const Lane& lane : project.lanes) {
        const Tool* tool = catalog_.tool(lane.tool);
        // A lane that nothing is sent to keeps nothing from being made.
        const Grade grade = used.contains(lane.id) ? Grade::error : Grade::hint;
        if (!tool) {
            derived.findings.push_back({"lane.no-tool",
                                        grade,
                                        "Lane \"" + lane.name + "\" names the tool \"" + lane.tool +
                                            "\", which is not in the catalog.",
                                        {{"lane", lane.name}}});
        } else if (std::find(tool->actions.begin(), tool->actions.end(), lane.action) ==
                   tool->actions.end()) {
            derived.findings.push_back({"lane.wrong-tool",
                                        grade,
                                        std::string("A ") + tool->name + " cannot " +
                                            action_name(lane.action) + ". Give lane \"" + lane.name +
                                            "\" another tool.",
                                        {{"lane", lane.name}, {"tool", tool->name}}});
        }
    }
}

namespace {

/// Wanted against what lies on the sheets.
void count_placed(const Project& project, const EvaluatedPart& evaluated, Findings& out) {
    const Part& part = *find(project, evaluated.part);
    const int have = placed_copies(project, evaluated);
    const auto missing = missing_pieces(project, evaluated).size();
    bool some = false, whole = false;
    for (const Sheet& sheet : project.sheets)
        for (const Placement& p : sheet.placements)
            if (p.part == part.id) (p.piece == 0 ? whole : some) = true;
    some |= whole;
    const std::string n = std::to_string(have), wanted = std::to_string(part.quantity);
    const FindingPlace place{part.id, {}, {}, {}, {}};
    if (!some)
        out.push_back({"part.unplaced",
                       Grade::caution,
                       "\"" + part.name + "\" lies on no sheet, so it is not made.",
                       {{"part", part.name}},
                       place,
                       {"part.place", "Place it"}});
    else if (missing > 0)
        out.push_back({"part.pieces-missing",
                       Grade::caution,
                       std::to_string(missing) + (missing == 1 ? " piece" : " pieces") + " of \"" +
                           part.name + "\" " + (missing == 1 ? "lies" : "lie") + " on no sheet yet.",
                       {{"part", part.name}, {"count", std::to_string(missing)}},
                       place,
                       {"part.place", "Place them"}});
    else if (have != part.quantity)
        out.push_back({"part.count",
                       have < part.quantity ? Grade::caution : Grade::hint,
                       wanted + " of \"" + part.name + "\" " + (part.quantity == 1 ? "is" : "are") +
                           " wanted, " + n + (have == 1 ? " lies" : " lie") + " on the sheets.",
                       {{"part", part.name}, {"wanted", wanted}, {"placed", n}},
                       place,
                       {"part.want-placed", "Want " + n}});
    else if (whole && evaluated.apart.size() > 1)
        out.push_back({"part.in-one",
                       Grade::hint,
                       "\"" + part.name + "\" lies on its sheet in one arrangement; its " +
                           std::to_string(evaluated.apart.size()) + " pieces may lie apart.",
                       {{"part", part.name}, {"count", std::to_string(evaluated.apart.size())}},
                       place,
                       {"part.lay-apart", "Lay them apart"}});
}

} // namespace

void Workshop::lay_out(const Project& project, Derived& derived) const {
    std::map<std::pair<PartId, int>, std::vector<Point>> hulls; // copies of a part have the same
    for (const Sheet& sheet : project.sheets) {
        LaidSheet laid;
        laid.sheet = sheet.id;
        const Mat* mat = catalog_.mat(sheet.mat);
        const Stock* stock = catalog_.stock(sheet.stock);
        const Machine* machine = catalog_.machine(project.machine);
        if (!mat || !stock) {
            derived.findings.push_back(
                {"sheet.unknown",
                 Grade::error,
                 sheet.name + " names a " + (mat ? "stock" : "mat") + " that is not in the catalog.",
                 {{"sheet", sheet.name}},
                 {{}, sheet.id, {}, {}, {}}});
            derived.sheets.push_back(std::move(laid));
            continue;
        }
        laid.usable = usable_area(*mat, *stock);
        laid.stock = stock_area(*mat, *stock);
        laid.mat_width = mat->width, laid.mat_height = mat->height;
        std::vector<Box> boxes;
        std::vector<std::string> names;
        for (const Placement& p : sheet.placements) {
            const EvaluatedPart* part = derived.part(p.part);
            std::string name = placed_name(project, p);
            if (!is_there(*part, p.piece)) {
                boxes.emplace_back();
                derived.findings.push_back({"sheet.no-piece",
                                            Grade::error,
                                            "\"" + name + "\" on " + sheet.name +
                                                " is no longer there: its recipe makes other pieces now.",
                                            {{"part", name}, {"sheet", sheet.name}},
                                            {p.part, sheet.id, {}, {}, {}},
                                            {"sheet.take-off", "Take such pieces off"}});
            } else {
                const Extent extent = extent_of(*part, p.piece);
                laid.parts.push_back({p, placement_transform(p, extent), placed_box(p, extent), {}});
                PlacedPart& placed = laid.parts.back();
                placed.outline = placed.box;
                if (std::abs(std::remainder(in_degrees(p.turn), 90)) > 1e-9) {
                    placed.outline = {};
                    auto& hull = hulls[{p.part, p.piece}];
                    if (hull.empty()) hull = outline_hull(*part, p.piece);
                    for (const Point corner : hull)
                        placed.outline.add(placed.to_sheet(corner));
                }
                boxes.push_back(placed.outline);
            }
            names.push_back(std::move(name));
        }
        if (machine) {
            auto findings = check_layout(sheet, *machine, *mat, *stock, boxes, names);
            for (Finding& f : findings)
                if (f.code == "sheet.outside")
                    for (const PlacedPart& p : laid.parts)
                        if (p.placement.part == f.place.part && place_of(p.outline) == f.place.box)
                            offer_turn(f, *derived.part(p.placement.part), p.placement, laid.usable);
            derived.findings.insert(derived.findings.end(), findings.begin(), findings.end());
        }
        derived.sheets.push_back(std::move(laid));
    }
    for (const Part& part : project.parts)
        count_placed(project, *derived.part(part.id), derived.findings);
}

namespace {

void add_lines(LaneWork& out, const EvaluatedPart& part, const PlacedPart& placed) {
    const Arrangement* piece = arrangement(part, placed.placement.piece);
    for (std::size_t r = 0; r < part.runs.size(); ++r) {
        const RunSet& run = part.runs[r];
        if (run.lane != out.lane.id) continue;
        const Polylines& lines = lines_of(part, r, placed.placement.piece);
        auto of = run.of.begin();
        std::size_t begin = 0; // of the line
        for (std::size_t l = 0; l < lines.size(); ++l) {
            const std::size_t contour = piece ? piece->which[r][l] : l; // they stand in order
            for (; of != run.of.end() && contour >= of->end; ++of)
                begin = of->end;
            out.lines.push_back(transformed(lines[l], placed.to_sheet));
            out.of.push_back({part.part, placed.placement.id, run.set, run.step,
                              of == run.of.end() ? LineId{} : of->id,
                              static_cast<std::uint32_t>(contour - begin)});
        }
    }
}

Face face_of(const LaidSheet& laid) {
    const auto mirrored = std::count_if(laid.parts.begin(), laid.parts.end(),
                                        [](const PlacedPart& p) { return p.placement.mirrored; });
    return mirrored == 0                                             ? Face::up
           : static_cast<std::size_t>(mirrored) == laid.parts.size() ? Face::down
                                                                     : Face::both;
}

} // namespace

Result<std::vector<SheetWork>> Workshop::sheet_works(const Project& project, Derived& derived) const {
    std::vector<SheetWork> works;
    for (std::size_t s = 0; s < project.sheets.size(); ++s) {
        const Sheet& sheet = project.sheets[s];
        const LaidSheet& laid = derived.sheets[s];
        const Mat* mat = catalog_.mat(sheet.mat);
        const Stock* stock = catalog_.stock(sheet.stock);
        if (!mat || !stock) continue;
        SheetWork work{{sheet.id, sheet.name, stock->name, mat->name, mat->width, mat->height, laid.usable,
                        laid.stock, stock->colour},
                       stock->price,
                       stock->name,
                       {},
                       stock->thickness,
                       face_of(laid)};
        for (const Lane& lane : project.lanes) {
            LaneWork lane_work{lane, plate(project, lane.id), catalog_.tool(lane.tool), {}};
            for (const PlacedPart& placed : laid.parts)
                add_lines(lane_work, *derived.part(placed.placement.part), placed);
            if (!lane_work.lines.empty()) work.lanes.push_back(std::move(lane_work));
        }
        work.print = print_sheet(catalog_, derived, laid, work.sheet);
        if (work.print) {
            auto found = check_print(*work.print);
            std::move(found.begin(), found.end(), std::back_inserter(derived.findings));
        }
        works.push_back(std::move(work));
    }
    return works;
}

} // namespace dotlane
