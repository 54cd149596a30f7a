#include "core/plan/plan.h"

#include <algorithm>
#include <cstring>

#include "core/base/finding_kind.h"
#include "core/base/text.h"
#include "core/plan/hands.h"
#include "core/plan/order.h"
#include "core/plan/route.h"
#include "core/plan/sequence.h"
#include "core/plan/stop_reasons.h"
#include "core/plan/time_reasons.h"

namespace dotlane {
namespace {

constexpr const char* blade_kind = "blade";

constexpr FindingKind<Count> out_and_in{
    "order.out-and-in",
    Grade::caution,
    to_say("%n time[|s] a sheet comes back into the machine: what its passes make lies off one another by as "
           "much as its mat is loaded otherwise."),
    {"times"},
    {{{"order.whole-sheets", to_say("Finish each sheet")}}}};

/// A physical tool: one pen of a given width is another pen in another colour.
std::string tool_key(const LaneWork& work) {
    const bool coloured = row(work.lane.action).tool_colour;
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
        plan_.program.machine = word(machine);
        for (const Slot& slot : machine.slots)
            plan_.program.slots.push_back(word(slot));
        plan_.program.motion = {machine.travel_speed, machine.acceleration, machine.deviation, machine.lift,
                                machine.lower};
    }

    Result<Plan> run() {
        for (SheetWork& sheet : sheets_) {
            std::erase_if(sheet.lanes, [](const LaneWork& w) { return w.lines->lines.empty(); });
        }
        std::erase_if(sheets_, [](const SheetWork& s) { return s.lanes.empty(); });
        sort_all();
        time_passes();
        if (sheets_.empty())
            return fail("plan.nothing",
                        say("There is nothing to run: place a part that has lines in a lane."));
        if (auto ok = find_order(); !ok) return tl::make_unexpected(ok.error());
        explain_order();
        if (!build_moves()) return fail("cancelled", say("Planning was cancelled."));
        plan_.timeline = Timeline(plan_.program);
        total();
        explain_time(plan_, sequence_, options_);
        explain_each_stop(plan_);
        return std::move(plan_);
    }

  private:
    struct Pass {
        const SheetWork* sheet;
        const LaneWork* work;
        int tool;
        int slot;               ///< where it sits
        bool stop;              ///< before it
        std::vector<int> holds; ///< tool in each slot meanwhile; -1: none
    };

    /// What dries meanwhile, or is done meanwhile, is weighed by how long the machine runs.
    void time_passes() {
        for (SheetWork& sheet : sheets_) {
            const auto dries = [](const LaneWork& w) { return in_seconds(w.dry) > 0; };
            if (options_.wishes.mats < 2 && std::none_of(sheet.lanes.begin(), sheet.lanes.end(), dries))
                continue;
            for (LaneWork& work : sheet.lanes)
                if (row(work.lane.action).run && work.tool && work.routed)
                    work.time = machine_time(work, sheet.sheet, plan_.program.motion);
        }
    }

    void sort_all() {
        std::map<LaneId, const LaneWork*> each;
        for (const SheetWork& sheet : sheets_)
            for (const LaneWork& work : sheet.lanes)
                each.try_emplace(work.lane.id, &work);
        std::vector<LaneWork> lanes;
        for (const auto& [id, work] : each)
            lanes.push_back(*work);
        precedence_.emplace(std::move(lanes), options_);
        for (SheetWork& sheet : sheets_) {
            std::sort(sheet.lanes.begin(), sheet.lanes.end(), [&](const LaneWork& a, const LaneWork& b) {
                return precedence_->rank(a.lane.id) < precedence_->rank(b.lane.id);
            });
            // Nobody can print on what is already on a mat.
            std::stable_partition(sheet.lanes.begin(), sheet.lanes.end(),
                                  [](const LaneWork& w) { return !row(w.lane.action).run; });
        }
    }

    /// The number of a lane's tool, which fits some slot.
    Result<int> tool_of(const LaneWork& work) {
        if (!work.tool)
            return fail("plan.no-tool",
                        say("Lane \"%1\" has no tool. Choose one in the lane's settings.", work.lane.name));
        const auto [it, fresh] = tools_.try_emplace(tool_key(work), static_cast<int>(labels_.size()));
        if (!fresh) return it->second;
        labels_.push_back(tool_label(work));
        tool_of_.push_back(work.tool);
        std::vector<bool> fits;
        for (const Slot& slot : machine_.slots)
            fits.push_back(std::find(slot.takes.begin(), slot.takes.end(), work.tool->kind) !=
                           slot.takes.end());
        if (std::find(fits.begin(), fits.end(), true) == fits.end())
            return fail("plan.no-slot",
                        say("The %1 fits into no holder of the %2.", word(*work.tool), word(machine_)));
        job_.fits.push_back(std::move(fits));
        return it->second;
    }

    /// The passes that the machine runs on a sheet, in the usual order or the maker's, and the rules between
    /// them.
    Result<JobSheet> passes_on(const SheetWork& sheet) {
        JobSheet out;
        std::vector<const LaneWork*> run;
        for (const LaneWork& work : sheet.lanes) {
            if (!row(work.lane.action).run) continue;
            const auto tool = tool_of(work);
            if (!tool) return tl::make_unexpected(tool.error());
            JobPass pass{*tool, precedence_->rank(work.lane.id), 0};
            for (std::size_t i = 0; i < run.size(); ++i)
                if (precedence_->before(run[i]->lane.id, work.lane.id)) pass.after |= 1U << i;
            out.passes.push_back(pass);
            run.push_back(&work);
        }
        out.hands = [run, &sheet](std::uint32_t mask) {
            std::vector<const LaneWork*> stretch;
            for (std::size_t i = 0; i < run.size(); ++i)
                if (mask >> i & 1U) stretch.push_back(run[i]);
            for (std::size_t i = 1; i < stretch.size(); ++i)
                if (foil_changes(*stretch[i - 1], *stretch[i])) return -1.0;
            return in_seconds(hands_around(stretch, sheet.sheet));
        };
        return out;
    }

    /// Which sheet and which of its passes comes when, and which tool sits where.
    Result<void> find_order() {
        std::vector<std::size_t> of; // sheets that the machine sees
        for (std::size_t s = 0; s < sheets_.size(); ++s) {
            auto passes = passes_on(sheets_[s]);
            if (!passes) return tl::make_unexpected(passes.error());
            if (passes->passes.empty()) continue;
            if (passes->passes.size() > 32)
                return fail("plan.too-many", say("More than 32 lanes run on one sheet: join some of them."));
            job_.sheets.push_back(std::move(*passes));
            of.push_back(s);
        }
        if (of.empty()) return {};
        job_.swap = in_seconds(machine_.swap);
        job_.reload = in_seconds(machine_.load_sheet + machine_.unload_sheet);
        pin(of);
        auto found =
            by_tools() ? tools_through(job_, progress_) : least_hands(job_, progress_, options_.effort);
        if (!found) return tl::make_unexpected(found.error());
        sequence_ = std::move(*found);
        // Lanes as they run, what is printed before them.
        std::vector<std::vector<std::size_t>> running(sheets_.size());
        for (const Stretch& stretch : sequence_.stretches) {
            auto& order = running[of[stretch.sheet]];
            order.insert(order.end(), stretch.passes.begin(), stretch.passes.end());
        }
        for (std::size_t s = 0; s < sheets_.size(); ++s) {
            std::vector<LaneWork> run, lanes;
            for (LaneWork& work : sheets_[s].lanes)
                (row(work.lane.action).run ? run : lanes).push_back(std::move(work));
            for (const std::size_t p : running[s])
                lanes.push_back(std::move(run[p]));
            sheets_[s].lanes = std::move(lanes);
        }
        std::vector<std::size_t> next(sheets_.size());
        for (const Stretch& stretch : sequence_.stretches) {
            const SheetWork& sheet = sheets_[of[stretch.sheet]];
            const auto printed = static_cast<std::size_t>(
                std::count_if(sheet.lanes.begin(), sheet.lanes.end(),
                              [](const LaneWork& w) { return !row(w.lane.action).run; }));
            for (std::size_t k = 0; k < stretch.passes.size(); ++k) {
                const int tool = job_.sheets[stretch.sheet].passes[stretch.passes[k]].tool;
                const LaneWork& work = sheet.lanes[printed + next[of[stretch.sheet]]++];
                const auto slot = std::find(stretch.holds.begin(), stretch.holds.end(), tool);
                passes_.push_back({&sheet, &work, tool, static_cast<int>(slot - stretch.holds.begin()),
                                   k == 0, stretch.holds});
            }
        }
        explain_stops();
        return {};
    }

    bool by_tools() const { return options_.wishes.school == School::tools; }

    /// Sheets in the places that the maker wishes; beyond the last one: the last that is free.
    void pin(const std::vector<std::size_t>& of) {
        std::vector<SheetPin> pins = options_.wishes.pins;
        std::sort(pins.begin(), pins.end(),
                  [](const SheetPin& a, const SheetPin& b) { return a.place > b.place; });
        int free = static_cast<int>(of.size());
        for (const SheetPin& pin : pins)
            for (std::size_t s = 0; s < of.size(); ++s)
                if (sheets_[of[s]].sheet.sheet == pin.sheet && free > 0) {
                    job_.sheets[s].place = std::min(pin.place, free);
                    free = job_.sheets[s].place - 1;
                }
    }

    void explain_stops() {
        if (machine_.slots.size() == 1)
            plan_.reasons.push_back(
                {"stops.one-slot",
                 say_n(passes_.size(),
                       "%n [pass makes|passes make] %1: with one holder every change of "
                       "tool is one, and the last only unloads.",
                       say_n(static_cast<std::size_t>(sequence_.stops) + 1, "%n [stop|stops]"))});
        if (std::any_of(passes_.begin(), passes_.end(), [](const Pass& p) { return under_foil(*p.work); }))
            plan_.reasons.push_back(
                {"stops.foil",
                 say("Foil is laid on before its pass and lifted off after it, both while the tip is cold: a "
                     "hot tip burns, and it would mark what it touches on its way.")});
        for (std::size_t i = 1; i < passes_.size(); ++i) {
            const Pass &before = passes_[i - 1], &now = passes_[i];
            if (now.stop || before.slot == now.slot) continue;
            const Phrase &a = label(passes_[i - 1].tool), &b = label(passes_[i].tool);
            Reason reason{
                "slots.together",
                say("The %1 sits in the %2 and the %3 in the %4, so nothing is swapped between their passes.",
                    a, word(machine_.slots[static_cast<std::size_t>(before.slot)]), b,
                    word(machine_.slots[static_cast<std::size_t>(now.slot)]))};
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
            add(plan_.reasons, order_reasons(sheet.lanes, options_.wishes),
                [](const Reason& a, const Reason& b) { return a == b; });
            add(plan_.findings, order_risks(sheet.lanes, options_.wishes),
                [](const Finding& a, const Finding& b) { return a == b; });
        }
        std::size_t again = 0; // sheets come back so often
        for (std::size_t i = 1; i < passes_.size(); ++i)
            again += passes_[i].sheet != passes_[i - 1].sheet && lies_before(i, passes_[i].sheet) ? 1 : 0;
        if (again > 0) plan_.findings.push_back(out_and_in({}, Count{again}));
        if (by_tools() && !passes_.empty())
            plan_.reasons.push_back({"order.tools-through",
                                     say("Each tool runs over all its sheets before the next, as you wish. "
                                         "Sheets go out and come "
                                         "again between passes that must meet, each on a mat of its own.")});
        const Phrase not_kept =
            say("Sheets keep to no place while each tool runs through all of them: what you pinned "
                "does not hold.");
        if (by_tools() && !options_.wishes.pins.empty())
            plan_.reasons.push_back({"order.pins-off", not_kept});
        int place = 0; // that it got, which is an earlier one where fewer sheets run
        for (std::size_t i = 0; i < passes_.size() && !by_tools(); ++i) {
            if (i > 0 && passes_[i].sheet == passes_[i - 1].sheet) continue;
            const ProgramSheet& sheet = passes_[i].sheet->sheet;
            ++place;
            for (const SheetPin& pin : options_.wishes.pins)
                if (pin.sheet == sheet.sheet)
                    plan_.reasons.push_back(
                        {"order.pinned",
                         say("\"%1\" runs as number %2 of the sheets, as you wish.", sheet.name, place)});
        }
        if (!options_.order.empty())
            plan_.reasons.push_back(
                {"order.wished",
                 plan_.findings.empty()
                     ? say("The passes run in the order you chose.")
                     : say("The passes run in the order you chose; the cautions say what it risks.")});
    }

    bool build_moves() {
        for (SheetWork& sheet : sheets_)
            if (sheet.print) plan_.program.prints.push_back(*sheet.print);
        if (passes_.empty()) return add_prints(), true;
        find_meanwhile();
        std::size_t inner_first = 0;
        for (std::size_t i = 0; i < passes_.size(); ++i) {
            const Pass& pass = passes_[i];
            if (pass.stop) add_stop(i);
            if (!lies_before(i, pass.sheet)) plan_.program.sheets.push_back(pass.sheet->sheet);
            const LaneWork& work = *pass.work;
            if (progress_.cancelled()) return false;
            inner_first += work.routed->outlines_waiting;
            plan_.totals.travel_as_drawn += work.routed->travel_as_drawn;
            PassMove move = pass_move(work, pass.sheet->sheet);
            move.number = ++pass_number_;
            move.tool = label(pass.tool);
            move.slot = word(machine_.slots[static_cast<std::size_t>(pass.slot)]);
            plan_.program.moves.emplace_back(std::move(move));
            for (BrokenRule& rule : broken_rules(pass.sheet->lanes, options_.wishes))
                if (rule.late == work.lane.id)
                    plan_.broken.emplace_back(plan_.program.moves.size() - 1, std::move(rule.finding));
        }
        add_stop(passes_.size());
        if (inner_first > 0)
            plan_.reasons.push_back(
                {"route.inner-first",
                 say_n(inner_first, "What lies inside an outline is cut before the outline (%n [outline "
                                    "waits|outlines wait]), because a released piece may shift.")});
        return true;
    }

    /// Whether the sheet has lain in the machine before this pass.
    bool lies_before(std::size_t pass, const SheetWork* sheet) const {
        return std::any_of(passes_.begin(), passes_.begin() + static_cast<std::ptrdiff_t>(pass),
                           [&](const Pass& p) { return p.sheet == sheet; });
    }

    void find_meanwhile() {
        std::vector<Leg> legs;
        std::vector<std::size_t> begins; // of legs, the first pass
        for (std::size_t i = 0; i < passes_.size(); ++i) {
            if (legs.empty() || legs.back().sheet != passes_[i].sheet)
                legs.push_back({passes_[i].sheet, {}}), begins.push_back(i);
            legs.back().runs += passes_[i].work->time;
        }
        meanwhile_.resize(passes_.size());
        const auto found = meanwhile(legs, machine_, options_.wishes.mats);
        for (std::size_t l = 0; l < legs.size(); ++l)
            meanwhile_[begins[l]] = found[l];
    }

    /// Before the pass; behind the last one at the end of the job.
    void add_stop(std::size_t next) {
        StopNeeds needs;
        needs.machine = &machine_;
        if (next > 0) needs.from = passes_[next - 1].sheet;
        if (next < passes_.size()) needs.to = passes_[next].sheet;
        for (std::size_t i = next; i > 0; --i) {
            needs.ran.insert(needs.ran.begin(), passes_[i - 1].work);
            if (passes_[i - 1].stop) break;
        }
        if (next < passes_.size()) needs.meanwhile = meanwhile_[next];
        std::size_t end = next;
        for (; end < passes_.size() && (end == next || !passes_[end].stop); ++end)
            needs.next.push_back(passes_[end].work);
        needs.to_returned = needs.to && needs.to != needs.from && lies_before(next, needs.to);
        needs.from_returns = std::any_of(passes_.begin() + static_cast<std::ptrdiff_t>(next), passes_.end(),
                                         [&](const Pass& p) { return p.sheet == needs.from; });
        for (const LaneWork* work : needs.next)
            if (work->untried() && tried_.insert({tool_key(*work), needs.to->stock_name.english()}).second)
                needs.untried.push_back(work);
        if (next == 0)
            for (const SheetWork& sheet : sheets_)
                if (sheet.print) needs.print.push_back(&sheet);
        depths_.resize(machine_.slots.size());
        for (std::size_t s = 0; s < machine_.slots.size(); ++s) {
            const int before = next > 0 ? passes_[next - 1].holds[s] : -1,
                      after = next < passes_.size() ? passes_[next].holds[s] : -1;
            HolderChange holder;
            holder.slot = word(machine_.slots[s]);
            if (before >= 0) holder.before = tool(before), holder.before_label = label(before);
            if (after >= 0) holder.after = tool(after), holder.after_label = label(after);
            if (before != after) depths_[s] = {};
            if (after >= 0 && holder.after->kind == blade_kind)
                set_depth(holder, s, next, before == after ? end : passes_.size());
            needs.holders.push_back(std::move(holder));
        }
        plan_.program.moves.emplace_back(stop_move(++stop_number_, needs));
    }

    /// For the first sheet that the blade cuts between the two passes.
    void set_depth(HolderChange& holder, std::size_t slot, std::size_t from, std::size_t to) {
        for (std::size_t i = from; i < to; ++i) {
            if (passes_[i].slot != static_cast<int>(slot)) continue;
            const SheetWork& sheet = *passes_[i].sheet;
            const Length depth = passes_[i].work->setting.depth.value_or(blade_depth(sheet.thickness));
            if (depth == depths_[slot]) return;
            depths_[slot] = holder.depth_after = depth;
            holder.cuts = sheet.stock_name;
            return;
        }
    }

    /// A job that the machine has no part in.
    void add_prints() {
        StopNeeds needs;
        needs.machine = &machine_;
        for (const SheetWork& sheet : sheets_)
            if (sheet.print) needs.print.push_back(&sheet);
        plan_.program.moves.emplace_back(stop_move(++stop_number_, needs));
    }

    const Tool* tool(int index) const { return tool_of_[static_cast<std::size_t>(index)]; }
    const Phrase& label(int index) const { return labels_[static_cast<std::size_t>(index)]; }

    void total() {
        PlanTotals& t = plan_.totals;
        static_cast<ProgramTotals&>(t) = totals(plan_.program, plan_.timeline);
        t.sheets = static_cast<int>(sheets_.size());
        for (const SheetWork& sheet : sheets_)
            t.cost += sheet.price;
    }

    const Machine& machine_;
    std::vector<SheetWork> sheets_;
    PlanOptions options_;
    Progress& progress_;
    Plan plan_;
    std::map<std::string, int> tools_;
    std::vector<Phrase> labels_;
    std::vector<const Tool*> tool_of_;
    std::vector<Pass> passes_;
    Job job_;
    Sequence sequence_;
    std::optional<Precedence> precedence_;
    std::set<std::pair<std::string, std::string>> tried_; ///< tools and stocks
    std::vector<Meanwhile> meanwhile_;                    ///< of the stop before each pass
    std::vector<Length> depths_;                          ///< that the blade in each slot is set to
    int pass_number_ = 0, stop_number_ = 0;
};

} // namespace

Result<Plan> make_plan(const std::string& project, const Machine& machine, std::vector<SheetWork> sheets,
                       const PlanOptions& options, Progress& progress) {
    return Planner(project, machine, std::move(sheets), options, progress).run();
}

} // namespace dotlane
