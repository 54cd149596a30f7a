// From the bytes of a file to text that the XML parser may see: unpacks .svgz, expands the file's own
// entities within limits, refuses entity bombs. Nothing outside the file is ever read.
#pragma once

#include <cstddef>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/result.h"

namespace dotlane::svg {

struct Prepared {
    std::string text;
    int external_references = 0; ///< external entities and DTDs that were not followed
};

/// Which line of a text an offset lies in, also when the text is no longer what it was.
class LineNumbers {
  public:
    explicit LineNumbers(std::string_view text);
    /// From 1; an offset below 0 counts as 0.
    int at(std::ptrdiff_t offset) const;

  private:
    std::vector<std::ptrdiff_t> ends_; ///< of lines
};

/// Errors: "svg.empty", "svg.packed" (broken gzip), "svg.large" (unpacks to more than `most_bytes`),
/// "svg.entities".
Result<Prepared> prepare(std::string bytes, std::size_t most_bytes);

} // namespace dotlane::svg
