#include "core/run/rehearsal.h"

#include <algorithm>

namespace dotlane {
namespace {

/// An operation ends where the next one begins: with the way back to rest after the last stroke of a pass.
std::vector<Duration> ends_of(const Program& program, const Timeline& timeline) {
    std::vector<Duration> out;
    for (const TimelineEntry& e : timeline.entries())
        if (e.kind == TimelineEntry::Kind::stop || e.kind == TimelineEntry::Kind::lift)
            out.push_back(e.start + e.time);
        else if (const auto* pass = std::get_if<PassMove>(&program.moves[e.move]);
                 e.kind == TimelineEntry::Kind::travel && pass && e.stroke == runs(*pass) && !out.empty())
            out.back() = e.start + e.time;
    return out;
}

} // namespace

struct Rehearsal::Parts {
    struct SimulatedClock final : Clock {
        Duration time;
        Duration now() const override { return time; }
    };

    /// Takes as long for each operation as the timeline says.
    class SimulatedDevice final : public Device {
      public:
        SimulatedDevice(const Clock& clock, const std::vector<Duration>& ends, const Operations& operations)
            : clock_(clock)
            , ends_(ends)
            , operations_(operations) {}
        void begin(const Operation& operation) override {
            end_ = ends_[operations_.first_of(operation.move) + operation.run];
        }
        Result<bool> ended() override { return end_ <= clock_.now(); }
        void hold(bool) override {} // a simulated clock stands still by itself

      private:
        const Clock& clock_;
        const std::vector<Duration>& ends_;
        const Operations& operations_;
        Duration end_;
    };

    struct NoJournal final : Journal {
        void write(const RunEvent&) override {}
    };

    Parts(const Program& program, const std::vector<Duration>& ends)
        : operations(program)
        , device(clock, ends, operations)
        , run(program, clock, device, journal) {}
    SimulatedClock clock;
    Operations operations;
    SimulatedDevice device;
    NoJournal journal;
    Run run;
};

Rehearsal::Rehearsal(const Program& program, const Timeline& timeline)
    : program_(program)
    , timeline_(timeline)
    , ends_(ends_of(program, timeline)) {
    begin();
}

Rehearsal::~Rehearsal() = default;

void Rehearsal::begin() {
    parts_ = std::make_unique<Parts>(program_, ends_);
    DOTLANE_CHECK(ends_.size() == parts_->operations.size());
    (void)parts_->run.start();
}

void Rehearsal::to(Duration t) {
    t = std::clamp(t, Duration{}, timeline_.total());
    if (t < parts_->clock.time) begin();
    Run& run = parts_->run;
    while (true) {
        parts_->clock.time = t;
        run.tick();
        if (run.state() != RunState::waiting || ends_[run.at()] > t) return;
        // Hands are done at their own moment, not at the one that is sought.
        parts_->clock.time = ends_[run.at()];
        (void)run.hands_done();
    }
}

Duration Rehearsal::time() const {
    return parts_->clock.time;
}

const Run& Rehearsal::run() const {
    return parts_->run;
}

MachineState Rehearsal::machine() const {
    return timeline_.at(program_, parts_->clock.time);
}

} // namespace dotlane
