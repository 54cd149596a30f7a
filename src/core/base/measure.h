// Reads what a maker types into a number field: arithmetic, units and fractions.
// "3 1/2 in", "8.5in/2", "120mm - 2*6", "2 1/4\" + 3mm", "35°".
#pragma once

#include <string>
#include <string_view>

#include "core/base/result.h"
#include "core/base/units.h"

namespace dotlane {

/// The unit in which lengths are shown and bare numbers are read.
enum class LengthUnit { mm, inch };

/// A length. Units: mm, cm, m, in, inch, ", ft, pt, px. A bare number takes `bare`. In a product or quotient
/// only one side may carry a unit (the divisor must not). Errors: "measure.syntax", "measure.unit".
Result<Length> parse_length(std::string_view text, LengthUnit bare);
/// A plain number with arithmetic; '%' and '°' behind it are allowed and ignored.
Result<double> parse_number(std::string_view text);

/// "3.5 mm", "1.378 in".
std::string to_text(Length length, LengthUnit unit, int decimals_mm = 2);

} // namespace dotlane
