#include "core/project/sources.h"

#include "core/base/result.h"
#include "core/project/kinds.h"

namespace dotlane {

void fields(SourceSpec& spec, Fields& f) {
    std::visit([&](auto& s) { fields(s, f); }, spec);
}

PartId* lender_of(SourceSpec& spec) {
    return std::visit(
        [](auto& s) -> PartId* {
            if constexpr (requires { s.lender(); }) return s.lender();
            return nullptr;
        },
        spec);
}

PartId borrows_from(const SourceSpec& spec) {
    // Nothing is changed through it.
    const PartId* of = lender_of(const_cast<SourceSpec&>(spec));
    return of ? *of : PartId{};
}

std::vector<std::string> known_roles(const SourceSpec& spec) {
    return std::visit(
        [](const auto& s) -> std::vector<std::string> {
            if constexpr (requires { s.roles(); }) return s.roles();
            return {};
        },
        spec);
}

const std::vector<SourceKind>& all_source_kinds() {
    static const auto all = kinds_of<SourceKind, SourceSpec>();
    return all;
}

const std::vector<SourceKind>& source_kinds() {
    static const auto offered = [] {
        auto out = all_source_kinds();
        std::erase_if(out, [](const SourceKind& kind) { return !kind.offered; });
        return out;
    }();
    return offered;
}

const char* title(SourceRow::Wanted wanted) {
    switch (wanted) {
    case SourceRow::Wanted::folded:
        return "Cards and boxes";
    case SourceRow::Wanted::shapes:
        return "Labels, badges, layers";
    case SourceRow::Wanted::words:
        return "Words";
    case SourceRow::Wanted::patterns:
        return "Patterns and edges";
    case SourceRow::Wanted::files:
        return "From files";
    case SourceRow::Wanted::unsaid:
        break;
    }
    DOTLANE_CHECK(false); // kinds_of lets no such row through
    return "";
}

const SourceKind* source_kind(std::string_view key) {
    for (const SourceKind& kind : all_source_kinds())
        if (kind.key == key) return &kind;
    return nullptr;
}

const SourceKind* kind_of(const SourceSpec& spec) {
    for (const SourceKind& kind : all_source_kinds())
        if (kind.fresh.index() == spec.index()) return &kind;
    return nullptr;
}

SourceSpec sample_of(const SourceKind& kind) {
    return std::visit(
        [](const auto& s) -> SourceSpec {
            if constexpr (requires { s.sample(); }) return s.sample();
            return s;
        },
        kind.fresh);
}

} // namespace dotlane
