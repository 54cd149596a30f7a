#include "core/recipe/evaluate.h"

#include <algorithm>
#include <unordered_map>

#include "core/base/text.h"
#include "core/recipe/findings.h"
#include "core/recipe/flatten.h"
#include "core/recipe/step_work.h"
#include "core/recipe/strays.h"

namespace dotlane {

PlaceBox place_of(const Box& box) {
    return box.empty() ? PlaceBox{} : PlaceBox{box.x0, box.y0, box.x1, box.y1};
}

namespace {

using Link = RecipeChain::Link;

bool same_members(const std::vector<LineSet>& a, const std::vector<LineSet>& b) {
    return std::equal(a.begin(), a.end(), b.begin(), b.end(), [](const LineSet& x, const LineSet& y) {
        return x.id == y.id && x.role == y.role && x.lines == y.lines;
    });
}

class Evaluation {
  public:
    Evaluation(const Part& part, const RecipeInputs& inputs, const EvaluatedPart* before, Progress& progress)
        : part_(part)
        , source_(inputs.source)
        , inputs_(inputs)
        , known_(before ? before->chain : nullptr)
        , progress_(progress) {
        out_.part = part.id;
        out_.drawing = source_.drawing;
        out_.figures = source_.figures, out_.face = source_.face;
    }

    EvaluatedPart run() {
        for (Finding note : part_.source.notes) {
            note.remedy = {"note.dismiss", say("Dismiss")};
            if (note.code == "open.stray") // told at the size that it has now
                if (const auto stray = stray_finding(*source_.drawing, part_.scale)) note = *stray;
            note.place.part = part_.id;
            out_.findings.push_back(std::move(note));
        }
        for (Finding finding : source_.findings) {
            finding.place.part = part_.id;
            out_.findings.push_back(std::move(finding));
        }
        out_.scale = part_.scale;
        const auto state = work();
        for (const LineSet& set : part_.sets)
            take_set(*state, set);
        if (const WorkSet* loose = state->find({}))
            take_set(*state, {{}, "other lines", {}, false, {}}, loose);
        for (const Step& step : part_.steps)
            if (step.on) take_step(*state, step);
        collect_lines(*state);
        for (const RunSet& run : out_.runs) {
            out_.box.add(bounds(run.lines));
            for (const Polyline& line : run.lines)
                out_.points += line.points.size();
        }
        if (out_.box.empty()) out_.box = out_.source_box;
        lay_pieces_apart();
        return std::move(out_);
    }

  private:
    /// All steps, as far as what they do is not known already.
    std::shared_ptr<const RecipeState> work() {
        const auto& known = known_;
        auto chain = std::make_shared<RecipeChain>();
        chain->drawing = source_.drawing, chain->scale = part_.scale, chain->sets = part_.sets;
        const bool same = known && known->scale == chain->scale && same_members(known->sets, chain->sets) &&
                          (known->drawing == chain->drawing || *known->drawing == *chain->drawing);
        chain->base = same ? known->base : flatten_source(part_, *source_.drawing, inputs_.made);
        for (const auto& set : chain->base->sets)
            out_.source_box.add(set->box());
        auto state = std::make_shared<RecipeState>(*chain->base);
        StepWork steps(part_, inputs_, *chain->base, known.get(), progress_);
        for (const Step& step : part_.steps) {
            if (!step.on) continue;
            RecipeChain::Given given = steps.given_to(step, *state);
            std::shared_ptr<const Link> link = steps.known(step, given);
            if (!link) {
                auto worked = steps.outcome_of(step, given, *state);
                if (worked) link = linked(step, *worked, std::move(given));
            }
            if (progress_.cancelled()) return state;
            apply(*link, *state);
            chain->links[step.id] = std::move(link);
        }
        out_.chain = chain;
        return state;
    }

    static std::shared_ptr<const Link> linked(const Step& step, StepOutcome& outcome,
                                              RecipeChain::Given given) {
        auto out = std::make_shared<Link>(Link{step, std::move(given), {}, {}, {}, {}});
        out->changed.assign(outcome.changed.begin(), outcome.changed.end());
        const bool behind = kind_of(step.what).behind;
        // In front of (or behind) all that is drawn, a later step's lines in front of an earlier one's.
        std::ptrdiff_t order = static_cast<std::ptrdiff_t>(step.id.value) << 32;
        std::uint32_t ordinal = 0;
        const auto number = [&](std::vector<FlatLine>& lines) {
            for (FlatLine& line : lines) {
                line.id = {++ordinal, step.id};
                ++order;
                line.order = behind ? -order : order;
            }
        };
        if (outcome.made) {
            outcome.made->id = step.result, outcome.made->step = step.id;
            outcome.made->worked = true;
            number(outcome.made->lines);
            out->made = std::make_shared<WorkSet>(std::move(*outcome.made));
        }
        for (MadeLines& lines : outcome.also) {
            number(lines.lines);
            out->also.emplace_back(lines.role, std::make_shared<WorkSet>(
                                                   WorkSet{{}, step.id, true, std::move(lines.lines), {}}));
        }
        out->report = std::make_shared<StepReport>(std::move(outcome.report));
        return out;
    }

    void apply(const Link& link, RecipeState& state) const {
        for (const auto& changed : link.changed)
            for (auto& set : state.sets)
                if (set->id == changed->id) set = changed;
        if (link.made) state.sets.push_back(link.made);
        for (const auto& [role, lines] : link.also) {
            const LineSet* set = set_of(part_, link.step.id, role);
            DOTLANE_CHECK(set); // edits give each role of a step a line set
            auto own = std::make_shared<WorkSet>(*lines);
            own->id = set->id;
            state.sets.push_back(std::move(own));
        }
        state.reports[link.step.id] = link.report;
    }

    static void add_lines(RunSet& run, const std::vector<FlatLine>& lines) {
        for (const FlatLine& line : lines) {
            run.lines.insert(run.lines.end(), line.contours.begin(), line.contours.end());
            run.of.push_back({line.id, run.lines.size()});
        }
    }

    void take_set(const RecipeState& state, const LineSet& set, const WorkSet* known = nullptr) {
        const WorkSet* work = known ? known : state.find(set.id);
        if (!work || work->lines.empty()) return;
        const Box box = work->box();
        const std::size_t count = work->lines.size();
        const FindingPlace place{part_.id, {}, set.id, {}, place_of(box)};
        if (set.set_aside) {
            if (stood_for(set.id) || is_below(set.id)) return; // no news
            out_.findings.push_back(recipes::lines_set_aside(place, Count{count}, set.name));
            return;
        }
        out_.box.add(box);
        if (!set.lane) {
            out_.findings.push_back(recipes::lane_none(place, Count{count}, part_.name));
            return;
        }
        RunSet run{set.lane, set.id, set.step, set.name, {}};
        add_lines(run, work->lines);
        out_.runs.push_back(std::move(run));
    }

    /// Whether it is a layer among others of which some are run: a part for each keeps them all.
    bool is_below(LineSetId id) const {
        const auto runs = [&](LineSetId other) {
            const LineSet* set = find(part_, other);
            return set && !set->set_aside;
        };
        return std::any_of(part_.steps.begin(), part_.steps.end(), [&](const Step& step) {
            return step.on && kind_of(step.what).layers &&
                   std::find(step.of.begin(), step.of.end(), id) != step.of.end() &&
                   std::any_of(step.of.begin(), step.of.end(), runs);
        });
    }

    /// Whether a step makes something of it that is run in its stead.
    bool stood_for(LineSetId id) const {
        return std::any_of(part_.steps.begin(), part_.steps.end(), [id](const Step& step) {
            return step.on && kind_of(step.what).replaces &&
                   std::find(step.of.begin(), step.of.end(), id) != step.of.end();
        });
    }

    void take_step(const RecipeState& state, const Step& step) {
        const auto it = state.reports.find(step.id);
        if (it == state.reports.end()) return; // cancelled before it
        const StepReport& report = *it->second;
        out_.reports[step.id] = it->second;
        const StepKind& kind = kind_of(step.what);
        Box box;
        for (const LineSetId id : step.of)
            if (const WorkSet* set = state.find(id)) box.add(set->box());
        const FindingPlace place{part_.id, {}, {}, step.id, place_of(box)};
        if (report.printed) keep_below(state, step, place);
        if (report.ink && !step.lane) {
            out_.findings.push_back(recipes::fill_no_lane(place));
            return;
        }
        for (Finding finding : report.findings) {
            const PlaceBox own = finding.place.box;
            finding.place = place;
            if (own.valid()) finding.place.box = own; // it knows better where
            out_.findings.push_back(std::move(finding));
        }
        take_refusal(step, report, place);
        if (kind.one_lane) judge_join(step, place);
        if (report.ink)
            take_ink(state, step, report.ink);
        else if (kind.makes)
            take_made(state, step, place);
    }

    /// A picture lies below the lines that were traced from it only as long as no step changes them.
    void keep_below(const RecipeState& state, const Step& step, const FindingPlace& place) {
        const auto& of = out_.chain->links.at(step.id)->given.of;
        if (std::all_of(of.begin(), of.end(), [&](const std::shared_ptr<const WorkSet>& set) {
                return state.find(set->id) == set.get();
            }))
            return;
        auto without = std::make_shared<StepReport>(*out_.reports[step.id]);
        without->printed.reset();
        out_.reports[step.id] = std::move(without);
        out_.findings.push_back(recipes::picture_moved(place));
    }

    LaneId lane_of(LineSetId id) const {
        const LineSet* set = dotlane::find(part_, id);
        const Step* maker = maker_of(part_, id);
        return set ? set->lane : maker ? maker->lane : LaneId{};
    }

    /// What is joined runs in one lane, that of the set that was named first.
    void judge_join(const Step& step, const FindingPlace& place) {
        std::vector<LineSetId> of = step.of;
        if (of.empty())
            for (const LineSet& set : part_.sets)
                of.push_back(set.id);
        const auto other = std::find_if(of.begin(), of.end(),
                                        [&](LineSetId id) { return lane_of(id) != lane_of(of.front()); });
        if (other == of.end()) return;
        const auto name = [&](LineSetId id) {
            const LineSet* set = dotlane::find(part_, id);
            const Step* maker = maker_of(part_, id);
            return set ? as_is(set->name) : maker ? word(kind_of(maker->what)) : Phrase();
        };
        out_.findings.push_back(recipes::join_lanes(place, name(of.front()), name(*other)));
    }

    void take_refusal(const Step& step, const StepReport& report, const FindingPlace& place) {
        if (report.refused.empty()) return;
        const StepKind& kind = kind_of(step.what);
        out_.findings.push_back(
            recipes::step_refused(place, std::string(kind.key), word(kind), report.refused));
    }

    void take_made(const RecipeState& state, const Step& step, const FindingPlace& place) {
        const WorkSet* made = state.find(step.result);
        if (!made || step.aside || made->lines.empty()) return;
        if (!step.lane) {
            out_.findings.push_back(
                recipes::lane_none_of_step(place, Count{made->lines.size()}, word(kind_of(step.what))));
            return;
        }
        RunSet run{step.lane, step.result, step.id, kind_of(step.what).key, {}};
        add_lines(run, made->lines);
        const bool behind = kind_of(step.what).behind;
        out_.runs.insert(behind ? out_.runs.begin() : out_.runs.end(), std::move(run));
    }

    void take_ink(const RecipeState& state, const Step& step, const std::shared_ptr<const InkReport>& ink) {
        const WorkSet* made = state.find(step.result);
        if (!made || made->strokes.empty() || step.aside) return;
        out_.runs.push_back({step.lane, step.result, step.id, kind_of(step.what).key, made->strokes, ink});
    }

    /// What may lie apart is seen when all steps have been done; the last step that says so counts.
    void lay_pieces_apart() {
        for (auto step = part_.steps.rbegin(); step != part_.steps.rend(); ++step) {
            const auto done = out_.reports.find(step->id);
            if (done == out_.reports.end() || !done->second->apart) continue;
            LaidApart laid = lay_apart(*done->second->apart, step->of, out_.runs, progress_);
            laid.report.apart = done->second->apart;
            if (progress_.cancelled()) return;
            const FindingPlace place{part_.id, {}, {}, step->id, place_of(out_.box)};
            for (Finding finding : laid.report.findings) {
                finding.place = place;
                out_.findings.push_back(std::move(finding));
            }
            take_refusal(*step, laid.report, place);
            out_.apart = std::move(laid.arrangements);
            out_.reports[step->id] = std::make_shared<StepReport>(std::move(laid.report));
            return;
        }
    }

    void collect_lines(const RecipeState& state) {
        std::size_t count = 0;
        for (const auto& set : state.sets)
            count += set->lines.size();
        out_.lines.reserve(count);
        for (const auto& set : state.sets) {
            if (set->worked) out_.worked.insert(set->id);
            for (const FlatLine& line : set->lines) {
                out_.lines.push_back(line);
                out_.lines.back().set = set->id;
                for (const Polyline& c : line.contours)
                    out_.points += c.points.size();
            }
        }
        std::stable_sort(out_.lines.begin(), out_.lines.end(),
                         [](const FlatLine& a, const FlatLine& b) { return a.order < b.order; });
    }

    const Part& part_;
    const SourceLines& source_;
    const RecipeInputs& inputs_;
    std::shared_ptr<const RecipeChain> known_;
    Progress& progress_;
    EvaluatedPart out_;
};

} // namespace

StepInput input_of(const RecipeChain::Given& given) {
    StepInput in{{}, {}, given.part, given.tip};
    for (const auto& set : given.of)
        in.of.push_back(set.get());
    for (const auto& set : given.by)
        in.by.push_back(set.get());
    for (const auto& set : given.rest)
        in.rest.push_back(set.get());
    in.traced = given.traced;
    return in;
}

const Arrangement* arrangement(const EvaluatedPart& part, int piece) {
    for (const Arrangement& a : part.apart)
        if (a.number == piece) return &a;
    return nullptr;
}

bool is_there(const EvaluatedPart& part, int piece) {
    return piece == 0 || arrangement(part, piece);
}

Box box_of(const EvaluatedPart& part, int piece) {
    const Arrangement* a = arrangement(part, piece);
    return a ? a->box : piece == 0 ? part.box : Box{};
}

Extent extent_of(const EvaluatedPart& part, int piece) {
    const Box box = box_of(part, piece);
    if (box.empty()) return box;
    if (piece == 0) return {box, part.source_box.empty() ? box : part.source_box};
    const Point middle = box.centre();
    return {box, {middle.x, middle.y, middle.x, middle.y}};
}

const RunSet* ink_run(const EvaluatedPart& part, StepId step) {
    const auto it = std::find_if(part.runs.begin(), part.runs.end(),
                                 [step](const RunSet& run) { return run.ink && run.step == step; });
    return it == part.runs.end() ? nullptr : &*it;
}

const RecipeChain::Link* link_of(const EvaluatedPart& part, StepId step) {
    if (!part.chain) return nullptr;
    const auto it = part.chain->links.find(step);
    return it == part.chain->links.end() ? nullptr : it->second.get();
}

const InkReport* ink_of(const EvaluatedPart& part, StepId step) {
    const auto it = part.reports.find(step);
    return it == part.reports.end() ? nullptr : it->second->ink.get();
}

const Polylines& lines_of(const EvaluatedPart& part, std::size_t run, int piece) {
    static const Polylines none;
    const Arrangement* a = arrangement(part, piece);
    return a ? a->runs[run] : piece == 0 ? part.runs[run].lines : none;
}

EvaluatedPart evaluate(const Part& part, const RecipeInputs& inputs, const EvaluatedPart* before,
                       Progress& progress) {
    return Evaluation(part, inputs, before, progress).run();
}

} // namespace dotlane
