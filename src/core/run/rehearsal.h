// The rehearsal: a run on a simulated clock and a simulated device, whose hands take the time that stops are
// reckoned with. It can be set to any moment.
#pragma once

#include <memory>

#include "core/machine/simulator.h"
#include "core/run/run.h"

namespace dotlane {

class Rehearsal {
  public:
    /// `timeline` must be that of the program; both must outlive it.
    Rehearsal(const Program& program, const Timeline& timeline);
    ~Rehearsal();

    /// Brings the run to a moment, clamped to 0..total: onwards from where it is, or from the start for an
    /// earlier one.
    void to(Duration t);
    Duration time() const;
    /// Another one after `to` has gone back.
    const Run& run() const;
    /// Of the machine at that moment.
    MachineState machine() const;

  private:
    struct Parts;
    void begin();
    const Program& program_;
    const Timeline& timeline_;
    std::vector<Duration> ends_; ///< of each operation
    std::unique_ptr<Parts> parts_;
};

} // namespace dotlane
