// The simulated cutter: turns a program into a timeline and tells the state of the machine at any moment.
#pragma once

#include <vector>

#include "core/machine/motion.h"
#include "core/machine/program.h"

namespace dotlane {

/// One stretch of the timeline.
struct TimelineEntry {
    enum class Kind { stop, travel, lower, stroke, lift } kind = Kind::stop;
    std::size_t move = 0; ///< index into Program::moves
    std::size_t stroke =
        0; ///< for stroke, lower and lift: which run of the pass (stroke_of); for travel: where to
    Duration start, time;
    Point from, to;
};

struct MachineState {
    TimelineEntry::Kind kind = TimelineEntry::Kind::stop;
    std::size_t entry = 0, move = 0;
    std::size_t strokes_done = 0; ///< of the current pass, repeats counted
    Length drawn;                 ///< of the current stroke
    Point at;                     ///< carriage
    bool tool_down = false;
    SheetId sheet;
};

/// Where a stop or a pass lies in time.
struct MoveSpan {
    Duration start, time;
    bool operator==(const MoveSpan&) const = default;
};

class Timeline {
  public:
    Timeline() = default;
    explicit Timeline(const Program& program);

    Duration total() const { return total_; }
    const std::vector<TimelineEntry>& entries() const { return entries_; }
    /// One for each move of the program.
    const std::vector<MoveSpan>& spans() const { return spans_; }
    /// `t` is clamped to 0..total(). `program` must be the one given to the constructor.
    MachineState at(const Program& program, Duration t) const;

  private:
    void add(TimelineEntry entry);
    std::vector<TimelineEntry> entries_;
    std::vector<MoveSpan> spans_;
    Duration total_;
};

/// The stroke nearest to a point of the state's sheet, within `reach`, among those that are there by then or
/// are being run; of equally near ones the last. Null: none.
const Stroke* stroke_at(const Program& program, const MachineState& state, Point at, Length reach);

/// The first `drawn` of a stroke.
Polyline started(const Polyline& stroke, Length drawn);

} // namespace dotlane
