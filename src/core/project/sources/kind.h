// What a kind of source says of itself. Each kind is a file in this folder: its numbers, how they are
// declared, and its row; what it computes is in core/sources. The list of all kinds is in
// core/project/sources.h, and nothing else names one, unless tests/house/kinds_test.cpp says why.
//
// A kind may also have
//   PartId* lender()                         where it names the part whose outline it takes; null: takes none
//   std::vector<std::string> roles() const   of its lines, where they are known without making them; else
//   empty static Kind sample()                     as it is pictured where it is offered
#pragma once

#include <string>
#include <vector>

#include "core/base/units.h"
#include "core/project/fields.h"
#include "core/project/roles.h"

namespace dotlane {

struct MakeInput;   // core/sources/make.h
struct SourceLines; // core/project/drawing.h

struct SourceRow {
    const char* key;   ///< "folded-card": in files and on the command line
    const char* name;  ///< "Folded card"
    const char* about; ///< one sentence
    /// What a maker is after who looks for it.
    enum class Wanted { unsaid, folded, shapes, words, patterns, files };
    Wanted wanted;
    bool offered = true; ///< can be begun from nothing
};

} // namespace dotlane
