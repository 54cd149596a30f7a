#include "core/base/child.h"

#include <fcntl.h>
#include <poll.h>
#include <signal.h>
#include <sys/mman.h>
#include <sys/resource.h>
#include <sys/syscall.h>
#include <sys/wait.h>
#include <unistd.h>

namespace dotlane {
namespace {

constexpr int not_there = 127; // as a shell says it

/// A file without a name, gone with its descriptor.
class Unnamed {
  public:
    Unnamed()
        : fd(::memfd_create("dot-lane", MFD_CLOEXEC)) {}
    ~Unnamed() {
        if (fd >= 0) ::close(fd);
    }
    Unnamed(const Unnamed&) = delete;
    Unnamed& operator=(const Unnamed&) = delete;

    bool write(const std::string& bytes) const {
        for (std::size_t done = 0; done < bytes.size();) {
            const auto n = ::write(fd, bytes.data() + done, bytes.size() - done);
            if (n <= 0) return false;
            done += static_cast<std::size_t>(n);
        }
        return ::lseek(fd, 0, SEEK_SET) == 0;
    }
    std::string read() const {
        std::string out(static_cast<std::size_t>(std::max<off_t>(0, ::lseek(fd, 0, SEEK_END))), '\0');
        std::size_t done = 0;
        while (done < out.size()) {
            const auto n = ::pread(fd, out.data() + done, out.size() - done, static_cast<off_t>(done));
            if (n <= 0) break;
            done += static_cast<std::size_t>(n);
        }
        out.resize(done);
        return out;
    }
    int fd;
};

/// Between fork and exec, where only plain system calls are allowed.
[[noreturn]] void become(char* const* words, int in, int out, const ChildLimits& limits) {
    const auto limit = [](auto what, rlim_t most) {
        const rlimit both{most, most};
        ::setrlimit(what, &both);
    };
    limit(RLIMIT_AS, limits.memory);
    limit(RLIMIT_CPU, static_cast<rlim_t>(limits.milliseconds / 1000 + 1));
    limit(RLIMIT_FSIZE, limits.output);
    limit(RLIMIT_CORE, 0);
    ::dup2(in, 0), ::dup2(out, 1);
    if (const int none = ::open("/dev/null", O_WRONLY); none >= 0) ::dup2(none, 2);
    ::execvp(words[0], words);
    ::_exit(not_there);
}

/// Its exit status; none when it was stopped.
std::optional<int> wait_for(pid_t child, int milliseconds) {
    // The kernel keeps the time: core reads no clock.
    const int handle = static_cast<int>(::syscall(SYS_pidfd_open, child, 0));
    pollfd ended{handle, POLLIN, 0};
    int ready = 0;
    do
        ready = ::poll(&ended, 1, milliseconds);
    while (ready < 0 && errno == EINTR);
    if (handle >= 0) ::close(handle);
    if (ready <= 0 || handle < 0) ::kill(child, SIGKILL);
    int status = 0;
    while (::waitpid(child, &status, 0) < 0 && errno == EINTR) {
    }
    return WIFEXITED(status) ? std::optional(WEXITSTATUS(status)) : std::nullopt;
}

} // namespace

Result<std::string> run_child(const std::vector<std::string>& words, const std::string& input,
                              const ChildLimits& limits) {
    const Unnamed in, out;
    if (words.empty() || in.fd < 0 || out.fd < 0 || !in.write(input))
        return fail("child.no-start", say("There is no room for another program."));
    std::vector<char*> arguments;
    for (const std::string& word : words)
        arguments.push_back(
            const_cast<char*>(word.c_str())); // NOLINT: exec takes them so and leaves them alone
    arguments.push_back(nullptr);
    const pid_t child = ::fork();
    if (child == 0) become(arguments.data(), in.fd, out.fd, limits);
    if (child < 0) return fail("child.no-start", say("%1 cannot be started.", words[0]));
    const auto status = wait_for(child, limits.milliseconds);
    if (!status) return fail("child.stopped", say("%1 took too long or too much memory.", words[0]));
    if (*status == not_there) return fail("child.missing", say("%1 is not installed.", words[0]));
    if (*status != 0) return fail("child.failed", say("%1 gave up.", words[0]));
    return out.read();
}

} // namespace dotlane
