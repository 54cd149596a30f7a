// What a style of fill says of itself. Each style is a file in this folder: its own numbers, how they are
// declared, and its row; the lines it draws are computed in core/recipe/fills. The list of all styles is in
// core/project/fills.h, and nothing else names one, unless tests/house/kinds_test.cpp says why.
#pragma once

#include "core/base/progress.h"
#include "core/base/units.h"
#include "core/project/fields.h"

namespace dotlane {

struct FillInput; // core/recipe/fill.h
struct FillLines; // core/recipe/fill.h

struct FillRow {
    const char* key;   ///< "parallel": in files and on the command line
    const char* name;  ///< "Parallel"
    const char* about; ///< one sentence
};

} // namespace dotlane
