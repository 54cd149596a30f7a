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
using LineId = Id<struct LineTag>;
using LineSetId = Id<struct LineSetTag>;
using StepId = Id<struct StepTag>;
using LaneId = Id<struct LaneTag>;
using SheetId = Id<struct SheetTag>;
using PlacementId = Id<struct PlacementTag>;

} // namespace dotlane

template<class Tag>
struct std::hash<dotlane::Id<Tag>> {
    std::size_t operator()(dotlane::Id<Tag> id) const noexcept { return id.value; }
};
