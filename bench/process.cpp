#include "bench/process.h"

#include <algorithm>
#include <fcntl.h>
#include <spawn.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include "bench/work.h"

namespace dotlane::bench {

namespace {

struct Cost {
    double seconds = -1, megabytes = -1;
};

Cost cost_of(const std::vector<std::string>& command) {
    std::vector<char*> words;
    for (const std::string& word : command)
        words.push_back(const_cast<char*>(word.c_str()));
    words.push_back(nullptr);
    posix_spawn_file_actions_t actions;
    posix_spawn_file_actions_init(&actions);
    for (const int stream : {STDOUT_FILENO, STDERR_FILENO})
        posix_spawn_file_actions_addopen(&actions, stream, "/dev/null", O_WRONLY, 0);
    const Watch watch;
    pid_t child = 0;
    int status = 0;
    rusage used{};
    const int refused = posix_spawnp(&child, words[0], &actions, nullptr, words.data(), environ);
    posix_spawn_file_actions_destroy(&actions);
    if (refused != 0 || wait4(child, &status, 0, &used) != child || status != 0) return {};
    return {watch.seconds(), static_cast<double>(used.ru_maxrss) / 1024};
}

} // namespace

double seconds_of(const std::vector<std::string>& command) {
    return cost_of(command).seconds;
}

double megabytes_of(const std::vector<std::string>& command) {
    return cost_of(command).megabytes;
}

double median(std::vector<double> values) {
    if (values.empty()) return -1;
    const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
    std::nth_element(values.begin(), middle, values.end());
    return *middle;
}

} // namespace dotlane::bench
