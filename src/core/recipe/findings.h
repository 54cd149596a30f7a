// What the evaluation of any recipe can find. What a single step finds is registered in its own file.
#pragma once

#include "core/base/finding_kind.h"

namespace dotlane::recipes {

inline constexpr FindingKind<Count, Name> lines_set_aside{
    "lines.set-aside",
    Grade::hint,
    to_say("%n [line|lines] of \"%2\" set aside: not run."),
    {"count", "set"}};
inline constexpr FindingKind<Count, Name> lane_none{
    "lane.none",
    Grade::error,
    to_say("%n [line|lines] of \"%2\" [has no lane, so it is|have no lane, so they are] not run. Send "
           "[it|them] to a "
           "lane, or set [it|them] aside."),
    {"count", "part"},
    {{{"set-aside", to_say("Set aside")}}}};
/// Of the lines that a step makes.
inline constexpr FindingKind<Count, Name> lane_none_of_step{
    "lane.none",
    Grade::error,
    to_say("The lines of \"%2\" have no lane. Give the step one."),
    {"count", nullptr}};
inline constexpr FindingKind<> fill_no_lane{
    "fill.no-lane", Grade::error, to_say("A fill has no lane, so it cannot be run."), {}};
inline constexpr FindingKind<Name, Name> join_lanes{
    "join.lanes",
    Grade::caution,
    to_say("Lines of different lanes are joined: all of them run where \"%1\" runs, which was named first, "
           "those of "
           "\"%2\" too."),
    {"first", "other"}};
/// The key of its kind, its name, why.
inline constexpr FindingKind<Name, Name, Name> step_refused{"step.refused",
                                                            Grade::error,
                                                            to_say("\"%2\" does nothing. %3"),
                                                            {"step", nullptr, nullptr},
                                                            {{{"step.off", to_say("Switch it off")}}}};
inline constexpr FindingKind<> picture_moved{"print.lines",
                                             Grade::caution,
                                             to_say("A later step changes the lines that were traced, so "
                                                    "they are printed and not the picture. Turn and mirror "
                                                    "the part on its sheet instead."),
                                             {}};
/// What was not done with them.
inline constexpr FindingKind<Count, Name> step_open_lines{
    "step.open-lines",
    Grade::caution,
    to_say("%n [open line bounds|open lines bound] no area and [was|were] not %2."),
    {"count", "did"}};
inline constexpr FindingKind<Name, Name> pieces_none{
    "pieces.none", Grade::caution, to_say("There is no piece %1: there are %2."), {"piece", nullptr}};
/// How far off, the size of all of it, that of the art alone.
inline constexpr FindingKind<Count, Mm<1, 3>, Name, Name> open_stray{
    "open.stray",
    Grade::caution,
    to_say(
        "%n [line lies|lines lie] far off the art, up to %2 mm: all together measure %3, the art alone %4."),
    {"lines", "off_mm", "all", "art"},
    {{{"stray.drop", to_say("Leave out")},
      {"stray.near", to_say("Bring near")},
      {"stray.keep", to_say("Keep")}}}};

} // namespace dotlane::recipes
