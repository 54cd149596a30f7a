// The lines of a file, kept as they came. It has no row: it is opened, not made from numbers.
#pragma once

#include "core/project/sources/kind.h"

namespace dotlane {

struct FromFile {
    bool operator==(const FromFile&) const = default;
    friend void fields(FromFile&, Fields&) {}
    friend Result<SourceLines> make(const FromFile& spec, const MakeInput& in);
};

} // namespace dotlane
