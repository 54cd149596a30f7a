// Typed ids. Objects of a project are named by these in commands, selections, files and messages;
// never by pointers or row numbers. Zero is "none".
#pragma once

#include <compare>
#include <cstddef>
#include <cstdint>
#include <functional>

namespace dotlane {

template<class Tag>
struct Id {
    std::uint32_t value = 0;
    constexpr auto operator<=>(const Id&) const = default;
    constexpr explicit operator bool() const { return value != 0; }
};

using PartId = Id<struct PartTag>;
using LineSetId = Id<struct LineSetTag>;
using StepId = Id<struct StepTag>;
using LaneId = Id<struct LaneTag>;
using SheetId = Id<struct SheetTag>;
using PlacementId = Id<struct PlacementTag>;

/// A line of a source, or the so-manieth that a step made, counted from 1.
struct LineId {
    std::uint32_t value = 0;
    StepId step = {}; ///< none: of the source
    constexpr auto operator<=>(const LineId&) const = default;
    constexpr explicit operator bool() const { return value != 0; }
};

} // namespace dotlane

template<class Tag>
struct std::hash<dotlane::Id<Tag>> {
    std::size_t operator()(dotlane::Id<Tag> id) const noexcept { return id.value; }
};

template<>
struct std::hash<dotlane::LineId> {
    std::size_t operator()(dotlane::LineId id) const noexcept {
        return id.value + std::size_t{id.step.value} * 0x9e3779b97f4a7c15;
    }
};
