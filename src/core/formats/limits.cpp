#include "core/formats/limits.h"

#include "core/base/text.h"

namespace dotlane {
std::string words(const ReadLimits& limits) {
    return "more than " + with_thousands(limits.lines) + " lines or " + with_thousands(limits.segments) +
           " segments";
}

} // namespace dotlane
