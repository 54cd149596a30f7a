#include "core/commands/sheets.h"

#include <algorithm>

#include "core/base/text.h"
#include "core/project/edits.h"

namespace dotlane {
namespace {

Result<void> check_name(const Project& project, const std::string& name, SheetId except) {
    if (trimmed(name).empty()) return fail("sheet.name", "A sheet needs a name.");
    for (const Sheet& sheet : project.sheets)
        if (sheet.id != except && same_word(sheet.name, name))
            return fail("sheet.name", "There is a sheet called \"" + name + "\" already.");
    return {};
}

Result<void> check_things(const Catalog& catalog, const std::string& stock, const std::string& mat) {
    if (!catalog.stock(stock))
        return tl::make_unexpected(not_in_catalog("stock", stock, ids_of(catalog.stocks)));
    if (!catalog.mat(mat)) return tl::make_unexpected(not_in_catalog("mat", mat, ids_of(catalog.mats)));
    return {};
}

std::string told(const Catalog& catalog, const Sheet& sheet) {
    return "\"" + sheet.name + "\": " + catalog.stock(sheet.stock)->name + " on the " +
           catalog.mat(sheet.mat)->name + ".";
}

} // namespace

Result<Done> apply(const AddSheet& command, Project& project, const Catalog& catalog) {
    std::string name = command.name;
    for (std::size_t n = project.sheets.size() + 1; name.empty(); ++n)
        if (const std::string next = "sheet " + std::to_string(n); check_name(project, next, {})) name = next;
    if (const auto ok = check_name(project, name, {}); !ok) return tl::make_unexpected(ok.error());
    const Machine* machine = catalog.machine(project.machine);
    const Sheet like = !project.sheets.empty()
                           ? project.sheets.back()
                           : Sheet{{},
                                   {},
                                   catalog.stocks.empty() ? "" : catalog.stocks.front().id,
                                   machine && !machine->mats.empty() ? machine->mats.front() : "",
                                   {}};
    const std::string stock = command.stock.empty() ? like.stock : command.stock,
                      mat = command.mat.empty() ? like.mat : command.mat;
    if (const auto ok = check_things(catalog, stock, mat); !ok) return tl::make_unexpected(ok.error());
    const SheetId id = add_sheet(project, name, stock, mat);
    return Done{"Added " + told(catalog, *find(project, id)), {}, id};
}

Result<Done> apply(const ChangeSheet& command, Project& project, const Catalog& catalog) {
    const Sheet* sheet = find(project, command.sheet);
    if (!sheet) return fail("edit.missing", "There is no such sheet.");
    const std::string name = command.name.value_or(sheet->name), stock = command.stock.value_or(sheet->stock),
                      mat = command.mat.value_or(sheet->mat);
    if (const auto ok = check_name(project, name, command.sheet); !ok) return tl::make_unexpected(ok.error());
    if (const auto ok = check_things(catalog, stock, mat); !ok) return tl::make_unexpected(ok.error());
    if (const auto ok = change_sheet(project, command.sheet, name, stock, mat); !ok)
        return tl::make_unexpected(ok.error());
    return Done{told(catalog, *find(project, command.sheet)), {}, command.sheet};
}

Result<Done> apply(const RemoveSheet& command, Project& project) {
    const Sheet* sheet = find(project, command.sheet);
    if (!sheet) return fail("edit.missing", "There is no such sheet.");
    Done done{"\"" + sheet->name + "\" is removed.", {}, {}};
    if (!sheet->placements.empty())
        done.lost.push_back(counted(sheet->placements.size(), "thing that lay", "things that lay") +
                            " on it is on no sheet now.");
    if (sheet->placements.size() > 1)
        done.lost.back() =
            std::to_string(sheet->placements.size()) + " things that lay on it are on no sheet now.";
    if (const auto ok = remove_sheet(project, command.sheet); !ok) return tl::make_unexpected(ok.error());
    return done;
}

} // namespace dotlane
