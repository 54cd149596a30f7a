#include "cli/names.h"

#include <charconv>
#include <optional>

#include "core/base/text.h"

namespace dotlane::cli {
namespace {

/// What can be named, with the number that `show` gives it.
struct Named {
    std::string name;
    std::uint32_t id;
};

std::string listed(const std::vector<Named>& list) {
    std::string out;
    for (const Named& n : list)
        out += (out.empty() ? "" : ", ") + ("\"" + n.name + "\" (#" + std::to_string(n.id) + ")");
    return out;
}

/// "#4" and, without the mark, 4; a letter before it ("p4") was once written so.
std::optional<std::uint32_t> number_in(const std::string& text, char prefix) {
    std::size_t from = 0;
    if (text.size() > 1 && (text[0] == '#' || text[0] == prefix)) from = 1;
    std::uint32_t number = 0;
    const auto [end, bad] = std::from_chars(text.data() + from, text.data() + text.size(), number);
    if (bad != std::errc() || end != text.data() + text.size()) return std::nullopt;
    return number;
}

/// The ones that answer to the name; error when none does or several do.
Result<std::uint32_t> one_named(const std::vector<Named>& list, const std::string& name, const char* kind,
                                char prefix) {
    if (list.empty()) return fail("cli.none", say("The project has no %1.", as_is(kind)));
    if (name.empty() && list.size() == 1) return list.front().id;
    if (name.empty()) return fail("cli.which", say("Which %1? There are: %2.", as_is(kind), listed(list)));
    std::vector<Named> found;
    if (name[0] != '#')
        for (const Named& n : list)
            if (same_word(n.name, name)) found.push_back(n);
    if (found.size() > 1)
        return fail("cli.ambiguous",
                    say("Several are called \"%1\": %2. Say which by its number, such as #%3.", name,
                        listed(found), found.front().id));
    if (found.size() == 1) return found.front().id;
    if (const auto number = number_in(name, prefix))
        for (const Named& n : list)
            if (n.id == *number) return n.id;
    return fail("cli.unknown", say("There is no %1 \"%2\". There are: %3.", as_is(kind), name, listed(list)));
}

template<class List>
std::vector<Named> names_of(const List& list) {
    std::vector<Named> out;
    for (const auto& item : list)
        out.push_back({item.name, item.id.value});
    return out;
}

template<class IdType>
auto as() {
    return [](std::uint32_t value) { return IdType{value}; };
}

} // namespace

Result<PartId> part_named(const Project& project, const std::string& name) {
    return one_named(names_of(project.parts), name, "part", 'p').map(as<PartId>());
}

Result<SheetId> sheet_named(const Project& project, const std::string& name) {
    return one_named(names_of(project.sheets), name, "sheet", 's').map(as<SheetId>());
}

Result<LaneId> lane_named(const Project& project, const std::string& name) {
    for (const Lane& lane : project.lanes) // a plate is on every picture, and no two lanes have the same
        if (same_word(plate(project, lane.id), name)) return lane.id;
    return one_named(names_of(project.lanes), name, "lane", 'l').map(as<LaneId>());
}

Result<std::vector<LaneId>> lanes_named(const Project& project, const std::string& names) {
    std::vector<LaneId> out;
    if (names == "usual") return out;
    for (const auto name : split(names, ", ")) {
        const auto lane = lane_named(project, std::string(name));
        if (!lane) return tl::make_unexpected(lane.error());
        out.push_back(*lane);
    }
    return out;
}

Result<std::vector<LineSetId>> sets_named(const Project& project, PartId id,
                                          const std::vector<std::string>& names) {
    const Part& part = *find(project, id);
    const std::vector<Named> sets = names_of(part.sets);
    std::vector<Named> all = sets, results;
    for (const Step& step : part.steps)
        if (step.result) results.push_back({kind_of(step.what).key, step.result.value});
    all.insert(all.end(), results.begin(), results.end());
    std::vector<LineSetId> out;
    for (const std::string& name : names) {
        // The source's own sets first: what a step made is called by its kind, which may be a set's name too.
        auto one = one_named(sets, name, "line set", 's');
        if (!one && one.error().code != "cli.ambiguous")
            one = results.empty() ? one : one_named(results, name, "line set", 's');
        if (one) {
            out.emplace_back(LineSetId{*one});
            continue;
        }
        if (one.error().code == "cli.unknown")
            one = one_named(all, name, "line set", 's'); // tells all there are
        const std::size_t before = out.size();
        if (one.error().code == "cli.unknown")
            for (const LineSet& set : part.sets)
                if (set.lane && same_word(plate(project, set.lane), name)) out.push_back(set.id);
        if (out.size() == before) return tl::make_unexpected(one.error());
    }
    return out;
}

} // namespace dotlane::cli
