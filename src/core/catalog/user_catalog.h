// What a maker keeps of tools on the shelf: settings that worked, and where tips touch. One file of the
// user's own catalog, which goes before what ships with the program.
#pragma once

#include "core/base/files.h"
#include "core/catalog/catalog.h"

namespace dotlane {

/// The file's name, in the user's catalog folder.
inline constexpr const char* kept_file = "kept.json";

/// In place of what was kept for the same tool, stock and machine. Errors: "setting.range" (pressure, speed,
/// depth not above 0, passes not 1..8), those of reading and writing, "catalog.damaged".
Result<void> keep_setting(FileSystem& files, const std::string& folder, const Setting& setting);
/// Error "setting.none" when nothing was kept for these.
Result<void> forget_setting(FileSystem& files, const std::string& folder, const std::string& tool,
                            const std::string& stock, const std::string& machine);
/// Where the tip of a tool touches, in mm; nothing beyond 20. Error "setting.range".
Result<void> keep_offset(FileSystem& files, const std::string& folder, const std::string& tool, Point offset);

} // namespace dotlane
