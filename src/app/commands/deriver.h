// Derives a project off the GUI thread. Only the newest request matters: an older one that still runs is
// cancelled. When nothing has been asked for for a while, shorter routes are looked for.
#pragma once

#include <QFutureWatcher>
#include <QObject>
#include <QSemaphore>
#include <QThreadPool>
#include <QTimer>
#include <memory>

#include "core/derive/workshop.h"

namespace dotlane::app {

class Deriver : public QObject {
    Q_OBJECT

  public:
    explicit Deriver(Workshop& workshop);
    ~Deriver() override;
    /// `first`: a part that is wanted before all others, when nothing of the project is to be seen yet.
    void request(std::shared_ptr<const Project> project, PartId first = {});
    /// Of what is requested from now on.
    void leave_out(NotThisRun left_out) { left_out_ = std::move(left_out); }
    /// The window has been painted: from now on nothing waits for that.
    void set_painted() { painted_.release(1 << 20); }
    /// Cancels and waits; nothing is delivered afterwards.
    void stop();
    bool busy() const { return (running_ && effort_ == Effort::first) || waiting_; }
    /// Shorter routes are looked for, or soon will be.
    /// The plan stays as it is shown.
    void stop_improving();
    bool improving() const { return quiet_.isActive() || (running_ && effort_ == Effort::best); }

  Q_SIGNALS:
    /// Before `done`: parts and sheets, without a plan.
    void drawn(std::shared_ptr<const Derived> derived);
    void done(std::shared_ptr<const Derived> derived);
    /// After `done`, of the same project: a plan with shorter routes.
    void improved(std::shared_ptr<const Derived> derived);
    /// `improving()` is another one.
    void improvingChanged();
    /// What was derived before stays in view.
    void failed(const dotlane::Error& error);

  private:
    void run_next();
    void improve();
    void settle();

    Workshop& workshop_;
    QThreadPool pool_;
    std::shared_ptr<Progress> running_;
    std::shared_ptr<const Project> waiting_;
    PartId waiting_first_;
    NotThisRun left_out_;
    Effort effort_ = Effort::first; ///< of what is running
    std::shared_ptr<const Derived> done_;
    QTimer quiet_; ///< runs while nothing is asked for
    QSemaphore painted_;
    QFutureWatcher<Result<std::shared_ptr<const Derived>>> watcher_;
};

} // namespace dotlane::app
