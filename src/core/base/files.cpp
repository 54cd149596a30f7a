#include "core/base/files.h"

#include <algorithm>
#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <filesystem>
#include <fstream>
#include <unistd.h>

#include "core/base/progress.h"

namespace dotlane {
namespace {

namespace fs = std::filesystem;

class Disk final : public FileSystem {
  public:
    Result<std::string> read(const std::string& path, std::uint64_t max_bytes) override {
        std::error_code ec;
        if (!fs::exists(path, ec)) return fail("file.missing", "There is no file \"" + path + "\".");
        if (!fs::is_regular_file(path, ec)) return fail("file.unreadable", "\"" + path + "\" is not a file.");
        const auto size = fs::file_size(path, ec);
        if (!ec && size > max_bytes)
            return fail("file.too-large", "\"" + path + "\" is larger than " +
                                              std::to_string(max_bytes >> 20) + " MB and was not opened.");
        std::ifstream in(path, std::ios::binary);
        std::string bytes((std::istreambuf_iterator<char>(in)), std::istreambuf_iterator<char>());
        if (!in.good() && !in.eof()) return fail("file.unreadable", "\"" + path + "\" could not be read.");
        return bytes;
    }

    Result<void> write_atomically(const std::string& path, const std::string& bytes) override {
        // A temporary file beside the target, flushed, then renamed over it: a crash at any moment leaves
        // either the old or the new content, never a mixture.
        const std::string temporary = path + ".part-" + std::to_string(::getpid());
        const auto broken = [&](const char* what) {
            const std::string reason = std::strerror(errno);
            ::unlink(temporary.c_str());
            return fail("file.unwritable", "\"" + path + "\" could not be " + what + ": " + reason +
                                               ". What was there before is unchanged.");
        };
        const int fd = ::open(temporary.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0644);
        if (fd < 0) return broken("created");
        std::size_t done = 0;
        while (done < bytes.size()) {
            const auto n = ::write(fd, bytes.data() + done, bytes.size() - done);
            if (n < 0 && errno == EINTR) continue;
            if (n <= 0) return ::close(fd), broken("written");
            done += static_cast<std::size_t>(n);
        }
        if (::fsync(fd) != 0) return ::close(fd), broken("written to disk");
        ::close(fd);
        if (::rename(temporary.c_str(), path.c_str()) != 0) return broken("replaced");
        return {};
    }

    Result<void> make_folder(const std::string& path) override {
        std::error_code ec;
        fs::create_directories(path, ec);
        if (ec || !fs::is_directory(path))
            return fail("file.unwritable", "The folder \"" + path + "\" could not be made: " + ec.message());
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
};

} // namespace

FileSystem& disk() {
    static Disk instance;
    return instance;
}

std::string file_name(const std::string& path) {
    return fs::path(path).filename().string();
}
std::string file_stem(const std::string& path) {
    return fs::path(path).stem().string();
}

Progress& no_progress() {
    static Progress none;
    return none;
}

} // namespace dotlane
