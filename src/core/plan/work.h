// What the planner is given: the lines of each lane on each sheet; and its reasons.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "core/catalog/catalog.h"
#include "core/geometry/polyline.h"
#include "core/machine/program.h"
#include "core/plan/route.h"
#include "core/project/project.h"

namespace dotlane {

/// The lines of one lane on one sheet, in the order in which they were drawn.
struct LaneLines {
    Polylines lines;          ///< mm on the sheet
    std::vector<StrokeOf> of; ///< one for each of `lines`
    bool operator==(const LaneLines&) const = default;
};

/// The same as they are run.
struct RoutedPass {
    std::vector<Stroke> strokes;
    Length travel_as_drawn;           ///< had they been run as they were drawn
    std::size_t outlines_waiting = 0; ///< closed lines that were put behind what lies in them
};
RoutedPass route_pass(const LaneLines& lines, const RouteOptions& options, int repeats, Progress& progress);

struct LaneWork {
    Lane lane;
    std::string plate;
    const Tool* tool = nullptr;
    std::shared_ptr<const LaneLines> lines = {};   ///< never null
    std::shared_ptr<const RoutedPass> routed = {}; ///< null for lanes that no machine runs
    bool operator==(const LaneWork&) const = default;
};

/// Which side of the stock lies up: parts that are mirrored are worked from behind.
enum class Face { up, down, both };

struct SheetWork {
    ProgramSheet sheet;
    double price = 0;
    Phrase stock_name;
    std::vector<LaneWork> lanes;
    Length thickness = {};
    Face face = Face::up;
    std::shared_ptr<const PrintSheet> print = {}; ///< what is printed on it; may be null
    bool operator==(const SheetWork&) const = default;
};

/// Why the planner did what it did.
struct Reason {
    std::string code;
    Phrase sentence;
    bool operator==(const Reason&) const = default;
};

} // namespace dotlane
