#include "core/derive/part_stages.h"

#include "core/checks/part_checks.h"
#include "core/checks/tip_checks.h"
#include "core/derive/findings.h"
#include "core/derive/lending.h"

namespace dotlane {

SourceOf::Value SourceOf::make(const Key& key, const Value* before, const Fixed& fixed, Progress& progress) {
    if (!kind_of(key.spec)) return {{key.file, {}, {}}, {}};
    auto made = make_lines(key.spec, fixed.fonts(), key.borrowed.get(), progress);
    if (made) return {std::move(*made), {}};
    return {before ? before->lines : SourceLines{std::make_shared<Drawing>(), {}, {}}, made.error()};
}

BroughtOf::Value BroughtOf::make(const Key& key, const Value*, const Fixed& fixed, Progress& progress) {
    if (!key.own) return make_lines(key.what, fixed.fonts(), key.borrowed.get(), progress);
    SourceLines own;
    own.drawing = key.own;
    const Borrowed borrowed = lend(own, key.scale);
    return make_lines(key.what, fixed.fonts(), &borrowed, progress);
}

EvaluatedPart RecipeOf::make(const Key& key, const Value* before, const Fixed&, Progress& progress) {
    RecipeInputs inputs{key.source->lines, {}, key.tips, key.made};
    if (const auto& failed = key.source->failed)
        inputs.source.findings.push_back(sheet_findings::source_failed({}, key.part.name, failed->message));
    for (const auto& [step, lines] : key.brought)
        inputs.inserted.emplace(step, *lines);
    return evaluate(key.part, inputs, before, progress);
}

Borrowed LentOf::make(const Key& key, const Value*, const Fixed&, Progress&) {
    return lend(key.actions, key.scale, *key.part);
}

Findings PartChecksOf::make(const Key& key, const Value*, const Fixed& fixed, Progress& progress) {
    return check_part(key.scope, fixed.catalog, *key.part, key.stocks, progress);
}

Findings TipChecksOf::make(const Key& key, const Value*, const Fixed& fixed, Progress&) {
    return check_tips(key.scope, fixed.catalog, *key.part);
}

FootprintOf::Value FootprintOf::make(const Key& key, const Value*, const Fixed&, Progress&) {
    return std::make_shared<const Footprint>(key.part, key.piece, key.actions);
}

std::map<LaneId, Action> actions_of(const Project& project, const EvaluatedPart& part) {
    std::map<LaneId, Action> out;
    for (const RunSet& run : part.runs)
        if (const Lane* lane = find(project, run.lane)) out[lane->id] = lane->action;
    return out;
}

} // namespace dotlane
