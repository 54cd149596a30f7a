// Members of a JSON document as they must be: present, of their kind, within what the program can hold. For
// readers of the program's own files; what is wrong is thrown as Damaged and caught where the file is read.
#pragma once

#include <cstdint>
#include <nlohmann/json.hpp>
#include <string>

#include "core/base/phrase.h"

namespace dotlane {

/// What is wrong with a document, in words that follow "is damaged: ".
struct Damaged {
    Phrase what;
};

namespace json_in {

using nlohmann::json;

[[noreturn]] void wrong(const char* key, const char* kind);

/// The member; Damaged when there is none or `j` is no object.
const json& member(const json& j, const char* key);
/// The member, or null.
const json* maybe(const json& j, const char* key);
const json& list(const json& j, const char* key);
const json& object(const json& j, const char* key);
/// To be changed, by migrations.
json& list(json& j, const char* key);
json& object(json& j, const char* key);
const std::string& text(const json& j, const char* key);
std::string text(const json& j, const char* key, const char* otherwise);
/// Finite.
double number(const json& j, const char* key);
double number(const json& j, const char* key, double otherwise);
bool flag(const json& j, const char* key);
int whole(const json& j, const char* key);
std::uint32_t id(const json& j, const char* key);

// The same of a value that has no key of its own: an entry of a list. `what` names it in messages.
double number_in(const json& value, const char* what);
const std::string& text_in(const json& value, const char* what);
std::uint32_t id_in(const json& value, const char* what);

} // namespace json_in
} // namespace dotlane
