// Times of whole processes, for work whose reference is a program.
#pragma once

#include <string>
#include <vector>

namespace dotlane::bench {

/// Seconds from start to end of a program, its output thrown away; negative when it could not be run or
/// failed.
double seconds_of(const std::vector<std::string>& command);

/// The most memory that a program had, MB; negative as above.
double megabytes_of(const std::vector<std::string>& command);

/// The middle of the values.
double median(std::vector<double> values);

} // namespace dotlane::bench
