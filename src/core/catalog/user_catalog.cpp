#include "core/catalog/user_catalog.h"

#include <cmath>
#include <functional>
#include <nlohmann/json.hpp>

#include "core/project/json_in.h"

namespace dotlane {
namespace {

using nlohmann::json;

/// Reads what is kept, has it changed, and writes it.
Result<void> change(FileSystem& files, const std::string& folder,
                    const std::function<Result<void>(json&)>& how) {
    if (const auto ok = files.make_folder(folder); !ok) return ok;
    const std::string path = folder + "/" + kept_file;
    const auto lock = files.lock(path, 5000);
    if (!lock) return tl::make_unexpected(lock.error());
    json document = {{"settings", json::array()}, {"offsets", json::array()}};
    if (files.exists(path)) {
        const auto bytes = files.read(path, 16U << 20);
        if (!bytes) return tl::make_unexpected(bytes.error());
        json read = json::parse(*bytes, nullptr, false);
        if (!read.is_object())
            return fail("catalog.damaged", say("What was kept of tools cannot be read."), {path, 0});
        document.update(read);
        if (!document["settings"].is_array() || !document["offsets"].is_array())
            return fail("catalog.damaged", say("What was kept of tools cannot be read."), {path, 0});
    }
    if (const auto ok = how(document); !ok) return ok;
    return files.write_atomically(path, document.dump(1) + "\n");
}

bool of(const json& j, const std::string& tool, const std::string& stock, const std::string& machine) {
    return j.is_object() && j.value("tool", "") == tool && j.value("stock", "") == stock &&
           j.value("machine", "") == machine;
}

/// How many went.
template<class Is>
std::size_t drop(json& list, const Is& is) {
    json kept = json::array();
    for (json& one : list)
        if (!is(one)) kept.push_back(std::move(one));
    const std::size_t gone = list.size() - kept.size();
    list = std::move(kept);
    return gone;
}

} // namespace

Result<void> keep_setting(FileSystem& files, const std::string& folder, const Setting& s) {
    const auto above = [](double v) { return std::isfinite(v) && v > 0; };
    if ((s.pressure && !above(*s.pressure)) || (s.speed && !above(in_mm_per_second(*s.speed))) ||
        (s.depth && !above(in_mm(*s.depth))) || (s.dry && !above(in_seconds(*s.dry))) || s.passes < 1 ||
        s.passes > 8)
        return fail("setting.range",
                    say("Pressure, speed, depth and drying time must be above zero, passes 1 to 8."));
    return change(files, folder, [&](json& document) -> Result<void> {
        drop(document["settings"], [&](const json& j) { return of(j, s.tool, s.stock, s.machine); });
        json j = {{"tool", s.tool}, {"from", key_of(s.from)}};
        if (!s.stock.empty()) j["stock"] = s.stock;
        if (!s.machine.empty()) j["machine"] = s.machine;
        if (s.pressure) j["pressure"] = *s.pressure;
        if (s.speed) j["speed"] = in_mm_per_second(*s.speed);
        if (s.depth) j["depth"] = in_mm(*s.depth);
        if (s.dry) j["dry"] = in_seconds(*s.dry);
        if (s.passes != 1) j["passes"] = s.passes;
        if (!s.note.empty()) j["note"] = s.note;
        document["settings"].push_back(std::move(j));
        return {};
    });
}

Result<void> forget_setting(FileSystem& files, const std::string& folder, const std::string& tool,
                            const std::string& stock, const std::string& machine) {
    return change(files, folder, [&](json& document) -> Result<void> {
        if (drop(document["settings"], [&](const json& j) { return of(j, tool, stock, machine); }) == 0)
            return fail("setting.none", say("Nothing was kept for this tool, stock and machine."));
        return {};
    });
}

Result<void> keep_offset(FileSystem& files, const std::string& folder, const std::string& tool,
                         Point offset) {
    if (!(std::abs(offset.x) <= 20 && std::abs(offset.y) <= 20))
        return fail("setting.range", say("A tip touches at most 20 mm beside where a plain one does."));
    return change(files, folder, [&](json& document) -> Result<void> {
        drop(document["offsets"],
             [&](const json& j) { return j.is_object() && j.value("tool", "") == tool; });
        document["offsets"].push_back({{"tool", tool}, {"offset", {offset.x, offset.y}}});
        return {};
    });
}

} // namespace dotlane
