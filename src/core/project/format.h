// The project file: open JSON, described in docs/format.md. Reading an older version migrates it; a newer
// one is refused with a clear error.
#pragma once

#include "core/base/files.h"
#include "core/base/result.h"
#include "core/project/project.h"

namespace dotlane {

inline constexpr int format_version = 5;
inline constexpr const char* project_extension = ".dotlane";

std::string write_project(const Project& project);
/// Errors: "project.not-json" (with the line), "project.not-ours", "project.newer", "project.damaged",
/// "project.rules".
Result<Project> read_project(const std::string& bytes, const std::string& file_name = {});

Result<Project> load_project(FileSystem& files, const std::string& path);
Result<void> save_project(FileSystem& files, const std::string& path, const Project& project);

/// SVG path data with shortest exact numbers: how contours stand in the file.
std::string path_text(const Shape& shape);
/// Only what path_text writes: M, L, C, Z, absolute. Empty on any other input.
std::optional<std::vector<Contour>> contours_from_text(std::string_view text);

} // namespace dotlane
