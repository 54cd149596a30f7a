// What a run does, one after the other: hands at a stop, or the tool once over one stroke. Operations are
// named by what they do, not by where they stand, so that a journal still says what has been done when the
// job has been planned anew.
#pragma once

#include <compare>

#include "core/machine/program.h"

namespace dotlane {

struct OperationId {
    SheetId sheet; ///< none at the last stop
    LaneId lane;   ///< none at a stop
    StrokeOf of;   ///< empty at a stop
    int turn = 0;  ///< which of the lane's repeats, from 1; 0 at a stop
    int stop = 0;  ///< the stop's number; 0 for strokes
    bool operator==(const OperationId&) const = default;
};

struct Operation {
    OperationId id;
    std::size_t move = 0; ///< index into Program::moves
    std::size_t run = 0;  ///< of the pass, as in stroke_of; 0 at a stop
};

/// All operations of a program in their order; none is stored. The program must outlive it.
class Operations {
  public:
    explicit Operations(const Program& program);
    std::size_t size() const { return first_.back(); }
    /// `i` < size()
    Operation at(std::size_t i) const;
    bool is_stop(std::size_t i) const;
    /// Index of a move's first operation.
    std::size_t first_of(std::size_t move) const { return first_[move]; }

  private:
    std::size_t move_of(std::size_t i) const;
    const Program& program_;
    std::vector<std::size_t> first_; ///< for each move, and the number of all
};

} // namespace dotlane
