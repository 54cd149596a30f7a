// What can be found where parts come together on sheets.
#pragma once

#include "core/base/finding_kind.h"

namespace dotlane::sheet_findings {

inline constexpr FindingKind<Name, Name> source_failed{
    "source.failed", Grade::error, to_say("\"%1\" cannot be made: %2"), {"part", nullptr}};
inline constexpr FindingKind<Name> no_stock{
    "sheet.unknown", Grade::error, to_say("%1 names a stock that is not in the catalog."), {"sheet"}};
inline constexpr FindingKind<Name> no_mat{
    "sheet.unknown", Grade::error, to_say("%1 names a mat that is not in the catalog."), {"sheet"}};
inline constexpr FindingKind<Name, Name> no_piece{
    "sheet.no-piece",
    Grade::error,
    to_say("\"%1\" on %2 is no longer there: its recipe makes other pieces now."),
    {"part", "sheet"},
    {{{"sheet.take-off", to_say("Take such pieces off")}}}};

/// Two parts, where they meet, the sheet.
using Conflict = FindingKind<Name, Name, Mm<1, 2>, Mm<1, 2>, Name>;
inline constexpr std::array<const char*, 5> conflict_keys{"part", "other", "width_mm", "height_mm", nullptr};
inline constexpr Conflict cut_through{"sheet.cut-through",
                                      Grade::error,
                                      to_say("\"%1\" and \"%2\" lie on one another on %5: one would be cut "
                                             "through. Where they meet is %3 x %4 mm."),
                                      conflict_keys,
                                      {{{"sheet.move-free", to_say("Move it to a free place")}}}};
inline constexpr Conflict overlap{"sheet.overlap",
                                  Grade::caution,
                                  to_say("\"%1\" and \"%2\" lie on one another on %5: one is marked where "
                                         "the other lies. Where they meet is %3 x %4 mm."),
                                  conflict_keys,
                                  {{{"sheet.move-free", to_say("Move it to a free place")}}}};

/// The sheet, its size, its stock, what most printers take.
inline constexpr FindingKind<Name, Mm<1>, Mm<1>, Name, Mm<0>, Mm<0>> print_page{
    "print.page",
    Grade::caution,
    to_say("%1 is printed, and its %4 is %2 x %3 mm: most desk printers take no more than %5 x %6 mm. Choose "
           "a stock "
           "that yours takes."),
    {"sheet", "width_mm", "height_mm", nullptr, nullptr, nullptr}};
inline constexpr FindingKind<Name, Mm<1, 2>, Mm<0>> print_edge{
    "print.edge",
    Grade::caution,
    to_say("What is printed on %1 comes within %2 mm of the edge of the stock: most printers leave %3 mm "
           "blank there."),
    {"sheet", "near_mm", nullptr}};

/// The sheet, and why its cut cannot be set right.
inline constexpr FindingKind<Name, Name> print_marks{
    "print.marks",
    Grade::error,
    to_say("The cut of %1 cannot be set right by its marks: %2"),
    {"sheet", nullptr}};
/// The sheet; to the right, down, turned, wider, higher, sheared.
inline constexpr FindingKind<Name, Mm<2>, Mm<2>, Degrees, Percent, Percent, Degrees> print_corrected{
    "print.corrected",
    Grade::hint,
    to_say("%1 follows its print: shifted by %2 mm to the right and %3 mm down, turned by %4 degrees, %5 % "
           "as wide "
           "and %6 % as high, sheared by %7 degrees."),
    {"sheet", "right_mm", "down_mm", "turn_degrees", "wide_percent", "high_percent", "shear_degrees"}};
/// The tool, the sheet.
inline constexpr FindingKind<Name, Name, Mm<1, 2>> tool_outside{
    "sheet.tool-outside",
    Grade::error,
    to_say(
        "To bring the tip of the %1 to its lines on %2, the carriage would have to go %3 mm beyond what the "
        "machine reaches: move them inwards."),
    {"tool", "sheet", "by_mm"}};
/// The lane, the sheet.
inline constexpr FindingKind<Name, Name, Mm<1, 2>> print_outside{
    "sheet.print-outside",
    Grade::error,
    to_say("Where the marks of %2 were found, lines of \"%1\" lie %3 mm beyond what the machine reaches: "
           "load the sheet straighter and measure again, or move them inwards and print anew."),
    {"lane", "sheet", "by_mm"}};
inline constexpr FindingKind<Name, Name> mirrored_twice{
    "sheet.mirrored-twice",
    Grade::caution,
    to_say("\"%1\" is mirrored by its recipe and again on %2: it would come out the wrong way round."),
    {"part", "sheet"},
    {{{"sheet.unmirror", to_say("Mirror it once only")}}}};

} // namespace dotlane::sheet_findings
