// Numbers 0..n-1 in sets that are united step by step (union-find with path halving).
#pragma once

#include <algorithm>
#include <cstdint>
#include <numeric>
#include <vector>

namespace dotlane {

class Sets {
  public:
    explicit Sets(std::size_t n)
        : parent_(n) {
        std::iota(parent_.begin(), parent_.end(), 0U);
    }
    /// The least member of the set of `i`.
    std::uint32_t of(std::uint32_t i) {
        while (parent_[i] != i)
            i = parent_[i] = parent_[parent_[i]];
        return i;
    }
    /// False when they were in one set already.
    bool unite(std::uint32_t a, std::uint32_t b) {
        a = of(a), b = of(b);
        parent_[std::max(a, b)] = std::min(a, b);
        return a != b;
    }

  private:
    std::vector<std::uint32_t> parent_;
};

} // namespace dotlane
