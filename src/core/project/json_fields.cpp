#include "core/project/json_fields.h"

#include "core/base/text.h"
#include "core/project/json_in.h"

namespace dotlane {
namespace {

std::string key_of(FieldName name, const char* unit = "") {
    std::string key = name.key;
    std::replace(key.begin(), key.end(), '-', '_');
    return key + unit;
}

} // namespace

void JsonWriter::put(const FieldName& name, const char* unit, nlohmann::json value) {
    newest_ = std::max(newest_, name.since.edition);
    if (name.since.absent && value != nlohmann::json::parse(name.since.absent))
        needed_ = std::max(needed_, name.since.edition);
    out_[key_of(name, unit)] = std::move(value);
}

void JsonWriter::length(FieldName name, Length& value, Length, Length) {
    put(name, "_mm", in_mm(value));
}
void JsonWriter::maybe_length(FieldName name, std::optional<Length>& value, Length, Length, const char*) {
    if (value) put(name, "_mm", in_mm(*value));
}
void JsonWriter::angle(FieldName name, Angle& value) {
    put(name, "_rad", in_radians(value));
}
void JsonWriter::number(FieldName name, double& value, double, double) {
    put(name, "", value);
}
void JsonWriter::em_space(FieldName name, EmSpace& value, double, double) {
    put(name, "", value.percent);
    if (value.exact) put(name, "_mm", in_mm(*value.exact));
}
void JsonWriter::whole(FieldName name, int& value, int, int) {
    put(name, "", value);
}
void JsonWriter::flag(FieldName name, bool& value) {
    put(name, "", value);
}
void JsonWriter::choice(FieldName name, int& value, std::span<const char* const> words) {
    put(name, "", words[static_cast<std::size_t>(value)]);
}
void JsonWriter::text(FieldName name, std::string& value, TextKind) {
    put(name, "", value);
}
void JsonWriter::part(FieldName name, PartId& value) {
    put(name, "", value.value);
}
void JsonWriter::data(FieldName name, std::shared_ptr<const std::string>& value) {
    put(name, "_base64", value ? base64(*value) : "");
}

const nlohmann::json& JsonReader::with(const FieldName& name, const std::string& key) {
    if (!name.since.absent || in_.contains(key)) return in_;
    absent_ = {{key, nlohmann::json::parse(name.since.absent)}};
    return absent_;
}

void JsonReader::length(FieldName name, Length& value, Length, Length) {
    const std::string key = key_of(name, "_mm");
    value = mm(json_in::number(with(name, key), key.c_str()));
}
void JsonReader::maybe_length(FieldName name, std::optional<Length>& value, Length, Length, const char*) {
    const std::string key = key_of(name, "_mm");
    value = json_in::maybe(in_, key.c_str()) ? std::optional(mm(json_in::number(in_, key.c_str())))
                                             : std::nullopt;
}
void JsonReader::angle(FieldName name, Angle& value) {
    const std::string key = key_of(name, "_rad");
    value = radians(json_in::number(with(name, key), key.c_str()));
}
void JsonReader::number(FieldName name, double& value, double, double) {
    const std::string key = key_of(name);
    value = json_in::number(with(name, key), key.c_str());
}
void JsonReader::em_space(FieldName name, EmSpace& value, double, double) {
    const std::string share = key_of(name), length = key_of(name, "_mm");
    value.percent = json_in::number(with(name, share), share.c_str());
    value.exact = json_in::maybe(in_, length.c_str())
                      ? std::optional(mm(json_in::number(in_, length.c_str())))
                      : std::nullopt;
}
void JsonReader::whole(FieldName name, int& value, int, int) {
    const std::string key = key_of(name);
    value = json_in::whole(with(name, key), key.c_str());
}
void JsonReader::flag(FieldName name, bool& value) {
    const std::string key = key_of(name);
    value = json_in::flag(with(name, key), key.c_str());
}
void JsonReader::choice(FieldName name, int& value, std::span<const char* const> words) {
    const std::string key = key_of(name);
    const std::string& word = json_in::text(with(name, key), key.c_str());
    for (std::size_t i = 0; i < words.size(); ++i)
        if (word == words[i]) {
            value = static_cast<int>(i);
            return;
        }
    throw Damaged{say("\"%1\" is no choice for \"%2\"", word, dotlane::word(name))};
}
void JsonReader::part(FieldName name, PartId& value) {
    const std::string key = key_of(name);
    value = PartId{json_in::id(with(name, key), key.c_str())};
}
void JsonReader::data(FieldName name, std::shared_ptr<const std::string>& value) {
    const std::string key = key_of(name, "_base64");
    auto bytes = from_base64(json_in::text(with(name, key), key.c_str()));
    if (!bytes) throw Damaged{say("the bytes of the %1 cannot be read", word(name))};
    value = std::make_shared<const std::string>(std::move(*bytes));
}
void JsonReader::text(FieldName name, std::string& value, TextKind) {
    const std::string key = key_of(name);
    value = json_in::text(with(name, key), key.c_str());
}

} // namespace dotlane
