#include "core/base/aside_file.h"

#include <cerrno>
#include <fcntl.h>
#include <filesystem>
#include <random>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include "core/base/text.h"

namespace dotlane::aside {
namespace {

namespace fs = std::filesystem;

std::string hexadecimal(std::uint64_t v) {
    std::string out(16, '0');
    for (char& c : out)
        c = "0123456789abcdef"[v >> 60], v <<= 4;
    return out;
}

/// Of everything aside for this target. A hash: the name itself may be as long as a name can be.
std::string prefix_of(const std::string& target_name) {
    return ".dot-lane-" + hexadecimal(content_hash(target_name)) + ".";
}
constexpr std::string_view ending = ".part";

bool lock(int fd) {
    return ::flock(fd, LOCK_EX | LOCK_NB) == 0;
}

/// Whether the name still stands for what is open: a cleaner may have come between making and locking it.
bool still_there(int fd, const std::string& path) {
    struct stat open {
    }, named{};
    return ::fstat(fd, &open) == 0 && ::lstat(path.c_str(), &named) == 0 && open.st_ino == named.st_ino &&
           open.st_dev == named.st_dev;
}

} // namespace

void Handle::close() {
    if (fd_ >= 0) ::close(fd_);
    fd_ = -1;
}

std::string folder_of(const std::string& path) {
    const auto folder = fs::path(path).parent_path().string();
    return folder.empty() ? "." : folder;
}

std::string behind_links(std::string path) {
    for (int n = 0; n < 40; ++n) {
        std::error_code ec;
        if (!fs::is_symlink(fs::symlink_status(path, ec))) return path;
        const fs::path to = fs::read_symlink(path, ec);
        if (ec) return path;
        path = to.is_absolute() ? to.string() : (fs::path(folder_of(path)) / to).string();
    }
    return path; // opening it will say that it leads round in a circle
}

std::string fresh_name(const std::string& target_name) {
    thread_local std::random_device device;
    const std::uint64_t number = static_cast<std::uint64_t>(device()) << 32 | device();
    return prefix_of(target_name) + hexadecimal(number) + std::string(ending);
}

void remove_left(const std::string& folder, const std::string& target_name) {
    const std::string prefix = prefix_of(target_name);
    std::error_code ec;
    for (const auto& entry : fs::directory_iterator(folder, ec)) {
        const std::string name = entry.path().filename().string();
        if (!name.starts_with(prefix) || !name.ends_with(ending)) continue;
        const Handle left(::open(entry.path().c_str(), O_RDONLY | O_NOFOLLOW | O_NONBLOCK | O_CLOEXEC));
        if (!left || !lock(left.fd())) continue; // its writer lives
        if (entry.is_directory(ec))
            remove_folder(entry.path().string());
        else
            ::unlink(entry.path().c_str());
    }
}

Handle make_file(const std::string& path, unsigned mode) {
    Handle file(::open(path.c_str(), O_RDWR | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, mode));
    if (file && (!lock(file.fd()) || !still_there(file.fd(), path))) {
        errno = EAGAIN;
        return Handle();
    }
    return file;
}

Handle make_folder(const std::string& path) {
    if (::mkdir(path.c_str(), 0777) != 0) return Handle();
    Handle folder(::open(path.c_str(), O_RDONLY | O_DIRECTORY | O_NOFOLLOW | O_CLOEXEC));
    if (folder && (!lock(folder.fd()) || !still_there(folder.fd(), path))) {
        errno = EAGAIN;
        return Handle();
    }
    return folder;
}

bool fill(const Handle& file, const std::string& bytes) {
    std::size_t done = 0;
    while (done < bytes.size()) {
        const auto n = ::write(file.fd(), bytes.data() + done, bytes.size() - done);
        if (n < 0 && errno == EINTR) continue;
        if (n == 0) errno = ENOSPC;
        if (n <= 0) return false;
        done += static_cast<std::size_t>(n);
    }
    if (::fsync(file.fd()) != 0) return false;
    std::string back(std::min<std::size_t>(bytes.size(), 1 << 20), '\0');
    for (std::size_t at = 0; at < bytes.size();) {
        const auto n = ::pread(file.fd(), back.data(), back.size(), static_cast<off_t>(at));
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0 ||
            bytes.compare(at, static_cast<std::size_t>(n), back.data(), static_cast<std::size_t>(n)) != 0) {
            errno = EIO;
            return false;
        }
        at += static_cast<std::size_t>(n);
    }
    return true;
}

void flush_folder(const std::string& folder) {
    const Handle open(::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
    if (open) (void)::fsync(open.fd());
}

void remove_folder(const std::string& path) {
    std::error_code ec;
    for (const auto& entry : fs::directory_iterator(path, ec))
        if (!entry.is_directory(ec) || entry.is_symlink(ec)) ::unlink(entry.path().c_str());
    ::rmdir(path.c_str());
}

} // namespace dotlane::aside
