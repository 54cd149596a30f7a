// The part of the window's figures that runs in a process of its own.
#pragma once

namespace dotlane::bench {

/// With the arguments --first-paint empty or --first-paint demo: shows an empty main window or the demo and
/// ends the process once it is painted.
int first_paint(int argc, char** argv);

} // namespace dotlane::bench
