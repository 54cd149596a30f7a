// Long work reports to a Progress and asks it whether to go on. Both are thread safe.
#pragma once

#include <atomic>
#include <functional>

namespace dotlane {

/// Shared by the thread that works and the thread that may cancel it.
class Progress {
  public:
    using Sink = std::function<void(double fraction)>;
    Progress() = default;
    explicit Progress(Sink sink)
        : sink_(std::move(sink)) {}

    void cancel() { cancelled_ = !nobody_; }
    bool cancelled() const { return cancelled_; }
    /// fraction in 0..1; called from the working thread.
    void report(double fraction) const {
        if (sink_) sink_(fraction);
    }

  private:
    friend Progress& no_progress();
    struct Nobody {};
    explicit Progress(Nobody)
        : nobody_(true) {}

    bool nobody_ = false; ///< stands for many callers at once, of whom none can stop the others
    Sink sink_;
    std::atomic<bool> cancelled_{false};
};

/// For callers that neither watch nor cancel.
Progress& no_progress();

} // namespace dotlane
