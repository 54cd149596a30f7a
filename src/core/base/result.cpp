#include "core/base/result.h"

#include <cstdio>
#include <cstdlib>

namespace dotlane {

std::string to_text(const Error& error) {
    std::string text = error.message;
    if (error.place.file.empty() && error.place.line == 0) return text;
    text += " (";
    text += error.place.file;
    if (error.place.line > 0) {
        if (!error.place.file.empty()) text += ", ";
        text += "line " + std::to_string(error.place.line);
    }
    return text + ")";
}

void invariant_broken(const char* condition, const char* file, int line) {
    std::fprintf(stderr, "dot-lane: internal check failed: %s (%s:%d)\n", condition, file, line);
    std::abort();
}

} // namespace dotlane
