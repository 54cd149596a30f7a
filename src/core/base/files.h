// The interfaces through which core reaches the disk, so that tests can stand in for it.
#pragma once

#include <cstdint>
#include <memory>
#include <string>
#include <utility>
#include <vector>

#include "core/base/result.h"

namespace dotlane {

/// Who may read what is written: whoever the maker's settings allow (the mode of a file that is there
/// stays), or the maker alone.
enum class Access { usual, private_ };

/// What a file was when it was looked at. Another mark: somebody wrote in between.
struct FileMark {
    bool there = false;
    std::uint64_t device = 0, node = 0, size = 0;
    std::int64_t changed_ns = 0;
    bool operator==(const FileMark&) const = default;
};

/// Held by the one writer of a file; let go when destroyed.
class FileLock {
  public:
    virtual ~FileLock() = default;
};

/// A file's name and content.
using NamedBytes = std::pair<std::string, std::string>;

class FileSystem {
  public:
    virtual ~FileSystem() = default;
    /// Whole content. Errors: "file.missing", "file.unreadable", "file.too-large" (over `max_bytes`).
    virtual Result<std::string> read(const std::string& path, std::uint64_t max_bytes) = 0;
    /// All or nothing: the old content stays until the new content is safe on disk and has been read back.
    /// Links are followed. Errors: "file.unwritable", "file.read-only".
    virtual Result<void> write_atomically(const std::string& path, const std::string& bytes,
                                          Access access = Access::usual) = 0;
    /// Puts these files into a folder, which is made when missing, and takes those named in `gone` out of it;
    /// everything else in it stays. The files are written aside and swapped in when all are on disk: at once
    /// where the folder holds nothing but files, otherwise one after another. Error "file.unwritable".
    virtual Result<void> write_folder(const std::string& folder, const std::vector<NamedBytes>& files,
                                      const std::vector<std::string>& gone) = 0;
    virtual Result<void> make_folder(const std::string& path, Access access = Access::usual) = 0;
    virtual bool exists(const std::string& path) = 0;
    virtual void remove(const std::string& path) = 0;
    /// Names (not paths) of the files in a folder, sorted; empty when there is none.
    virtual std::vector<std::string> list(const std::string& folder) = 0;
    virtual FileMark mark(const std::string& path) = 0;
    /// Waits for other writers of the file, which may not be there yet. Error "file.busy" after `wait_ms`.
    virtual Result<std::unique_ptr<FileLock>> lock(const std::string& path, int wait_ms) = 0;
};

/// The real disk.
FileSystem& disk();

inline constexpr std::uint64_t default_max_bytes = 512ULL << 20;

/// Last component of a path, and the same without its extension.
std::string file_name(const std::string& path);
std::string file_stem(const std::string& path);
/// The path from the root on, whatever the working folder becomes.
std::string absolute_path(const std::string& path);

/// A write beyond the limit of a file's size becomes an error instead of a signal. For main().
void report_full_files();

} // namespace dotlane
