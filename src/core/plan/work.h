// What the planner is given: the lines of each lane on each sheet; and its reasons.
#pragma once

#include <algorithm>
#include <memory>
#include <string>
#include <vector>

#include "core/catalog/catalog.h"
#include "core/geometry/polyline.h"
#include "core/machine/program.h"
#include "core/plan/route.h"
#include "core/plan/tool_path.h"
#include "core/project/project.h"

namespace dotlane {

/// The lines of one lane on one sheet, in the order in which they were drawn.
struct LaneLines {
    Polylines lines;          ///< mm on the sheet
    std::vector<StrokeOf> of; ///< one for each of `lines`
    /// Of each line: those of one block, > 0, are run in their order and one behind the other; 0: as it takes
    /// the least travel. Empty: all are.
    std::vector<std::uint32_t> block = {};
    bool operator==(const LaneLines&) const = default;
};

/// The same as they are run.
struct RoutedPass {
    std::vector<Stroke> strokes;
    Length travel_as_drawn;           ///< had they been run as they were drawn
    std::size_t outlines_waiting = 0; ///< closed lines that were put behind what lies in them
};
/// How the lines are run; what the tool needs besides has no say in it.
RouteResult route_lines(const LaneLines& lines, const RouteOptions& options, LineStart start,
                        Progress& progress);
/// `route`: of these lines, with the start of this path.
RoutedPass route_pass(const LaneLines& lines, const RouteResult& route, Point rest, const ToolPath& path,
                      int repeats);

/// What a maker wishes of the order.
struct PlanOptions {
    std::vector<LaneId> order = {}; ///< of all lanes; empty: the usual one
    PlanWishes wishes = {};
    Effort effort = Effort::best; ///< of many sheets
    bool operator==(const PlanOptions&) const = default;
};

struct LaneWork {
    Lane lane;
    std::string plate;
    const Tool* tool = nullptr;
    std::shared_ptr<const LaneLines> lines = {};   ///< never null
    std::shared_ptr<const RoutedPass> routed = {}; ///< null for lanes that no machine runs
    PassSetting setting = {};                      ///< of the tool for the stock of this sheet
    Speed speed = {};                              ///< 0: the tool's own
    int passes = 1;                                ///< that the stock needs
    Duration dry = {};                             ///< until what it leaves can be touched
    Duration time = {};                            ///< of the machine; known where it is asked for
    int repeats() const { return std::max(lane.repeats, passes); }
    /// Nobody has tried this tool on this stock.
    bool untried() const { return setting.from.empty() || setting.from == key_of(Setting::From::catalog); }
    bool operator==(const LaneWork&) const = default;
};

/// The pass of a lane that a tool runs, without its number, its slot and the label of its tool.
PassMove pass_move(const LaneWork& work, const ProgramSheet& sheet);
/// That it takes, from rest to rest.
Duration machine_time(const LaneWork& work, const ProgramSheet& sheet, const Motion& motion);

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

inline constexpr const char* stop_reason = "stop"; ///< the code of those that tell of one stop

/// Why the planner did what it did.
struct Reason {
    std::string code;
    Phrase sentence;
    bool operator==(const Reason&) const = default;
};

} // namespace dotlane
