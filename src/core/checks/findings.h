// All that checks can find, each registered once. Sources of the numbers stand with the checks.
#pragma once

#include <tuple>

#include "core/base/finding_kind.h"

namespace dotlane::checks {

inline constexpr FindingKind<Count> lines_doubled{
    "lines.doubled",
    Grade::caution,
    to_say("%n [line lies|lines lie] on another of the same lane: it would be run twice."),
    {"count"},
    {{{"clean.doubled", to_say("Keep one of each")}}}};
inline constexpr FindingKind<Count> lines_two_lanes{
    "lines.two-lanes",
    Grade::caution,
    to_say("%n [line is|lines are] the same in two lanes, so both tools run along it."),
    {"count"}};
inline constexpr FindingKind<Count, Mm<2, 3>> lines_gaps{
    "lines.gaps",
    Grade::caution,
    to_say("%n [gap|gaps] of up to %2 mm between ends of cut lines: the piece will hang there."),
    {"count", "widest_mm"},
    {{{"clean.close", to_say("Join the ends")}}}};
inline constexpr FindingKind<Count, Mm<2, 3>> lines_open{
    "lines.open",
    Grade::caution,
    to_say(
        "%n [cut line comes|cut lines come] back to within %2 mm of the beginning, but [does|do] not close."),
    {"count", "widest_mm"},
    {{{"clean.close", to_say("Close it")}}}};
inline constexpr FindingKind<Mm<1, 2>> badge_over{
    "badge.over",
    Grade::caution,
    to_say("Art reaches %1 mm beyond the visible ring less its margin: it would run over the edge."),
    {"over_mm"}};
inline constexpr FindingKind<Mm<1, 2>, Mm<2>, Mm<1, 2>> text_small{
    "text.small",
    Grade::caution,
    to_say("Capitals %1 mm high are too small for a tip of %2 mm: from %3 mm on they can be read."),
    {"capitals_mm", nullptr, "least_mm"},
    {{{"text.legible", to_say("Make them %3 mm")}}}};
inline constexpr FindingKind<Mm<3>, Mm<3>> fill_resized{
    "lines.fill-resized",
    Grade::caution,
    to_say("The drawing came with a fill of lines, which are %1 mm apart at this size, and were %2 mm."),
    {"spacing_mm", "drawn_mm"},
    {{{"fill.anew", to_say("Fill its outline anew")}}}};
inline constexpr FindingKind<Count, Mm<2>> lines_tear{
    "lines.tear",
    Grade::caution,
    to_say("Embossed lines lie nearer to one another than the ball of %2 mm is wide in %n [place|places]: "
           "what one dented the next one may tear."),
    {"count", "tip_mm"}};

// Pieces. Size is said, its longer side is told.
inline constexpr FindingKind<Count> piece_cross{
    "piece.cross",
    Grade::caution,
    to_say("Outlines that are cut cross or touch in %n [place|places]: the blade cuts from one into the "
           "other there."),
    {"count"},
    {{{"lines.join", to_say("Join them")}}}};
inline constexpr FindingKind<Count> piece_piled{
    "piece.piled",
    Grade::caution,
    to_say("%n layers lie on one another here: each is to be cut of a stock of its own."),
    {"layers"},
    {{{"apart.colours", to_say("A part for each colour")}}}};
inline constexpr FindingKind<Count, Mm<2>> piece_more{
    "piece.more",
    Grade::caution,
    to_say("%n more [place is|places are] as narrow or small."),
    {"count", "least_mm"},
    {{{"clean.narrow", to_say("Take all of them away")}}}};
inline constexpr FindingKind<Count> piece_unchecked{
    "piece.unchecked",
    Grade::hint,
    to_say("%n [piece has|pieces have] so many points that slivers are not looked for: simplify its lines."),
    {"count"}};

/// Width, the least one, the stock, the longer side, by what it would be thickened, the size in words.
using Narrow = FindingKind<Mm<2>, Mm<2>, Name, Mm<1>, Mm<2>, Name>;
inline constexpr std::array<const char*, 6> narrow_keys{"width_mm", "least_mm",   "stock",
                                                        "long_mm",  "thicker_mm", nullptr};
inline constexpr Narrow piece_thin{
    "piece.thin",
    Grade::caution,
    to_say("A cut piece of %6 is nowhere wider than %1 mm: %3 under %2 mm tears, or is lost."),
    narrow_keys,
    {{{"clean.narrow", to_say("Take it away")}}}};
inline constexpr Narrow piece_small{
    "piece.small",
    Grade::caution,
    to_say("A cut piece of %6 is a crumb: under %2 mm across it is lost, or sticks to the mat."),
    narrow_keys,
    {{{"piece.drop", to_say("Drop it")}}}};
inline constexpr Narrow piece_neck{
    "piece.neck",
    Grade::caution,
    to_say("A neck is %1 mm wide: %3 under %2 mm tears there."),
    narrow_keys,
    {{{"piece.thicken", to_say("Thicken it by %5 mm")}, {"clean.narrow", to_say("Open it")}}}};
inline constexpr Narrow piece_sliver{
    "piece.sliver",
    Grade::caution,
    to_say("A sliver of %6 is %1 mm wide on average: %3 under %2 mm tears there."),
    narrow_keys,
    {{{"clean.narrow", to_say("Take it away")}, {"piece.thicken", to_say("Thicken it by %5 mm")}}}};

/// What is marked, how far, on which sides (in words, and as told), the factor that fits, the width with it.
inline constexpr FindingKind<Name, Mm<1, 2>, Name, Factor, Mm<1, 3>, Name> marks_beyond{
    "marks.beyond",
    Grade::caution,
    to_say("\"%6\" reaches %2 mm beyond what is cut out, on the %3: the tool marks scrap there, or the mat."),
    {"set", "over_mm", "sides", "factor", "width_mm", nullptr},
    {{{"beyond.smaller", to_say("Make it %5 mm wide")},
      {"beyond.turn", to_say("Turn it")},
      {"beyond.wrap", to_say("Break it into two lines")}}}};

// What fits.
/// The part or its piece, its size, the machine, what is reached.
inline constexpr FindingKind<Name, Mm<1, 2>, Mm<1, 2>, Name, Mm<1>, Mm<1>> part_too_large{
    "part.too-large",
    Grade::caution,
    to_say("%1, %2 x %3 mm, is larger than what the %4 reaches on any mat and stock, up to %5 x %6 mm, "
           "however it is "
           "turned: it has to be made smaller or in pieces."),
    {nullptr, "width_mm", "height_mm", nullptr, nullptr, nullptr},
    {{{"card.panels", to_say("Make it of panels with a glued hinge")}}}};
/// Its size, the sheet with the turn in words, the turns that fit, the best one.
inline constexpr FindingKind<Mm<2>, Mm<2>, Name, Degrees, Degrees, Degrees> part_turn{
    "part.turn",
    Grade::hint,
    to_say("It fits no sheet straight, but one of %3."),
    {"width_mm", "height_mm", nullptr, "from_degrees", "to_degrees", nullptr},
    {{{"part.turn-to-fit", to_say("Turn it by %6 degrees")}}}};

// The project.
inline constexpr FindingKind<Name, Name> project_near_limit{
    "project.near-limit",
    Grade::caution,
    to_say("The project takes about %1 MB of the %2 MB that a project file may have; beyond that it cannot "
           "be saved. "
           "Simplify its drawings, or move parts to another project."),
    {"mb", nullptr}};
inline constexpr FindingKind<Name, Name> lane_no_tool{
    "lane.no-tool",
    Grade::error,
    to_say("Lane \"%1\" names the tool \"%2\", which is not in the catalog."),
    {"lane", nullptr}};
inline constexpr FindingKind<Name, Name, Name> lane_wrong_tool{
    "lane.wrong-tool",
    Grade::error,
    to_say("A %2 cannot %3. Give lane \"%1\" another tool."),
    {"lane", "tool", nullptr}};
inline constexpr FindingKind<Name> part_unplaced{"part.unplaced",
                                                 Grade::caution,
                                                 to_say("\"%1\" lies on no sheet, so it is not made."),
                                                 {"part"},
                                                 {{{"part.place", to_say("Place it")}}}};
inline constexpr FindingKind<Name, Count> part_pieces_missing{
    "part.pieces-missing",
    Grade::caution,
    to_say("%n [piece|pieces] of \"%1\" [lies|lie] on no sheet yet."),
    {"part", "count"},
    {{{"part.place", to_say("Place them")}}}};
/// How many are wanted, how many lie there, and that in words.
inline constexpr FindingKind<Name, Count, Name, Name> part_count{"part.count",
                                                                 Grade::caution,
                                                                 to_say("%n of \"%1\" [is|are] wanted, %4."),
                                                                 {"part", "wanted", "placed", nullptr},
                                                                 {{{"part.want-placed", to_say("Want %3")}}}};
inline constexpr FindingKind<Name, Count> part_in_one{
    "part.in-one",
    Grade::hint,
    to_say("\"%1\" lies on its sheet in one arrangement; its %2 pieces may lie apart."),
    {"part", "count"},
    {{{"part.lay-apart", to_say("Lay them apart")}}}};

/// Every one of them, for lists and tests.
inline constexpr auto all =
    std::tie(lines_doubled, lines_two_lanes, lines_gaps, lines_open, badge_over, text_small, fill_resized,
             lines_tear, piece_cross, piece_piled, piece_more, piece_unchecked, piece_thin, piece_small,
             piece_neck, piece_sliver, marks_beyond, part_too_large, part_turn, project_near_limit,
             lane_no_tool, lane_wrong_tool, part_unplaced, part_pieces_missing, part_count, part_in_one);

} // namespace dotlane::checks
