#include "core/plan/compare.h"

#include <algorithm>
#include <set>

#include "core/base/text.h"
#include "core/plan/order.h"
#include "core/plan/stop_reasons.h"

namespace dotlane {
namespace {

using Kind = HandStep::Kind;

std::size_t steps_of(const Plan& plan, Kind kind) {
    std::size_t n = 0;
    for (const Move& move : plan.program.moves)
        if (const auto* stop = std::get_if<StopMove>(&move))
            n += static_cast<std::size_t>(std::count_if(stop->steps.begin(), stop->steps.end(),
                                                        [&](const HandStep& s) { return s.kind == kind; }));
    return n;
}

const SheetWork* work_of(const std::vector<SheetWork>& works, SheetId sheet) {
    const auto it =
        std::find_if(works.begin(), works.end(), [&](const SheetWork& w) { return w.sheet.sheet == sheet; });
    return it == works.end() ? nullptr : &*it;
}

const LaneWork* lane_on(const SheetWork* sheet, LaneId lane) {
    if (!sheet) return nullptr;
    const auto it = std::find_if(sheet->lanes.begin(), sheet->lanes.end(),
                                 [&](const LaneWork& w) { return w.lane.id == lane; });
    return it == sheet->lanes.end() ? nullptr : &*it;
}

/// Asks what other orders would cost.
class Asking {
  public:
    Asking(const Plan& plan, const std::vector<SheetWork>& works, const Machine& machine,
           const PlanOptions& options, Progress& progress)
        : plan_(plan)
        , works_(works)
        , machine_(machine)
        , options_(options)
        , progress_(progress) {}

    std::vector<Phrase> of_stop(std::size_t move);
    std::vector<Phrase> of_pass(std::size_t move);

  private:
    /// Hands' time more than in the plan; none where it cannot be planned so.
    std::optional<double> dearer(const PlanOptions& options) {
        const auto other = make_plan(plan_.program.project, machine_, works_, options, progress_);
        if (!other) return {};
        return in_seconds(other->totals.hands) - in_seconds(plan_.totals.hands);
    }
    static Phrase more(double seconds) {
        return seconds > 0.5    ? say("%1 more of your time", spoken_seconds(seconds))
               : seconds < -0.5 ? say("%1 less of your time", spoken_seconds(-seconds))
                                : say("as much of your time");
    }
    void place_of_sheet(SheetId sheet, std::vector<Phrase>& out);
    std::string name_of(SheetId sheet) const {
        const SheetWork* work = work_of(works_, sheet);
        return work ? work->sheet.name : std::string();
    }

    const Plan& plan_;
    const std::vector<SheetWork>& works_;
    const Machine& machine_;
    const PlanOptions& options_;
    Progress& progress_;
};

/// The next best place of a sheet in the run.
void Asking::place_of_sheet(SheetId sheet, std::vector<Phrase>& out) {
    const auto& sheets = plan_.program.sheets;
    if (sheets.size() < 2 || options_.wishes.school == School::tools) return;
    const auto at =
        std::find_if(sheets.begin(), sheets.end(), [&](const ProgramSheet& s) { return s.sheet == sheet; });
    if (at == sheets.end()) return;
    const int now = static_cast<int>(at - sheets.begin()) + 1, count = static_cast<int>(sheets.size());
    const auto pinned = std::any_of(options_.wishes.pins.begin(), options_.wishes.pins.end(),
                                    [&](const SheetPin& pin) { return pin.sheet == sheet; });
    if (pinned) {
        PlanOptions free = options_;
        std::erase_if(free.wishes.pins, [&](const SheetPin& pin) { return pin.sheet == sheet; });
        out.push_back(say("\"%1\" runs as number %2 because you pinned it there.", at->name, now));
        if (const auto cost = dearer(free))
            out.push_back(say("Anywhere else at best, the run would take %1.", more(*cost)));
        return;
    }
    // All places of a small job, else those near by and the ends.
    std::set<int> places{1, count, now - 2, now - 1, now + 1, now + 2};
    for (int place = 1; place <= count && count <= 8; ++place)
        places.insert(place);
    std::optional<std::pair<double, int>> best;
    for (const int place : places) {
        if (place < 1 || place > count || place == now || progress_.cancelled()) continue;
        PlanOptions other = options_;
        other.wishes.pins.push_back({sheet, place});
        const auto taken = std::count_if(options_.wishes.pins.begin(), options_.wishes.pins.end(),
                                         [&](const SheetPin& pin) { return pin.place == place; });
        if (taken > 0) continue;
        if (const auto cost = dearer(other); cost && (!best || *cost < best->first))
            best = std::pair{*cost, place};
    }
    if (best)
        out.push_back(say("\"%1\" runs as number %2 of the sheets. Its next best place is number %3: the run "
                          "would take %4.",
                          at->name, now, best->second, more(best->first)));
}

std::vector<Phrase> Asking::of_stop(std::size_t move) {
    std::vector<Phrase> out;
    const auto& stop = std::get<StopMove>(plan_.program.moves[move]);
    if (const Phrase cause = cause_of_stop(plan_.program, move); !cause.empty())
        out.push_back(say("Here %1.", cause));
    const Phrase loss = loss_without_stop(plan_.program, plan_.timeline, move);
    out.push_back(loss.empty() ? say("It takes %1.", spoken_seconds(in_seconds(stop.time))) : loss);
    const bool comes = std::any_of(stop.steps.begin(), stop.steps.end(),
                                   [](const HandStep& s) { return s.kind == Kind::load; });
    if (stop.sheet && comes) place_of_sheet(stop.sheet, out);
    return out;
}

std::vector<Phrase> Asking::of_pass(std::size_t move) {
    std::vector<Phrase> out;
    const auto& pass = std::get<PassMove>(plan_.program.moves[move]);
    const SheetWork* sheet = work_of(works_, pass.sheet);
    const LaneWork* mine = lane_on(sheet, pass.lane);
    if (!mine) return out;
    std::optional<std::pair<double, const LaneWork*>> best; // to run before one that runs before it
    for (std::size_t m = move; m-- > 0;) {
        const auto* before = std::get_if<PassMove>(&plan_.program.moves[m]);
        if (!before || before->sheet != pass.sheet) continue;
        const LaneWork* other = lane_on(sheet, before->lane);
        if (!other || other->lane.id == mine->lane.id) continue;
        bool must = false;
        for (const OrderRule& rule : order_rules) {
            const auto& off = options_.wishes.off;
            if (!holds(rule, *other, *mine) || std::find(off.begin(), off.end(), rule.key) != off.end())
                continue;
            must = true;
            out.push_back(say("It runs after the %1: %2", tool_label(*other), say(rule.why)));
        }
        for (const LaneRule& rule : options_.wishes.rules)
            if (rule.before == other->lane.id && rule.after == mine->lane.id) {
                must = true;
                out.push_back(say("It runs after the %1, as you wish. %2", tool_label(*other), rule.why));
            }
        if (must || !options_.order.empty() || progress_.cancelled()) continue;
        PlanOptions turned = options_;
        turned.wishes.rules.push_back({mine->lane.id, other->lane.id, {}});
        if (const auto cost = dearer(turned); cost && (!best || *cost < best->first))
            best = std::pair{*cost, other};
    }
    if (!options_.order.empty()) out.push_back(say("The lanes run in the order you chose."));
    if (best)
        out.push_back(say("It could run before the %1: the run would take %2.", tool_label(*best->second),
                          more(best->first)));
    if (out.empty()) out.push_back(say("It is the first on its sheet: nothing has to come before it."));
    place_of_sheet(pass.sheet, out);
    return out;
}

} // namespace

std::vector<Compared> compared(const Plan& first, const Plan& second) {
    std::vector<Compared> out;
    const auto add = [&](const char* key, Phrase what, double a, double b, auto said) {
        out.push_back({key, std::move(what), a, b, said(a), said(b)});
    };
    const auto time = [](double s) { return as_is(spoken_seconds(s)); };
    const auto count = [](double n) { return as_is(number(n, 0)); };
    const PlanTotals &a = first.totals, &b = second.totals;
    add("hands_s", say("Your time"), in_seconds(a.hands), in_seconds(b.hands), time);
    add("machine_s", say("The machine's time"), in_seconds(a.machine), in_seconds(b.machine), time);
    add("elapsed_s", say("From start to end"), in_seconds(first.timeline.total()),
        in_seconds(second.timeline.total()), time);
    add("stops", say("Stops"), a.stops, b.stops, count);
    const auto steps = [&](const char* key, Phrase what, Kind kind) {
        add(key, std::move(what), static_cast<double>(steps_of(first, kind)),
            static_cast<double>(steps_of(second, kind)), count);
    };
    steps("swaps", say("Tools put in"), Kind::put_in);
    steps("unloads", say("Times a mat comes out"), Kind::unload);
    add("sheets", say("Sheets"), a.sheets, b.sheets, count);
    add("cost", say("Stock"), a.cost, b.cost, [](double c) { return as_is(number(c, 2)); });
    add("risks", say("Risks"), static_cast<double>(first.findings.size()),
        static_cast<double>(second.findings.size()), count);
    return out;
}

Result<std::vector<Phrase>> why_move(const Plan& plan, const std::vector<SheetWork>& works,
                                     const Machine& machine, const PlanOptions& options, std::size_t move,
                                     Progress& progress) {
    Asking asking(plan, works, machine, options, progress);
    auto out = std::holds_alternative<StopMove>(plan.program.moves[move]) ? asking.of_stop(move)
                                                                          : asking.of_pass(move);
    if (progress.cancelled()) return fail("cancelled", say("Planning was cancelled."));
    return out;
}

} // namespace dotlane
