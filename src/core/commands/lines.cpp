#include "core/commands/lines.h"

#include "core/base/text.h"
#include "core/commands/lanes.h"
#include "core/commands/making.h"
#include "core/commands/selection.h"
#include "core/project/edits.h"

namespace dotlane {
namespace {

/// "3 lines of "Heron"", "1 line set of "Heron"".
Phrase words(const LinesOfPart& what, const Project& project) {
    const Phrase lines = say_n(what.lines.size(), "%n [line|lines]"),
                 sets = say_n(what.sets.size(), "%n line [set|sets]");
    return say("%1 of \"%2\"",
               what.sets.empty()    ? lines
               : what.lines.empty() ? sets
                                    : say("%1 and %2", lines, sets),
               find(project, what.part)->name);
}

} // namespace

Result<Done> apply(const SendLines& command, Project& project, const Catalog&,
                   const EvaluatedPart& evaluated) {
    Project next = project;
    for (const LineSetId set : command.sets)
        if (const auto ok = set_lane(next, command.part, set, command.lane); !ok)
            return tl::make_unexpected(ok.error());
    if (!command.lines.empty())
        if (const auto ok = send_lines(next, evaluated, command.lines, command.lane); !ok)
            return tl::make_unexpected(ok.error());
    project = std::move(next);
    Done done{say("%1: %2", words(command, project), lane_words(project, command.lane)), command.part};
    done.lane = command.lane;
    return done;
}

Result<Done> apply(const SendToAction& command, Project& project, const Catalog& catalog,
                   const EvaluatedPart& evaluated) {
    Project next = project;
    LaneId lane;
    if (command.letter) lane = lane_for_letter(next, evaluated, command.lines, command.action);
    if (!lane && (command.colour || command.lines.empty()))
        lane = lane_for(next, catalog, command.action, command.tool, command.colour.value_or(plain_ink));
    if (!lane) lane = lane_for(next, catalog, command.action, command.tool, evaluated, command.lines.front());
    auto done = apply(SendLines{command, lane}, next, catalog, evaluated);
    if (done) project = std::move(next);
    return done;
}

Result<Done> apply(const SetLinesAside& command, Project& project, const Catalog&,
                   const EvaluatedPart& evaluated) {
    Project next = project;
    std::vector<LineSetId> sets = command.sets;
    if (!command.lines.empty()) {
        const auto found = sets_of_lines(next, evaluated, command.lines, "set aside");
        if (!found) return tl::make_unexpected(found.error());
        sets.insert(sets.end(), found->begin(), found->end());
    }
    for (const LineSetId set : sets)
        if (const auto ok = set_aside(next, command.part, set, command.aside); !ok)
            return tl::make_unexpected(ok.error());
    project = std::move(next);
    return Done{command.aside ? say("%1: set aside, not run", words(command, project))
                              : say_n(command.lines.size() + command.sets.size(),
                                      "%1: [it is|they are] run again", words(command, project)),
                command.part};
}

} // namespace dotlane
