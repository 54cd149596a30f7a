#include "core/base/measure.h"

#include <charconv>
#include <cmath>
#include <numbers>

#include "core/base/text.h"

namespace dotlane {
namespace {

/// What a number measures.
enum class Kind { plain, length, angle, share };

struct Value {
    double number = 0; ///< mm, radians or hundredths
    Kind kind = Kind::plain;
};

/// What a field wants, and what a bare number in it is.
struct Wanted {
    Kind kind = Kind::plain;
    double bare = 1;
    const char* example = "";
};

constexpr struct {
    std::string_view name;
    Kind kind;
    double in_base;
} units[] = {{"mm", Kind::length, 1},
             {"cm", Kind::length, 10},
             {"m", Kind::length, 1000},
             {"in", Kind::length, mm_per_inch},
             {"inch", Kind::length, mm_per_inch},
             {"inches", Kind::length, mm_per_inch},
             {"\"", Kind::length, mm_per_inch},
             {"″", Kind::length, mm_per_inch},
             {"”", Kind::length, mm_per_inch},
             {"ft", Kind::length, 12 * mm_per_inch},
             {"'", Kind::length, 12 * mm_per_inch},
             {"′", Kind::length, 12 * mm_per_inch},
             {"’", Kind::length, 12 * mm_per_inch},
             {"pt", Kind::length, mm_per_inch / 72},
             {"px", Kind::length, mm_per_inch / 96},
             {"°", Kind::angle, std::numbers::pi / 180},
             {"deg", Kind::angle, std::numbers::pi / 180},
             {"degree", Kind::angle, std::numbers::pi / 180},
             {"degrees", Kind::angle, std::numbers::pi / 180},
             {"rad", Kind::angle, 1},
             {"turn", Kind::angle, 2 * std::numbers::pi},
             {"turns", Kind::angle, 2 * std::numbers::pi},
             {"%", Kind::share, 1}};

/// Signs of other hands for the plain ones: a minus, a multiplication sign, fractions that are one character.
std::string plain_signs(std::string_view text) {
    static constexpr struct {
        std::string_view from, to;
    } signs[] = {{"−", "-"},    {"×", "*"},    {"·", "*"},    {"÷", "/"},    {"⁄", "/"},    {"\xC2\xA0", " "},
                 {"½", " 1/2"}, {"¼", " 1/4"}, {"¾", " 3/4"}, {"⅓", " 1/3"}, {"⅔", " 2/3"}, {"⅕", " 1/5"},
                 {"⅙", " 1/6"}, {"⅛", " 1/8"}, {"⅜", " 3/8"}, {"⅝", " 5/8"}, {"⅞", " 7/8"}};
    std::string out;
    for (std::size_t i = 0; i < text.size();) {
        const auto* sign = std::find_if(std::begin(signs), std::end(signs),
                                        [&](const auto& s) { return text.substr(i).starts_with(s.from); });
        if (sign == std::end(signs)) {
            out += text[i++];
            continue;
        }
        if (sign->to.starts_with(' ') && (out.empty() || out.back() == ' ' || out.back() == '-'))
            out += sign->to.substr(1);
        else
            out += sign->to;
        i += sign->from.size();
    }
    return out;
}

/// Recursive descent over  sum := product (('+'|'-') product)*.
class Parser {
  public:
    Parser(std::string_view text, const Wanted& wanted)
        : shown_(text)
        , text_(plain_signs(text))
        , wanted_(wanted) {}

    Result<double> parse() {
        auto value = sum(0);
        if (!value) return tl::make_unexpected(value.error());
        skip_space();
        if (at_ != text_.size()) return bad();
        if (value->kind == wanted_.kind) return value->number;
        if (value->kind == Kind::plain) return value->number * wanted_.bare;
        return bad_unit(
            say("that is %1, and %2 is meant here.", name_of(value->kind), name_of(wanted_.kind)));
    }

  private:
    static Phrase name_of(Kind kind) {
        const Phrase names[] = {say("a plain number"), say("a length"), say("an angle"), say("a share")};
        return names[static_cast<int>(kind)];
    }
    tl::unexpected<Error> bad() const {
        return fail("measure.syntax",
                    say("\"%1\" cannot be read. Write something like %2.", shown_, as_is(wanted_.example)));
    }
    tl::unexpected<Error> bad_unit(const Phrase& what) const {
        return fail("measure.unit",
                    say("\"%1\": %2 Write something like %3.", shown_, what, as_is(wanted_.example)));
    }
    void skip_space() {
        while (at_ < text_.size() && (text_[at_] == ' ' || text_[at_] == '\t'))
            ++at_;
    }
    char peek(std::size_t ahead = 0) const { return at_ + ahead < text_.size() ? text_[at_ + ahead] : '\0'; }
    bool take(char c) {
        skip_space();
        if (peek() != c) return false;
        return ++at_, true;
    }
    static bool digit(char c) { return c >= '0' && c <= '9'; }

    Result<Value> sum(int depth) {
        if (depth > 32) return bad();
        auto left = side_by_side(depth);
        while (left) {
            const bool plus = take('+');
            if (!plus && !take('-')) break;
            const auto right = side_by_side(depth);
            if (!right) return right;
            left = added(*left, *right, plus ? 1 : -1);
        }
        return left;
    }

    /// "120mm - 2*6": a plain number beside another kind is read as the field reads it alone.
    Result<Value> added(Value a, Value b, double sign) const {
        for (auto [one, other] : {std::pair(&a, &b), std::pair(&b, &a)})
            if (one->kind == Kind::plain && other->kind == wanted_.kind && wanted_.kind != Kind::plain)
                *one = {one->number * wanted_.bare, wanted_.kind};
        if (a.kind != b.kind) return bad_unit(say("what is added must measure the same."));
        return Value{a.number + sign * b.number, a.kind};
    }

    /// "1 ft 2 in": lengths with nothing between them belong together.
    Result<Value> side_by_side(int depth) {
        auto left = product(depth);
        while (left && left->kind == Kind::length) {
            const auto start = at_;
            skip_space();
            if (!digit(peek()) && peek() != '.') break;
            const auto right = product(depth);
            if (!right || right->kind != Kind::length) {
                at_ = start;
                break;
            }
            left->number += left->number < 0 ? -right->number : right->number;
        }
        return left;
    }

    Result<Value> product(int depth) {
        auto left = factor(depth);
        while (left) {
            const bool times = take('*');
            if (!times && !take('/')) break;
            const auto right = factor(depth, times);
            if (!right) return right;
            if (times) {
                if (left->kind != Kind::plain && right->kind != Kind::plain)
                    return bad_unit(say("only one side of a product may have a unit."));
                left =
                    Value{left->number * right->number, left->kind == Kind::plain ? right->kind : left->kind};
                continue;
            }
            if (right->number == 0) return bad_unit(say("nothing can be divided by zero."));
            if (right->kind == left->kind)
                left = Value{left->number / right->number, Kind::plain};
            else if (right->kind == Kind::plain)
                left = Value{left->number / right->number, left->kind};
            else
                return bad_unit(say("a number cannot be divided by what has a unit."));
        }
        return left;
    }

    /// `mixed`: "3 1/2" may stand here. Not in a divisor: "1/2 1/2" is no number.
    Result<Value> factor(int depth, bool mixed = true) {
        if (depth > 32) return bad();
        if (take('-')) {
            auto inner = factor(depth + 1, mixed);
            if (inner) inner->number = -inner->number;
            return inner;
        }
        if (take('+')) return factor(depth + 1, mixed);
        if (take('(')) {
            const auto inner = sum(depth + 1);
            if (!inner) return inner;
            if (!take(')')) return bad();
            return with_unit(*inner);
        }
        const auto whole = digits();
        if (!whole) return bad();
        if (const auto part = fraction_of_unit(*whole)) return with_unit({*part, Kind::plain});
        return with_unit({*whole + (mixed ? mixed_fraction() : 0), Kind::plain});
    }

    std::optional<double> digits() {
        skip_space();
        std::string plain; // a decimal comma is common on paper
        std::size_t end = at_;
        while (end < text_.size() && (digit(text_[end]) || text_[end] == '.' || text_[end] == ','))
            plain += text_[end] == ',' ? '.' : text_[end], ++end;
        double value = 0;
        const auto [stop, ec] = std::from_chars(plain.data(), plain.data() + plain.size(), value);
        if (ec != std::errc() || stop != plain.data() + plain.size()) return std::nullopt;
        at_ = end;
        return value;
    }

    /// The "1/2" of "3 1/2" and "3-1/2": nothing is consumed when there is none.
    double mixed_fraction() {
        const auto start = at_;
        if ((peek() == ' ' || peek() == '-') && digit(peek(1))) {
            ++at_;
            const auto over = digits();
            if (over && peek() == '/' && digit(peek(1))) {
                ++at_;
                const auto under = digits();
                if (under && *under != 0 && *over < *under) return *over / *under;
            }
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
            if (under && *under != 0 && !unit_here().empty()) return over / *under;
        }
        at_ = start;
        return std::nullopt;
    }

    std::string_view unit_here() const {
        std::size_t end = at_;
        const auto part_of_unit = [&](char c) {
            return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c & 0x80) != 0;
        };
        if (peek() == '"' || peek() == '\'' || peek() == '%') return std::string_view(text_).substr(at_, 1);
        while (end < text_.size() && part_of_unit(text_[end]))
            ++end;
        return std::string_view(text_).substr(at_, end - at_);
    }

    Result<Value> with_unit(Value value) {
        const auto start = at_;
        skip_space();
        const std::string unit = lower_case(unit_here());
        if (unit.empty()) {
            at_ = start;
            return value;
        }
        at_ += unit.size();
        for (const auto& known : units)
            if (unit == known.name) {
                if (value.kind != Kind::plain) return bad_unit(say("it has two units."));
                return Value{value.number * known.in_base, known.kind};
            }
        return bad_unit(say("\"%1\" is not a unit known here.", unit));
    }

    std::string shown_, text_;
    Wanted wanted_;
    std::size_t at_ = 0;
};

} // namespace

Result<Length> parse_length(std::string_view text, LengthUnit bare) {
    const Wanted wanted{Kind::length, bare == LengthUnit::mm ? 1.0 : mm_per_inch,
                        "12.5, 3 1/2 in, 8-1/2in or 120mm - 2*6"};
    return Parser(trimmed(text), wanted).parse().and_then([&](double v) -> Result<Length> {
        if (!std::isfinite(v) || std::abs(v) > 1e6)
            return fail("measure.range", say("\"%1\" is longer than a kilometre.", text));
        return mm(v);
    });
}

Result<Angle> parse_angle(std::string_view text) {
    return Parser(trimmed(text), {Kind::angle, std::numbers::pi / 180, "45, 22.5° or 1/8 turn"})
        .parse()
        .map(radians);
}

Result<double> parse_number(std::string_view text) {
    return Parser(trimmed(text), {Kind::plain, 1, "12, 0.5 or 3*4"}).parse();
}

Result<double> parse_percent(std::string_view text) {
    return Parser(trimmed(text), {Kind::share, 1, "50, 12.5% or 100/3"}).parse();
}

Result<EmSpace> parse_em_space(std::string_view text) {
    if (const auto share = parse_percent(text)) return EmSpace{*share, {}};
    const auto length = Parser(trimmed(text), {Kind::length, 1, "5, 5% (of the em) or -0.9mm"}).parse();
    if (!length) return tl::make_unexpected(length.error());
    return EmSpace{0, mm(*length)};
}

std::string to_text(Length length, LengthUnit unit, int decimals_mm) {
    if (unit == LengthUnit::mm) return number(in_mm(length), decimals_mm) + " mm";
    return number(in_inches(length), decimals_mm + 1) + " in";
}

std::string to_text(const EmSpace& space, LengthUnit unit) {
    return space.exact ? to_text(*space.exact, unit) : number(space.percent, 2) + " %";
}

} // namespace dotlane
