// What a kind of step says of itself. Each kind is a file in this folder: its numbers, how they are declared,
// and its row; what it does to lines is in core/recipe/steps. The list of all kinds is in
// core/project/steps.h, and nothing else names one, unless tests/house/kinds_test.cpp says why.
//
// A kind may also have
//   PartId* lender()                       where it names the part whose lines it takes; null: takes none now
//   bool follows_own() const               follows the outline of the part that it is on
//   const char* role() const               of the lines it brings, which proposes their lane
//   std::vector<const char*> roles() const   of lines it makes, as it is set, for lanes beside its own
//   void suit(Action)                      first choices for what its lane does
//   bool looks_around() const              needs the lines that it does not work on, and their box
//   FillTone* tones()                      how dark it is from place to place; null: the same everywhere
//   void keep_only(int layer)               of its line sets, from 1; 0: of all. What it makes of the others
//   is left
//                                           to other parts
//   void press(int piece)                  what a press on a numbered piece changes
//   friend bool press_place(Kind&, const StepInput&, Point)   a press on the bench, of kinds with `press`
//   friend bool mend(Kind&, const Finding&, const InkReport*)   applies a remedy of one of its own findings
#pragma once

#include <optional>
#include <string>

#include "core/base/progress.h"
#include "core/base/units.h"
#include "core/geometry/point.h"
#include "core/project/fields.h"

namespace dotlane {

struct Finding;     // core/base/finding.h
struct InkReport;   // core/recipe/state.h
struct MakeInput;   // core/sources/make.h
struct SourceLines; // core/project/drawing.h
struct StepInput;   // core/recipe/step.h
struct StepOutcome; // core/recipe/step.h

struct StepRow {
    const char* key;   ///< "cut-out": in files and on the command line
    const char* name;  ///< "Cut out"
    const char* about; ///< what it does, one sentence
    /// What a maker is after who looks for it.
    enum class Wanted { unsaid, edge, fill, join, fold, fabric, stencil, place, words };
    Wanted wanted;
    bool makes = false; ///< makes new lines, for a lane of their own
    enum class Second { none, wanted, possible, spared };
    Second second = Second::none; ///< a second choice of line sets; spared: what it keeps off
    bool brings = false;          ///< what it makes comes from no lines that are there: words, another part
    bool numbers = false;         ///< is given digits in strokes, to number what it makes
    bool by_role = false;         ///< its lane is proposed by its role, not by the lines that it works on
    bool replaces = false;        ///< what it makes stands for what it works on, which is set aside
    bool inks = false;     ///< fills areas with the tip of its lane's tool, and answers with an ink report
    bool places = false;   ///< needs the box of all lines that it does not work on
    bool behind = false;   ///< what it makes lies behind all that is drawn, otherwise in front of it
    bool one_lane = false; ///< all that it works on runs in one lane afterwards
    bool begins = false;   ///< offered where a part begins: a word with this step on it
    const char* press = nullptr; ///< "Bridges": what presses on the bench put or take away; null: nothing
    bool layers = false;         ///< each line set is a layer, and what becomes of one depends on the others
    bool prints = false;         ///< what it works on is printed
    bool foiled = false; ///< unless lines are chosen it works on those that are run through foil, fills too
    bool counts_pieces = false; ///< names pieces by their numbers
};

} // namespace dotlane
