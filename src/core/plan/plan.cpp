#include "core/plan/plan.h"

#include <algorithm>
#include <cstring>

#include "core/base/text.h"
#include "core/plan/order.h"
#include "core/plan/route.h"
#include "core/plan/slots.h"

namespace dotlane {
namespace {

bool parts_material(Action a) {
    return a == Action::cut || a == Action::perforate;
}

/// A physical tool: one pen of a given width is another pen in another colour.
std::string tool_key(const LaneWork& work) {
    const bool coloured = work.lane.action == Action::draw || work.lane.action == Action::foil;
    return work.tool->id + (coloured ? to_hex(work.lane.colour) : "");
}

class Planner {
  public:
    Planner(const std::string& project, const Machine& machine, std::vector<SheetWork> sheets,
            const PlanOptions& options, Progress& progress)
        : machine_(machine)
        , sheets_(std::move(sheets))
        , options_(options)
        , progress_(progress) {
        plan_.program.project = project;
        plan_.program.machine = machine.name;
        for (const Slot& slot : machine.slots)
            plan_.program.slots.push_back(slot.name);
        plan_.program.motion = {machine.travel_speed, machine.acceleration, machine.corner, machine.lift,
                                machine.lower};
    }

    Result<Plan> run() {
        for (SheetWork& sheet : sheets_) {
            std::erase_if(sheet.lanes, [](const LaneWork& w) {
                return w.lines.empty() || w.lane.action == Action::print;
            });
            sort_lanes(sheet.lanes, options_.order);
        }
        std::erase_if(sheets_, [](const SheetWork& s) { return s.lanes.empty(); });
        if (sheets_.empty())
            return fail("plan.nothing", "There is nothing to run: place a part that has lines in a lane.");
        if (auto ok = fill_slots(); !ok) return tl::make_unexpected(ok.error());
        explain_order();
        if (!build_moves()) return fail("cancelled", "Planning was cancelled.");
        plan_.timeline = Timeline(plan_.program);
        total();
        explain_travel();
        return std::move(plan_);
    }

  private:
    struct Pass {
        const SheetWork* sheet;
        LaneWork* work;
        int tool;
    };

    Result<void> fill_slots() {
        std::vector<SlotNeed> needs;
        for (SheetWork& sheet : sheets_) {
            bool first = true;
            for (LaneWork& work : sheet.lanes) {
                if (!work.tool)
                    return fail("plan.no-tool", "Lane \"" + work.lane.name +
                                                    "\" has no tool. Choose one in the lane's settings.");
                const auto [it, fresh] = tools_.try_emplace(tool_key(work), static_cast<int>(labels_.size()));
                if (fresh) {
                    labels_.push_back(tool_label(work));
                    tool_of_.push_back(work.tool);
                    std::vector<bool> fits;
                    for (const Slot& slot : machine_.slots)
                        fits.push_back(std::find(slot.takes.begin(), slot.takes.end(), work.tool->kind) !=
                                       slot.takes.end());
                    if (std::find(fits.begin(), fits.end(), true) == fits.end())
                        return fail("plan.no-slot", "The " + work.tool->name +
                                                        " fits into no holder of the " + machine_.name + ".");
                    fits_.push_back(std::move(fits));
                }
                passes_.push_back({&sheet, &work, it->second});
                needs.push_back({it->second, first});
                first = false;
            }
        }
        auto slots = assign_slots(needs, fits_);
        if (!slots) return tl::make_unexpected(slots.error());
        slots_ = std::move(*slots);
        explain_stops();
        return {};
    }

    void explain_stops() {
        const auto counted = [](std::size_t n, const char* what) {
            return std::to_string(n) + " " + what +
                   (n == 1                               ? ""
                    : what[std::strlen(what) - 1] == 's' ? "es"
                                                         : "s");
        };
        const std::string passes = counted(passes_.size(), "pass"),
                          stops = counted(static_cast<std::size_t>(slots_.stops) + 1, "stop");
        if (machine_.slots.size() > 1)
            plan_.reasons.push_back(
                {"stops.fewest",
                 passes + " need no more than " + stops + " with " +
                     counted(machine_.slots.size(), "holder") +
                     ", the last of them only to unload: no order of swapping does with fewer."});
        else
            plan_.reasons.push_back(
                {"stops.one-slot",
                 passes + " make " + stops +
                     ": with one holder every change of tool is one, and the last only unloads."});
        for (std::size_t i = 1; i < passes_.size(); ++i) {
            const auto& slot = slots_.passes[i];
            const auto &before = slots_.passes[i - 1], &now = slot;
            if (slot.stop || before.slot == now.slot) continue;
            const std::string a = labels_[static_cast<std::size_t>(passes_[i - 1].tool)],
                              b = labels_[static_cast<std::size_t>(passes_[i].tool)];
            Reason reason{"slots.together", "The " + a + " sits in the " +
                                                machine_.slots[static_cast<std::size_t>(before.slot)].name +
                                                " and the " + b + " in the " +
                                                machine_.slots[static_cast<std::size_t>(now.slot)].name +
                                                ", so nothing is swapped between their passes."};
            if (std::find(plan_.reasons.begin(), plan_.reasons.end(), reason) == plan_.reasons.end())
                plan_.reasons.push_back(std::move(reason));
        }
    }

    void explain_order() {
        const auto add = [](auto& list, auto&& items, auto same) {
            for (auto& item : items)
                if (std::none_of(list.begin(), list.end(), [&](const auto& i) { return same(i, item); }))
                    list.push_back(std::move(item));
        };
        for (const SheetWork& sheet : sheets_) { // what holds for several sheets is said once
            add(plan_.reasons, order_reasons(sheet.lanes),
                [](const Reason& a, const Reason& b) { return a == b; });
            add(plan_.findings, order_risks(sheet.lanes),
                [](const Finding& a, const Finding& b) { return a == b; });
        }
        if (!options_.order.empty())
            plan_.reasons.push_back(
                {"order.wished",
                 plan_.findings.empty()
                     ? "The passes run in the order you chose."
                     : "The passes run in the order you chose; the cautions say what it risks."});
    }

    bool build_moves() {
        std::vector<int> holds(machine_.slots.size(), -1);
        SheetId loaded;
        std::size_t inner_first = 0;
        for (std::size_t i = 0; i < passes_.size(); ++i) {
            const Pass& pass = passes_[i];
            const auto& slot = slots_.passes[i];
            const SheetId sheet = pass.sheet->sheet.sheet;
            if (slot.stop) add_stop(loaded, pass.sheet, holds, slot.holds);
            if (sheet != loaded) plan_.program.sheets.push_back(pass.sheet->sheet);
            loaded = sheet;
            holds = slot.holds;
            const LaneWork& work = *pass.work;
            const Point rest{pass.sheet->sheet.usable.x0, pass.sheet->sheet.usable.y0};
            auto routed =
                route(std::move(pass.work->lines), {rest, parts_material(work.lane.action)}, progress_);
            if (progress_.cancelled()) return false;
            progress_.report(static_cast<double>(i + 1) / static_cast<double>(passes_.size()));
            inner_first += routed.outlines_waiting;
            plan_.totals.travel += routed.travel * work.lane.repeats;
            plan_.totals.travel_as_drawn += routed.travel_as_drawn * work.lane.repeats;
            PassMove move{++pass_number_,
                          sheet,
                          work.lane.id,
                          work.lane.action,
                          work.lane.name,
                          work.plate,
                          labels_[static_cast<std::size_t>(pass.tool)],
                          machine_.slots[static_cast<std::size_t>(slot.slot)].name,
                          work.lane.colour,
                          work.tool->tip,
                          work.tool->speed,
                          work.lane.repeats,
                          {}};
            for (int r = 0; r < work.lane.repeats; ++r)
                move.strokes.insert(move.strokes.end(), routed.strokes.begin(), routed.strokes.end());
            plan_.totals.tool_down += length(move.strokes);
            plan_.program.moves.emplace_back(std::move(move));
        }
        add_stop(loaded, nullptr, holds, std::vector<int>(holds.size(), -1));
        if (inner_first > 0)
            plan_.reasons.push_back(
                {"route.inner-first", "What lies inside an outline is cut before the outline (" +
                                          std::to_string(inner_first) +
                                          (inner_first == 1 ? " outline waits" : " outlines wait") +
                                          "), because a released piece may shift."});
        return true;
    }

    /// `to` is null at the end of the job.
    void add_stop(SheetId loaded, const SheetWork* to, const std::vector<int>& before,
                  const std::vector<int>& after) {
        using Kind = HandStep::Kind;
        StopMove stop{++stop_number_, to ? to->sheet.sheet : SheetId{}, {}, {}};
        const bool sheet_changes = !to || to->sheet.sheet != loaded;
        if (sheet_changes && loaded) {
            stop.steps.push_back({Kind::unload, "Unload the mat and lift the sheet off it."});
            stop.time += machine_.unload_sheet;
        }
        for (std::size_t s = 0; s < before.size(); ++s) {
            if (before[s] == after[s]) continue;
            const std::string& where = machine_.slots[s].name;
            if (before[s] >= 0)
                stop.steps.push_back({Kind::take_out, "Take the " +
                                                          labels_[static_cast<std::size_t>(before[s])] +
                                                          " out of the " + where + " and cap it."});
            if (after[s] < 0) continue;
            const Tool& tool = *tool_of_[static_cast<std::size_t>(after[s])];
            stop.steps.push_back({Kind::put_in, "Put the " + labels_[static_cast<std::size_t>(after[s])] +
                                                    " into the " + where + "."});
            stop.time += machine_.swap;
            if (in_seconds(tool.warm_up) > 0) {
                stop.steps.push_back({Kind::warm_up, "Wait " + spoken_seconds(in_seconds(tool.warm_up)) +
                                                         " until the " + tool.name + " is hot."});
                stop.time += tool.warm_up;
            }
            if (!tool.caution.empty()) stop.steps.push_back({Kind::care, tool.caution});
        }
        if (to && sheet_changes) {
            stop.steps.push_back({Kind::load, "Lay " + to->stock_name + " on the " + to->sheet.mat + " (" +
                                                  to->sheet.name + ") and load it, arrow first."});
            stop.time += machine_.load_sheet;
        }
        plan_.program.moves.emplace_back(std::move(stop));
    }

    void total() {
        PlanTotals& t = plan_.totals;
        for (std::size_t m = 0; m < plan_.program.moves.size(); ++m) {
            const bool stop = std::holds_alternative<StopMove>(plan_.program.moves[m]);
            (stop ? t.hands : t.machine) += plan_.timeline.spans()[m].time;
            ++(stop ? t.stops : t.passes);
        }
        t.sheets = static_cast<int>(sheets_.size());
        for (const SheetWork& sheet : sheets_)
            t.cost += sheet.price;
    }

    void explain_travel() {
        const PlanTotals& t = plan_.totals;
        const double saved = in_mm(t.travel_as_drawn) - in_mm(t.travel);
        if (saved > 100)
            plan_.reasons.push_back(
                {"route.travel",
                 "Lines are run in the order that travels least: " + number(in_mm(t.travel) / 1000, 1) +
                     " m with the tool up instead of " + number(in_mm(t.travel_as_drawn) / 1000, 1) +
                     " m in the order they were drawn."});
    }

    const Machine& machine_;
    std::vector<SheetWork> sheets_;
    PlanOptions options_;
    Progress& progress_;
    Plan plan_;
    std::map<std::string, int> tools_;
    std::vector<std::string> labels_;
    std::vector<const Tool*> tool_of_;
    std::vector<std::vector<bool>> fits_;
    std::vector<Pass> passes_;
    SlotPlan slots_;
    int pass_number_ = 0, stop_number_ = 0;
};

} // namespace

Result<Plan> make_plan(const std::string& project, const Machine& machine, std::vector<SheetWork> sheets,
                       const PlanOptions& options, Progress& progress) {
    return Planner(project, machine, std::move(sheets), options, progress).run();
}

} // namespace dotlane
