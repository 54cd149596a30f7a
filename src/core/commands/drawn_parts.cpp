#include "core/commands/drawn_parts.h"

#include <algorithm>
#include <map>
#include <set>
#include <unordered_set>

#include "core/base/text.h"
#include "core/commands/colours.h"
#include "core/commands/making.h"
#include "core/commands/parts.h"
#include "core/project/edits.h"
#include "core/recipe/flatten.h"
#include "core/sheets/layout.h"

namespace dotlane {
namespace {

/// What placements of the part hold on to.
Box anchor_of(const Part& part) {
    Box out;
    const auto flat = flatten_source(part, *part.source.drawing, is_made(part));
    for (const auto& set : flat->sets)
        out.add(set->box());
    return out;
}

/// The placement of the same lines on the same spot when it holds on to another box.
Placement held_by(Placement p, const Box& was, const Box& now) {
    const Point before = placement_transform(p, Extent(was))(Point{}),
                after = placement_transform(p, Extent(now))(Point{});
    p.left += mm(before.x - after.x), p.top += mm(before.y - after.y);
    return p;
}

void keep_placed(Project& project, PartId part, const Box& was, const Box& now) {
    for (Sheet& sheet : project.sheets)
        for (Placement& p : sheet.placements)
            if (p.part == part && p.piece == 0 && !p.by_box) p = held_by(p, was, now);
}

std::string colour_key(const DrawnLine& line) {
    const auto& colour = line.drawn.fill ? line.drawn.fill : line.drawn.stroke;
    return colour ? to_hex(*colour) : std::string();
}

/// Without a number at its end: "petal 3" and "petal-4" are petals.
std::string name_key(const DrawnLine& line) {
    std::string name = line.name;
    while (!name.empty() && std::isdigit(static_cast<unsigned char>(name.back())))
        name.pop_back();
    while (!name.empty() && (name.back() == ' ' || name.back() == '-' || name.back() == '_'))
        name.pop_back();
    return name.empty() ? line.name : name;
}

/// As many of the outermost groups as it takes for lines to differ.
std::vector<std::string> group_keys(const Drawing& drawing) {
    std::vector<std::vector<std::string_view>> paths;
    std::size_t deepest = 0;
    for (const DrawnLine& line : drawing.lines) {
        paths.push_back(split(line.group, "/"));
        deepest = std::max(deepest, paths.back().size());
    }
    std::vector<std::string> keys(paths.size());
    for (std::size_t depth = 0; depth < deepest; ++depth) {
        for (std::size_t i = 0; i < paths.size(); ++i)
            if (depth < paths[i].size())
                keys[i] += (keys[i].empty() ? "" : "/") + std::string(paths[i][depth]);
        if (std::any_of(keys.begin(), keys.end(), [&](const std::string& k) { return k != keys.front(); }))
            break;
    }
    return keys;
}

/// Lines told apart by where they lie; each closed line with what it overlaps and what lies in it.
std::vector<ApartBundle> by_piece(const Drawing& drawing) {
    constexpr std::size_t most_effort = 2'000'000; // pairs of a line and a piece
    constexpr std::size_t most_points = 40'000;    // a tangle of so many takes two seconds
    if (points_of(drawing) > most_points) return {};
    std::vector<RunSet> runs;
    std::size_t closed = 0;
    for (const DrawnLine& line : drawing.lines) {
        RunSet run;
        run.lines = flattened(line.shape);
        for (std::size_t c = 0; c < run.lines.size(); ++c)
            if (!run.lines[c].closed && (closes(line.shape.contours[c]) || line.drawn.fill))
                run.lines[c].closed = true;
        run.of = {{line.id, run.lines.size()}};
        closed += fillable(line) ? run.lines.size() : 0;
        runs.push_back(std::move(run));
    }
    if (runs.size() * std::min(closed, most_pieces) > most_effort) return {};
    std::vector<ApartBundle> out;
    for (const Arrangement& a : lay_apart({}, {}, runs, no_progress()).arrangements) {
        ApartBundle bundle{"piece " + std::to_string(out.size() + 1), {}};
        for (std::size_t r = 0; r < runs.size(); ++r)
            if (!a.runs[r].empty()) bundle.lines.push_back(drawing.lines[r].id);
        out.push_back(std::move(bundle));
    }
    return out;
}

std::string shown(ApartBy by, const std::string& key, const std::set<std::string>& taken) {
    if (key.empty())
        return by == ApartBy::colour ? "no colour" : by == ApartBy::group ? "no group" : "no name";
    if (by == ApartBy::group) return key.substr(key.find_last_of('/') + 1);
    if (by == ApartBy::name) return key;
    const std::string word = colour_word(*colour_from_hex(key));
    return taken.contains(word) ? word + " " + key : word;
}

/// The part with these lines alone: sets and steps that still have lines, under ids of their own.
Part part_of(Project& project, const Part& whole, const std::vector<LineId>& lines, bool first) {
    const std::unordered_set<LineId> kept(lines.begin(), lines.end());
    Part out = whole;
    auto drawing = std::make_shared<Drawing>(*whole.source.drawing);
    std::erase_if(drawing->lines, [&](const DrawnLine& line) { return !kept.contains(line.id); });
    out.source.drawing = std::move(drawing);
    if (!first) out.source.notes.clear(); // said once
    std::map<LineSetId, LineSetId> now;   // sets that are left, by what they were called
    out.sets.clear(), out.steps.clear();
    for (LineSet set : whole.sets) {
        if (set.step) continue;
        std::erase_if(set.lines, [&](LineId line) { return !kept.contains(line); });
        if (set.lines.empty()) continue;
        const LineSetId old = set.id;
        if (!first) set.id = fresh_id<LineSetId>(project);
        now[old] = set.id;
        out.sets.push_back(std::move(set));
    }
    for (Step step : whole.steps) {
        if (kind_of(step.what).brings && !first) continue;
        bool empty = false;
        for (auto* list : {&step.of, &step.by}) {
            if (list->empty()) continue;
            std::erase_if(*list, [&](LineSetId id) { return !now.contains(id); });
            empty = empty || list->empty();
            for (LineSetId& id : *list)
                id = now.at(id);
        }
        if (empty) continue;
        const StepId was = step.id;
        if (!first) step.id = fresh_id<StepId>(project);
        for (LineSet set : whole.sets) {
            if (set.step != was || !was) continue;
            const LineSetId old = set.id;
            if (!first) set.id = fresh_id<LineSetId>(project);
            now[old] = set.id;
            set.step = step.id;
            out.sets.push_back(std::move(set));
        }
        if (step.result) {
            const LineSetId old = step.result;
            if (!first) step.result = fresh_id<LineSetId>(project);
            now[old] = step.result;
        }
        out.steps.push_back(std::move(step));
    }
    return out;
}

Result<void> may_be_taken_apart(const Project& project, const Part& part) {
    for (const Step& step : part.steps)
        if (kind_of(step.what).counts_pieces)
            return fail("part.apart", say("The step \"%1\" counts the part's pieces, which would be others. "
                                          "Remove it first, and add it to the new parts.",
                                          word(kind_of(step.what))));
    for (const Part& other : project.parts) {
        const auto from = borrows_from(other);
        if (std::find(from.begin(), from.end(), part.id) != from.end())
            return fail("part.apart", say("\"%1\" takes the outline of this part, which would be another "
                                          "one. Give it another outline first.",
                                          other.name));
    }
    return {};
}

/// One line set alone is no layer.
bool has_layers(const Part& part) {
    return std::any_of(part.steps.begin(), part.steps.end(), [](const Step& step) {
        return step.on && kind_of(step.what).layers && step.of.size() > 1;
    });
}

/// Whether a step takes the line set for one of its layers.
bool is_layer(const Part& part, LineSetId id) {
    return std::any_of(part.steps.begin(), part.steps.end(), [id](const Step& step) {
        return kind_of(step.what).layers && std::find(step.of.begin(), step.of.end(), id) != step.of.end();
    });
}

/// A step that can make its lines of one layer alone; null: none does, or it does so already.
const Step* one_by_one(const Part& part) {
    for (const Step& step : part.steps) {
        StepWhat what = step.what;
        if (step.on && step.of.size() > 1 && keep_only(what, 0) && what == step.what) return &step;
    }
    return nullptr;
}

/// A part for each line set of such a step, which knows all of them and makes its lines of that one.
Result<std::vector<PartId>> made_apart(Project& project, const Part& whole, const Step& maker) {
    if (maker.of.size() > most_parts_apart)
        return fail("part.apart", say_n(maker.of.size(),
                                        "It works on %n [line set|line sets]: at most %1 can be "
                                        "parts of their own.",
                                        most_parts_apart));
    Project next = project;
    const auto at = static_cast<std::size_t>(&maker - whole.steps.data());
    std::vector<PartId> out{whole.id};
    for (std::size_t k = 0; k < maker.of.size(); ++k) {
        const LineSet* set = find(whole, maker.of[k]);
        const std::string name = free_name(
            next, shortened(whole.name + " " + (set ? set->name : std::to_string(k + 1)), longest_name));
        if (k == 0) {
            find(next, whole.id)->name = name;
        } else {
            const auto copy = apply(CopyPart{whole.id, name}, next);
            if (!copy) return tl::make_unexpected(copy.error());
            out.push_back(copy->part);
        }
    }
    for (std::size_t k = 0; k < out.size(); ++k)
        keep_only(find(next, out[k])->steps[at].what, static_cast<int>(k) + 1);
    project = std::move(next);
    return out;
}

/// What becomes of a layer depends on the others, so each part keeps all of them and runs one. They lie on no
/// sheet yet, as they are of other stocks.
Result<std::vector<PartId>> layers_apart(Project& project, PartId id) {
    Project next = project;
    const Part whole = *find(next, id);
    if (const Step* maker = one_by_one(whole)) return made_apart(project, whole, *maker);
    std::vector<std::size_t> run;
    for (std::size_t i = 0; i < whole.sets.size(); ++i)
        if (const LineSet& set = whole.sets[i]; !set.set_aside && !set.step && !set.lines.empty())
            run.push_back(i);
    if (run.size() < 2 || run.size() > most_parts_apart)
        return fail("part.apart", say_n(run.size(),
                                        "The part runs %n [line set|line sets]: from 2 to %1 can be "
                                        "parts of their own.",
                                        most_parts_apart));
    std::vector<PartId> out{id};
    for (std::size_t k = 1; k < run.size(); ++k) {
        const auto copy = apply(
            CopyPart{id,
                     free_name(next, shortened(whole.name + " " + whole.sets[run[k]].name, longest_name))},
            next);
        if (!copy) return tl::make_unexpected(copy.error());
        out.push_back(copy->part);
    }
    find(next, id)->name =
        free_name(next, shortened(whole.name + " " + whole.sets[run.front()].name, longest_name));
    for (std::size_t k = 0; k < run.size(); ++k)
        for (const std::size_t other : run)
            if (other != run[k]) find(next, out[k])->sets[other].set_aside = true;
    project = std::move(next);
    return out;
}

} // namespace

const char* apart_name(ApartBy by) {
    constexpr const char* names[] = {to_say("colour"), to_say("group"), to_say("name"), to_say("piece"),
                                     to_say("level")};
    return names[static_cast<int>(by)];
}

Result<void> settle_strays(Project& project, PartId id, StrayChoice choice) {
    Part* part = find(project, id);
    if (!part || is_made(*part) || strays_of(*part->source.drawing).empty())
        return fail("remedy.none", say("There is no stray line any more."));
    if (choice != StrayChoice::keep) {
        const Box before = anchor_of(*part);
        auto drawing = std::make_shared<Drawing>(without_strays(*part->source.drawing, choice));
        if (const auto ok = change_drawing(project, id, std::move(drawing)); !ok) return ok;
        keep_placed(project, id, before, anchor_of(*part));
    }
    std::erase_if(part->source.notes, [](const Finding& f) { return f.code == "open.stray"; });
    return {};
}

std::vector<ApartBundle> bundles(const Drawing& drawing, ApartBy by, double one_colour) {
    if (by == ApartBy::level) return {};
    if (by == ApartBy::piece) return by_piece(drawing);
    std::vector<std::string> keys;
    std::map<LineId, std::string> joined; // by what their group is called
    if (by == ApartBy::colour && one_colour > 0)
        for (const ColourGroup& group : colour_groups(drawing, one_colour))
            for (const LineId line : group.lines)
                joined.emplace(line, to_hex(group.shown));
    if (by == ApartBy::group)
        keys = group_keys(drawing);
    else
        for (const DrawnLine& line : drawing.lines)
            keys.push_back(by == ApartBy::name        ? name_key(line)
                           : joined.contains(line.id) ? joined.at(line.id)
                                                      : colour_key(line));
    std::vector<ApartBundle> out;
    std::map<std::string, std::size_t> at;
    std::set<std::string> taken;
    for (std::size_t i = 0; i < keys.size(); ++i) {
        const auto [entry, fresh] = at.try_emplace(keys[i], out.size());
        if (fresh) {
            out.push_back({shown(by, keys[i], taken), {}});
            taken.insert(out.back().name);
        }
        out[entry->second].lines.push_back(drawing.lines[i].id);
    }
    return out;
}

Result<void> gather_colours(Project& project, PartId id) {
    const Part* part = find(project, id);
    if (!part || is_made(*part)) return {};
    const auto colours = bundles(*part->source.drawing, ApartBy::colour, part->one_colour);
    if (colours.size() < 2 || colours.size() > most_parts_apart) return {};
    for (const ApartBundle& colour : colours) {
        const std::unordered_set<LineId> own(colour.lines.begin(), colour.lines.end());
        const Part& now = *find(project, id);
        const std::vector<LineSet> before = now.sets;
        // A colour in several lanes stays in them; colours that count as one lie in the lane of the first.
        // What is set aside is no layer, unless a step makes something of it in its stead.
        std::map<std::pair<LaneId, bool>, std::vector<LineId>> together;
        for (const LineSet& set : before)
            for (const LineId line : set.lines)
                if (own.contains(line) && (!set.set_aside || is_layer(now, set.id)))
                    together[{now.one_colour > 0 ? LaneId{} : set.lane, set.set_aside}].push_back(line);
        for (const auto& [key, lines] : together) {
            const auto set = gather(project, id, lines, colour.name);
            if (!set) return tl::make_unexpected(set.error());
            LineSet& made = *find(*find(project, id), *set);
            made.name = colour.name, made.set_aside = key.second;
        }
    }
    return {};
}

std::vector<LineSetId> as_they_lie(const Part& part, std::vector<LineSetId> sets) {
    std::stable_sort(sets.begin(), sets.end(), [&](LineSetId a, LineSetId b) {
        const auto foremost = [&](LineSetId id) {
            const LineSet* set = find(part, id);
            const bool drawn = set && !set->step && !set->lines.empty();
            return std::pair(!drawn, drawn ? set->lines.back() : LineId{});
        };
        return foremost(a) < foremost(b);
    });
    return sets;
}

Result<void> layers_by_colour(Project& project, PartId id) {
    // A step keeps to the lines that it works on, in whatever sets they are then.
    std::map<StepId, std::set<LineId>> lines;
    for (const Step& step : find(project, id)->steps)
        if (kind_of(step.what).layers)
            for (const LineSetId of : step.of)
                if (const LineSet* set = find(*find(project, id), of))
                    lines[step.id].insert(set->lines.begin(), set->lines.end());
    if (lines.empty()) return {};
    if (const auto ok = gather_colours(project, id); !ok) return ok;
    Part& part = *find(project, id);
    for (Step& step : part.steps) {
        const auto own = lines.find(step.id);
        if (own == lines.end()) continue;
        std::erase_if(step.of,
                      [&](LineSetId of) { return find(part, of) != nullptr; }); // what steps made stays
        for (const LineSet& set : part.sets)
            if (!set.step && !set.lines.empty() && own->second.contains(set.lines.front()))
                step.of.push_back(set.id);
        step.of = as_they_lie(part, std::move(step.of));
    }
    return {};
}

Result<std::vector<PartId>> drawing_apart(Project& project, PartId id, ApartBy by) {
    const Part* found = find(project, id);
    if (!found || is_made(*found)) return fail("part.apart", say("Only lines of a file are told apart so."));
    if (const auto ok = may_be_taken_apart(project, *found); !ok) return tl::make_unexpected(ok.error());
    if (by == ApartBy::colour && has_layers(*found)) return layers_apart(project, id);
    const auto all = bundles(*found->source.drawing, by, found->one_colour);
    if (all.size() < 2 || all.size() > most_parts_apart) {
        return fail("part.apart",
                    by == ApartBy::piece && all.empty()
                        ? say("The lines are too many, or none is closed, to be told apart by piece: try by "
                              "colour or group.")
                        : say_n(all.size(),
                                "By %1 the lines make %n [part|parts]: from 2 to %2 can be taken apart.",
                                as_word(core_words, apart_name(by)), most_parts_apart));
    }
    Project next = project;
    const Part whole = *found;
    const Box anchor = anchor_of(whole);
    std::vector<PartId> out;
    for (const ApartBundle& bundle : all) {
        const bool first = out.empty();
        Part part = part_of(next, whole, bundle.lines, first);
        part.name = free_name(next, shortened(whole.name + " " + bundle.name, longest_name));
        if (!first) part.id = fresh_id<PartId>(next);
        out.push_back(part.id);
        if (first)
            *find(next, id) = std::move(part);
        else
            next.parts.push_back(std::move(part));
    }
    for (Sheet& sheet : next.sheets) {
        std::vector<Placement> placed;
        for (const Placement& p : sheet.placements) {
            if (p.part != id) {
                placed.push_back(p);
                continue;
            }
            for (const PartId part : out) {
                Placement one = held_by(p, anchor, anchor_of(*find(next, part)));
                one.part = part;
                if (part != id) one.id = fresh_id<PlacementId>(next);
                placed.push_back(one);
            }
        }
        sheet.placements = std::move(placed);
    }
    project = std::move(next);
    return out;
}

} // namespace dotlane
