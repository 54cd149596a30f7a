// Work that cannot be stopped half way: of libraries, and steps whose booleans take long.
#pragma once

#include <atomic>
#include <chrono>
#include <future>
#include <memory>
#include <optional>
#include <semaphore>
#include <system_error>
#include <thread>

#include "core/base/progress.h"

namespace dotlane {

namespace detail {
inline std::counting_semaphore<4> aside_places{4}; ///< runs that may go on at a time, unseen ones among them
inline std::atomic<int> running_aside{0};
} // namespace detail

/// Work that runs on a thread of its own. It may use only what it holds itself: whoever stops waiting for it
/// leaves it to run to its end unseen.
template<class Made>
class Aside {
  public:
    /// Four pieces of work run at a time: none when there is no place for it now.
    template<class Work>
    static std::optional<Aside> begin(Work& work) {
        if (!detail::aside_places.try_acquire()) return {};
        return Aside(std::move(work));
    }
    /// Waits for a place first. None when cancelled, at most 30 ms later.
    template<class Work>
    static std::optional<Aside> begin_when_free(Work& work, const Progress& progress) {
        using namespace std::chrono_literals;
        while (!detail::aside_places.try_acquire_for(20ms))
            if (progress.cancelled()) return {};
        return Aside(std::move(work));
    }
    /// Waits for it. None when cancelled, at most 30 ms later. Once.
    std::optional<Made> await(const Progress& progress) {
        using namespace std::chrono_literals;
        while (result_.wait_for(20ms) != std::future_status::ready)
            if (progress.cancelled()) return {};
        return result_.get();
    }

  private:
    template<class Work>
    explicit Aside(Work work) {
        auto task = std::make_shared<std::packaged_task<Made()>>(std::move(work));
        result_ = task->get_future();
        const auto run = [task]() mutable {
            (*task)();
            task.reset(); // what it holds goes before it counts as ended
            detail::aside_places.release();
            --detail::running_aside;
        };
        ++detail::running_aside;
        try {
            std::thread(run).detach();
        } catch (const std::system_error&) { // the system gives no more threads: then here, to its end
            auto here = run;
            here();
        }
    }

    std::future<Made> result_;
};

/// Does the work on a thread of its own and waits for it. Empty when cancelled, at most 30 ms later.
template<class Work>
auto run_aside(Work work, const Progress& progress) -> std::optional<decltype(work())> {
    auto aside = Aside<decltype(work())>::begin_when_free(work, progress);
    if (!aside) return {};
    return aside->await(progress);
}

/// The first thing that a program's main holds: when it ends, work that runs unseen may still read what would
/// go with it.
struct AwaitsAside {
    ~AwaitsAside() {
        while (detail::running_aside > 0)
            std::this_thread::sleep_for(std::chrono::milliseconds(2));
    }
};

} // namespace dotlane
