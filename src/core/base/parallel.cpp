#include "core/base/parallel.h"

#include <algorithm>
#include <atomic>
#include <exception>
#include <mutex>
#include <numeric>
#include <system_error>
#include <thread>
#include <utility>
#include <vector>

namespace dotlane {
namespace {

constexpr std::size_t worth_it = 3000; ///< points; below, starting a thread costs more than it saves
constexpr unsigned most_threads = 8;
thread_local bool inside = false; // one level of threads is enough

} // namespace

void in_parallel(std::size_t count, std::size_t cost, const std::function<void(std::size_t)>& work) {
    // Asked once: the system opens a file for it.
    static const std::size_t cores = std::clamp(std::thread::hardware_concurrency(), 1U, most_threads);
    const std::size_t threads = inside || cost < worth_it ? 1 : std::min(cores, count);
    std::atomic<std::size_t> next{0};
    std::exception_ptr thrown;
    std::mutex guard;
    const auto run = [&] {
        try {
            for (std::size_t i = next++; i < count; i = next++)
                work(i);
        } catch (...) {
            const std::lock_guard lock(guard);
            if (!thrown) thrown = std::current_exception();
            next = count;
        }
    };
    std::vector<std::jthread> others; // joined also when what follows throws
    try {
        for (std::size_t t = 1; t < threads; ++t)
            others.emplace_back([&] {
                inside = true;
                run();
            });
    } catch (const std::system_error&) {
        // The system gives no more threads: those that there are do all of it.
    }
    const bool before = std::exchange(inside, inside || threads > 1);
    run();
    inside = before;
    others.clear();
    if (thrown) std::rethrow_exception(thrown);
}

void in_parallel(const std::vector<std::size_t>& costs, const std::function<void(std::size_t)>& work) {
    const std::size_t all = std::accumulate(costs.begin(), costs.end(), std::size_t{0});
    const auto heavy = static_cast<std::size_t>(
        std::find_if(costs.begin(), costs.end(), [all](std::size_t cost) { return 2 * cost > all; }) -
        costs.begin());
    const bool alone = heavy < costs.size();
    if (alone) work(heavy);
    in_parallel(costs.size() - alone, alone ? all - costs[heavy] : all,
                [&](std::size_t i) { work(alone && i >= heavy ? i + 1 : i); });
}

} // namespace dotlane
