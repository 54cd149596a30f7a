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

void JsonWriter::length(FieldName name, Length& value, Length, Length) {
    out_[key_of(name, "_mm")] = in_mm(value);
}
void JsonWriter::maybe_length(FieldName name, std::optional<Length>& value, Length, Length, const char*) {
    if (value) out_[key_of(name, "_mm")] = in_mm(*value);
}
void JsonWriter::angle(FieldName name, Angle& value) {
    out_[key_of(name, "_rad")] = in_radians(value);
}
void JsonWriter::number(FieldName name, double& value, double, double) {
    out_[key_of(name)] = value;
}
void JsonWriter::em_space(FieldName name, EmSpace& value, double, double) {
    out_[key_of(name)] = value.percent;
    if (value.exact) out_[key_of(name, "_mm")] = in_mm(*value.exact);
}
void JsonWriter::whole(FieldName name, int& value, int, int) {
    out_[key_of(name)] = value;
}
void JsonWriter::flag(FieldName name, bool& value) {
    out_[key_of(name)] = value;
}
void JsonWriter::choice(FieldName name, int& value, std::span<const char* const> words) {
    out_[key_of(name)] = words[static_cast<std::size_t>(value)];
}
void JsonWriter::text(FieldName name, std::string& value, TextKind) {
    out_[key_of(name)] = value;
}

void JsonWriter::part(FieldName name, PartId& value) {
    out_[key_of(name)] = value.value;
}

void JsonWriter::data(FieldName name, std::shared_ptr<const std::string>& value) {
    out_[key_of(name, "_base64")] = value ? base64(*value) : "";
}

void JsonReader::length(FieldName name, Length& value, Length, Length) {
    value = mm(json_in::number(in_, key_of(name, "_mm").c_str()));
}
void JsonReader::maybe_length(FieldName name, std::optional<Length>& value, Length, Length, const char*) {
    const std::string key = key_of(name, "_mm");
    value = json_in::maybe(in_, key.c_str()) ? std::optional(mm(json_in::number(in_, key.c_str())))
                                             : std::nullopt;
}
void JsonReader::angle(FieldName name, Angle& value) {
    value = radians(json_in::number(in_, key_of(name, "_rad").c_str()));
}
void JsonReader::number(FieldName name, double& value, double, double) {
    value = json_in::number(in_, key_of(name).c_str());
}
void JsonReader::em_space(FieldName name, EmSpace& value, double, double) {
    value.percent = json_in::number(in_, key_of(name).c_str());
    const std::string key = key_of(name, "_mm");
    value.exact = json_in::maybe(in_, key.c_str()) ? std::optional(mm(json_in::number(in_, key.c_str())))
                                                   : std::nullopt;
}
void JsonReader::whole(FieldName name, int& value, int, int) {
    value = json_in::whole(in_, key_of(name).c_str());
}
void JsonReader::flag(FieldName name, bool& value) {
    value = json_in::flag(in_, key_of(name).c_str());
}
void JsonReader::choice(FieldName name, int& value, std::span<const char* const> words) {
    const std::string& word = json_in::text(in_, key_of(name).c_str());
    for (std::size_t i = 0; i < words.size(); ++i)
        if (word == words[i]) {
            value = static_cast<int>(i);
            return;
        }
    throw Damaged{"\"" + word + "\" is no choice for \"" + name.label + "\""};
}
void JsonReader::part(FieldName name, PartId& value) {
    value = PartId{json_in::id(in_, key_of(name).c_str())};
}
void JsonReader::data(FieldName name, std::shared_ptr<const std::string>& value) {
    auto bytes = from_base64(json_in::text(in_, key_of(name, "_base64").c_str()));
    if (!bytes) throw Damaged{std::string("the bytes of the ") + name.label + " cannot be read"};
    value = std::make_shared<const std::string>(std::move(*bytes));
}
void JsonReader::text(FieldName name, std::string& value, TextKind) {
    value = json_in::text(in_, key_of(name).c_str());
}

} // namespace dotlane
