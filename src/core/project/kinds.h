// A table of kinds is the list of its types: what stands in it about each is read from the type's own row.
#pragma once

#include <utility>
#include <variant>
#include <vector>

namespace dotlane {

/// One entry for each alternative of the variant that has a row, in their order. Kind: a row and a fresh
/// value.
template<class Kind, class Variant>
std::vector<Kind> kinds_of() {
    std::vector<Kind> out;
    [&]<std::size_t... I>(std::index_sequence<I...>) {
        (
            [&] {
                using One = std::variant_alternative_t<I, Variant>;
                if constexpr (requires { One::row.wanted; })
                    static_assert(One::row.wanted != decltype(One::row.wanted)::unsaid,
                                  "under what is it found?");
                if constexpr (requires { One::row; }) out.push_back({{One::row}, One{}});
            }(),
            ...);
    }
    (std::make_index_sequence<std::variant_size_v<Variant>>());
    return out;
}

} // namespace dotlane
