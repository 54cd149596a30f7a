// Edits of sheets and of what lies on them.
#include <algorithm>
#include <cmath>

#include "core/project/edit_checks.h"
#include "core/project/edits.h"

namespace dotlane {
namespace {

Placement* placement_of(Project& project, PlacementId id) {
    for (Sheet& sheet : project.sheets)
        for (Placement& p : sheet.placements)
            if (p.id == id) return &p;
    return nullptr;
}

} // namespace

tl::unexpected<Error> no_such(const char* what) {
    return fail("edit.missing", say("There is no such %1 in this project.", as_word(core_words, what)));
}

Result<void> check_placement(const Project& project, const Placement& placement) {
    if (!find(project, placement.part)) return no_such(to_say("part"));
    const auto within = [](double v) { return std::abs(v) <= drawing_limit_mm; }; // false for no number
    if (!within(in_mm(placement.left)) || !within(in_mm(placement.top)) ||
        !within(in_radians(placement.turn)))
        return fail("place.range", say("A place must be given in numbers, no more than a kilometre away."));
    if (placement.piece < 0 || placement.piece > 100000 || placement.group < 0)
        return fail("place.range", say("Pieces are counted from 1 to 100,000, and groups from 1."));
    return {};
}

SheetId add_sheet(Project& project, std::string name, std::string stock, std::string mat) {
    project.sheets.push_back(
        {fresh_id<SheetId>(project), std::move(name), std::move(stock), std::move(mat), {}});
    return project.sheets.back().id;
}

Result<void> change_sheet(Project& project, SheetId id, std::string name, std::string stock,
                          std::string mat) {
    Sheet* sheet = find(project, id);
    if (!sheet) return no_such(to_say("sheet"));
    sheet->name = std::move(name);
    sheet->stock = std::move(stock);
    sheet->mat = std::move(mat);
    return {};
}

Result<void> remove_sheet(Project& project, SheetId id) {
    if (std::erase_if(project.sheets, [id](const Sheet& s) { return s.id == id; }) == 0)
        return no_such(to_say("sheet"));
    std::erase_if(project.wishes.pins, [id](const SheetPin& pin) { return pin.sheet == id; });
    return {};
}

Result<PlacementId> place(Project& project, SheetId id, Placement placement) {
    Sheet* sheet = find(project, id);
    if (!sheet) return no_such(to_say("sheet"));
    if (const auto ok = check_placement(project, placement); !ok) return tl::make_unexpected(ok.error());
    placement.id = fresh_id<PlacementId>(project);
    sheet->placements.push_back(placement);
    return placement.id;
}

Result<void> change_placement(Project& project, const Placement& placement) {
    Placement* p = placement_of(project, placement.id);
    if (!p) return no_such(to_say("placed part"));
    if (const auto ok = check_placement(project, placement); !ok) return ok;
    *p = placement;
    return {};
}

Result<void> change_placements(Project& project, const std::vector<Placement>& placements) {
    for (const Placement& p : placements) { // all or none
        if (!placement_of(project, p.id)) return no_such(to_say("placed part"));
        if (const auto ok = check_placement(project, p); !ok) return ok;
    }
    for (const Placement& p : placements)
        *placement_of(project, p.id) = p;
    return {};
}

Result<void> group_placements(Project& project, const std::vector<PlacementId>& placements) {
    SheetId first, on;
    for (const PlacementId id : placements) {
        if (!find_placement(project, id, &on)) return no_such(to_say("placed part"));
        if (!first) first = on;
        if (on != first) return fail("place.group", say("What is grouped lies on one sheet."));
    }
    if (placements.size() < 2) return fail("place.group", say("Choose at least two to group them."));
    Sheet& sheet = *find(project, first);
    int group = 1;
    for (const Placement& p : sheet.placements)
        group = std::max(group, p.group + 1);
    // What was grouped with one of them comes along.
    for (const PlacementId id : with_groups(sheet, placements))
        placement_of(project, id)->group = group;
    return {};
}

Result<void> ungroup_placements(Project& project, const std::vector<PlacementId>& placements) {
    SheetId on;
    for (const PlacementId id : placements) {
        if (!find_placement(project, id, &on)) return no_such(to_say("placed part"));
        for (const PlacementId each : with_groups(*find(project, on), {id}))
            placement_of(project, each)->group = 0;
    }
    return {};
}

Result<void> remove_placement(Project& project, PlacementId id) {
    for (Sheet& sheet : project.sheets)
        if (std::erase_if(sheet.placements, [id](const Placement& p) { return p.id == id; }) > 0) return {};
    return no_such(to_say("placed part"));
}

} // namespace dotlane
