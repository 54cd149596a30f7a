#include "core/commands/command.h"

namespace dotlane {

Error not_in_catalog(const Phrase& kind, const std::string& id, const std::vector<std::string>& known) {
    std::string all;
    for (const std::string& one : known)
        all += (all.empty() ? "" : ", ") + one;
    return {"command.unknown", say("There is no %1 \"%2\". There are: %3.", kind, id, all), {}};
}

} // namespace dotlane
