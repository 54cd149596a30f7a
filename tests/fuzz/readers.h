// Every reader of bytes that come from outside, with what must hold whatever they are: a result or a clear
// error, numbers that a project may hold, a project that can be written, read again and planned. Used with
// seeded mutations in the tests and with libFuzzer (./dotlane.sh fuzz).
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace dotlane::fuzz {

struct Reader {
    const char* name; ///< also of its folder in corpus/
    /// Empty when all held, else what did not.
    std::string (*read)(std::string bytes);
    /// Words of the format for mutations to put in.
    std::vector<std::string> words;
};
const std::vector<Reader>& readers();

} // namespace dotlane::fuzz
