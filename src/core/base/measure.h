// Reads what a maker types into a number field: arithmetic, units and fractions.
// "3 1/2 in", "8-1/2in", "8.5in/2", "120mm - 2*6", "2 1/4\" + 3mm", "1 ft 2 in", "½ in", "12,5", "3 × 40",
// "35°".
#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/base/result.h"
#include "core/base/units.h"

namespace dotlane {

/// The unit in which lengths are shown and bare numbers are read.
enum class LengthUnit { mm, inch };

/// What is read here, alike in all: a decimal comma is a point; a whole number right before a fraction, with
/// a blank or a hyphen between them and none around it, is a mixed one ("8-1/2" is 8.5, "8 - 1/2" is 7.5); ½
/// ¼ ¾ and their like are fractions. What cannot be read is told with an example of what can. Errors:
/// "measure.syntax", "measure.unit" (a unit that is not known, or none that is meant here), "measure.range".

/// A length. Units: mm, cm, m, in, inch, inches, ", ft, ', pt, px; feet and inches may stand side by side. A
/// bare number takes `bare`. In a product or quotient only one side may carry a unit (the divisor must not).
/// At most a kilometre.
Result<Length> parse_length(std::string_view text, LengthUnit bare);
/// An angle in degrees, or with deg, °, rad or turn.
Result<Angle> parse_angle(std::string_view text);
/// A plain number: no unit, no percent sign.
Result<double> parse_number(std::string_view text);
/// A share in hundredths; the percent sign may be left out.
Result<double> parse_percent(std::string_view text);

/// Space between letters: a share of the em, or a length of its own.
struct EmSpace {
    double percent = 0;
    std::optional<Length> exact; ///< when it is given, the share does not count
    bool operator==(const EmSpace&) const = default;
    Length of(Length em) const { return exact ? *exact : em * (percent / 100); }
};
/// "5", "5 %" or "-0.9mm".
Result<EmSpace> parse_em_space(std::string_view text);

/// "3.5 mm", "1.378 in".
std::string to_text(Length length, LengthUnit unit, int decimals_mm = 2);
/// "5 %", "-0.9 mm".
std::string to_text(const EmSpace& space, LengthUnit unit);

} // namespace dotlane
