#include "core/project/fields.h"

#include <cmath>

#include "core/base/text.h"

namespace dotlane {

void RangeCheck::must_lie(FieldName name, double value, double low, double high, const char* unit) {
    if (wrong_.empty() && !(value >= low && value <= high)) // also true for what is not a number
        wrong_ = say("\"%1\" must lie between %2 and %3%4.", word(name), dotlane::number(low, 3),
                     dotlane::number(high, 3), as_is(unit));
}

void RangeCheck::length(FieldName name, Length& value, Length low, Length high) {
    must_lie(name, in_mm(value), in_mm(low), in_mm(high), " mm");
}
void RangeCheck::maybe_length(FieldName name, std::optional<Length>& value, Length low, Length high,
                              const char*) {
    if (value) length(name, *value, low, high);
}
void RangeCheck::angle(FieldName name, Angle& value) {
    must_lie(name, in_degrees(value), -3600, 3600, " degrees");
}
void RangeCheck::number(FieldName name, double& value, double low, double high) {
    must_lie(name, value, low, high, "");
}
void RangeCheck::em_space(FieldName name, EmSpace& value, double low, double high) {
    if (value.exact)
        must_lie(name, in_mm(*value.exact), -100, 500, " mm");
    else
        must_lie(name, value.percent, low, high, " %");
}
void RangeCheck::whole(FieldName name, int& value, int low, int high) {
    must_lie(name, value, low, high, "");
}
void RangeCheck::choice(FieldName name, int& value, std::span<const char* const> words) {
    if (wrong_.empty() && (value < 0 || value >= static_cast<int>(words.size())))
        wrong_ = say("\"%1\" has no such choice.", word(name));
}
void RangeCheck::text(FieldName name, std::string& value, TextKind) {
    if (wrong_.empty() && value.size() > longest_text)
        wrong_ = say("\"%1\" is longer than %2 characters.", word(name), longest_text);
}

Result<void> RangeCheck::result() const {
    if (wrong_.empty()) return {};
    return fail("field.range", wrong_);
}

} // namespace dotlane
