// The run sheet: what a maker takes to the machine. One content, written as text here and as PDF by present.
#pragma once

#include <string>
#include <vector>

#include "core/workflow/workshop.h"

namespace dotlane {

struct RunSheetRow {
    bool stop = false;
    int number = 0;
    std::string title;              ///< "Stop 1" or "F foil: gold foil tip 0.5"
    std::string time;               ///< "4 min 10 s"
    std::vector<std::string> lines; ///< hands' steps, or the pass's figures
    Colour colour;
};

struct RunSheet {
    std::string title, subtitle;
    std::vector<std::pair<std::string, std::string>> totals; ///< "Machine", "36 min"
    std::vector<RunSheetRow> rows;
    std::vector<std::string> findings; ///< errors and cautions that stand
    std::vector<std::string> reasons, cautions;
    std::string overridden; ///< not empty: exported in spite of errors; says so
    std::vector<std::string> files;
};

RunSheet make_run_sheet(const Derived& derived, const Catalog& catalog);
std::string to_text(const RunSheet& sheet);

} // namespace dotlane
