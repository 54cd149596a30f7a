// The project file: open JSON, described in docs/format.md. Reading an older version migrates it; a newer
// one is refused with a clear error.
#pragma once

#include "core/base/files.h"
#include "core/base/result.h"
#include "core/project/project.h"

namespace dotlane {

inline constexpr int format_version = 7;
/// Of the youngest member of any source or step (see Since). A file names the edition that is needed to read
/// it: that of the youngest member whose absence would not mean the same.
int newest_edition();
inline constexpr const char* project_extension = ".dotlane";
/// No more is read, so no more is written.
inline constexpr std::uint64_t project_max_bytes = default_max_bytes;

/// From this share of the limit on it is told that the limit is near.
inline constexpr double project_bytes_near = 0.75;

/// About how many bytes the project's file takes, from a sample of its lines: within a fifth for drawings of
/// some MB, without the time that writing takes.
std::uint64_t estimated_bytes(const Project& project);
std::string write_project(const Project& project);
/// The same, when it can be opened again: its numbers are sound, it is not too large, and reading it gives
/// the same text. Errors: "project.number", "project.large", "project.unsafe".
Result<std::string> checked_text(const Project& project, std::uint64_t max_bytes = project_max_bytes);
/// Errors: "project.not-json" (with the line), "project.not-ours", "project.newer", "project.damaged",
/// "project.rules". A line whose numbers are damaged is left out, with a note on its part
/// ("project.lines-lost").
Result<Project> read_project(const std::string& bytes, const std::string& file_name = {});

Result<Project> load_project(FileSystem& files, const std::string& path);
/// Errors: those of `checked_text` and of writing.
Result<void> save_project(FileSystem& files, const std::string& path, const Project& project,
                          Access access = Access::usual);

/// SVG path data with shortest exact numbers: how contours stand in the file.
std::string path_text(const Shape& shape);
/// Only what path_text writes: M, L, C, Z, absolute. Empty on any other input.
std::optional<std::vector<Contour>> contours_from_text(std::string_view text);

} // namespace dotlane
