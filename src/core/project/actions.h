// What tools do to lines: one table, complete by static_assert. A further action is an enumerator, its row,
// the look of its lines (present/lane_style.cpp) and tools in the catalog that do it.
#pragma once

#include <initializer_list>
#include <optional>
#include <string_view>

#include "core/base/phrase.h"

namespace dotlane {

enum class Action { draw, engrave, foil, emboss, score, perforate, cut, print };
inline constexpr auto last_action = Action::print;
inline constexpr Action all_actions[] = {Action::draw,  Action::engrave,   Action::foil, Action::emboss,
                                         Action::score, Action::perforate, Action::cut,  Action::print};

struct ActionRow {
    Action action;
    const char* key;          ///< "cut": in files and on the command line
    char letter;              ///< on a lane's plate, and its key
    int rank;                 ///< in the usual order of passes: marks before folds before what comes loose
    bool marks = false;       ///< inks or dents a surface: fills run in such lanes
    bool parts = false;       ///< goes through the stock: what it runs around comes loose
    bool tool_colour = false; ///< its colour is that of the pen or the foil: each colour is a tool of its own
    bool light_first = false; ///< lighter colours before darker ones
    bool under_sheet = false; ///< its tool presses on a sheet of foil that is laid over the stock
    bool thin_lines =
        false; ///< what is too narrow to be filled is run along its middle, unless told otherwise
    bool keeps_off = false; ///< lines lie no nearer than its tip is wide: beside a dent is no second one
    bool folds = false;     ///< its lines are valleys or mountains
    bool run = true;        ///< a cutter runs it; otherwise it is printed before
    bool everyday = false;  ///< its words stand in many names: those of others in the same name count first
    std::string_view words[4] = {}; ///< that names of layers and lines begin with, when they mean it
};
const ActionRow& row(Action action);

/// The key; "cut".
const char* action_name(Action action);
/// The same, to be said.
Phrase word(Action action);
std::optional<Action> action_from_name(std::string_view name);
inline char action_letter(Action action) {
    return row(action).letter;
}
inline bool parts_material(Action action) {
    return row(action).parts;
}

} // namespace dotlane
