#include "core/base/result.h"

#include <cstdio>
#include <cstdlib>

namespace dotlane {

Phrase phrase_of(const Error& error) {
    const auto& [file, line] = error.place;
    if (line <= 0) return file.empty() ? error.message : say("%1 (%2)", error.message, file);
    return file.empty() ? say("%1 (line %2)", error.message, line)
                        : say("%1 (%2, line %3)", error.message, file, line);
}

std::string to_text(const Error& error) {
    return phrase_of(error).english();
}

void invariant_broken(const char* condition, const char* file, int line) {
    std::fprintf(stderr, "dot-lane: internal check failed: %s (%s:%d)\n", condition, file, line);
    std::abort();
}

} // namespace dotlane
