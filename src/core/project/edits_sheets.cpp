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
    return fail("edit.missing", std::string("There is no such ") + what + " in this project.");
}

Result<void> check_placement(const Project& project, const Placement& placement) {
    if (!find(project, placement.part)) return no_such("part");
    if (!std::isfinite(in_mm(placement.left)) || !std::isfinite(in_mm(placement.top)) ||
        !std::isfinite(in_radians(placement.turn)))
        return fail("place.range", "A place must be given in numbers.");
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
    if (!sheet) return no_such("sheet");
    sheet->name = std::move(name);
    sheet->stock = std::move(stock);
    sheet->mat = std::move(mat);
    return {};
}

Result<void> remove_sheet(Project& project, SheetId id) {
    if (std::erase_if(project.sheets, [id](const Sheet& s) { return s.id == id; }) == 0)
        return no_such("sheet");
    return {};
}

Result<PlacementId> place(Project& project, SheetId id, Placement placement) {
    Sheet* sheet = find(project, id);
    if (!sheet) return no_such("sheet");
    if (const auto ok = check_placement(project, placement); !ok) return tl::make_unexpected(ok.error());
    placement.id = fresh_id<PlacementId>(project);
    sheet->placements.push_back(placement);
    return placement.id;
}

Result<void> change_placement(Project& project, const Placement& placement) {
    Placement* p = placement_of(project, placement.id);
    if (!p) return no_such("placed part");
    if (const auto ok = check_placement(project, placement); !ok) return ok;
    *p = placement;
    return {};
}

Result<void> remove_placement(Project& project, PlacementId id) {
    for (Sheet& sheet : project.sheets)
        if (std::erase_if(sheet.placements, [id](const Placement& p) { return p.id == id; }) > 0) return {};
    return no_such("placed part");
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

} // namespace dotlane
