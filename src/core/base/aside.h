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

/// Does the work on a thread of its own and waits for it. Empty when cancelled, at most 30 ms later: the work
/// then runs to its end unseen, so it may use only what it holds itself. Four pieces of work run at a time;
/// further ones wait, and can be cancelled while they do.
template<class Work>
auto run_aside(Work work, const Progress& progress) -> std::optional<decltype(work())> {
    using namespace std::chrono_literals;
    while (!detail::aside_places.try_acquire_for(20ms))
        if (progress.cancelled()) return {};
    auto task = std::make_shared<std::packaged_task<decltype(work())()>>(std::move(work));
    auto result = task->get_future();
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
    while (result.wait_for(20ms) != std::future_status::ready)
        if (progress.cancelled()) return {};
    return result.get();
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
