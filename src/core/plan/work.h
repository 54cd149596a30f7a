// What the planner is given: the lines of each lane on each sheet; and its reasons.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/catalog/catalog.h"
#include "core/geometry/polyline.h"
#include "core/machine/program.h"
#include "core/project/project.h"

namespace dotlane {

/// The lines of one lane on one sheet.
struct LaneWork {
    Lane lane;
    std::string plate;
    const Tool* tool = nullptr;
    Polylines lines;               ///< mm on the sheet
    std::vector<StrokeOf> of = {}; ///< one for each of `lines`
};

/// Which side of the stock lies up: parts that are mirrored are worked from behind.
enum class Face { up, down, both };

struct SheetWork {
    ProgramSheet sheet;
    double price = 0;
    std::string stock_name;
    std::vector<LaneWork> lanes;
    Length thickness = {};
    Face face = Face::up;
    std::optional<PrintSheet> print = {}; ///< what is printed on it
};

/// Why the planner did what it did.
struct Reason {
    std::string code, sentence;
    bool operator==(const Reason&) const = default;
};

} // namespace dotlane
