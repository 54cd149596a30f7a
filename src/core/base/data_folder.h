// Where the program's data lies: beside the program, installed or in its build tree, wherever that was
// copied.
#pragma once

#include <string>

namespace dotlane {

/// The folder with catalog/, demo/, fonts/, icons/. DOTLANE_DATA overrides it.
std::string data_folder();
/// The same without DOTLANE_DATA: share/dot-lane relative to the program, else in $XDG_DATA_DIRS.
std::string shipped_data_folder();
/// $XDG_DATA_HOME/dot-lane/catalog: the user's own machines, tools and stocks.
std::string user_catalog_folder();
/// $XDG_STATE_HOME/dot-lane: recovery copies and recent files.
std::string state_folder();

} // namespace dotlane
