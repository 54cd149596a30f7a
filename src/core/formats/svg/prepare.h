// From the bytes of a file to text that the XML parser may see: unpacks .svgz, expands the file's own
// entities within limits, refuses entity bombs. Nothing outside the file is ever read.
#pragma once

#include <string>

#include "core/base/result.h"

namespace dotlane::svg {

struct Prepared {
    std::string text;
    int external_references = 0; ///< external entities and DTDs that were not followed
};

/// Errors: "svg.empty", "svg.packed" (broken gzip), "svg.large" (unpacks to more than `most_bytes`),
/// "svg.entities".
Result<Prepared> prepare(std::string bytes, std::size_t most_bytes);

} // namespace dotlane::svg
