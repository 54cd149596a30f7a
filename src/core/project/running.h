// How the lines of a lane are run, and what a maker wishes of the order of the job.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/base/id.h"
#include "core/base/phrase.h"
#include "core/base/units.h"

namespace dotlane {

/// Where closed lines begin and end: where it is shortest, on a straight or gently curved stretch, or at
/// their topmost, rightmost, lowest or leftmost place.
enum class LineStart { anywhere, off_corners, top, right, bottom, left };
inline constexpr LineStart all_line_starts[] = {LineStart::anywhere, LineStart::off_corners, LineStart::top,
                                                LineStart::right,    LineStart::bottom,      LineStart::left};
/// "off-corners": in files and on the command line.
constexpr const char* key_of(LineStart start) {
    constexpr const char* keys[] = {"anywhere", "off-corners", "top", "right", "bottom", "left"};
    return keys[static_cast<int>(start)];
}

struct LineRun {
    LineStart start = LineStart::anywhere;
    Length overcut; ///< closed lines are run on past where they began, 0..10 mm
    Length lead_in; ///< of each line the beginning is run back and forth before it is run, 0..20 mm
    Duration dwell; ///< the tool rests so long where it has landed, 0..10 s
    /// Of what lies beside one another the small comes before the large: nothing is cut where the stock has
    /// been loosened by much.
    bool small_first = false;
    bool operator==(const LineRun&) const = default;
};

/// The schools of what is finished first.
enum class School {
    sheets, ///< each sheet is run whole before it leaves the machine
    tools   ///< each tool runs over all sheets before the next; they go in and out
};
inline constexpr School all_schools[] = {School::sheets, School::tools};
constexpr const char* key_of(School school) {
    constexpr const char* keys[] = {"sheets", "tools"};
    return keys[static_cast<int>(school)];
}

/// The planner's own rules between lanes, kept on every sheet unless the maker says that they do not hold.
/// When they hold is in plan/order.h. Source: common practice of the trade.
struct OrderRule {
    const char* key;   ///< in files and on the command line
    const char* words; ///< "Marks before cuts"
    const char* why;
};
inline constexpr OrderRule order_rules[] = {
    {"marks-first", to_say("Marks before cuts"),
     to_say("Marking tools run before anything is cut, because released pieces can shift.")},
    {"perforate-first", to_say("Perforating before cutting"),
     to_say("Perforated lines are run before anything is cut out, because released pieces can shift.")},
    {"light-first", to_say("Pale inks before dark ones"),
     to_say("A pale pen that runs over dark ink picks it up.")}};
/// Null: there is none of this key.
constexpr const OrderRule* order_rule(std::string_view key) {
    for (const OrderRule& rule : order_rules)
        if (rule.key == key) return &rule;
    return nullptr;
}

/// A maker's own rule: wherever both run on a sheet, the one lane runs before the other.
struct LaneRule {
    LaneId before, after;
    std::string why; ///< in the maker's words; may be empty
    bool operator==(const LaneRule&) const = default;
};

/// The sheet runs as the so-manieth of the job, from 1.
struct SheetPin {
    SheetId sheet;
    int place = 1;
    bool operator==(const SheetPin&) const = default;
};

struct PlanWishes {
    School school = School::sheets;
    std::vector<LaneRule> rules;
    std::vector<SheetPin> pins;
    std::vector<std::string> off; ///< keys of `order_rules` that do not hold here
    /// Of each kind at hand, 1..9: on a spare one the next sheet is laid while the machine runs.
    int mats = 1;
    bool operator==(const PlanWishes&) const = default;
};

} // namespace dotlane
