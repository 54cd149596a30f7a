// What a maker can do to a project. Each command is a struct of options with one `apply`, which changes the
// project and answers with what was made, lost and guessed; the project is untouched when it answers with an
// error. Window and command line gather the options and show the answer.
#pragma once

#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/catalog/catalog.h"
#include "core/project/project.h"

namespace dotlane {

struct Done {
    Phrase said;        ///< one sentence: what was done, to which thing, where
    PartId part = {};   ///< the part that was made or changed
    SheetId sheet = {}; ///< the sheet
    StepId step = {};
    LaneId lane = {};
    std::vector<Phrase> lost = {};            ///< what went with it, a sentence each
    std::vector<PartId> parts = {};           ///< all that were made, where there can be several
    std::vector<PlacementId> placements = {}; ///< what was placed, moved or taken off
};

/// Error "command.unknown": the catalog has no such thing; names what there is.
Error not_in_catalog(const Phrase& kind, const std::string& id, const std::vector<std::string>& known);

template<class List>
std::vector<std::string> ids_of(const List& list) {
    std::vector<std::string> out;
    for (const auto& item : list)
        out.push_back(item.id);
    return out;
}

/// The name, or the first of "name 2", "name 3"... that none of the things bears.
template<class List>
std::string unused_name(const List& things, const std::string& wanted) {
    const auto taken = [&](const std::string& name) {
        for (const auto& thing : things)
            if (thing.name == name) return true;
        return false;
    };
    std::string out = wanted;
    for (int n = 2; taken(out); ++n)
        out = wanted + " " + std::to_string(n);
    return out;
}

} // namespace dotlane
