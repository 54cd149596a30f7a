// The part of the window's figures that runs in a process of its own.
#pragma once

#include <string>

namespace dotlane::bench {

/// Shows an "empty" main window or the "demo" and ends the process once it is painted.
int first_paint(const std::string& what);

} // namespace dotlane::bench
