#include "core/commands/making.h"

#include <algorithm>
#include <tuple>
#include <unordered_set>

#include "core/base/text.h"
#include "core/commands/apart.h"
#include "core/commands/filling.h"
#include "core/commands/lanes.h"
#include "core/derive/lending.h"
#include "core/formats/trace/picture.h"
#include "core/sources/make.h"

namespace dotlane {
namespace {

constexpr struct {
    const char* role;
    Action action;
} usual_actions[] = {
    {role::fold, Action::score},  {role::mountain, Action::score}, {role::perforation, Action::perforate},
    {role::border, Action::draw}, {role::strokes, Action::draw},   {role::outline, Action::cut},
    {role::hole, Action::cut},    {role::window, Action::cut},     {role::motif, Action::cut},
    {role::letters, Action::cut}, {role::clip, Action::cut}};

Action action_of(const std::string& of) {
    if (of.starts_with(role::traced)) return Action::cut;
    for (const auto& usual : usual_actions)
        if (of == usual.role) return usual.action;
    return Action::draw;
}

Fold fold_of(const std::string& of) {
    return of == role::mountain ? Fold::mountain : Fold::valley;
}

LaneId lane_of(Project& project, const Catalog& catalog, Action action, Fold fold = Fold::valley) {
    for (const Lane& lane : project.lanes)
        if (lane.action == action && lane.fold == fold) return lane.id;
    if (fold == Fold::mountain) {
        // Scored as valleys are, in a lane of its own: its pattern tells the hands which way to fold.
        Lane lane = *find(project, lane_of(project, catalog, action));
        lane.name += " (mountain)";
        lane.fold = fold;
        return add_lane(project, std::move(lane));
    }
    return lane_for(project, catalog, action, {}, row(action).folds ? Colour{0x5a, 0x69, 0x96} : plain_ink);
}

/// A picture's are known without tracing it, which may take long and is done in the background.
Result<std::vector<std::string>> roles_of(const SourceSpec& spec, FontShelf& fonts) {
    if (const auto* picture = std::get_if<Picture>(&spec)) {
        if (!picture->bytes || !looks_like_picture(*picture->bytes))
            return fail("picture.format", say("This is neither a PNG nor a JPEG picture."));
    }
    if (auto roles = known_roles(spec); !roles.empty()) return roles;
    const auto made = make_lines(spec, fonts);
    if (!made) return tl::make_unexpected(made.error());
    std::vector<std::string> roles;
    for (const DrawnLine& line : made->drawing->lines)
        if (std::find(roles.begin(), roles.end(), line.group) == roles.end()) roles.push_back(line.group);
    return roles;
}

Result<void> add_roles(Project& project, const Catalog& catalog, PartId part,
                       const std::vector<std::string>& roles) {
    for (const std::string& wanted : roles) {
        const Part& now = *find(project, part);
        if (std::any_of(now.sets.begin(), now.sets.end(), [&](const LineSet& s) { return s.role == wanted; }))
            continue;
        const bool aside = wanted == role::guide;
        const LaneId lane = lane_of(project, catalog, action_of(wanted), fold_of(wanted));
        if (const auto set = add_role(project, part, wanted, lane, aside); !set)
            return tl::make_unexpected(set.error());
    }
    return {};
}

/// What lettering is called: its first line, cut between characters.
std::string words_of(const SourceSpec& spec) {
    const auto* lettering = std::get_if<Lettering>(&spec);
    if (!lettering) return {};
    const auto lines = split(lettering->text, "\r\n");
    return shortened(std::string(lines.empty() ? "" : trimmed(lines.front())), 40);
}

/// Whole sets among the chosen lines, and the lines that are left.
void sort_lines(const EvaluatedPart& evaluated, const std::vector<LineId>& lines,
                std::vector<LineSetId>& whole, std::vector<LineId>& single) {
    const std::unordered_set<LineId> chosen(lines.begin(), lines.end());
    for (const FlatLine& line : evaluated.lines) {
        if (!chosen.contains(line.id)) continue;
        if (!evaluated.worked.contains(line.set))
            single.push_back(line.id);
        else if (std::find(whole.begin(), whole.end(), line.set) == whole.end())
            whole.push_back(line.set);
    }
}

} // namespace

std::string free_name(const Project& project, const std::string& wanted) {
    return unused_name(project.parts, wanted);
}

Result<Done> apply(const MakePart& command, Project& project, const Catalog& catalog, FontShelf& fonts) {
    SourceSpec spec = command.spec;
    const SourceKind* kind = kind_of(spec);
    if (!kind) return fail("source.file", say("A drawing is opened, not made."));
    if (const auto ok = choose_lender(project, lender_of(spec), {}, command.lender); !ok)
        return tl::make_unexpected(ok.error());
    const auto roles = roles_of(spec, fonts);
    if (!roles) return tl::make_unexpected(roles.error());
    std::string name = command.name.empty() ? kind->name : command.name;
    if (name == kind->name && !words_of(spec).empty()) name = words_of(spec);
    Project next = project;
    const PartId part = add_made_part(next, free_name(project, name), std::move(spec));
    if (const auto ok = change_spec(next, part, find(next, part)->source.spec); !ok)
        return tl::make_unexpected(ok.error());
    if (const auto ok = add_roles(next, catalog, part, *roles); !ok) return tl::make_unexpected(ok.error());
    for (const StepWhat& what : command.steps) {
        std::vector<LineSetId> all;
        for (const LineSet& set : find(next, part)->sets)
            if (!set.set_aside) all.push_back(set.id);
        if (const auto ok = append_step(next, catalog, part, what, all); !ok)
            return tl::make_unexpected(ok.error());
    }
    project = std::move(next);
    Done done{say("Made \"%1\" (%2).", find(project, part)->name, word(*kind)), part};
    done.parts = {part};
    return done;
}

Result<Done> apply(const AddLayers& command, Project& project, const Catalog& catalog, FontShelf& fonts) {
    if (command.count < 1 || command.count > 20)
        return fail("layers.range", say("1 to 20 layers can be made at once."));
    Project next = project;
    Layer layer = command.layer;
    Done done;
    for (int i = 0; i < command.count; ++i) {
        if (i > 0) layer.of = done.parts.back();
        const auto made = apply(MakePart{layer, command.name, command.lender}, next, catalog, fonts);
        if (!made) return tl::make_unexpected(made.error());
        done.parts.push_back(made->part);
    }
    project = std::move(next);
    done.part = done.parts.front();
    done.said =
        say_n(done.parts.size(), "Made %n [layer|layers], the first \"%1\".", find(project, done.part)->name);
    return done;
}

void fit_font(Lettering& lettering, const FontShelf& fonts) {
    const bool strokes = lettering.kind == Lettering::Kind::strokes;
    if (strokes == (fonts.stroke_font(lettering.font) != nullptr) || fonts.stroke_fonts().empty()) return;
    lettering.font = strokes ? fonts.stroke_fonts().front().name : Lettering{}.font;
}

Result<Done> apply(const ChangeSource& command, Project& project, const Catalog& catalog, FontShelf& fonts) {
    SourceSpec spec = command.spec;
    const Part* before = find(project, command.part);
    const std::string old = before ? words_of(before->source.spec) : "", now = words_of(spec);
    const bool follows = before && !old.empty() && before->name == old; // a name that was given stays
    // A choice that needs another part finds one by itself; without any, the part says so.
    (void)choose_lender(project, lender_of(spec), command.part, {});
    Project next = project;
    if (const auto ok = change_spec(next, command.part, spec); !ok) return tl::make_unexpected(ok.error());
    if (follows && !now.empty() && now != old) find(next, command.part)->name = free_name(next, now);
    if (const auto roles = roles_of(spec, fonts))
        if (const auto ok = add_roles(next, catalog, command.part, *roles); !ok)
            return tl::make_unexpected(ok.error());
    project = std::move(next);
    Done done{say("Changed \"%1\".", find(project, command.part)->name), command.part};
    done.parts = {command.part};
    return done;
}

Result<std::vector<LineSetId>> sets_of_lines(Project& project, const EvaluatedPart& evaluated,
                                             const std::vector<LineId>& lines, const std::string& name) {
    std::vector<LineSetId> sets;
    std::vector<LineId> single;
    sort_lines(evaluated, lines, sets, single);
    if (!single.empty()) {
        const auto set = gather(project, evaluated.part, single, name);
        if (!set) return tl::make_unexpected(set.error());
        sets.push_back(*set);
    }
    return sets;
}

Result<void> send_lines(Project& project, const EvaluatedPart& evaluated, const std::vector<LineId>& lines,
                        LaneId lane) {
    std::vector<LineSetId> sets;
    std::vector<LineId> single;
    sort_lines(evaluated, lines, sets, single);
    for (const LineSetId set : sets)
        if (const auto ok = set_lane(project, evaluated.part, set, lane); !ok) return ok;
    return single.empty() ? Result<void>{} : assign(project, evaluated.part, single, lane);
}

namespace {

/// What is run through a sheet of foil, lines that steps make too.
std::vector<LineSetId> foiled(const Project& project, const Part& part) {
    const auto is_foiled = [&](LaneId id) {
        const Lane* lane = find(project, id);
        return lane && row(lane->action).under_sheet;
    };
    std::vector<LineSetId> out;
    for (const LineSet& set : part.sets)
        if (!set.set_aside && is_foiled(set.lane)) out.push_back(set.id);
    for (const Step& step : part.steps)
        if (step.on && !step.aside && step.result && is_foiled(step.lane)) out.push_back(step.result);
    return out;
}

} // namespace

Result<StepId> append_step(Project& project, const Catalog& catalog, PartId part_id, StepWhat what,
                           std::vector<LineSetId> of, std::vector<LineSetId> by) {
    if (kind_of(what).inks)
        return fill_sets(project, catalog, part_id, std::move(what), std::move(of)).map([&](StepId step) {
            propose_lanes(project, catalog, part_id, step);
            return step;
        });
    const Part* part = find(project, part_id);
    if (!part) return fail("edit.missing", say("There is no such part in this project."));
    LaneId lane;
    for (const LineSetId id : of) {
        const LineSet* set = find(*part, id);
        const Step* step = maker_of(*part, id);
        if (!lane) lane = set ? set->lane : step ? step->lane : LaneId{};
    }
    if (!kind_of(what).makes)
        return add_step(project, part_id, {{}, true, {}, std::move(what), std::move(of), std::move(by)});
    if (kind_of(what).brings) {
        lane = lane_of(project, catalog, action_of(role_of(what)));
        of.clear(); // it stands by itself
        if (!follows_own(what))
            if (const auto ok = choose_lender(project, lender_of(what), part_id, {}); !ok)
                return tl::make_unexpected(ok.error());
    }
    if (kind_of(what).by_role) lane = lane_by_role(project, catalog, what, lane);
    if (kind_of(what).prints) {
        const LaneId print = lane_of(project, catalog, Action::print);
        for (const LineSetId id : of) {
            const LineSet* set = find(*part, id);
            const Lane* now = set ? find(project, set->lane) : nullptr;
            if (set && (!now || row(now->action).run))
                if (const auto ok = set_lane(project, part_id, id, print); !ok)
                    return tl::make_unexpected(ok.error());
        }
    }
    const bool keeps = !kind_of(what).replaces;
    return add_maker(project, part_id, lane, std::move(what), of, keeps).map([&](StepId step) {
        propose_lanes(project, catalog, part_id, step);
        return step;
    });
}

Result<StepId> append_step(Project& project, const Catalog& catalog, const EvaluatedPart& evaluated,
                           StepWhat what, std::vector<LineSetId> of, std::vector<LineSetId> by) {
    const Part* part = find(project, evaluated.part);
    if (!part) return fail("edit.missing", say("There is no such part in this project."));
    const StepKind& kind = kind_of(what);
    if (kind.layers && of.empty() && !is_made(*part)) {
        // A drawing's colours are its layers, whatever lanes they are in.
        if (const auto ok = gather_colours(project, evaluated.part); !ok)
            return tl::make_unexpected(ok.error());
    }
    if (kind.layers && of.empty()) { // guides hide nothing; what is set aside later stays a layer
        for (const LineSet& set : part->sets)
            if (!set.set_aside && !set.step) of.push_back(set.id);
        // Where a step before has set them aside, such as the pieces that this one is the map of: those.
        const auto before = std::find_if(part->steps.begin(), part->steps.end(),
                                         [](const Step& s) { return kind_of(s.what).layers; });
        if (of.empty() && before != part->steps.end()) of = before->of;
    }
    if (kind.layers) of = as_they_lie(*part, std::move(of)); // and are numbered so
    const bool fills = kind.inks, closed = fills || kind.replaces;
    if (of.empty() && kind.foiled) {
        of = foiled(project, *part);
        if (of.empty())
            return fail("step.no-lines", say("No lines of it are foiled: send some to a foil lane first."));
    }
    if (of.empty() && (kind.makes || kind.second == StepKind::Second::wanted) && !kind.brings) {
        for (const LineSet& set : part->sets)
            if (!set.set_aside && std::find(by.begin(), by.end(), set.id) == by.end() &&
                (!closed ||
                 std::any_of(evaluated.lines.begin(), evaluated.lines.end(),
                             [&](const FlatLine& line) { return line.set == set.id && fillable(line); })))
                of.push_back(set.id);
        if (of.empty())
            return fail("step.no-lines", fills ? say("There are no closed lines that could be filled.")
                                               : say("There are no lines that it could work on."));
    }
    return append_step(project, catalog, evaluated.part, std::move(what), std::move(of), std::move(by));
}

LaneId lane_by_role(Project& project, const Catalog& catalog, const StepWhat& what, LaneId now) {
    const Action wanted = action_of(role_of(what));
    const Lane* lane = find(project, now);
    return lane && lane->action == wanted ? now : lane_of(project, catalog, wanted);
}

void propose_lanes(Project& project, const Catalog& catalog, PartId part_id, StepId step_id,
                   const std::vector<LineSet>& known) {
    const Step& step = *find(*find(project, part_id), step_id);
    for (const char* role : roles_of(step.what)) {
        const LineSet& set = *set_of(*find(project, part_id), step_id, role);
        if (set.lane ||
            std::any_of(known.begin(), known.end(), [&](const LineSet& s) { return s.id == set.id; }))
            continue;
        const Action action = action_of(role);
        const Fold fold = fold_of(role);
        const auto other = std::find_if(project.lanes.begin(), project.lanes.end(), [&](const Lane& lane) {
            return lane.action == action && lane.fold == fold && lane.id != step.lane;
        });
        // What is cut beside what the step itself cuts, or drawn, goes with it.
        const bool alike = action == action_of(role_of(step.what)) && kind_of(step.what).by_role;
        const LaneId lane = alike                          ? step.lane
                            : other != project.lanes.end() ? other->id
                                                           : lane_of(project, catalog, action, fold);
        LineSet& given = *find(*find(project, part_id), set.id);
        given.lane = lane, given.set_aside = std::string_view(role) == role::guide;
    }
}

std::vector<EnvelopeFit> envelopes_for(const Catalog& catalog, Length width, Length height) {
    const double least = 3, easy = 5.5,
                 most = 25; // half a millimetre off the 6 is rounding of sizes in inches
    const double a = in_mm(std::min(width, height)), b = in_mm(std::max(width, height));
    std::vector<std::tuple<bool, double, std::size_t>> fit;
    for (std::size_t i = 0; i < catalog.envelopes.size(); ++i) {
        const Envelope& e = catalog.envelopes[i];
        const double ea = in_mm(std::min(e.width, e.height)) - a, eb = in_mm(std::max(e.width, e.height)) - b;
        if (std::min(ea, eb) >= least && std::max(ea, eb) <= most)
            fit.emplace_back(std::min(ea, eb) < easy, ea + eb, i);
    }
    std::sort(fit.begin(), fit.end());
    std::vector<EnvelopeFit> out;
    for (const auto& [tight, play, i] : fit)
        out.push_back({&catalog.envelopes[i], tight});
    return out;
}

} // namespace dotlane
