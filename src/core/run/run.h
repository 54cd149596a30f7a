// A run: a state machine over the operations of a program. It asks a clock, drives a device and writes a
// journal, all behind small interfaces: the rehearsal gives it simulated ones, a cutter real ones.
//
//     loaded --start--> running <--hands_done-- waiting
//                        |  ^ --(a stop)-------^
//                 pause  v  | resume
//                       paused
//     running --(the device fails)--> failed --resume--> running, with the operation that failed
//     running --(nothing is left)--> done
#pragma once

#include <functional>
#include <optional>

#include "core/base/result.h"
#include "core/run/operation.h"

namespace dotlane {

enum class RunState { loaded, running, waiting, paused, failed, done };
/// "waiting for hands"
Phrase spoken(RunState state);

class Clock {
  public:
    virtual ~Clock() = default;
    /// Since any moment; never runs backwards.
    virtual Duration now() const = 0;
};

class Device {
  public:
    virtual ~Device() = default;
    /// Begins the operation and returns at once. It is never begun while another one is under way.
    virtual void begin(const Operation& operation) = 0;
    /// Whether what was begun has ended; an error when it cannot be brought to its end.
    virtual Result<bool> ended() = 0;
    /// Stops where it is, tool up, or goes on.
    virtual void hold(bool still) = 0;
};

struct RunEvent {
    enum class Kind { started, begun, ended, waiting, hands_done, paused, resumed, failed, done } kind;
    Duration at;
    OperationId operation; ///< of begun, ended, waiting, hands_done and failed
    Phrase message = {};   ///< of failed
};

class Journal {
  public:
    virtual ~Journal() = default;
    virtual void write(const RunEvent& event) = 0;
};

class Run {
  public:
    /// All must outlive it. What `has_been_done` knows is left out: a run goes on where another one ended.
    Run(const Program& program, Clock& clock, Device& device, Journal& journal,
        const std::function<bool(const OperationId&)>& has_been_done = {});

    RunState state() const { return state_; }
    /// The operation under way, waited for or failed; size() when all are done.
    std::size_t at() const { return at_; }
    const Operations& operations() const { return operations_; }
    /// Why it failed; none in all other states.
    const std::optional<Error>& failure() const { return failure_; }

    /// Each is refused in a state in which it means nothing: error "run.state".
    Result<void> start();
    Result<void> hands_done();
    Result<void> pause();
    Result<void> resume(); ///< after a pause or a failure

    /// As far as the device has come. To be called again and again.
    void tick();

  private:
    Result<void> must_be(std::initializer_list<RunState> states, const Phrase& what) const;
    void enter(); ///< the operation at_
    void next();
    void write(RunEvent::Kind kind, Phrase message = {});

    Operations operations_;
    Clock& clock_;
    Device& device_;
    Journal& journal_;
    std::function<bool(const OperationId&)> done_before_;
    RunState state_ = RunState::loaded;
    std::size_t at_ = 0;
    std::optional<Error> failure_;
};

} // namespace dotlane
