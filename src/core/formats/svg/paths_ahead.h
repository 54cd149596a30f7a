// Path data of a large drawing, parsed on all cores before the walk asks for it: most of what reading takes.
// Internal to formats/svg.
#pragma once

#include <string_view>
#include <vector>

#include "core/base/progress.h"
#include "core/formats/svg/path_data.h"

namespace dotlane::svg {

class PathsAhead {
  public:
    /// An attribute of the document, in the order in which they stand there: its text lies behind that of all
    /// that were added before.
    void add(const char* data) { data_.push_back(data); }
    /// Parses them when they are many; as far as it gets when it is cancelled.
    void parse(const Progress& progress);
    /// Of one of them. What was taken before, or not parsed ahead, is parsed now.
    PathData take(const char* data);

  private:
    std::vector<const char*> data_;
    std::vector<PathData> parsed_; ///< as data_; empty when it was not worth it
    std::vector<char> done_;
    std::size_t next_ = 0; ///< where the walk most likely is
};

} // namespace dotlane::svg
