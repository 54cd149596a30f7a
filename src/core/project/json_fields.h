// Members of sources and steps as JSON: the key's hyphens become underscores, lengths end in _mm, angles in
// _rad. Private to the project's format.
#pragma once

#include <nlohmann/json.hpp>

#include "core/project/fields.h"

namespace dotlane {

class JsonWriter final : public Fields {
  public:
    explicit JsonWriter(nlohmann::json& out)
        : out_(out) {}
    void length(FieldName name, Length& value, Length low, Length high) override;
    void maybe_length(FieldName name, std::optional<Length>& value, Length low, Length high,
                      const char* word) override;
    void angle(FieldName name, Angle& value) override;
    void number(FieldName name, double& value, double low, double high) override;
    void em_space(FieldName name, EmSpace& value, double low, double high) override;
    void whole(FieldName name, int& value, int low, int high) override;
    void flag(FieldName name, bool& value) override;
    void choice(FieldName name, int& value, std::span<const char* const> words) override;
    void text(FieldName name, std::string& value, TextKind kind) override;
    void part(FieldName name, PartId& value) override;
    void data(FieldName name, std::shared_ptr<const std::string>& value) override; ///< base64 (RFC 4648)
    bool all() const override { return true; }

    /// Of the youngest member that does not say what its absence means: a reader must know that one.
    int needed_edition() const { return needed_; }
    /// Of the youngest member that was shown.
    int newest_edition() const { return newest_; }

  private:
    void put(const FieldName& name, const char* unit, nlohmann::json value);

    nlohmann::json& out_;
    int needed_ = 1, newest_ = 1;
};

/// Throws Damaged; ranges are checked elsewhere.
class JsonReader final : public Fields {
  public:
    explicit JsonReader(const nlohmann::json& in)
        : in_(in) {}
    void length(FieldName name, Length& value, Length low, Length high) override;
    void maybe_length(FieldName name, std::optional<Length>& value, Length low, Length high,
                      const char* word) override;
    void angle(FieldName name, Angle& value) override;
    void number(FieldName name, double& value, double low, double high) override;
    void em_space(FieldName name, EmSpace& value, double low, double high) override;
    void whole(FieldName name, int& value, int low, int high) override;
    void flag(FieldName name, bool& value) override;
    void choice(FieldName name, int& value, std::span<const char* const> words) override;
    void text(FieldName name, std::string& value, TextKind kind) override;
    void part(FieldName name, PartId& value) override;
    void data(FieldName name, std::shared_ptr<const std::string>& value) override; ///< base64 (RFC 4648)
    bool all() const override { return true; }

  private:
    /// What is read from: the file, or the meaning of a member that it does not have.
    const nlohmann::json& with(const FieldName& name, const std::string& key);

    const nlohmann::json& in_;
    nlohmann::json absent_;
};

} // namespace dotlane
