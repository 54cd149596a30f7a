#include "core/run/run.h"

#include <algorithm>

namespace dotlane {

Phrase spoken(RunState state) {
    switch (state) {
    case RunState::loaded:
        return say("loaded");
    case RunState::running:
        return say("running");
    case RunState::waiting:
        return say("waiting for hands");
    case RunState::paused:
        return say("paused");
    case RunState::failed:
        return say("failed");
    case RunState::done:
        break;
    }
    return say("done");
}

Run::Run(const Program& program, Clock& clock, Device& device, Journal& journal,
         const std::function<bool(const OperationId&)>& has_been_done)
    : operations_(program)
    , clock_(clock)
    , device_(device)
    , journal_(journal)
    , done_before_(has_been_done) {}

Result<void> Run::must_be(std::initializer_list<RunState> states, const Phrase& what) const {
    if (std::find(states.begin(), states.end(), state_) != states.end()) return {};
    return fail("run.state", say("A run that is %1 cannot be %2.", spoken(state_), what));
}

void Run::write(RunEvent::Kind kind, Phrase message) {
    const bool some = at_ < operations_.size();
    journal_.write({kind, clock_.now(), some ? operations_.at(at_).id : OperationId{}, std::move(message)});
}

Result<void> Run::start() {
    if (const auto ok = must_be({RunState::loaded}, say("started")); !ok) return ok;
    write(RunEvent::Kind::started);
    enter();
    return {};
}

void Run::enter() {
    // Hands are needed again whatever has been done: what lies in the machine is not known.
    while (at_ < operations_.size() && done_before_ && !operations_.is_stop(at_) &&
           done_before_(operations_.at(at_).id))
        ++at_;
    if (at_ == operations_.size()) {
        state_ = RunState::done;
        write(RunEvent::Kind::done);
    } else if (operations_.is_stop(at_)) {
        state_ = RunState::waiting;
        write(RunEvent::Kind::waiting);
    } else {
        state_ = RunState::running;
        write(RunEvent::Kind::begun);
        device_.begin(operations_.at(at_));
    }
}

void Run::next() {
    ++at_;
    enter();
}

Result<void> Run::hands_done() {
    if (const auto ok = must_be({RunState::waiting}, say("told that hands are done")); !ok) return ok;
    write(RunEvent::Kind::hands_done);
    next();
    return {};
}

Result<void> Run::pause() {
    if (const auto ok = must_be({RunState::running}, say("paused")); !ok) return ok;
    device_.hold(true);
    state_ = RunState::paused;
    write(RunEvent::Kind::paused);
    return {};
}

Result<void> Run::resume() {
    if (const auto ok = must_be({RunState::paused, RunState::failed}, say("resumed")); !ok) return ok;
    const bool again = state_ == RunState::failed;
    failure_.reset();
    state_ = RunState::running;
    write(RunEvent::Kind::resumed);
    if (again)
        enter();
    else
        device_.hold(false);
    return {};
}

void Run::tick() {
    while (state_ == RunState::running) {
        const auto ended = device_.ended();
        if (!ended) {
            failure_ = ended.error();
            state_ = RunState::failed;
            write(RunEvent::Kind::failed, ended.error().message);
            return;
        }
        if (!*ended) return;
        write(RunEvent::Kind::ended);
        next();
    }
}

} // namespace dotlane
