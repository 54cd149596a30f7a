// What the hands do at a stop, in an order in which nobody touches what is hot or wet: cool, dry, lift foil
// off, unload, change tools, lay foil on, load, heat; and what they do then while the machine runs.
//
// Sources: common practice of the trade; the times stand in the catalog.
#pragma once

#include <string>
#include <vector>

#include "core/plan/meanwhile.h"
#include "core/plan/work.h"

namespace dotlane {

/// A slot before and after the stop.
struct HolderChange {
    Phrase slot;
    const Tool *before = nullptr, *after = nullptr; ///< the same label: it stays
    Phrase before_label, after_label;
    Length depth_after; ///< that a blade must be set to; 0: it need not be touched
    Phrase cuts;        ///< the stock that the depth is for
};

struct StopNeeds {
    const Machine* machine = nullptr;
    const SheetWork* from = nullptr; ///< that lies in the machine; none at the beginning
    const SheetWork* to = nullptr;   ///< that lies there afterwards; none at the end
    std::vector<HolderChange> holders;
    std::vector<const LaneWork*> ran,
        next;                            ///< passes since the last stop and until the next one, as they run
    std::vector<const SheetWork*> print; ///< printed before anything else
    std::vector<const LaneWork*>
        untried;               ///< of `next`, never tried on this stock: tools come up for the first time
    bool from_returns = false; ///< the sheet lies in the machine again later
    bool to_returned = false;  ///< it lay there before
    Meanwhile meanwhile = {};
};

StopMove stop_move(int number, const StopNeeds& needs);

/// What these passes over one sheet, as they run, take of the hands when they run without a stop between
/// them: cooling, drying, foil and heating, tools not counted.
Duration hands_around(const std::vector<const LaneWork*>& passes, const ProgramSheet& sheet);

/// What is left to wait after the last of these passes until no ink of theirs is wet: it dries while the
/// later ones run.
Duration drying(const std::vector<const LaneWork*>& passes);

/// Whether foil lies on the sheet while the lane runs.
bool under_foil(const LaneWork& work);
/// Whether hands must come between two passes over one sheet: foil is laid on, lifted off or changed.
bool foil_changes(const LaneWork& before, const LaneWork& after);

/// Pieces of foil that cover the lines with a rim to tape them by; mm on the mat, at most `most` of them. One
/// large piece when several small ones would hardly save any.
std::vector<Box> foil_pieces(const std::vector<const Polylines*>& lines, const ProgramSheet& sheet,
                             std::size_t most = 4);

/// How far the tip of a blade looks out: through the stock and a little into the mat.
Length blade_depth(Length thickness);

} // namespace dotlane
