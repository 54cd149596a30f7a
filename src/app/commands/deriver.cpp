#include "app/commands/deriver.h"

#include <QtConcurrent>

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
        if (!cancelled && derived) Q_EMIT done(derived);
    });
}

Deriver::~Deriver() {
    stop();
}

void Deriver::request(std::shared_ptr<const Project> project) {
    waiting_ = std::move(project);
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
    const auto early = [this, progress = running_](std::shared_ptr<const Derived> derived) {
        QMetaObject::invokeMethod(this, [this, progress, derived = std::move(derived)] {
            if (running_ == progress && !progress->cancelled()) Q_EMIT drawn(derived);
        });
    };
    watcher_.setFuture(
        QtConcurrent::run(&pool_, [this, project = std::move(waiting_), progress = running_, early] {
            return workshop_.derive(project, *progress, early);
        }));
    waiting_.reset();
}

} // namespace dotlane::app
