#include "core/commands/parts.h"

#include <algorithm>
#include <map>

#include "core/base/text.h"
#include "core/project/edits.h"

namespace dotlane {
namespace {

std::string quoted(const std::string& name) {
    return "\"" + name + "\"";
}

bool taken(const Project& project, const std::string& name, PartId except) {
    return std::any_of(project.parts.begin(), project.parts.end(),
                       [&](const Part& p) { return p.id != except && same_word(p.name, name); });
}

Error no_part() {
    return {"edit.missing", say("There is no such part."), {}};
}

std::string next_name(const Project& project, std::string name) {
    // "Heron 2" is followed by "Heron 3".
    const auto stem_end = name.find_last_not_of("0123456789");
    if (stem_end != std::string::npos && stem_end > 0 && stem_end + 1 < name.size() && name[stem_end] == ' ')
        name.resize(stem_end);
    for (int n = 2;; ++n)
        if (const std::string next = name + " " + std::to_string(n); !taken(project, next, {})) return next;
}

/// The part with ids of its own.
Part with_fresh_ids(Project& project, Part part) {
    std::map<LineSetId, LineSetId> sets;
    part.id = fresh_id<PartId>(project);
    if (!is_made(part)) {
        std::map<LineId, LineId> lines;
        auto drawing = std::make_shared<Drawing>(*part.source.drawing);
        for (DrawnLine& line : drawing->lines)
            line.id = lines[line.id] = fresh_id<LineId>(project);
        part.source.drawing = std::move(drawing);
        for (LineSet& set : part.sets)
            for (LineId& line : set.lines)
                line = lines.at(line);
    }
    for (LineSet& set : part.sets)
        set.id = sets[set.id] = fresh_id<LineSetId>(project);
    std::map<StepId, StepId> steps;
    for (Step& step : part.steps) {
        step.id = steps[step.id] = fresh_id<StepId>(project);
        if (step.result) step.result = sets[step.result] = fresh_id<LineSetId>(project);
    }
    for (LineSet& set : part.sets)
        if (set.step) set.step = steps.at(set.step);
    for (Step& step : part.steps) // they name results of each other
        for (auto* list : {&step.of, &step.by})
            for (LineSetId& id : *list)
                id = sets.at(id);
    return part;
}

} // namespace

Result<Done> apply(const RenamePart& command, Project& project) {
    const Part* part = find(project, command.part);
    if (!part) return tl::make_unexpected(no_part());
    if (taken(project, command.name, command.part))
        return fail("part.name", say("There is a part called %1 already.", quoted(command.name)));
    if (trimmed(command.name).empty()) return fail("part.name", say("A part needs a name."));
    const std::string before = part->name;
    if (const auto ok = rename_part(project, command.part, command.name); !ok)
        return tl::make_unexpected(ok.error());
    return Done{say("%1 is called %2 now.", quoted(before), quoted(command.name)), command.part};
}

Result<Done> apply(const CopyPart& command, Project& project) {
    const Part* part = find(project, command.part);
    if (!part) return tl::make_unexpected(no_part());
    const std::string name = command.name.empty() ? next_name(project, part->name) : command.name;
    if (taken(project, name, {}))
        return fail("part.name", say("There is a part called %1 already.", quoted(name)));
    Project changed = project;
    Part copy = with_fresh_ids(changed, *part);
    const PartId id = copy.id;
    const Phrase said =
        say("%1 was copied from %2; it lies on no sheet yet.", quoted(name), quoted(part->name));
    changed.parts.push_back(std::move(copy));
    if (const auto ok = rename_part(changed, id, name); !ok) return tl::make_unexpected(ok.error());
    project = std::move(changed);
    return Done{said, id};
}

Result<Done> apply(const RemovePart& command, Project& project) {
    const Part* part = find(project, command.part);
    if (!part) return tl::make_unexpected(no_part());
    Done done{say("%1 is removed.", quoted(part->name)), {}};
    for (const Sheet& sheet : project.sheets)
        if (const auto n = std::count_if(sheet.placements.begin(), sheet.placements.end(),
                                         [&](const Placement& p) { return p.part == command.part; }))
            done.lost.push_back(say_n(static_cast<std::size_t>(n), "%n [copy|copies] left %1.", sheet.name));
    if (const auto ok = remove_part(project, command.part); !ok) return tl::make_unexpected(ok.error());
    return done;
}

Result<Done> apply(const WantPart& command, Project& project) {
    if (const auto ok = set_quantity(project, command.part, command.quantity); !ok)
        return tl::make_unexpected(ok.error());
    return Done{
        say_n(command.quantity, "%n of %1 [is|are] wanted.", quoted(find(project, command.part)->name)),
        command.part};
}

Result<Done> apply(const SizePart& command, Project& project, const Catalog&,
                   const EvaluatedPart& evaluated) {
    const Part* part = find(project, command.part);
    if (!part) return tl::make_unexpected(no_part());
    double factor = command.scale.value_or(part->scale);
    if (!command.scale && (command.width || command.height)) {
        const Box& now = evaluated.source_box;
        const double length = command.width ? now.width() : now.height();
        if (length < 1e-9)
            return fail("part.scale", command.width ? say("The part has no width to scale.")
                                                    : say("The part has no height to scale."));
        // What is evaluated may lag behind the project: its own scale tells how large the source is.
        factor = evaluated.scale * in_mm(command.width ? *command.width : *command.height) / length;
    }
    const double ratio = factor / evaluated.scale;
    if (const auto ok = scale_part(project, command.part, factor); !ok)
        return tl::make_unexpected(ok.error());
    return Done{say("%1 is %2 x %3 mm before its steps.", quoted(find(project, command.part)->name),
                    number(evaluated.source_box.width() * ratio, 3),
                    number(evaluated.source_box.height() * ratio, 3)),
                command.part};
}

Result<Done> apply(const StockPart& command, Project& project, const Catalog& catalog) {
    Part* part = find(project, command.part);
    if (!part) return tl::make_unexpected(no_part());
    const Stock* stock = catalog.stock(command.stock);
    if (!stock && !command.stock.empty())
        return tl::make_unexpected(not_in_catalog(say("stock"), command.stock, ids_of(catalog.stocks)));
    part->stock = command.stock;
    return Done{stock ? say("%1 is made of %2.", quoted(part->name), word(*stock))
                      : say("%1 is made of no stock in particular.", quoted(part->name)),
                command.part};
}

} // namespace dotlane
