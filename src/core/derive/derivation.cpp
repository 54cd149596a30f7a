#include "core/derive/derivation.h"

#include <algorithm>

#include "core/checks/fit_checks.h"
#include "core/checks/part_checks.h"
#include "core/checks/project_checks.h"
#include "core/derive/correction.h"
#include "core/derive/findings.h"
#include "core/project/format.h"
#include "core/recipe/kept_order.h"

namespace dotlane {
namespace {

/// What evaluation may read of a part: not how many are wanted, nor of what.
Part recipe_of(const Part& part) {
    Part out = part;
    out.quantity = 1, out.stock.clear(), out.one_colour = 0;
    out.source.spec = {};
    out.source.file_name.clear(), out.source.file_hash = 0;
    out.source.drawing = nullptr; // its lines are given
    return out;
}

/// What the checks of a part may read of the project.
enum class Tools { left_out, told };
Project scope_of(const Project& project, const Part& part, const EvaluatedPart& made, Tools tools) {
    Project out;
    out.unit = project.unit, out.machine = project.machine;
    for (const auto& [id, action] : actions_of(project, made)) {
        Lane lane; // neither its name nor its colour
        lane.id = id, lane.action = action;
        if (tools == Tools::told) lane.tool = find(project, id)->tool;
        out.lanes.push_back(std::move(lane));
    }
    out.parts = {part};
    out.parts.front().quantity = 1;
    return out;
}

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
    std::map<PartId, std::vector<PlacementId>> placed;
    for (const Sheet& sheet : project.sheets)
        for (const Placement& placement : sheet.placements)
            placed[placement.part].push_back(placement.id);
    std::vector<ProgramPart> out;
    for (const Part& part : project.parts) {
        const auto where = placed.find(part.id);
        if (where == placed.end()) continue;
        ProgramPart p{part.id, part.name, where->second, {}, {}};
        for (const LineSet& set : part.sets)
            p.line_sets[set.id] = as_is(set.name);
        for (const Step& step : part.steps)
            if (step.result) p.line_sets[step.result] = word(kind_of(step.what));
        for (const DrawnLine& line : derived.part(part.id)->drawing->lines)
            if (named_by_a_maker(line.name)) p.lines[line.id.value] = line.name;
        out.push_back(std::move(p));
    }
    return out;
}

Face face_of(const LaidSheet& laid) {
    const auto mirrored = std::count_if(laid.parts.begin(), laid.parts.end(),
                                        [](const PlacedPart& p) { return p.placement.mirrored; });
    return mirrored == 0                                             ? Face::up
           : static_cast<std::size_t>(mirrored) == laid.parts.size() ? Face::down
                                                                     : Face::both;
}

} // namespace

Derivation::Derivation(std::shared_ptr<const Project> project, const Fixed& fixed, Stages& stages,
                       Progress& progress, const Wanted& wanted)
    : shared_(std::move(project))
    , project_(*shared_)
    , fixed_(fixed)
    , stages_(stages)
    , progress_(progress)
    , wanted_(wanted) {
    for (const Lane& lane : project_.lanes)
        if (const Tool* tool = fixed.catalog.tool(lane.tool)) tips_[lane.id] = tool->tip;
}

void Derivation::tell(const Findings& findings) {
    out_->findings.insert(out_->findings.end(), findings.begin(), findings.end());
}

std::shared_ptr<const Derived> Derivation::run(const Early& early) {
    out_ = std::make_shared<Derived>();
    out_->project = shared_;
    out_->left_out = wanted_.left_out;
    if (const Part* part = find(project_, wanted_.first); part && early) {
        Derived alone;
        alone.project = shared_, alone.planned = false;
        if (!evaluate_into(alone, *part)) return nullptr;
        out_->parts = alone.parts;
        early(std::make_shared<const Derived>(std::move(alone)));
    }
    if (!evaluate_independent()) return nullptr;
    for (const Part& part : project_.parts)
        if (!evaluate_into(*out_, part)) return nullptr;
    if (const auto told = near_limit(estimated_bytes(project_))) out_->findings.push_back(*told);
    for (const Part& part : project_.parts)
        tell(out_->parts[part.id]->findings);
    tell(lane_findings(project_, fixed_.catalog, out_->parts));
    if (!lay_out()) return nullptr;
    if (early) {
        auto drawn = std::make_shared<Derived>(*out_);
        drawn->planned = false;
        early(std::move(drawn));
    }
    if (!check_parts() || !check_overlaps() || !plan()) return nullptr;
    std::stable_sort(out_->findings.begin(), out_->findings.end(),
                     [](const Finding& a, const Finding& b) { return a.grade > b.grade; });
    stages_.prune();
    return out_;
}

bool Derivation::lend_to(const Part& part, const Derived& derived, Loans& out) {
    for (const PartId id : borrows_from(part)) {
        const auto lender = derived.parts.find(id);
        if (lender == derived.parts.end()) continue;
        out[id] = get<LentOf>(
            id, {lender->second, find(project_, id)->scale, actions_of(project_, *lender->second)});
        if (!out[id]) return false;
    }
    return true;
}

std::optional<RecipeOf::Key> Derivation::recipe_key(const Part& part, const Loans& loans) {
    const auto loan = [&](PartId of) {
        const auto it = loans.find(of);
        return it == loans.end() ? nullptr : it->second;
    };
    const bool made = is_made(part);
    const auto source = get<SourceOf>(part.id, {part.source.spec, made ? nullptr : part.source.drawing,
                                                loan(borrows_from(part.source.spec))});
    if (!source) return {};
    RecipeOf::Key key{recipe_of(part), made, source, {}, {}};
    for (const Step& step : part.steps) {
        const StepKind& kind = kind_of(step.what);
        if (const auto tip = tips_.find(step.lane); kind.inks && tip != tips_.end()) key.tips.insert(*tip);
        if (!kind.brings && !kind.numbers) continue;
        const bool own = follows_own(step.what);
        const auto brought =
            get<BroughtOf>(step.id, {step.what, own ? nullptr : loan(borrows_from(step.what)),
                                     own ? source->lines.drawing : nullptr, own ? part.scale : 1});
        if (!brought) return {};
        key.brought[step.id] = brought;
    }
    return key;
}

bool Derivation::evaluate_independent() {
    std::vector<std::pair<PartId, RecipeOf::Key>> wanted;
    for (const Part& part : project_.parts) {
        if (out_->parts.contains(part.id) || !borrows_from(part).empty()) continue;
        if (progress_.cancelled()) return false;
        auto key = recipe_key(part, {});
        if (!key) return false;
        wanted.emplace_back(part.id, std::move(*key));
    }
    std::vector<PartId> ids;
    for (const auto& [id, key] : wanted)
        ids.push_back(id);
    const auto made = stages_.of<RecipeOf>().get_all(std::move(wanted), fixed_, progress_);
    for (std::size_t i = 0; i < made.size(); ++i)
        out_->parts[ids[i]] = made[i];
    return made.size() == ids.size();
}

bool Derivation::evaluate_into(Derived& derived, const Part& part) {
    if (derived.parts.contains(part.id)) return true;
    for (const PartId from : borrows_from(part))
        if (const Part* lender = find(project_, from))
            if (!evaluate_into(derived, *lender)) return false;
    Loans loans;
    if (progress_.cancelled() || !lend_to(part, derived, loans)) return false;
    auto key = recipe_key(part, loans);
    auto made = key ? get<RecipeOf>(part.id, std::move(*key)) : nullptr;
    if (!made) return false;
    derived.parts[part.id] = std::move(made);
    return true;
}

bool Derivation::lay_out() {
    for (const Sheet& sheet : project_.sheets) {
        LayoutOf::Key key{sheet, project_.machine, {}};
        for (const Placement& p : sheet.placements) {
            const auto& part = out_->parts[p.part];
            const auto footprint =
                get<FootprintOf>({p.part, p.piece}, {part, p.piece, actions_of(project_, *part)});
            if (!footprint) return false;
            key.lying.push_back({placed_name(project_, p), *footprint});
        }
        auto layout = get<LayoutOf>(sheet.id, std::move(key));
        if (!layout) return false;
        out_->sheets.push_back(layout->laid);
        tell(layout->findings);
        layouts_.push_back(std::move(layout));
    }
    tell(placed_findings(project_, out_->parts));
    return true;
}

/// Slower than making the parts: their picture does not wait for them.
bool Derivation::check_parts() {
    std::vector<std::pair<PartId, PartChecksOf::Key>> wanted;
    std::vector<std::pair<PartId, TipChecksOf::Key>> of_tips;
    for (const auto& [id, part] : out_->parts) {
        const Part& given = *find(project_, id);
        wanted.push_back({id,
                          {part, scope_of(project_, given, *part, Tools::left_out),
                           stocks_of(project_, fixed_.catalog, id)}});
        of_tips.push_back({id, {part, scope_of(project_, given, *part, Tools::told)}});
    }
    const auto checks = stages_.of<PartChecksOf>().get_all(std::move(wanted), fixed_, progress_);
    const auto tips = stages_.of<TipChecksOf>().get_all(std::move(of_tips), fixed_, progress_);
    if (tips.size() < out_->parts.size() || checks.size() < out_->parts.size()) return false;
    for (std::size_t i = 0; i < checks.size(); ++i)
        for (const auto& some : {checks[i], tips[i]})
            for (const Finding& f : *some)
                if (f.code != "part.turn" || !lies_turned(project_, f)) out_->findings.push_back(f);
    return true;
}

bool Derivation::check_overlaps() {
    std::vector<std::pair<SheetId, OverlapsOf::Key>> wanted;
    for (std::size_t s = 0; s < project_.sheets.size(); ++s)
        wanted.push_back({project_.sheets[s].id, {project_.sheets[s].name, layouts_[s]}});
    const auto made = stages_.of<OverlapsOf>().get_all(std::move(wanted), fixed_, progress_);
    for (const auto& overlaps : made)
        tell(*overlaps);
    return made.size() == project_.sheets.size();
}

/// Where the machine finds what was printed; as it is, when nothing was measured or it says nothing.
Affine Derivation::corrected(const Sheet& sheet, const PrintSheet* print) {
    if (sheet.found.empty()) return {};
    const FindingPlace place{{}, sheet.id, {}, {}, {}};
    const std::vector<Point> asked(sheet.found.begin(), sheet.found.begin() + 3),
        found(sheet.found.begin() + 3, sheet.found.end());
    const std::vector<Point> now = print ? mark_places(*print) : std::vector<Point>();
    const bool there = now.size() >= 3 && std::equal(asked.begin(), asked.end(), now.begin(),
                                                     [](Point a, Point b) { return distance(a, b) < 0.05; });
    const Result<Correction> made =
        there
            ? correction_of(asked, found)
            : fail("marks.moved", say("they lie elsewhere by now, as what lies on the sheet has been moved. "
                                      "Print it anew, or measure them again."));
    if (!made) {
        tell({sheet_findings::print_marks(place, sheet.name, made.error().message)});
        return {};
    }
    tell({sheet_findings::print_corrected(place, sheet.name, {in_mm(made->right)}, {in_mm(made->down)},
                                          {in_degrees(made->turn)}, {made->wide * 100}, {made->high * 100},
                                          {in_degrees(made->shear)})});
    return made->map;
}

/// What a recipe makes for the back of its material must not be mirrored once more where it lies.
void Derivation::check_faces(const Sheet& sheet, const LaidSheet& laid) {
    for (const PlacedPart& p : laid.parts) {
        const auto& reports = p.footprint->part().reports;
        if (!p.placement.mirrored ||
            std::none_of(reports.begin(), reports.end(), [](const auto& r) { return r.second->from_behind; }))
            continue;
        const FindingPlace place{p.placement.part, sheet.id, {}, {}, place_of(p.box)};
        tell({sheet_findings::mirrored_twice(place, find(project_, p.placement.part)->name, sheet.name)});
    }
}

/// The same when nothing of it is left out.
std::shared_ptr<const LayoutOf::Value>
Derivation::without_left_out(const std::shared_ptr<const LayoutOf::Value>& layout) const {
    const auto out = [&](const PlacedPart& p) { return wanted_.left_out.parts.contains(p.placement.part); };
    const auto& parts = layout->laid.parts;
    if (std::none_of(parts.begin(), parts.end(), out)) return layout;
    auto kept = std::make_shared<LayoutOf::Value>(*layout);
    std::erase_if(kept->laid.parts, out);
    return kept;
}

/// What a lane of a sheet is set to, and all that the way of its tool is found from.
Derivation::LaneWay Derivation::way_of(LaneWork& work, const Sheet& sheet, const Stock& stock,
                                       const Box& reach, bool corrected) const {
    const Machine* machine = fixed_.catalog.machine(project_.machine);
    ToolPath path{{}, {}, work.lane.run};
    path.run.dwell = {};          // takes time, and no way
    path.run.small_first = false; // an order, and no way
    if (work.tool && machine) {
        path.offset = work.tool->offset;
        if (!machine->follows_trail) path.trail = work.tool->trail;
        if (const Setting* setting = fixed_.catalog.setting(*work.tool, stock, *machine)) {
            work.setting = {setting->pressure, setting->depth, key_of(setting->from), setting->note};
            work.speed = setting->speed.value_or(Speed{});
            work.passes = setting->passes;
            work.dry = setting->dry.value_or(Duration{});
        }
    }
    return {sheet, reach, path, corrected};
}

/// The ways of the tools, of all sheets' lanes side by side. False: cancelled.
bool Derivation::route_lanes(std::vector<SheetWork>& works, const std::vector<LaneWay>& ways) {
    std::vector<LaneWork*> lanes; // as the ways
    for (SheetWork& work : works)
        for (LaneWork& lane : work.lanes)
            if (row(lane.lane.action).run) lanes.push_back(&lane);
    const auto rest = [&](std::size_t i) { return Point{ways[i].reach.x0, ways[i].reach.y0}; };
    std::vector<std::pair<RouteOf::Id, RouteOf::Key>> routes;
    for (std::size_t i = 0; i < ways.size(); ++i) {
        const LaneWork& work = *lanes[i];
        const bool parts = parts_material(work.lane.action);
        const bool any_closed = std::any_of(work.lines->lines.begin(), work.lines->lines.end(),
                                            [](const Polyline& line) { return line.closed; });
        routes.push_back({{ways[i].sheet.id, work.lane.id},
                          {work.lines,
                           {rest(i), parts, wanted_.effort, parts && work.lane.run.small_first},
                           any_closed ? ways[i].path.run.start : LineStart::anywhere}});
    }
    const auto routed = stages_.of<RouteOf>().get_all(std::move(routes), fixed_, progress_);
    std::vector<std::pair<PassOf::Id, PassOf::Key>> passes;
    for (std::size_t i = 0; i < routed.size(); ++i)
        passes.push_back({{ways[i].sheet.id, lanes[i]->lane.id},
                          {lanes[i]->lines, routed[i], rest(i), ways[i].path, lanes[i]->repeats()}});
    const auto made = stages_.of<PassOf>().get_all(std::move(passes), fixed_, progress_);
    if (made.size() < ways.size()) return false;
    for (std::size_t i = 0; i < ways.size(); ++i) {
        lanes[i]->routed = made[i];
        check_reach(*lanes[i], ways[i]);
    }
    return true;
}

/// What was laid within reach may not be so for a tip that touches elsewhere, or after the print.
void Derivation::check_reach(const LaneWork& work, const LaneWay& way) {
    const bool elsewhere = way.path.offset != Point{} || way.path.trail != Length{};
    if (!elsewhere && !way.corrected) return;
    Box box;
    for (const Stroke& stroke : work.routed->strokes)
        box.add(bounds(stroke));
    const Box& reach = way.reach;
    const double beyond =
        std::max({reach.x0 - box.x0, reach.y0 - box.y0, box.x1 - reach.x1, box.y1 - reach.y1});
    if (beyond <= 0.005) return;
    const FindingPlace place{{}, way.sheet.id, {}, {}, place_of(box)};
    if (elsewhere)
        tell({sheet_findings::tool_outside(place, word(*work.tool), way.sheet.name, {beyond})});
    else
        tell({sheet_findings::print_outside(place, work.lane.name, way.sheet.name, {beyond})});
}

bool Derivation::add_works(std::vector<SheetWork>& works) {
    std::vector<LaneWay> ways;
    const bool prints = std::any_of(project_.lanes.begin(), project_.lanes.end(),
                                    [](const Lane& l) { return !row(l.action).run; });
    for (std::size_t s = 0; s < project_.sheets.size(); ++s) {
        const Sheet& sheet = project_.sheets[s];
        if (!layouts_[s]->known || wanted_.left_out.sheets.contains(sheet.id)) continue;
        const auto layout = without_left_out(layouts_[s]);
        const LaidSheet& laid = layout->laid;
        check_faces(sheet, laid);
        const Mat* mat = fixed_.catalog.mat(sheet.mat);
        const Stock* stock = fixed_.catalog.stock(sheet.stock);
        SheetWork work{{sheet.id, sheet.name, word(*stock), word(*mat), mat->width, mat->height, laid.usable,
                        laid.stock, stock->colour},
                       stock->price,
                       word(*stock),
                       {},
                       stock->thickness,
                       face_of(laid)};
        if (prints) {
            PrintOf::Key key{work.sheet, layout, {}};
            key.scope.lanes = project_.lanes;
            for (const Part& part : project_.parts)
                if (std::any_of(laid.parts.begin(), laid.parts.end(),
                                [&](const PlacedPart& p) { return p.placement.part == part.id; }))
                    key.scope.parts.push_back(part);
            const auto printed = get<PrintOf>(sheet.id, std::move(key));
            if (!printed) return false;
            work.print = printed->sheet;
            tell(printed->findings);
        }
        const Affine correction = corrected(sheet, work.print.get());
        for (const Lane& lane : project_.lanes) {
            if (wanted_.left_out.lanes.contains(lane.id)) continue;
            LinesOf::Key key{lane.id, {}};
            const Affine set_right = row(lane.action).run ? correction : Affine{};
            for (const PlacedPart& p : laid.parts) {
                const auto& runs = p.footprint->part().runs;
                if (std::none_of(runs.begin(), runs.end(),
                                 [&](const RunSet& r) { return r.lane == lane.id; }))
                    continue;
                key.placed.push_back(
                    {p.placement.id, p.placement.piece, set_right * p.to_sheet, p.footprint});
                if (const Part* part = find(project_, p.placement.part))
                    for (const Step& step : part->steps)
                        if (keeps_order(step.what)) key.placed.back().kept.push_back(step.id);
            }
            if (key.placed.empty()) continue;
            const auto lines = get<LinesOf>({sheet.id, lane.id}, std::move(key));
            if (!lines) return false;
            if (lines->lines.empty()) continue;
            LaneWork lane_work{lane, plate(project_, lane.id), fixed_.catalog.tool(lane.tool), lines};
            if (row(lane.action).run)
                ways.push_back(way_of(lane_work, sheet, *stock, laid.usable, set_right != Affine{}));
            work.lanes.push_back(std::move(lane_work));
        }
        works.push_back(std::move(work));
    }
    return route_lanes(works, ways);
}

bool Derivation::plan() {
    std::vector<SheetWork> works;
    if (!add_works(works)) return false;
    out_->works = std::make_shared<const std::vector<SheetWork>>(works);
    const auto plan = get<PlanOf>(0, {project_.name,
                                      project_.machine,
                                      std::move(works),
                                      {project_.pass_order, project_.wishes, wanted_.effort},
                                      program_parts(project_, *out_)});
    if (!plan) return false;
    if (*plan) {
        out_->plan = std::shared_ptr<const Plan>(plan, &**plan);
        tell(out_->plan->findings);
    } else {
        out_->no_plan = plan->error();
        if (out_->no_plan.code != "plan.nothing")
            out_->findings.push_back({out_->no_plan.code, Grade::error, out_->no_plan.message, {}});
    }
    return true;
}

} // namespace dotlane
