#include "core/project/project.h"

#include <algorithm>

namespace dotlane {
namespace {

template<class List, class Key>
auto* find_in(List& list, Key id) {
    const auto it = std::find_if(list.begin(), list.end(), [id](const auto& item) { return item.id == id; });
    return it == list.end() ? nullptr : &*it;
}

} // namespace

const Lane* find(const Project& project, LaneId id) {
    return find_in(project.lanes, id);
}
const Part* find(const Project& project, PartId id) {
    return find_in(project.parts, id);
}
const Sheet* find(const Project& project, SheetId id) {
    return find_in(project.sheets, id);
}
Lane* find(Project& project, LaneId id) {
    return find_in(project.lanes, id);
}
Part* find(Project& project, PartId id) {
    return find_in(project.parts, id);
}
Sheet* find(Project& project, SheetId id) {
    return find_in(project.sheets, id);
}
LineSet* find(Part& part, LineSetId id) {
    return find_in(part.sets, id);
}
const LineSet* find(const Part& part, LineSetId id) {
    return find_in(part.sets, id);
}

const LineSet* set_of(const Part& part, StepId step, std::string_view role) {
    for (const LineSet& set : part.sets)
        if (set.step == step && set.role == role) return &set;
    return nullptr;
}

const Step* find(const Part& part, StepId id) {
    return find_in(part.steps, id);
}
Step* find(Part& part, StepId id) {
    return find_in(part.steps, id);
}

const Placement* find_placement(const Project& project, PlacementId id, SheetId* on) {
    for (const Sheet& sheet : project.sheets)
        for (const Placement& p : sheet.placements)
            if (p.id == id) {
                if (on) *on = sheet.id;
                return &p;
            }
    return nullptr;
}

std::vector<PlacementId> with_groups(const Sheet& sheet, const std::vector<PlacementId>& placements) {
    std::set<PlacementId> named(placements.begin(), placements.end());
    std::set<int> groups;
    for (const Placement& p : sheet.placements)
        if (p.group != 0 && named.contains(p.id)) groups.insert(p.group);
    std::vector<PlacementId> out;
    for (const Placement& p : sheet.placements)
        if (named.contains(p.id) || groups.contains(p.group)) out.push_back(p.id);
    return out;
}

const Step* maker_of(const Part& part, LineSetId result) {
    for (const Step& step : part.steps)
        if (step.result == result && result) return &step;
    return nullptr;
}

std::vector<PartId> borrows_from(const Part& part) {
    std::vector<PartId> out;
    const auto add = [&](PartId id) {
        if (id && std::find(out.begin(), out.end(), id) == out.end()) out.push_back(id);
    };
    add(borrows_from(part.source.spec));
    for (const Step& step : part.steps)
        add(borrows_from(step.what));
    return out;
}

bool is_made(const Part& part) {
    return !std::holds_alternative<FromFile>(part.source.spec);
}

const DrawnLine* find(const Drawing& drawing, LineId id) {
    // Ids are handed out in order when a drawing is taken into a project.
    const auto it = std::lower_bound(drawing.lines.begin(), drawing.lines.end(), id,
                                     [](const DrawnLine& line, LineId wanted) { return line.id < wanted; });
    return it != drawing.lines.end() && it->id == id ? &*it : nullptr;
}

std::string plate(const Project& project, LaneId id) {
    const Lane* lane = find(project, id);
    if (!lane) return "?";
    int before = 0, all = 0;
    for (const Lane& other : project.lanes) {
        if (other.action != lane->action) continue;
        ++all;
        if (&other == lane) before = all;
    }
    std::string text(1, action_letter(lane->action));
    if (all > 1 && before > 1) text += std::to_string(before);
    return text;
}

} // namespace dotlane
