#include "app/commands/deriver.h"

#include <QtConcurrent>

#include "core/base/caught.h"

namespace dotlane::app {

Deriver::Deriver(Workshop& workshop)
    : workshop_(workshop) {
    pool_.setMaxThreadCount(1); // the workshop takes one call at a time
    connect(&watcher_, &QFutureWatcherBase::finished, this, &Deriver::settle);
    quiet_.setSingleShot(true);
    quiet_.setInterval(1500); // edits come in bursts, and each would take it back
    connect(&quiet_, &QTimer::timeout, this, &Deriver::improve);
}

void Deriver::settle() {
    if (!running_) return;
    const bool cancelled = running_->cancelled(), shown = effort_ == Effort::best;
    running_.reset();
    Q_EMIT improvingChanged();
    const auto derived = watcher_.result();
    if (waiting_) run_next();
    if (cancelled) return;
    if (!derived) {
        Q_EMIT failed(derived.error());
    } else if (*derived && !shown) {
        done_ = *derived;
        if (done_->plan && !running_) quiet_.start();
        Q_EMIT done(*derived);
    } else if (*derived && (*derived)->plan != done_->plan) {
        Q_EMIT improved(*derived);
    }
}

void Deriver::stop_improving() {
    quiet_.stop();
    if (running_ && effort_ == Effort::best) running_->cancel();
    Q_EMIT improvingChanged();
}

/// Whatever was found stays in the workshop, even when it is cancelled.
void Deriver::improve() {
    if (running_ || waiting_) return;
    effort_ = Effort::best;
    running_ = std::make_shared<Progress>();
    watcher_.setFuture(QtConcurrent::run(
        &pool_, [this, project = done_->project, progress = running_, left_out = done_->left_out] {
            return caught([&]() -> Result<std::shared_ptr<const Derived>> {
                return workshop_.derive(project, *progress, {}, {{}, Effort::best, left_out});
            });
        }));
    Q_EMIT improvingChanged();
}

Deriver::~Deriver() {
    stop();
}

void Deriver::request(std::shared_ptr<const Project> project, PartId first) {
    quiet_.stop();
    Q_EMIT improvingChanged();
    waiting_ = std::move(project);
    waiting_first_ = first;
    if (running_)
        running_->cancel();
    else
        run_next();
}

void Deriver::stop() {
    quiet_.stop();
    done_.reset();
    waiting_.reset();
    if (running_) running_->cancel();
    watcher_.waitForFinished();
    running_.reset();
}

void Deriver::run_next() {
    effort_ = Effort::first;
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
    watcher_.setFuture(QtConcurrent::run(&pool_, [this, project = std::move(waiting_), progress = running_,
                                                  early, first = waiting_first_, left_out = left_out_] {
        return caught([&]() -> Result<std::shared_ptr<const Derived>> {
            return workshop_.derive(project, *progress, early, {first, Effort::first, left_out});
        });
    }));
    waiting_.reset();
}

} // namespace dotlane::app
