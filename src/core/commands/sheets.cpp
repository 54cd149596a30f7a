#include "core/commands/sheets.h"

#include <algorithm>

#include "core/base/text.h"
#include "core/project/edits.h"
#include "core/project/found_marks.h"

namespace dotlane {
namespace {

Result<void> check_name(const Project& project, const std::string& name, SheetId except) {
    if (trimmed(name).empty()) return fail("sheet.name", say("A sheet needs a name."));
    for (const Sheet& sheet : project.sheets)
        if (sheet.id != except && same_word(sheet.name, name))
            return fail("sheet.name", say("There is a sheet called \"%1\" already.", name));
    return {};
}

/// What is given must be there; what a sheet has already may be of another catalog.
Result<void> check_given(const Catalog& catalog, const std::string* stock, const std::string* mat) {
    if (stock && !catalog.stock(*stock))
        return tl::make_unexpected(not_in_catalog(say("stock"), *stock, ids_of(catalog.stocks)));
    if (mat && !catalog.mat(*mat))
        return tl::make_unexpected(not_in_catalog(say("mat"), *mat, ids_of(catalog.mats)));
    return {};
}

Phrase told(const Catalog& catalog, const Sheet& sheet) {
    const Stock* stock = catalog.stock(sheet.stock);
    const Mat* mat = catalog.mat(sheet.mat);
    return say("\"%1\": %2 on the %3.", sheet.name, stock ? word(*stock) : as_is(sheet.stock),
               mat ? word(*mat) : as_is(sheet.mat));
}

} // namespace

Result<Done> apply(const AddSheet& command, Project& project, const Catalog& catalog) {
    std::string name = command.name;
    for (std::size_t n = project.sheets.size() + 1; name.empty(); ++n)
        if (const std::string next = "sheet " + std::to_string(n); check_name(project, next, {})) name = next;
    if (const auto ok = check_name(project, name, {}); !ok) return tl::make_unexpected(ok.error());
    const Machine* machine = catalog.machine(project.machine);
    const Sheet* last = project.sheets.empty() ? nullptr : &project.sheets.back();
    std::string stock = command.stock, mat = command.mat;
    if (stock.empty() && last && catalog.stock(last->stock)) stock = last->stock;
    if (mat.empty() && last && catalog.mat(last->mat)) mat = last->mat;
    if (stock.empty() && !catalog.stocks.empty()) stock = catalog.stocks.front().id;
    if (mat.empty() && machine && !machine->mats.empty()) mat = machine->mats.front();
    if (const auto ok = check_given(catalog, &stock, &mat); !ok) return tl::make_unexpected(ok.error());
    const SheetId id = add_sheet(project, name, stock, mat);
    return Done{say("Added %1", told(catalog, *find(project, id))), {}, id};
}

Result<Done> apply(const ChangeSheet& command, Project& project, const Catalog& catalog) {
    const Sheet* sheet = find(project, command.sheet);
    if (!sheet) return fail("edit.missing", say("There is no such sheet."));
    const std::string name = command.name.value_or(sheet->name), stock = command.stock.value_or(sheet->stock),
                      mat = command.mat.value_or(sheet->mat);
    if (const auto ok = check_name(project, name, command.sheet); !ok) return tl::make_unexpected(ok.error());
    if (const auto ok = check_given(catalog, command.stock ? &stock : nullptr, command.mat ? &mat : nullptr);
        !ok)
        return tl::make_unexpected(ok.error());
    if (command.found)
        if (const auto ok = check_found(*command.found); !ok) return tl::make_unexpected(ok.error());
    if (const auto ok = change_sheet(project, command.sheet, name, stock, mat); !ok)
        return tl::make_unexpected(ok.error());
    if (command.found) find(project, command.sheet)->found = *command.found;
    return Done{told(catalog, *find(project, command.sheet)), {}, command.sheet};
}

Result<Done> apply(const ClearSheet& command, Project& project) {
    Sheet* sheet = find(project, command.sheet);
    if (!sheet) return fail("edit.missing", say("There is no such sheet."));
    if (sheet->placements.empty()) return fail("sheet.empty", say("Nothing lies on \"%1\".", sheet->name));
    Done done{say_n(sheet->placements.size(), "Took %n [thing|things] off \"%1\".", sheet->name),
              {},
              command.sheet};
    for (const Placement& p : sheet->placements)
        done.placements.push_back(p.id);
    sheet->placements.clear();
    return done;
}

Result<Done> apply(const RemoveSheet& command, Project& project) {
    const Sheet* sheet = find(project, command.sheet);
    if (!sheet) return fail("edit.missing", say("There is no such sheet."));
    Done done{say("\"%1\" is removed.", sheet->name), {}, {}};
    if (const std::size_t n = sheet->placements.size(); n > 0)
        done.lost.push_back(
            say_n(n, "%n [thing that lay on it is|things that lay on it are] on no sheet now."));
    if (const auto ok = remove_sheet(project, command.sheet); !ok) return tl::make_unexpected(ok.error());
    return done;
}

} // namespace dotlane
