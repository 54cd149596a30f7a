#include "core/base/measure.h"

#include <cctype>
#include <charconv>
#include <cmath>
#include <optional>

#include "core/base/text.h"

namespace dotlane {
namespace {

/// A value with the power of length it carries: 0 plain, 1 length.
struct Value {
    double number = 0; // mm when dimension is 1
    int dimension = 0;
};

/// Recursive descent over  sum := product (('+'|'-') product)*, with "3 1/2 in" read as one mixed number.
class Parser {
  public:
    Parser(std::string_view text, double bare_mm)
        : text_(text)
        , bare_mm_(bare_mm) {}

    Result<Value> parse() {
        auto value = sum(0);
        if (!value) return value;
        skip_space();
        if (at_ != text_.size()) return bad();
        return value;
    }

  private:
    tl::unexpected<Error> bad() const {
        return fail("measure.syntax", "\"" + std::string(text_) +
                                          "\" is not a measure. Write something like 12.5, "
                                          "3 1/2 in or 120mm - 2*6.");
    }
    tl::unexpected<Error> bad_unit(const std::string& what) const {
        return fail("measure.unit", "\"" + std::string(text_) + "\": " + what);
    }
    void skip_space() {
        while (at_ < text_.size() && (text_[at_] == ' ' || text_[at_] == '\t'))
            ++at_;
    }
    bool take(char c) {
        skip_space();
        if (at_ >= text_.size() || text_[at_] != c) return false;
        return ++at_, true;
    }

    Result<Value> sum(int depth) {
        if (depth > 32) return bad();
        auto left = product(depth);
        while (left) {
            const bool plus = take('+');
            if (!plus && !take('-')) break;
            auto right = product(depth);
            if (!right) return right;
            // "120mm - 2*6": a plain number beside a length is read in the field's own unit.
            Value a = *left, b = *right;
            if (a.dimension != b.dimension) {
                Value& plain = a.dimension == 0 ? a : b;
                plain = {plain.number * bare_mm_, 1};
            }
            left = Value{plus ? a.number + b.number : a.number - b.number, a.dimension};
        }
        return left;
    }

    Result<Value> product(int depth) {
        auto left = factor(depth);
        while (left) {
            const bool times = take('*');
            if (!times && !take('/')) break;
            auto right = factor(depth);
            if (!right) return right;
            if (times) {
                if (left->dimension + right->dimension > 1)
                    return bad_unit("a length times a length is an area.");
                left = Value{left->number * right->number, left->dimension + right->dimension};
            } else {
                if (right->number == 0) return bad_unit("division by zero.");
                if (right->dimension > left->dimension)
                    return bad_unit("a number cannot be divided by a length.");
                left = Value{left->number / right->number, left->dimension - right->dimension};
            }
        }
        return left;
    }

    Result<Value> factor(int depth) {
        if (depth > 32) return bad();
        if (take('-')) {
            auto inner = factor(depth + 1);
            if (inner) inner->number = -inner->number;
            return inner;
        }
        if (take('+')) return factor(depth + 1);
        if (take('(')) {
            auto inner = sum(depth + 1);
            if (!inner) return inner;
            if (!take(')')) return bad();
            return with_unit(*inner);
        }
        const auto whole = digits();
        if (!whole) return bad();
        if (const auto part = fraction_of_unit(*whole)) return with_unit({*part, 0});
        return with_unit({*whole + fraction(), 0});
    }

    std::optional<double> digits() {
        skip_space();
        // A decimal comma is common on paper; it is read as a point.
        std::string plain;
        std::size_t end = at_;
        while (end < text_.size() &&
               ((text_[end] >= '0' && text_[end] <= '9') || text_[end] == '.' || text_[end] == ','))
            plain += text_[end] == ',' ? '.' : text_[end], ++end;
        double value = 0;
        const auto [stop, ec] = std::from_chars(plain.data(), plain.data() + plain.size(), value);
        if (ec != std::errc() || stop != plain.data() + plain.size()) return std::nullopt;
        at_ = end;
        return value;
    }

    /// The "1/2" of "3 1/2": digits, slash, digits right behind a space; otherwise nothing is consumed.
    double fraction() {
        const auto start = at_;
        if (at_ >= text_.size() || text_[at_] != ' ') return 0;
        const auto over = digits();
        if (over && at_ < text_.size() && text_[at_] == '/') {
            ++at_;
            const auto under = digits();
            if (under && *under != 0) return *over / *under;
        }
        at_ = start;
        return 0;
    }

    /// "1/8 in": a fraction right before a unit is meant of that unit; otherwise nothing is consumed.
    std::optional<double> fraction_of_unit(double over) {
        const auto start = at_;
        if (take('/')) {
            const auto under = digits();
            skip_space();
            const bool unit = at_ < text_.size() &&
                              (std::isalpha(static_cast<unsigned char>(text_[at_])) || text_[at_] == '"');
            if (under && *under != 0 && unit) return over / *under;
        }
        at_ = start;
        return std::nullopt;
    }

    Result<Value> with_unit(Value value) {
        skip_space();
        std::string unit;
        while (at_ < text_.size()) {
            const char c = text_[at_];
            const bool letter =
                (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '"' || c == '%' || (c & 0x80);
            if (!letter) break;
            unit += c;
            ++at_;
        }
        unit = lower_case(unit);
        if (unit.empty() || unit == "%" || unit == "°" || unit == "×") return value;
        static constexpr struct {
            const char* name;
            double mm;
        } units[] = {{"mm", 1},
                     {"cm", 10},
                     {"m", 1000},
                     {"in", mm_per_inch},
                     {"inch", mm_per_inch},
                     {"\"", mm_per_inch},
                     {"″", mm_per_inch},
                     {"inches", mm_per_inch},
                     {"ft", 12 * mm_per_inch},
                     {"pt", mm_per_inch / 72},
                     {"px", mm_per_inch / 96}};
        for (const auto& known : units)
            if (unit == known.name) {
                if (value.dimension != 0) return bad_unit("a length has two units.");
                return Value{value.number * known.mm, 1};
            }
        return bad_unit("\"" + unit + "\" is not a unit known here. Use mm, cm, m, in, ft, pt or px.");
    }

    std::string_view text_;
    double bare_mm_;
    std::size_t at_ = 0;
};

} // namespace

Result<Length> parse_length(std::string_view text, LengthUnit bare) {
    const double bare_mm = bare == LengthUnit::mm ? 1.0 : mm_per_inch;
    const auto value = Parser(trimmed(text), bare_mm).parse();
    if (!value) return tl::make_unexpected(value.error());
    const double result = value->dimension == 1 ? value->number : value->number * bare_mm;
    if (!std::isfinite(result) || std::abs(result) > 1e6)
        return fail("measure.range", "\"" + std::string(text) + "\" is longer than a kilometre.");
    return mm(result);
}

Result<double> parse_number(std::string_view text) {
    const auto value = Parser(trimmed(text), 1.0).parse();
    if (!value) return tl::make_unexpected(value.error());
    if (value->dimension != 0)
        return fail("measure.unit", "\"" + std::string(text) + "\" needs no unit here.");
    return value->number;
}

std::string to_text(Length length, LengthUnit unit, int decimals_mm) {
    if (unit == LengthUnit::mm) return number(in_mm(length), decimals_mm) + " mm";
    return number(in_inches(length), decimals_mm + 1) + " in";
}

} // namespace dotlane
