// Where the program's data lies: beside an installed program, or in the source tree of a build.
#pragma once

#include <string>

namespace dotlane {

/// The folder with catalog/, demo/, fonts/, icons/. DOTLANE_DATA overrides it.
std::string data_folder();
/// $XDG_DATA_HOME/dot-lane/catalog: the user's own machines, tools and stocks.
std::string user_catalog_folder();
/// $XDG_STATE_HOME/dot-lane: recovery copies and recent files.
std::string state_folder();

} // namespace dotlane
