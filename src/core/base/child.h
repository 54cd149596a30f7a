// Another program run as a child with limits, so that whatever it does with its input ends with it.
#pragma once

#include <string>
#include <vector>

#include "core/base/result.h"

namespace dotlane {

struct ChildLimits {
    int milliseconds = 4000;                                  ///< until it is stopped
    std::uint64_t memory = 1ULL << 30, output = 256ULL << 20; ///< bytes
};

/// What the program wrote to its standard output; it is looked for in PATH and its errors are not read.
/// Errors: "child.missing" (no such program), "child.stopped" (a limit was reached), "child.failed" (it said
/// so itself), "child.no-start".
Result<std::string> run_child(const std::vector<std::string>& words, const std::string& input,
                              const ChildLimits& limits = {});

} // namespace dotlane
