// What the figures are to reach. Every goal is a ratio to something measured in the same run, or a count,
// never a time that depends on the machine alone; the end of the run lists them.
#pragma once

#include <string>

namespace dotlane::bench {

/// `figure` is to be at most `most`; the last figure of a name counts.
void goal(const std::string& name, double figure, double most);

/// Prints the goals of this run.
void print_goals();

} // namespace dotlane::bench
