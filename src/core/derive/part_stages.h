// The stages that make parts: lines of their sources, lines that steps bring, the recipe, what others take of
// it, its checks, its footprint.
#pragma once

#include "core/derive/footprint.h"
#include "core/derive/stage.h"
#include "core/recipe/evaluate.h"
#include "core/sources/make.h"

namespace dotlane {

struct SourceOf {
    using Id = PartId;
    struct Key {
        SourceSpec spec;
        std::shared_ptr<const Drawing> file; ///< of sources from files
        std::shared_ptr<const Borrowed> borrowed;
        bool operator==(const Key&) const = default;
    };
    struct Value {
        SourceLines lines;           ///< the last that could be made stay in view
        std::optional<Error> failed; ///< why there are no newer ones
    };
    static Value make(const Key& key, const Value* before, const Fixed& fixed, Progress& progress);
};

/// Lines that a step brings: words, another part.
struct BroughtOf {
    using Id = StepId;
    struct Key {
        StepWhat what;
        std::shared_ptr<const Borrowed> borrowed;
        std::shared_ptr<const Drawing> own; ///< of the part itself, when words follow its outline
        double scale = 1;                   ///< of that
        bool operator==(const Key&) const = default;
    };
    using Value = Result<SourceLines>;
    static Value make(const Key& key, const Value* before, const Fixed& fixed, Progress& progress);
};

struct RecipeOf {
    using Id = PartId;
    struct Key {
        Part part; ///< without what it does not depend on: see recipe_of
        bool made = false;
        std::shared_ptr<const SourceOf::Value> source;
        std::map<StepId, std::shared_ptr<const BroughtOf::Value>> brought;
        LaneTips tips; ///< of the lanes that its steps ink in
        bool operator==(const Key&) const = default;
    };
    using Value = EvaluatedPart;
    static Value make(const Key& key, const Value* before, const Fixed& fixed, Progress& progress);
};

/// What other parts take of it.
struct LentOf {
    using Id = PartId;
    struct Key {
        std::shared_ptr<const EvaluatedPart> part;
        double scale = 1;
        std::map<LaneId, Action> actions; ///< of the lanes that it runs in
        bool operator==(const Key&) const = default;
    };
    using Value = Borrowed;
    static Value make(const Key& key, const Value* before, const Fixed& fixed, Progress& progress);
};

struct PartChecksOf {
    using Id = PartId;
    struct Key {
        std::shared_ptr<const EvaluatedPart> part;
        Project scope; ///< with this part, and of the lanes it runs in their actions
        std::vector<const Stock*> stocks;
        bool operator==(const Key&) const = default;
    };
    using Value = Findings;
    static Value make(const Key& key, const Value* before, const Fixed& fixed, Progress& progress);
};

struct TipChecksOf {
    using Id = PartId;
    struct Key {
        std::shared_ptr<const EvaluatedPart> part;
        Project scope; ///< with this part, and of the lanes it runs in their actions and tools
        bool operator==(const Key&) const = default;
    };
    using Value = Findings;
    static Value make(const Key& key, const Value* before, const Fixed& fixed, Progress& progress);
};

struct FootprintOf {
    using Id = std::pair<PartId, int>;
    struct Key {
        std::shared_ptr<const EvaluatedPart> part;
        int piece = 0;
        Footprint::Actions actions;
        bool operator==(const Key&) const = default;
    };
    using Value = std::shared_ptr<const Footprint>; ///< it cannot be moved
    static Value make(const Key& key, const Value* before, const Fixed& fixed, Progress& progress);
};

/// Of the lanes that a part runs in.
std::map<LaneId, Action> actions_of(const Project& project, const EvaluatedPart& part);

} // namespace dotlane
