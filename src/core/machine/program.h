// The program a cutter runs: machine-neutral, complete, in millimetres on the sheet as loaded. Everything
// that leaves the planner leaves through here: exports, the rehearsal, later the device.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/base/id.h"
#include "core/base/units.h"
#include "core/geometry/polyline.h"
#include "core/project/drawing.h"
#include "core/project/project.h"

namespace dotlane {

/// What the hands do at a stop, one sentence each, in order.
struct HandStep {
    enum class Kind {
        print,
        cool,
        dry,
        lift_off,
        unload,
        take_out,
        put_in,
        depth,
        lay_on,
        load,
        warm_up,
        test,
        meanwhile,
        care
    } kind = Kind::load;
    Phrase text;
    bool operator==(const HandStep&) const = default;
};

/// A moment at which hands are needed.
struct StopMove {
    int number = 0; ///< 1-based
    SheetId sheet;  ///< the sheet that lies in the machine afterwards; none at the end
    std::vector<HandStep> steps;
    Duration time;
    std::vector<Phrase> holds = {}; ///< what each slot holds afterwards; empty text: nothing
    Duration meanwhile = {};        ///< of the hands after it, while the machine runs
    bool operator==(const StopMove&) const = default;
};

/// Whose a stroke is, as the document names it: what was drawn can be traced back to what was made.
struct StrokeOf {
    PartId part;
    PlacementId placement;
    LineSetId line_set;
    StepId step;               ///< that made it; none: a line of the source, perhaps changed by steps
    LineId line;               ///< none for a fill, whose strokes belong to no single line
    std::uint32_t contour = 0; ///< of the line, or the stroke of the fill, as the part was made; from 0
    bool operator==(const StrokeOf&) const = default;
};

/// One run of the tool, as the carriage goes (mm on the sheet, as the mark of a plain tool would lie); a
/// closed one starts and ends at its first point.
struct Stroke : Polyline {
    StrokeOf of;
    bool operator==(const Stroke&) const = default;
};

/// What a tool is set to, as far as it is known, and whence.
struct PassSetting {
    std::optional<double> pressure; ///< as the machine counts it
    std::optional<Length> depth;    ///< that a blade looks out
    std::string from;               ///< "catalog", "maker", "swatch"; empty: nothing is known
    std::string note;
    bool operator==(const PassSetting&) const = default;
};

/// "pressure 80, tip out 0.38 mm (from a swatch)"; empty where nothing is known.
Phrase words(const PassSetting& setting);

/// One tool running over one sheet without a hand touching anything.
struct PassMove {
    int number = 0; ///< 1-based over the whole job
    SheetId sheet;
    LaneId lane;
    Action action = Action::cut;
    std::string lane_name, plate;
    Phrase tool, slot;
    Colour colour;
    Length tip;
    Speed speed;
    int repeats = 1;     ///< times that all the strokes are run, at least 1
    Duration dwell = {}; ///< the tool rests so long where it has landed
    /// Where the tip touches, seen from where a plain tool's would: it is taken off all strokes, which say
    /// where the carriage goes.
    Point offset = {};
    PassSetting setting = {};
    std::vector<Stroke> strokes; ///< in running order
    bool operator==(const PassMove&) const = default;
};

/// Strokes run, repeats counted.
inline std::size_t runs(const PassMove& pass) {
    return pass.strokes.size() * static_cast<std::size_t>(pass.repeats);
}
/// The stroke that is run as number `run`, from 0, below runs(pass).
inline const Stroke& stroke_of(const PassMove& pass, std::size_t run) {
    return pass.strokes[run % pass.strokes.size()];
}
/// Of all strokes, once.
Length length(const std::vector<Stroke>& strokes);

using Move = std::variant<StopMove, PassMove>;

inline constexpr Length usual_deviation = mm(0.05); ///< from corners, where nothing is said of it

/// The motion the machine is capable of; copied in, so that a program can be timed on its own.
struct Motion {
    Speed travel;
    Acceleration acceleration;
    Length deviation; ///< how far from a corner the tool may be as it passes without stopping (motion.h)
    Duration lift, lower;
    bool operator==(const Motion&) const = default;
};

struct ProgramSheet {
    SheetId sheet;
    std::string name;
    Phrase stock, mat;
    Length mat_width, mat_height;
    Box usable, stock_area;
    Colour colour;
    bool operator==(const ProgramSheet&) const = default;
};

/// One line of what is printed, with the colours it was drawn in; mm on the mat.
struct PrintShape {
    Polylines contours;
    FillRule rule = FillRule::nonzero;
    Drawn drawn;
    bool operator==(const PrintShape&) const = default;
};

/// A picture that is printed in place of the lines that were traced from it; mm on the mat.
struct PrintPicture {
    std::shared_ptr<const std::string> bytes; ///< of the PNG or JPEG file, never null
    Length width;                             ///< of the whole picture, before `to_sheet`
    Affine to_sheet;                          ///< from mm of the picture, from its top left corner
    Polylines art;   ///< inside of them its own colours are seen, where it is; even-odd
    Polylines whole; ///< all that is printed; beyond the art the colour of the art that is nearest; even-odd
    std::size_t lines = 0; ///< contours that it stands for
    bool operator==(const PrintPicture& o) const {
        return *bytes == *o.bytes && width == o.width && to_sheet == o.to_sheet && art == o.art &&
               whole == o.whole && lines == o.lines;
    }
};

/// What is printed on a sheet of stock before the machine has it, true to size.
struct PrintSheet {
    ProgramSheet sheet;
    std::vector<PrintPicture> pictures; ///< behind all shapes
    std::vector<PrintShape> shapes;     ///< the hindmost first
    std::vector<Polyline>
        marks; ///< near the corners that the tool reaches, where no part lies: crosses, two lines each
    std::optional<Box> square; ///< to be measured on the print; none when nowhere is free
    bool operator==(const PrintSheet&) const = default;
};

/// A part that strokes name, so that a program can be spoken of without its project.
struct ProgramPart {
    PartId part;
    std::string name;
    std::vector<PlacementId> placements;        ///< its copies, in the order of the sheets
    std::map<LineSetId, Phrase> line_sets;      ///< their names
    std::map<std::uint32_t, std::string> lines; ///< names of source lines that have one of their own
    bool operator==(const ProgramPart&) const = default;
};

struct Program {
    std::string project;
    Phrase machine;
    std::vector<ProgramPart> parts;
    std::vector<Phrase> slots; ///< names, left to right
    std::vector<PrintSheet> prints;
    std::vector<ProgramSheet> sheets;
    Motion motion;
    std::vector<Move> moves;
    bool operator==(const Program&) const = default;
};

/// "heron of Invitation, copy 2": the line by its own name or that of its line set, the copy only where there
/// are several. Empty when the program does not know.
Phrase spoken(const Program& program, const StrokeOf& of);

/// Where the carriage rests between passes: the usable area's top-left corner of a sheet.
Point rest_position(const Program& program, SheetId sheet);

} // namespace dotlane
