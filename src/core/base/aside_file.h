// What is written beside its target and becomes it when it is whole. For the disk only.
//
// A file or folder aside has a random name that nobody can have put there, and is locked (flock) while its
// writer lives: one that is not locked was left by a writer that was killed, and is removed by the next.
#pragma once

#include <string>
#include <string_view>

#include "core/base/result.h"

namespace dotlane::aside {

/// An open file or folder; closed at the end.
class Handle {
  public:
    explicit Handle(int fd = -1)
        : fd_(fd) {}
    ~Handle() { close(); }
    Handle(Handle&& o) noexcept
        : fd_(std::exchange(o.fd_, -1)) {}
    Handle& operator=(Handle&& o) noexcept {
        if (this != &o) close(), fd_ = std::exchange(o.fd_, -1);
        return *this;
    }
    int fd() const { return fd_; }
    explicit operator bool() const { return fd_ >= 0; }
    void close();

  private:
    int fd_;
};

/// "/a/b" and "c" of "/a/b/c"; "." for the folder of a bare name.
std::string folder_of(const std::string& path);
/// Where a chain of links ends, whether something is there or not.
std::string behind_links(std::string path);

/// Removes what killed writers of this target left in the folder.
void remove_left(const std::string& folder, const std::string& target_name);
/// A name for something aside, another each time.
std::string fresh_name(const std::string& target_name);

/// Creates and locks an empty file aside. errno tells why it could not be.
Handle make_file(const std::string& path, unsigned mode);
/// Creates and locks an empty folder aside.
Handle make_folder(const std::string& path);
/// Writes, flushes to the disk and reads back. False: errno tells why.
bool fill(const Handle& file, const std::string& bytes);
/// A rename in the folder is safe on disk.
void flush_folder(const std::string& folder);
/// A folder with the files in it; what cannot be removed stays.
void remove_folder(const std::string& path);

} // namespace dotlane::aside
