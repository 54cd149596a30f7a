// What a program comes to: times, lengths and counts, of the whole and of each part.
#pragma once

#include <map>

#include "core/machine/program.h"
#include "core/machine/simulator.h"

namespace dotlane {

struct ProgramTotals {
    Duration machine;
    Duration hands;     ///< at stops, and while the machine runs
    Duration meanwhile; ///< of `hands`, while the machine runs
    int stops = 0, passes = 0;
    std::size_t strokes = 0;  ///< repeats counted
    Length tool_down, travel; ///< repeats counted; the carriage rests between passes
    bool operator==(const ProgramTotals&) const = default;
};

/// `timeline` must be that of the program.
ProgramTotals totals(const Program& program, const Timeline& timeline);
/// Machine time of each part: its strokes, landings and lifts, and the ways that lead to them. Ways back to
/// rest are nobody's.
std::map<PartId, Duration> times_of_parts(const Program& program, const Timeline& timeline);

} // namespace dotlane
