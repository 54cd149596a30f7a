#include "core/formats/svg/render.h"

#include <fcntl.h>
#include <signal.h>
#include <sys/mman.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <algorithm>
#include <chrono>
#include <thread>

#include "core/formats/limits.h"
#include "core/formats/svg/prepare.h"

namespace dotlane {
namespace {

using Clock = std::chrono::steady_clock;

constexpr int not_there = 127; // as a shell says it
constexpr std::chrono::seconds most_time{4};
constexpr rlim_t most_memory = 1ULL << 30, most_output = 256ULL << 20;

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
[[noreturn]] void become_renderer(int in, int out, const char* side) {
    const auto limit = [](auto what, rlim_t most) {
        const rlimit both{most, most};
        ::setrlimit(what, &both);
    };
    limit(RLIMIT_AS, most_memory);
    limit(RLIMIT_CPU, static_cast<rlim_t>(most_time.count()));
    limit(RLIMIT_FSIZE, most_output);
    limit(RLIMIT_CORE, 0);
    ::dup2(in, 0), ::dup2(out, 1);
    if (const int none = ::open("/dev/null", O_WRONLY); none >= 0) ::dup2(none, 2);
    ::execlp("rsvg-convert", "rsvg-convert", "-f", "png", "-b", "white", "-a", "-w", side, "-h", side,
             static_cast<char*>(nullptr));
    ::_exit(not_there);
}

/// Its exit status; none when it was stopped.
std::optional<int> wait_for(pid_t child) {
    const auto until = Clock::now() + most_time;
    int status = 0;
    while (::waitpid(child, &status, WNOHANG) == 0) {
        if (Clock::now() > until) {
            ::kill(child, SIGKILL);
            ::waitpid(child, &status, 0);
            return {};
        }
        std::this_thread::sleep_for(std::chrono::milliseconds(5));
    }
    return WIFEXITED(status) ? std::optional(WEXITSTATUS(status)) : std::nullopt;
}

} // namespace

Result<std::string> render_svg(std::string bytes, int larger_side) {
    const auto prepared = svg::prepare(std::move(bytes), ReadLimits{}.bytes);
    if (!prepared) return tl::make_unexpected(prepared.error());
    const Unnamed in, out;
    if (in.fd < 0 || out.fd < 0 || !in.write(prepared->text))
        return fail("render.failed", "There is no room to draw the file. Nothing has changed.");
    const std::string side = std::to_string(std::clamp(larger_side, 16, 4000));
    const pid_t child = ::fork();
    if (child == 0) become_renderer(in.fd, out.fd, side.c_str());
    if (child < 0) return fail("render.failed", "The renderer cannot be started. Nothing has changed.");
    const auto status = wait_for(child);
    if (status == not_there)
        return fail("render.missing",
                    "rsvg-convert, which draws the file, is not installed (Debian package librsvg2-bin). "
                    "Nothing has changed.");
    std::string png = out.read();
    if (!status)
        return fail("render.failed",
                    "Drawing the file takes too long or too much memory. Nothing has changed.");
    if (*status != 0 || png.empty())
        return fail("render.failed", "The file cannot be drawn: it is damaged. Nothing has changed.");
    return png;
}

} // namespace dotlane
