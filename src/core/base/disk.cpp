// The real disk.
#include <algorithm>
#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <filesystem>
#include <optional>
#include <set>
#include <sys/file.h>
#include <sys/stat.h>
#include <sys/xattr.h>
#include <unistd.h>

#include "core/base/aside_file.h"
#include "core/base/files.h"

namespace dotlane {
namespace {

namespace fs = std::filesystem;
using aside::Handle;

tl::unexpected<Error> unwritable(const std::string& path, const Phrase& what, int reason) {
    return fail("file.unwritable", say("\"%1\" could not be %2: %3. What was there before is unchanged.",
                                       path, what, as_is(std::strerror(reason))));
}

class HeldLock final : public FileLock {
  public:
    explicit HeldLock(Handle handle)
        : handle_(std::move(handle)) {}

  private:
    Handle handle_;
};

bool same_file(const struct stat& a, const struct stat& b) {
    return a.st_ino == b.st_ino && a.st_dev == b.st_dev;
}

/// Whether the working folder is this one or lies in it: swapping it would pull the ground from under whoever
/// stands there.
bool stand_in(const std::string& folder) {
    std::error_code ec;
    const fs::path here = fs::current_path(ec), there = fs::canonical(folder, ec);
    return !ec && std::mismatch(there.begin(), there.end(), here.begin(), here.end()).first == there.end();
}

class Disk final : public FileSystem {
  public:
    Result<std::string> read(const std::string& path, std::uint64_t max_bytes) override {
        const auto broken = [&](const char* why) {
            return fail("file.unreadable", say("\"%1\" could not be read: %2.", path, as_is(why)));
        };
        // Without waiting: a pipe that nobody writes to would hold us up.
        const Handle file(::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK));
        if (!file && (errno == ENOENT || errno == ENOTDIR))
            return fail("file.missing", say("There is no file \"%1\".", path));
        if (!file) return broken(std::strerror(errno));
        struct stat info {};
        if (::fstat(file.fd(), &info) != 0) return broken(std::strerror(errno));
        if (!S_ISREG(info.st_mode)) return fail("file.unreadable", say("\"%1\" is not a file.", path));
        const auto too_large = [&] {
            return fail("file.too-large",
                        say("\"%1\" is larger than %2 MB and was not opened.", path, max_bytes >> 20));
        };
        if (static_cast<std::uint64_t>(info.st_size) > max_bytes) return too_large();
        // Some files say that they are empty and are not, and all may grow meanwhile.
        std::string bytes(static_cast<std::size_t>(info.st_size) + 1, '\0');
        for (std::size_t done = 0;;) {
            if (done == bytes.size()) bytes.resize(done + std::max<std::size_t>(done / 2, 1 << 16));
            const auto n = ::read(file.fd(), bytes.data() + done, bytes.size() - done);
            if (n < 0 && errno == EINTR) continue;
            if (n < 0) return broken(std::strerror(errno));
            done += static_cast<std::size_t>(n);
            if (done > max_bytes) return too_large();
            if (n == 0) return bytes.resize(done), bytes;
        }
    }

    Result<void> write_atomically(const std::string& given, const std::string& bytes,
                                  Access access) override {
        const std::string path = aside::behind_links(given), folder = aside::folder_of(path),
                          name = file_name(path);
        struct stat old {};
        const bool there = ::stat(path.c_str(), &old) == 0;
        std::error_code ec;
        if (fs::is_symlink(fs::symlink_status(path, ec))) return unwritable(given, say("replaced"), ELOOP);
        if (there && !S_ISREG(old.st_mode)) return unwritable(given, say("replaced"), EEXIST);
        // The superuser may write to everything, but a file that was made read-only was meant to stay.
        if (there && ((old.st_mode & 0222) == 0 || ::access(path.c_str(), W_OK) != 0))
            return fail("file.read-only", say("\"%1\" may only be read, and was not replaced. Save under "
                                              "another name, or allow writing to it.",
                                              given));
        aside::remove_left(folder, name);
        const std::string temporary = folder + "/" + aside::fresh_name(name);
        const auto broken = [&](const Phrase& what) {
            const int reason = errno;
            ::unlink(temporary.c_str());
            return unwritable(given, what, reason);
        };
        Handle file = aside::make_file(temporary, access == Access::private_ ? 0600 : there ? 0600 : 0666);
        if (!file) return broken(say("created"));
        if (there && access == Access::usual) {
            (void)::fchown(file.fd(), old.st_uid, old.st_gid); // only the superuser can, and only he needs it
            if (::fchmod(file.fd(), old.st_mode & 0777) != 0) return broken(say("given its mode"));
        }
        if (!aside::fill(file, bytes)) return broken(say("written"));
        if (::rename(temporary.c_str(), path.c_str()) != 0) return broken(say("replaced"));
        aside::flush_folder(folder);
        return {};
    }

    Result<void> write_folder(const std::string& given, const std::vector<NamedBytes>& files,
                              const std::vector<std::string>& gone) override {
        const std::string path = aside::behind_links(fs::path(absolute_path(given)).string());
        std::string target = path;
        while (target.size() > 1 && target.back() == '/')
            target.pop_back();
        const std::string parent = aside::folder_of(target), name = file_name(target);
        std::error_code ec;
        if (!fs::exists(target, ec)) {
            if (auto ok = make_folder(parent, Access::usual); !ok) return ok;
            auto built = build(parent, name, files, given);
            if (!built) return tl::make_unexpected(built.error());
            if (::rename(built->c_str(), target.c_str()) != 0) return give_up(*built, given, errno);
            aside::flush_folder(parent);
            return {};
        }
        if (!fs::is_directory(target, ec)) return unwritable(given, say("made a folder"), ENOTDIR);
        aside::remove_left(parent, name);
        aside::remove_left(target, name);
        const Handle held(::open(target.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
        if (held) (void)::flock(held.fd(), LOCK_EX); // exports into one folder take turns
        const auto others = others_in(target, files, gone);
        if (others && !stand_in(target) && plain(target)) {
            auto built = build(parent, name, files, given);
            if (built && !bring_along(*others, target, *built)) {
                aside::remove_folder(*built);
                built = tl::make_unexpected(Error{});
            }
            struct stat mode {};
            if (built && ::stat(target.c_str(), &mode) == 0)
                (void)::chmod(built->c_str(), mode.st_mode & 0777);
            if (built &&
                ::renameat2(AT_FDCWD, built->c_str(), AT_FDCWD, target.c_str(), RENAME_EXCHANGE) == 0) {
                aside::flush_folder(parent);
                for (const auto& list : {names_of(files), gone})
                    for (const std::string& each : list)
                        ::unlink((*built + "/" + each).c_str());
                for (const std::string& each : *others)
                    drop_second_name(*built + "/" + each, target + "/" + each);
                put_back(*built, target); // what somebody laid there in this moment
                ::rmdir(built->c_str());
                return {};
            }
            if (built) aside::remove_folder(*built);
        }
        // Folders lie there, or the folder cannot be swapped: its files are, one by one.
        auto built = build(target, name, files, given);
        if (!built) return tl::make_unexpected(built.error());
        for (const NamedBytes& file : files)
            if (fs::is_directory(fs::symlink_status(target + "/" + file.first, ec)))
                return give_up(*built, target + "/" + file.first, EISDIR);
        for (const NamedBytes& file : files)
            if (::rename((*built + "/" + file.first).c_str(), (target + "/" + file.first).c_str()) != 0)
                return give_up(*built, target + "/" + file.first, errno);
        for (const std::string& each : gone)
            ::unlink((target + "/" + each).c_str());
        aside::remove_folder(*built);
        aside::flush_folder(target);
        return {};
    }

    Result<void> make_folder(const std::string& path, Access access) override {
        std::error_code ec;
        fs::create_directories(path, ec);
        if (ec || !fs::is_directory(path, ec))
            return fail("file.unwritable", say("The folder \"%1\" could not be made: %2.", path,
                                               (ec ? as_is(ec.message()) : say("a file stands there"))));
        if (access == Access::private_) (void)::chmod(path.c_str(), 0700);
        return {};
    }

    bool exists(const std::string& path) override {
        std::error_code ec;
        return fs::exists(path, ec);
    }

    void remove(const std::string& path) override {
        std::error_code ec;
        fs::remove(path, ec);
    }

    std::vector<std::string> list(const std::string& folder) override {
        std::vector<std::string> names;
        std::error_code ec;
        for (const auto& entry : fs::directory_iterator(folder, ec))
            if (entry.is_regular_file(ec)) names.push_back(entry.path().filename().string());
        std::sort(names.begin(), names.end());
        return names;
    }

    FileMark mark(const std::string& path) override {
        struct stat info {};
        if (::stat(path.c_str(), &info) != 0) return {};
        return {true, info.st_dev, info.st_ino, static_cast<std::uint64_t>(info.st_size),
                info.st_mtim.tv_sec * std::int64_t{1'000'000'000} + info.st_mtim.tv_nsec};
    }

    Result<std::unique_ptr<FileLock>> lock(const std::string& given, int wait_ms) override {
        const std::string path = aside::behind_links(given);
        for (int waited = 0;; waited += 10) {
            // The file itself is locked, or its folder while there is no file. Writers put a new file in its
            // place: whoever waited looks whether it is still the one that bears the name.
            Handle held(::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK));
            const bool there = static_cast<bool>(held);
            if (!there) held = Handle(::open(aside::folder_of(path).c_str(), O_RDONLY | O_CLOEXEC));
            if (!held) return std::make_unique<HeldLock>(Handle()); // writing will say what is wrong
            if (::flock(held.fd(), LOCK_EX | LOCK_NB) == 0) {
                struct stat open {
                }, named{};
                const bool now = ::stat(path.c_str(), &named) == 0;
                if (now == there && (!now || (::fstat(held.fd(), &open) == 0 && same_file(open, named))))
                    return std::make_unique<HeldLock>(std::move(held));
                continue;
            }
            if (errno != EWOULDBLOCK) return std::make_unique<HeldLock>(Handle()); // a disk without locks
            if (waited >= wait_ms)
                return fail(
                    "file.busy",
                    say("Another program is writing to \"%1\". Nothing has changed; try again in a moment.",
                        given));
            ::usleep(10'000);
        }
    }

  private:
    static std::vector<std::string> names_of(const std::vector<NamedBytes>& files) {
        std::vector<std::string> names;
        for (const NamedBytes& file : files)
            names.push_back(file.first);
        return names;
    }

    /// Names of the files in the folder that are none of these; none when there is something else than files,
    /// or so much that it is better left alone.
    static std::optional<std::vector<std::string>> others_in(const std::string& folder,
                                                             const std::vector<NamedBytes>& files,
                                                             const std::vector<std::string>& gone) {
        std::set<std::string> ours(gone.begin(), gone.end());
        for (const NamedBytes& file : files)
            ours.insert(file.first);
        std::vector<std::string> others;
        std::error_code ec;
        for (const auto& entry : fs::directory_iterator(folder, ec)) {
            const std::string name = entry.path().filename().string();
            if (!fs::is_regular_file(entry.symlink_status(ec)) || others.size() > 200) return std::nullopt;
            if (!ours.contains(name)) others.push_back(name);
        }
        if (ec) return std::nullopt;
        return others;
    }

    /// Whether another folder may stand in its place: it is the maker's own, and nothing hangs on it that a
    /// new one would not have.
    static bool plain(const std::string& folder) {
        struct stat info {};
        return ::stat(folder.c_str(), &info) == 0 && info.st_uid == ::geteuid() &&
               ::listxattr(folder.c_str(), nullptr, 0) <= 0;
    }

    /// The same files under a second name, so that they are never missing while folders are swapped.
    static bool bring_along(const std::vector<std::string>& names, const std::string& from,
                            const std::string& to) {
        return std::all_of(names.begin(), names.end(), [&](const std::string& name) {
            return ::link((from + "/" + name).c_str(), (to + "/" + name).c_str()) == 0;
        });
    }

    /// Writes all files into a new folder beside (or in) the target. Its path.
    static Result<std::string> build(const std::string& in, const std::string& target_name,
                                     const std::vector<NamedBytes>& files, const std::string& given) {
        aside::remove_left(in, target_name);
        const std::string path = in + "/" + aside::fresh_name(target_name);
        const Handle folder = aside::make_folder(path);
        if (!folder) return unwritable(given, say("written"), errno);
        for (const auto& [name, bytes] : files) {
            const Handle file = aside::make_file(path + "/" + name, 0666);
            if (!file || !aside::fill(file, bytes)) return give_up(path, given + "/" + name, errno);
        }
        aside::flush_folder(path);
        return path;
    }

    /// Unless the file was replaced in this moment: then the newer one is kept.
    static void drop_second_name(const std::string& second, const std::string& kept) {
        struct stat a {
        }, b{};
        if (::lstat(second.c_str(), &a) != 0) return;
        if (::lstat(kept.c_str(), &b) == 0 && same_file(a, b))
            ::unlink(second.c_str());
        else
            (void)::rename(second.c_str(), kept.c_str());
    }

    static tl::unexpected<Error> give_up(const std::string& built, const std::string& path, int reason) {
        aside::remove_folder(built);
        return unwritable(path, say("written"), reason);
    }

    static void put_back(const std::string& from, const std::string& to) {
        std::error_code ec;
        for (const auto& entry : fs::directory_iterator(from, ec)) {
            const std::string back = to + "/" + entry.path().filename().string();
            (void)::renameat2(AT_FDCWD, entry.path().c_str(), AT_FDCWD, back.c_str(), RENAME_NOREPLACE);
        }
    }
};

} // namespace

FileSystem& disk() {
    static Disk instance;
    return instance;
}

} // namespace dotlane
