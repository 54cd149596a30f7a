// One declaration of the numbers of a source or a step serves its file format, its command line options, its
// form in the window and its range check: each of them is a visitor that `fields` shows every member to, with
// its name, its unit and its valid range.
#pragma once

#include <initializer_list>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/base/id.h"
#include "core/base/measure.h"
#include "core/base/result.h"
#include "core/base/units.h"

namespace dotlane {

/// Members that came after the first version of a file. A new one takes the next edition (see
/// `newest_edition` in format.h), and files need neither a new version nor a migration for it.
struct Since {
    int edition = 1;
    /// What files without it mean, as JSON in the file's units: "25" (mm), R"("own")". Not what is offered
    /// today, which may change without changing old projects.
    const char* absent = nullptr;
};

struct FieldName {
    const char* key;       ///< "setback": in files with its unit behind it, on the command line as --setback
    const char* label;     ///< as it stands on a form
    const char* help = ""; ///< one sentence, empty when the label says it all
    Since since = {};
    bool seldom = false; ///< forms show it when it is asked for, or is not as it was offered
    /// Of a length that may be empty: the percent behind it that says what it is then; "85%" typed for the
    /// length means that.
    const char* share = nullptr;
};

inline Phrase word(const FieldName& field) {
    return as_word("Fields", field.label);
}

enum class TextKind { plain, lines, font };

class Fields {
  public:
    virtual ~Fields() = default;
    virtual void length(FieldName name, Length& value, Length low, Length high) = 0;
    /// Empty means what `word` says ("half tip").
    virtual void maybe_length(FieldName name, std::optional<Length>& value, Length low, Length high,
                              const char* word) = 0;
    virtual void angle(FieldName name, Angle& value) = 0;
    virtual void number(FieldName name, double& value, double low, double high) = 0;
    /// A share in hundredths.
    virtual void percent(FieldName name, double& value, double low, double high) {
        number(name, value, low, high);
    }
    /// `low` and `high` are of the share, in hundredths of the em; a length lies between -100 and 500 mm.
    virtual void em_space(FieldName name, EmSpace& value, double low, double high) = 0;
    virtual void whole(FieldName name, int& value, int low, int high) = 0;
    virtual void flag(FieldName name, bool& value) = 0;
    virtual void choice(FieldName name, int& value, std::span<const char* const> words) = 0;
    /// At most 2000 bytes.
    virtual void text(FieldName name, std::string& value, TextKind kind) = 0;

    /// Another part of the project; none is allowed.
    virtual void part(FieldName name, PartId& value) = 0;
    /// Bytes of a file, which only the project file holds.
    virtual void data(FieldName, std::shared_ptr<const std::string>&) {}

    /// Whether members that have no effect at the moment are wanted too: files hold them, forms do not.
    virtual bool all() const = 0;
    bool when(bool matters) const { return all() || matters; }

    /// An enumeration whose values run from 0 in the order of the words.
    template<class Enum>
    void one_of(FieldName name, Enum& value, std::initializer_list<const char*> words) {
        int i = static_cast<int>(value);
        choice(name, i, {words.begin(), words.size()});
        value = static_cast<Enum>(i);
    }
};

inline constexpr std::size_t longest_text = 2000;

/// Finds the first member outside its range.
class RangeCheck final : public Fields {
  public:
    void length(FieldName name, Length& value, Length low, Length high) override;
    void maybe_length(FieldName name, std::optional<Length>& value, Length low, Length high,
                      const char* word) override;
    void angle(FieldName name, Angle& value) override;
    void number(FieldName name, double& value, double low, double high) override;
    void em_space(FieldName name, EmSpace& value, double low, double high) override;
    void whole(FieldName name, int& value, int low, int high) override;
    void flag(FieldName, bool&) override {}
    void choice(FieldName name, int& value, std::span<const char* const> words) override;
    void text(FieldName name, std::string& value, TextKind kind) override;
    void part(FieldName, PartId&) override {} // whether there is such a part is a rule of the project
    bool all() const override { return true; }

    /// Error "field.range" with the member's label and its range.
    Result<void> result() const;

  private:
    void must_lie(FieldName name, double value, double low, double high, const char* unit);
    Phrase wrong_;
};

} // namespace dotlane
