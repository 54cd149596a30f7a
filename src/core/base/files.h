// The interfaces through which core reaches the disk and the clock, so that tests can stand in for both.
#pragma once

#include <cstdint>
#include <memory>
#include <string>
#include <vector>

#include "core/base/result.h"

namespace dotlane {

class FileSystem {
  public:
    virtual ~FileSystem() = default;
    /// Whole content. Errors: "file.missing", "file.unreadable", "file.too-large" (over `max_bytes`).
    virtual Result<std::string> read(const std::string& path, std::uint64_t max_bytes) = 0;
    /// All or nothing: the old content stays until the new content is safe on disk. "file.unwritable".
    virtual Result<void> write_atomically(const std::string& path, const std::string& bytes) = 0;
    virtual Result<void> make_folder(const std::string& path) = 0;
    virtual bool exists(const std::string& path) = 0;
    virtual void remove(const std::string& path) = 0;
    /// Names (not paths) of the files in a folder, sorted; empty when there is none.
    virtual std::vector<std::string> list(const std::string& folder) = 0;
};

/// The real disk.
FileSystem& disk();

inline constexpr std::uint64_t default_max_bytes = 512ULL << 20;

/// Last component of a path, and the same without its extension.
std::string file_name(const std::string& path);
std::string file_stem(const std::string& path);

} // namespace dotlane
