#include "core/project/actions.h"

#include <iterator>

namespace dotlane {
namespace {

constexpr ActionRow actions[] = {
    {.action = Action::draw,
     .key = "draw",
     .letter = 'D',
     .rank = 1,
     .marks = true,
     .tool_colour = true,
     .light_first = true,
     .everyday = true,
     .words = {"draw", "pen", "sketch", "write"}},
    {.action = Action::engrave,
     .key = "engrave",
     .letter = 'E',
     .rank = 2,
     .marks = true,
     .thin_lines = true,
     .words = {"engrav", "etch"}},
    {.action = Action::foil,
     .key = "foil",
     .letter = 'F',
     .rank = 3,
     .marks = true,
     .tool_colour = true,
     .under_sheet = true,
     .thin_lines = true,
     .words = {"foil", "gild"}},
    {.action = Action::emboss,
     .key = "emboss",
     .letter = 'M',
     .rank = 4,
     .marks = true,
     .keeps_off = true,
     .words = {"emboss", "deboss"}},
    {.action = Action::score,
     .key = "score",
     .letter = 'S',
     .rank = 5,
     .folds = true,
     .words = {"score", "fold", "crease"}},
    {.action = Action::perforate,
     .key = "perforate",
     .letter = 'H', // holes
     .rank = 6,
     .parts = true,
     .words = {"perf"}},
    {.action = Action::cut,
     .key = "cut",
     .letter = 'C',
     .rank = 7,
     .parts = true,
     .everyday = true,
     .words = {"cut", "knife"}},
    {.action = Action::print, .key = "print", .letter = 'R', .rank = 0, .run = false},
};

constexpr bool complete() {
    for (std::size_t i = 0; i < std::size(actions); ++i) {
        if (static_cast<std::size_t>(actions[i].action) != i || all_actions[i] != actions[i].action)
            return false;
        for (std::size_t j = 0; j < i; ++j)
            if (actions[i].letter == actions[j].letter || actions[i].rank == actions[j].rank ||
                std::string_view(actions[i].key) == actions[j].key)
                return false;
    }
    return true;
}
static_assert(std::size(actions) == static_cast<std::size_t>(last_action) + 1 &&
                  std::size(all_actions) == std::size(actions),
              "every action has its row");
static_assert(complete(), "rows stand in the order of the actions; keys, letters and ranks are told apart");

} // namespace

const ActionRow& row(Action action) {
    return actions[static_cast<std::size_t>(action)];
}

const char* action_name(Action action) {
    return row(action).key;
}

Phrase word(Action action) {
    return as_word("Action", action_name(action));
}

std::optional<Action> action_from_name(std::string_view name) {
    for (const ActionRow& a : actions)
        if (name == a.key) return a.action;
    return std::nullopt;
}

} // namespace dotlane
