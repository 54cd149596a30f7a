#include "core/project/steps.h"

#include "core/base/result.h"
#include "core/project/kinds.h"

namespace dotlane {

void fields(StepWhat& what, Fields& f) {
    std::visit([&](auto& step) { fields(step, f); }, what);
}

const std::vector<StepKind>& step_kinds() {
    static const auto all = kinds_of<StepKind, StepWhat>();
    return all;
}

const StepKind& kind_of(const StepWhat& what) {
    return step_kinds()[what.index()];
}

const StepKind* step_kind(std::string_view key) {
    for (const StepKind& kind : step_kinds())
        if (kind.key == key) return &kind;
    return nullptr;
}

const char* title(StepRow::Wanted wanted) {
    switch (wanted) {
    case StepRow::Wanted::edge:
        return "Lines along the edge";
    case StepRow::Wanted::fill:
        return "Fill";
    case StepRow::Wanted::join:
        return "Join and cut";
    case StepRow::Wanted::fold:
        return "Fold and dash";
    case StepRow::Wanted::fabric:
        return "Fabric";
    case StepRow::Wanted::stencil:
        return "Stencil";
    case StepRow::Wanted::place:
        return "Size and place";
    case StepRow::Wanted::words:
        return "Words and parts";
    case StepRow::Wanted::unsaid:
        break;
    }
    DOTLANE_CHECK(false); // kinds_of lets no such row through
    return "";
}

PartId* lender_of(StepWhat& what) {
    return std::visit(
        [](auto& step) -> PartId* {
            if constexpr (requires { step.lender(); }) return step.lender();
            return nullptr;
        },
        what);
}

PartId borrows_from(const StepWhat& what) {
    // Nothing is changed through it.
    const PartId* of = lender_of(const_cast<StepWhat&>(what));
    return of ? *of : PartId{};
}

bool follows_own(const StepWhat& what) {
    return std::visit(
        [](const auto& step) {
            if constexpr (requires { step.follows_own(); }) return step.follows_own();
            return false;
        },
        what);
}

const char* role_of(const StepWhat& what) {
    return std::visit(
        [](const auto& step) -> const char* {
            if constexpr (requires { step.role(); }) return step.role();
            return role::outline;
        },
        what);
}

std::vector<const char*> roles_of(const StepWhat& what) {
    return std::visit(
        [](const auto& step) {
            if constexpr (requires { step.roles(); })
                return step.roles();
            else
                return std::vector<const char*>();
        },
        what);
}

bool press_place(StepWhat& what, const StepInput& in, Point at) {
    return std::visit(
        [&](auto& step) {
            if constexpr (requires { press_place(step, in, at); })
                return press_place(step, in, at);
            else
                return false;
        },
        what);
}

void suit(StepWhat& what, Action action) {
    std::visit(
        [&](auto& step) {
            if constexpr (requires { step.suit(action); }) step.suit(action);
        },
        what);
}

bool looks_around(const StepWhat& what) {
    return std::visit(
        [](const auto& step) {
            if constexpr (requires { step.looks_around(); }) return step.looks_around();
            return false;
        },
        what);
}

bool keep_only(StepWhat& what, int layer) {
    return std::visit(
        [layer](auto& step) {
            constexpr bool can = requires {
                step.keep_only(layer);
            };
            if constexpr (can) step.keep_only(layer);
            return can;
        },
        what);
}

void press_piece(StepWhat& what, int piece) {
    std::visit(
        [piece](auto& step) {
            if constexpr (requires { step.press(piece); }) step.press(piece);
        },
        what);
}

Lettering* lettering_in(StepWhat& what) {
    return std::visit(
        [](auto& step) -> Lettering* {
            if constexpr (requires { step.lettering.text; }) return &step.lettering;
            return nullptr;
        },
        what);
}

FillTone* tone_in(StepWhat& what) {
    return std::visit(
        [](auto& step) -> FillTone* {
            if constexpr (requires { step.tones(); }) return step.tones();
            return nullptr;
        },
        what);
}

const Lettering* lettering_in(const StepWhat& what) {
    return lettering_in(const_cast<StepWhat&>(what)); // nothing is changed through it
}

bool mend(StepWhat& what, const Finding& finding, const InkReport* ink) {
    return std::visit(
        [&](auto& step) {
            if constexpr (requires { mend(step, finding, ink); }) return mend(step, finding, ink);
            return false;
        },
        what);
}

} // namespace dotlane
