#include "core/base/files.h"

#include <csignal>
#include <filesystem>

#include "core/base/progress.h"

namespace dotlane {

namespace fs = std::filesystem;

std::string file_name(const std::string& path) {
    return fs::path(path).filename().string();
}
std::string file_stem(const std::string& path) {
    return fs::path(path).stem().string();
}
std::string absolute_path(const std::string& path) {
    std::error_code ec;
    const fs::path whole = fs::absolute(path, ec);
    return ec || path.empty() ? path : whole.lexically_normal().string();
}

void report_full_files() {
    std::signal(SIGXFSZ, SIG_IGN);
}

Progress& no_progress() {
    static Progress none{Progress::Nobody{}};
    return none;
}

} // namespace dotlane
