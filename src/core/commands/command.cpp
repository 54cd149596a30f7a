#include "core/commands/command.h"

namespace dotlane {

Error not_in_catalog(const char* kind, const std::string& id, const std::vector<std::string>& known) {
    std::string all;
    for (const std::string& one : known)
        all += (all.empty() ? "" : ", ") + one;
    return {"command.unknown",
            std::string("There is no ") + kind + " \"" + id + "\". There are: " + all + ".",
            {}};
}

} // namespace dotlane
