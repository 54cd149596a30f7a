#include "core/base/data_folder.h"

#include <algorithm>
#include <cstdlib>
#include <unistd.h>
#include <vector>

#include "core/base/files.h"

namespace dotlane {
namespace {

std::string environment(const char* name) {
    const char* value = std::getenv(name);
    return value ? value : "";
}

std::string below_home(const char* variable, const char* otherwise) {
    const std::string set = environment(variable);
    return (set.empty() ? environment("HOME") + otherwise : set) + "/dot-lane";
}

} // namespace

std::string data_folder() {
    if (const auto set = environment("DOTLANE_DATA"); !set.empty()) return set;
    return shipped_data_folder();
}

std::string shipped_data_folder() {
    std::vector<std::string> candidates;
    char self[4096];
    if (const auto n = ::readlink("/proc/self/exe", self, sizeof self - 1); n > 0) {
        std::string path(self, static_cast<std::size_t>(n));
        path.erase(path.find_last_of('/'));
        // Installed: bin and share side by side; in a build tree the program lies deeper.
        for (const char* up : {"/../share", "/../../share"})
            candidates.push_back(path + up + "/dot-lane");
    }
    std::string shared = environment("XDG_DATA_DIRS");
    if (shared.empty()) shared = "/usr/local/share:/usr/share";
    for (std::size_t from = 0; from <= shared.size();) {
        const std::size_t end = std::min(shared.find(':', from), shared.size());
        if (end > from) candidates.push_back(shared.substr(from, end - from) + "/dot-lane");
        from = end + 1;
    }
    for (const std::string& folder : candidates)
        if (disk().exists(folder + "/catalog")) return folder;
    return candidates.front(); // whoever reads there says what is missing
}

std::string user_catalog_folder() {
    return below_home("XDG_DATA_HOME", "/.local/share") + "/catalog";
}
std::string state_folder() {
    return below_home("XDG_STATE_HOME", "/.local/state");
}

} // namespace dotlane
