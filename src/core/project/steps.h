// The steps of a recipe: plain values, each with its numbers declared once in `fields`. What a step does is
// in recipe/. Steps that change lines in place keep their line sets and lanes; steps that make new lines
// (fill, outline) have a line set of their own for them.
#pragma once

#include <optional>
#include <set>
#include <string>
#include <variant>
#include <vector>

#include "core/base/id.h"
#include "core/base/units.h"
#include "core/project/fields.h"
#include "core/project/sources.h"

namespace dotlane {

/// Parallel fill of closed lines.
struct FillStep {
    Length spacing = mm(0.4);    ///< between neighbouring lines, 0.05..50 mm
    Angle angle;                 ///< of the lines, any
    std::optional<Length> inset; ///< from the edge, 0..100 mm; empty: half the tip of the lane's tool
    bool joined = true;          ///< ends joined along the edge, otherwise a lift after each line
    bool alternate = true;       ///< every other line runs backwards
    bool operator==(const FillStep&) const = default;
};

/// To a width, a height (0.1 mm .. 10 m) or a share, about the middle, every line keeping its place.
struct ResizeStep {
    enum class By { width, height, percent };
    By by = By::width;
    Length size = mm(100);
    double percent = 100;
    bool operator==(const ResizeStep&) const = default;
};

/// About the middle of the chosen lines.
struct MirrorStep {
    enum class Way { left_right, top_bottom };
    Way way = Way::left_right;
    bool operator==(const MirrorStep&) const = default;
};

/// Clockwise about the middle of the chosen lines.
struct TurnStep {
    Angle by = degrees(90);
    bool operator==(const TurnStep&) const = default;
};

/// Moves the chosen lines, as one, to an edge or the middle of the second choice; without one, of all the
/// others.
struct AlignStep {
    enum class Across { leave, left, middle, right };
    enum class Down { leave, top, middle, bottom };
    Across across = Across::middle;
    Down down = Down::middle;
    Length right_by, down_by; ///< further moved by, -2000..2000 mm
    bool operator==(const AlignStep&) const = default;
};

/// Spreads the chosen line sets evenly; a single set's lines one by one.
struct DistributeStep {
    enum class Way { across, down };
    enum class Even { gaps, middles };
    enum class Within { own, rest };
    Way way = Way::across;
    Even even = Even::gaps;
    Within within = Within::own; ///< the outermost stay where they are, or go to the edges of the other lines
    Length inset;                ///< from those edges, -500..500 mm
    bool operator==(const DistributeStep&) const = default;
};

/// Words on the part: a greeting, a name, a number. Made like a part of lettering, then turned and put at an
/// edge or the middle of all the other lines.
struct WordsStep {
    Lettering lettering = greeting();
    Angle turn; ///< clockwise
    AlignStep place{AlignStep::Across::middle, AlignStep::Down::middle, {}, {}};
    bool operator==(const WordsStep&) const = default;

  private:
    static Lettering greeting() {
        Lettering l;
        l.text = "Bring a light", l.kind = Lettering::Kind::strokes, l.font = "Script simplex",
        l.size = mm(7);
        return l;
    }
};

/// Lines of another part, which they follow when it changes: its outline, or all that are cut of it (when
/// none are, all that are run). Turned, resized and put like words.
struct PartStep {
    enum class Take { outline, lines };
    PartId of;
    Take take = Take::outline;
    double percent = 100; ///< 1..10,000
    Angle turn;           ///< clockwise
    AlignStep place{AlignStep::Across::middle, AlignStep::Down::middle, {}, {}};
    bool operator==(const PartStep&) const = default;
};

/// Copies in rows and columns, or around a ring.
struct CopiesStep {
    enum class Layout { grid, ring };
    Layout layout = Layout::grid;
    int columns = 2, rows = 1; ///< 1..200
    Length gap_across = mm(2), gap_down = mm(2);
    int count = 6;          ///< around the ring, 1..500
    Length radius = mm(30); ///< of the ring, through the middles
    bool turned = true;     ///< copies look outwards, otherwise all stay upright
    bool operator==(const CopiesStep&) const = default;
};

/// Closed lines that overlap become one outline.
struct JoinStep {
    bool fill_overlaps = true; ///< what two lines both cover is kept
    bool operator==(const JoinStep&) const = default;
};

/// Lines at a distance around (or, when negative, inside) closed lines.
struct OutlineStep {
    enum class Corners { round, mitred, bevelled };
    Length distance = mm(3); ///< -500..500 mm
    int rings = 1;           ///< 1..50
    Length gap = mm(2);      ///< between rings
    Corners corners = Corners::round;
    double mitre_limit = 4;  ///< times the distance, 1..50
    bool outer_only = true;  ///< holes are filled
    Length fill_holes_under; ///< or only those narrower than this, 0: none
    bool operator==(const OutlineStep&) const = default;
};

/// Takes the area of other lines out of the chosen ones, or keeps only what lies in both.
struct CutOutStep {
    enum class Keep { rest, overlap };
    Keep keep = Keep::rest;
    Length margin; ///< the others are grown by this first, -100..100 mm
    bool operator==(const CutOutStep&) const = default;
};

/// Holes of closed lines vanish.
struct FillHolesStep {
    std::optional<Length> under; ///< only those whose square root of area is below this; empty: all
    bool operator==(const FillHolesStep&) const = default;
};

/// Pieces, numbered from left to right: those named are dropped.
struct PiecesStep {
    std::string drop; ///< "2, 5-7"
    bool operator==(const PiecesStep&) const = default;
};

/// On the sheet the pieces may lie one by one instead of in their arrangement; some keep together.
struct ApartStep {
    std::string together; ///< arrangements of pieces that stay, "1-3; 5, 6"
    bool whole = true;    ///< what was drawn as one line stays one piece: an i and its dot
    bool operator==(const ApartStep&) const = default;
};

/// Takes away what cannot be made or is there twice.
struct CleanStep {
    Length least_size = mm(0.5); ///< pieces that are smaller across are dropped, 0..100 mm
    Length least_width;          ///< necks and slivers narrower than this are opened away, 0..20 mm
    Length simplify = mm(0.02);  ///< points that move the line by less are dropped, 0..5 mm
    Length close;                ///< open ends nearer to each other than this are joined, 0..50 mm
    bool doubled = true;         ///< lines that lie on one another are kept once
    bool operator==(const CleanStep&) const = default;
};

/// Sharp corners of lines become arcs or straight cuts.
struct CornersStep {
    enum class Kind { round, chamfer };
    Kind kind = Kind::round;
    Length radius = mm(3);            ///< of the arc, or along each side, 0.05..500 mm
    Angle sharper_than = degrees(30); ///< only where the line turns by more
    bool operator==(const CornersStep&) const = default;
};

/// Lines become dashes; open lines begin and end on one.
struct DashStep {
    Length dash = mm(3),
           gap = mm(1.5); ///< wished, 0.2..200 mm; the gap is stretched so that it comes out even
    Length setback;       ///< open lines stop this far before their ends, 0..50 mm
    bool operator==(const DashStep&) const = default;
};

using StepWhat = std::variant<FillStep, ResizeStep, MirrorStep, TurnStep, AlignStep, CopiesStep, JoinStep,
                              OutlineStep, CutOutStep, FillHolesStep, PiecesStep, CleanStep, CornersStep,
                              DashStep, WordsStep, DistributeStep, PartStep, ApartStep>;

/// The numbers in "2, 5-7", each from 1 to 100,000. Error "step.pieces".
Result<std::vector<int>> piece_numbers(const std::string& text);
std::string piece_text(const std::set<int>& numbers);
/// The groups in "1-3; 5, 6". Error "step.pieces".
Result<std::vector<std::set<int>>> piece_groups(const std::string& text);
std::string group_text(const std::vector<std::set<int>>& groups);

/// The part whose lines the step brings or follows; none when it does neither.
PartId borrows_from(const StepWhat& what);
/// Whether the step brings lines of its own, which do not come from any that are there: words, another part.
bool brings(const StepWhat& what);

/// Shows every member to the visitor.
void fields(StepWhat& what, Fields& f);

struct StepKind {
    const char* key;   ///< "cut-out": in files and on the command line
    const char* name;  ///< "Cut out"
    const char* about; ///< what it does, one sentence
    StepWhat fresh;
    bool makes = false; ///< makes new lines, for a lane of their own
    enum class Second { none, wanted, possible };
    Second second = Second::none; ///< a second choice of line sets
};
/// In the order in which they are offered.
const std::vector<StepKind>& step_kinds();
const StepKind& kind_of(const StepWhat& what);
const StepKind* step_kind(std::string_view key);

/// One live operation of a recipe.
struct Step {
    StepId id;
    bool on = true;
    LaneId lane; ///< receives the lines it makes
    StepWhat what;
    std::vector<LineSetId> of = {}; ///< line sets it works on; empty: all that is there
    std::vector<LineSetId> by = {}; ///< the second choice, such as what is cut out
    LineSetId result = {};          ///< of the lines it makes; later steps name it in `of`
    bool aside = false;             ///< the lines it makes are not run; only later steps use them
    bool operator==(const Step&) const = default;
};

} // namespace dotlane
