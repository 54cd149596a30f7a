#include "app/commands/deriver.h"

#include <QtConcurrent>

#include "core/base/caught.h"

namespace dotlane::app {

Deriver::Deriver(Workshop& workshop)
    : workshop_(workshop) {
    pool_.setMaxThreadCount(1); // the workshop takes one call at a time
    connect(&watcher_, &QFutureWatcherBase::finished, this, [this] {
        if (!running_) return;
        const bool cancelled = running_->cancelled();
        running_.reset();
        const auto derived = watcher_.result();
        if (waiting_) run_next();
        if (cancelled) return;
        if (!derived)
            Q_EMIT failed(derived.error());
        else if (*derived)
            Q_EMIT done(*derived);
    });
}

Deriver::~Deriver() {
    stop();
}

void Deriver::request(std::shared_ptr<const Project> project, PartId first) {
    waiting_ = std::move(project);
    waiting_first_ = first;
    if (running_)
        running_->cancel();
    else
        run_next();
}

void Deriver::stop() {
    waiting_.reset();
    if (running_) running_->cancel();
    watcher_.waitForFinished();
    running_.reset();
}

void Deriver::run_next() {
    running_ = std::make_shared<Progress>();
    const auto early = [this, progress = running_,
                        first = waiting_first_](std::shared_ptr<const Derived> derived) {
        const bool only_first = first && derived->parts.size() < derived->project->parts.size();
        QMetaObject::invokeMethod(this, [this, progress, derived = std::move(derived)] {
            if (running_ == progress && !progress->cancelled()) Q_EMIT drawn(derived);
        });
        // While the window comes up, what follows would take a processor from it.
        if (only_first) painted_.tryAcquire(1, 80);
    };
    watcher_.setFuture(QtConcurrent::run(
        &pool_, [this, project = std::move(waiting_), progress = running_, early, first = waiting_first_] {
            return caught([&]() -> Result<std::shared_ptr<const Derived>> {
                return workshop_.derive(project, *progress, early, first);
            });
        }));
    waiting_.reset();
}

} // namespace dotlane::app
