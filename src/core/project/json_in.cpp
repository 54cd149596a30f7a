#include "core/project/json_in.h"

#include <cmath>
#include <limits>
#include <utility>

namespace dotlane::json_in {
namespace {

const json& of_kind(const json& value, bool is, const char* key, const char* kind) {
    if (!is) wrong(key, kind);
    return value;
}

/// Without ever turning a number into a type that cannot hold it.
std::int64_t whole_in(const json& value, const char* key, std::int64_t low, std::int64_t high) {
    if (value.is_number_unsigned()) {
        if (value.get<std::uint64_t>() > static_cast<std::uint64_t>(high))
            wrong(key, to_say("a number in its range"));
        return static_cast<std::int64_t>(value.get<std::uint64_t>());
    }
    const auto v =
        of_kind(value, value.is_number_integer(), key, to_say("a whole number")).get<std::int64_t>();
    if (v < low || v > high) wrong(key, to_say("a number in its range"));
    return v;
}

} // namespace

void wrong(const char* key, const char* kind) {
    throw Damaged{say("\"%1\" is not %2", as_is(key), as_word(core_words, kind))};
}

const json& member(const json& j, const char* key) {
    if (const json* found = maybe(j, key)) return *found;
    throw Damaged{say("\"%1\" is missing", as_is(key))};
}

const json* maybe(const json& j, const char* key) {
    if (!j.is_object()) throw Damaged{say("what should hold \"%1\" is no group of members", as_is(key))};
    const auto it = j.find(key);
    return it == j.end() ? nullptr : &*it;
}

const json& list(const json& j, const char* key) {
    const json& value = member(j, key);
    return of_kind(value, value.is_array(), key, to_say("a list"));
}

const json& object(const json& j, const char* key) {
    const json& value = member(j, key);
    return of_kind(value, value.is_object(), key, to_say("a group of members"));
}

json& list(json& j, const char* key) {
    return const_cast<json&>(list(std::as_const(j), key));
}

json& object(json& j, const char* key) {
    return const_cast<json&>(object(std::as_const(j), key));
}

const std::string& text_in(const json& value, const char* what) {
    return of_kind(value, value.is_string(), what, to_say("text")).get_ref<const std::string&>();
}

const std::string& text(const json& j, const char* key) {
    return text_in(member(j, key), key);
}

std::string text(const json& j, const char* key, const char* otherwise) {
    const json* value = maybe(j, key);
    return value ? text_in(*value, key) : otherwise;
}

double number_in(const json& value, const char* what) {
    const double v = of_kind(value, value.is_number(), what, to_say("a number")).get<double>();
    if (!std::isfinite(v)) wrong(what, to_say("a number that can be worked with"));
    return v;
}

double number(const json& j, const char* key) {
    return number_in(member(j, key), key);
}

double number(const json& j, const char* key, double otherwise) {
    const json* value = maybe(j, key);
    return value ? number_in(*value, key) : otherwise;
}

bool flag(const json& j, const char* key) {
    const json& value = member(j, key);
    return of_kind(value, value.is_boolean(), key, to_say("true or false")).get<bool>();
}

int whole(const json& j, const char* key) {
    return static_cast<int>(
        whole_in(member(j, key), key, std::numeric_limits<int>::min(), std::numeric_limits<int>::max()));
}

std::uint32_t id_in(const json& value, const char* what) {
    return static_cast<std::uint32_t>(whole_in(value, what, 0, std::numeric_limits<std::uint32_t>::max()));
}

std::uint32_t id(const json& j, const char* key) {
    return id_in(member(j, key), key);
}

} // namespace dotlane::json_in
