#include "core/project/changes.h"

#include <algorithm>

namespace dotlane {
namespace {

template<class Thing, class Id>
bool compare(const std::vector<Thing>& before, const std::vector<Thing>& now, std::set<Id>& differ) {
    const bool same = std::equal(before.begin(), before.end(), now.begin(), now.end(),
                                 [](const Thing& a, const Thing& b) { return a.id == b.id; });
    if (same) {
        for (std::size_t i = 0; i < now.size(); ++i)
            if (!(before[i] == now[i])) differ.insert(now[i].id);
        return false;
    }
    for (const Thing& thing : now) {
        const auto was =
            std::find_if(before.begin(), before.end(), [&](const Thing& t) { return t.id == thing.id; });
        if (was == before.end() || !(*was == thing)) differ.insert(thing.id);
    }
    return true;
}

} // namespace

Changes Changes::all(const Project& now) {
    Changes out{true, true, true, true, true, true, true, {}, {}};
    for (const Part& part : now.parts)
        out.parts.insert(part.id);
    for (const Sheet& sheet : now.sheets)
        out.sheets.insert(sheet.id);
    return out;
}

Changes changes_between(const Project& before, const Project& now) {
    Changes out;
    out.name = before.name != now.name;
    out.unit = before.unit != now.unit;
    out.machine = before.machine != now.machine;
    out.order = before.pass_order != now.pass_order || before.wishes != now.wishes;
    out.lanes = before.lanes != now.lanes;
    out.part_list = compare(before.parts, now.parts, out.parts);
    out.sheet_list = compare(before.sheets, now.sheets, out.sheets);
    return out;
}

} // namespace dotlane
