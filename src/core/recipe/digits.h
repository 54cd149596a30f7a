// Numbers in strokes, written on pieces. Internal to recipe.
#pragma once

#include "core/recipe/step.h"

namespace dotlane {

struct MakeInput; // core/sources/make.h

class Digits {
  public:
    /// As `make_digits` made them; null or an error: nothing is written.
    explicit Digits(const Result<SourceLines>* made);
    /// One line, its middle at `at`, its digits so high, > 0; none when there are no digits.
    std::optional<FlatLine> number(std::size_t n, Point at, Length height) const;

  private:
    Polylines digit_[10]; ///< 1 mm high
    double wide_[10] = {};
    bool any_ = false;
};

} // namespace dotlane
