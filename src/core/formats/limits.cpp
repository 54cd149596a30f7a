#include "core/formats/limits.h"

#include "core/base/text.h"

namespace dotlane {
Phrase words(const ReadLimits& limits) {
    return say("more than %1 lines or %2 segments", with_thousands(limits.lines),
               with_thousands(limits.segments));
}

Phrase what_to_do_when_large() {
    return say(
        "Simplify it where it was drawn or leave parts of it out; or open it all the same, which may take "
        "minutes.");
}

} // namespace dotlane
