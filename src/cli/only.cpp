#include "cli/only.h"

#include "cli/names.h"

namespace dotlane::cli {
namespace {

/// "sheet:2", or a name that is looked for among parts, then sheets, then lanes.
Result<void> add(const Project& project, const std::string& text, NotThisRun& to) {
    const auto colon = text.find(':');
    const std::string kind = colon == text.npos ? "" : text.substr(0, colon);
    const bool known = kind == "part" || kind == "sheet" || kind == "lane";
    const std::string name = known ? text.substr(colon + 1) : text;
    if (name.empty()) return fail("cli.unknown", say("Say which: part:NAME, sheet:NAME or lane:PLATE."));
    Error first;
    const auto take = [&](const char* what, auto named, auto& into) {
        if (known && kind != what) return false;
        if (!named) {
            if (first.code.empty() || known) first = named.error();
            return false;
        }
        into.insert(*named);
        return true;
    };
    if (take("part", part_named(project, name), to.parts) ||
        take("sheet", sheet_named(project, name), to.sheets) ||
        take("lane", lane_named(project, name), to.lanes))
        return {};
    if (!known) return fail("cli.unknown", say("No part, sheet or lane is called \"%1\".", name));
    return tl::make_unexpected(first);
}

template<class Things, class Ids>
void leave_others(const Things& things, const Ids& kept, Ids& out) {
    if (kept.empty()) return;
    for (const auto& thing : things)
        if (!kept.contains(thing.id)) out.insert(thing.id);
}

} // namespace

void Only::declare(CLI::App& app) {
    app.add_option("--only", only_,
                   "This run only: these parts, sheets or lanes and no others of their kind; a name, or "
                   "part:NAME, sheet:NAME, lane:PLATE. Nothing of the project changes");
    app.add_option("--without", without_, "Leave these parts, sheets or lanes out of this run");
}

Result<NotThisRun> Only::left_out(const Project& project) const {
    NotThisRun kept, out;
    for (const std::string& text : only_)
        if (const auto ok = add(project, text, kept); !ok) return tl::make_unexpected(ok.error());
    for (const std::string& text : without_)
        if (const auto ok = add(project, text, out); !ok) return tl::make_unexpected(ok.error());
    leave_others(project.parts, kept.parts, out.parts);
    leave_others(project.sheets, kept.sheets, out.sheets);
    leave_others(project.lanes, kept.lanes, out.lanes);
    return out;
}

} // namespace dotlane::cli
