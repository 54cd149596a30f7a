// The part of the large project's figures that runs in a process of its own.
#pragma once

namespace dotlane::bench {

/// With the arguments --open-large FILE: opens and edits it. -1 with other arguments.
int open_large(int argc, char** argv);

} // namespace dotlane::bench
