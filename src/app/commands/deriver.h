// Derives a project off the GUI thread. Only the newest request matters: an older one that still runs is
// cancelled.
#pragma once

#include <QFutureWatcher>
#include <QObject>
#include <QThreadPool>
#include <memory>

#include "core/workflow/workshop.h"

namespace dotlane::app {

class Deriver : public QObject {
    Q_OBJECT

  public:
    explicit Deriver(Workshop& workshop);
    ~Deriver() override;
    void request(std::shared_ptr<const Project> project);
    /// Cancels and waits; nothing is delivered afterwards.
    void stop();
    bool busy() const { return running_ || waiting_; }

  Q_SIGNALS:
    /// Before `done`: parts and sheets, without a plan.
    void drawn(std::shared_ptr<const Derived> derived);
    void done(std::shared_ptr<const Derived> derived);

  private:
    void run_next();

    Workshop& workshop_;
    QThreadPool pool_;
    std::shared_ptr<Progress> running_;
    std::shared_ptr<const Project> waiting_;
    QFutureWatcher<std::shared_ptr<const Derived>> watcher_;
};

} // namespace dotlane::app
