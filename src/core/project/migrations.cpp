// Documents of older versions, brought up to date one version at a time.
#include "core/project/migrations.h"

#include "core/project/format.h"
#include "core/project/json_in.h"

namespace dotlane {
namespace {

using nlohmann::json;

void set(json& object, const char* key, json value) {
    if (!object.is_object()) json_in::wrong(key, to_say("in a group of members"));
    object[key] = std::move(value);
}

/// Version 1 did not know mountain folds.
void from_1(json& document) {
    for (json& lane : json_in::list(document, "lanes"))
        set(lane, "fold", "valley");
}

/// Version 2 knew one kind of step, whose lines no other step could use.
void from_2(json& document) {
    auto next = json_in::id(document, "next_id");
    for (json& part : json_in::list(document, "parts"))
        for (json& step : json_in::list(part, "steps")) {
            set(step, "by", json::array());
            set(step, "result", next++);
            set(step, "aside", false);
            for (const char* number : {"spacing_mm", "angle_rad", "inset_mm", "joined", "alternate"})
                if (step.contains(number)) {
                    step["numbers"][number] = step[number];
                    step.erase(number);
                }
        }
    document["next_id"] = next;
}

/// In version 5 pieces of a part may lie apart, and what lies on a sheet can be grouped.
void from_4(json& document) {
    for (json& sheet : json_in::list(document, "sheets"))
        for (json& placement : json_in::list(sheet, "placements"))
            set(placement, "piece", 0), set(placement, "group", 0);
}

/// In version 6 placements hold on to what recipe edits do not move; the halves of a shape card overlap by
/// its overlap, which lay so far inside each of them before.
void from_5(json& document) {
    for (json& sheet : json_in::list(document, "sheets"))
        for (json& placement : json_in::list(sheet, "placements")) {
            set(placement, "anchor_left_mm", json_in::number(placement, "left_mm"));
            set(placement, "anchor_top_mm", json_in::number(placement, "top_mm"));
            set(placement, "by_box", true);
            placement.erase("left_mm");
            placement.erase("top_mm");
        }
    for (json& part : json_in::list(document, "parts")) {
        json& source = json_in::object(part, "source");
        const std::string kind = json_in::text(source, "kind");
        if (kind == "shape-card") {
            json& numbers = json_in::object(source, "numbers");
            set(numbers, "overlap_mm", 2 * json_in::number(numbers, "overlap_mm"));
        }
    }
}

/// In version 7 a fill's lines can also be one stroke for each piece, where they were joined or not before.
void from_6(json& document) {
    for (json& part : json_in::list(document, "parts"))
        for (json& step : json_in::list(part, "steps"))
            if (const auto numbers = step.find("numbers");
                numbers != step.end() && numbers->is_object() && numbers->contains("joined")) {
                (*numbers)["ends"] = json_in::flag(*numbers, "joined") ? "joined" : "apart";
                numbers->erase("joined");
            }
}

/// Each entry takes a document of its version to the next. Members that came since have no part in it: each
/// says what its absence means (`Since`), which is all that version 4 brought.
using Migration = void (*)(json&);
constexpr Migration migrations[] = {nullptr, from_1, from_2, nullptr, from_4, from_5, from_6};
static_assert(std::size(migrations) == format_version, "one migration for every version but the newest");

} // namespace

void migrate(json& document, int from) {
    for (int version = from; version < format_version; ++version)
        if (const Migration migration = migrations[version]) migration(document);
}

} // namespace dotlane
