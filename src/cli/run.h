// The command line program as a function, for main and for tests.
#pragma once

#include <iosfwd>

namespace dotlane {
class FileSystem;
class Workshop;
} // namespace dotlane

namespace dotlane::cli {

/// Parses, runs, answers with the exit code: 0 fine, 1 error findings, 2 bad input or usage.
/// `workshop`: keeps what was worked out for the verb that is run next; none: one of its own.
int run(int argc, const char* const* argv, FileSystem& files, std::ostream& out, std::ostream& err,
        Workshop* workshop = nullptr);

} // namespace dotlane::cli
