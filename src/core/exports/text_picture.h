// Pictures made of characters, for run sheets that are read as plain text.
#pragma once

#include <string>
#include <vector>

#include "core/exports/run_sheet.h"

namespace dotlane {

/// The mat from above, its loading edge on top; each part as a frame with its number in it. Lines of at most
/// `columns` characters.
std::vector<std::string> sheet_picture(const RunSheetPicture& sheet, int columns = 42);

/// A line for each lane that runs, time running right: # where its pass runs; above them an o for each stop.
std::vector<std::string> board_picture(const Derived& derived, const Speaker& speak = in_english,
                                       int columns = 60);

} // namespace dotlane
