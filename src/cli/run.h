// The command line program as a function, for main and for tests.
#pragma once

#include <iosfwd>

namespace dotlane {
class FileSystem;
}

namespace dotlane::cli {

/// Parses, runs, answers with the exit code: 0 fine, 1 error findings, 2 bad input or usage.
int run(int argc, const char* const* argv, FileSystem& files, std::ostream& out, std::ostream& err);

} // namespace dotlane::cli
