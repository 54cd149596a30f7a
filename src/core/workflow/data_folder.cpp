#include "core/workflow/data_folder.h"

#include <cstdlib>
#include <unistd.h>

#include "core/base/files.h"
#include "dotlane_config.h"

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
    char self[4096];
    const auto n = ::readlink("/proc/self/exe", self, sizeof self - 1);
    if (n > 0) {
        std::string path(self, static_cast<std::size_t>(n));
        path.erase(path.find_last_of('/'));
        if (const auto installed = path + "/../share/dot-lane"; disk().exists(installed + "/catalog"))
            return installed;
    }
    return DOTLANE_SOURCE_DATA;
}

std::string user_catalog_folder() {
    return below_home("XDG_DATA_HOME", "/.local/share") + "/catalog";
}
std::string state_folder() {
    return below_home("XDG_STATE_HOME", "/.local/state");
}

} // namespace dotlane
