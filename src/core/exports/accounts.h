// Where every line of a project went: none is lost in silence.
#pragma once

#include "core/derive/workshop.h"

namespace dotlane {

/// Contours and strokes of all parts, as often as they lie on sheets. All but `unplaced` add up to
/// what lies there.
struct LineAccount {
    std::size_t run = 0;      ///< in the passes, each once however often it is repeated
    std::size_t printed = 0;  ///< in the print files
    std::size_t left_out = 0; ///< of this run
    std::size_t aside = 0, no_lane = 0;
    std::size_t unplaced = 0; ///< of parts, or pieces of them, that lie on no sheet, once
    std::size_t placed() const { return run + printed + left_out + aside + no_lane; }
};
LineAccount account(const Derived& derived);

/// "sheet 2, "Star", lane F gold foil": what a run leaves out.
Phrase words(const NotThisRun& left_out, const Project& project);

/// "132 run, 12 printed, 3 set aside"
Phrase words(const LineAccount& account);

} // namespace dotlane
