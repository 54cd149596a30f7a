// The projects opened last, newest first; kept in the state folder.
#pragma once

#include <QStringList>

#include "core/base/files.h"

namespace dotlane::app {

class Recent {
  public:
    Recent(FileSystem& files, std::string folder);
    /// Those that still exist.
    QStringList list() const;
    void add(const QString& path);
    static constexpr int most = 8;

  private:
    QStringList read() const;
    FileSystem& files_;
    std::string folder_;
};

} // namespace dotlane::app
