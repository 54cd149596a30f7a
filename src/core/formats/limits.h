// How much of a file a reader takes before it stops and says so. Any file of up to 20 MB is then taken or
// refused within seconds and a gigabyte of memory, whatever it repeats; more is read only when it was asked
// for.
#pragma once

#include <cstddef>
#include <string>

namespace dotlane {

struct ReadLimits {
    std::size_t lines = 100'000, segments = 1'000'000; ///< of the drawing, after everything is expanded
    std::size_t visits = 1'000'000;                    ///< elements, each time a reference leads to one
    /// For who has been asked and can cancel.
    static ReadLimits large() { return {1'000'000, 10'000'000, 10'000'000}; }
};

/// "more than 100,000 lines or 1,000,000 segments": for messages, which end with what to do.
std::string words(const ReadLimits& limits);
inline constexpr const char* what_to_do_when_large = " Simplify it where it was drawn or leave parts of it "
                                                     "out; or open it all the same, which may take minutes.";

} // namespace dotlane
