#include "cli/fields.h"

#include <map>
#include <set>

#include "cli/verb.h"
#include "core/base/text.h"

namespace dotlane::cli {
namespace {

class TextSetter final : public Fields {
  public:
    TextSetter(std::map<std::string, std::string> values, const Project& project)
        : values_(std::move(values))
        , project_(project)
        , unit_(project.unit) {}

    void length(FieldName name, Length& value, Length, Length) override {
        take(name, [&](const std::string& text) { return assign(value, parse_length(text, unit_)); });
    }
    void maybe_length(FieldName name, std::optional<Length>& value, Length, Length,
                      const char* word) override {
        take(name, [&](const std::string& text) -> Result<void> {
            if (text == word || text == "auto") return value.reset(), Result<void>{};
            if (name.share && text.ends_with('%')) { // the member behind it says how much
                values_.emplace(name.share, text);
                return value.reset(), Result<void>{};
            }
            Length parsed;
            const auto ok = assign(parsed, parse_length(text, unit_));
            if (ok) value = parsed;
            return ok;
        });
    }
    void angle(FieldName name, Angle& value) override {
        take(name, [&](const std::string& text) { return assign(value, parse_angle(text)); });
    }
    void percent(FieldName name, double& value, double, double) override {
        take(name, [&](const std::string& text) { return assign(value, parse_percent(text)); });
    }
    void em_space(FieldName name, EmSpace& value, double, double) override {
        take(name, [&](const std::string& text) { return assign(value, parse_em_space(text)); });
    }
    void number(FieldName name, double& value, double, double) override {
        take(name, [&](const std::string& text) { return assign(value, parse_number(text)); });
    }
    void whole(FieldName name, int& value, int low, int high) override {
        take(name, [&](const std::string& text) -> Result<void> {
            const auto v = parse_number(text);
            if (!v) return tl::make_unexpected(v.error());
            if (!(*v >= low && *v <= high) || *v != std::floor(*v))
                return fail("cli.set",
                            say("%1 is a whole number from %2 to %3.", as_is(name.key), low, high));
            value = static_cast<int>(*v);
            return {};
        });
    }
    void flag(FieldName name, bool& value) override {
        take(name, [&](const std::string& text) -> Result<void> {
            if (text != "yes" && text != "no")
                return fail("cli.set", say("%1 is yes or no.", as_is(name.key)));
            value = text == "yes";
            return {};
        });
    }
    void choice(FieldName name, int& value, std::span<const char* const> words) override {
        take(name, [&](const std::string& text) -> Result<void> {
            std::string all;
            for (std::size_t i = 0; i < words.size(); ++i) {
                if (text == words[i]) return value = static_cast<int>(i), Result<void>{};
                all += (i == 0 ? "" : ", ") + std::string(words[i]);
            }
            return fail("cli.set", say("%1 is one of: %2.", as_is(name.key), all));
        });
    }
    void text(FieldName name, std::string& value, TextKind) override {
        take(name, [&](const std::string& text) {
            value = text;
            for (std::size_t at; (at = value.find("\\n")) != std::string::npos;)
                value.replace(at, 2, "\n");
            return Result<void>{};
        });
    }
    void part(FieldName name, PartId& value) override {
        take(name, [&](const std::string& text) { return assign(value, part_named(project_, text)); });
    }
    bool all() const override { return true; }

    Result<void> result() const {
        if (!wrong_) return wrong_;
        if (values_.empty()) return {};
        return fail("cli.set",
                    say("There is no \"%1\" to set. There are: %2.", values_.begin()->first, known_));
    }

  private:
    template<class Take>
    void take(FieldName name, Take how) {
        known_ += (known_.empty() ? "" : ", ") + std::string(name.key);
        const auto it = values_.find(name.key);
        if (it == values_.end()) return;
        if (const auto ok = how(it->second); !ok && wrong_) {
            Error error = ok.error(); // of several that are set, this one is wrong
            if (!error.message.english().starts_with(name.key))
                error.message = say("%1: %2", as_is(name.key), error.message);
            wrong_ = tl::make_unexpected(std::move(error));
        }
        values_.erase(it);
    }
    template<class T>
    static Result<void> assign(T& value, const Result<T>& parsed) {
        if (!parsed) return tl::make_unexpected(parsed.error());
        value = *parsed;
        return {};
    }

    std::map<std::string, std::string> values_;
    const Project& project_;
    LengthUnit unit_;
    std::string known_;
    Result<void> wrong_;
};

/// Collects a row for each member.
class Describer final : public Fields {
  public:
    struct Row {
        std::string key, range, label, help;
        nlohmann::json value;
    };
    std::vector<Row> rows;

    void length(FieldName name, Length& value, Length low, Length high) override {
        add(name, "_mm", in_mm(value),
            dotlane::number(in_mm(low), 2) + " to " + dotlane::number(in_mm(high), 2) + " mm");
    }
    void maybe_length(FieldName name, std::optional<Length>& value, Length low, Length high,
                      const char* word) override {
        add(name, value ? "_mm" : "", value ? nlohmann::json(in_mm(*value)) : nlohmann::json(word),
            dotlane::number(in_mm(low), 2) + " to " + dotlane::number(in_mm(high), 2) +
                " mm, or auto: " + word);
    }
    void angle(FieldName name, Angle& value) override { add(name, "_degrees", in_degrees(value), "degrees"); }
    void number(FieldName name, double& value, double low, double high) override {
        add(name, "", value, dotlane::number(low, 2) + " to " + dotlane::number(high, 2));
    }
    void em_space(FieldName name, EmSpace& value, double low, double high) override {
        add(name, value.exact ? "_mm" : "_percent", value.exact ? in_mm(*value.exact) : value.percent,
            dotlane::number(low, 2) + " to " + dotlane::number(high, 2) + " % of the em, or a length");
    }
    void whole(FieldName name, int& value, int low, int high) override {
        add(name, "", value, std::to_string(low) + " to " + std::to_string(high));
    }
    void flag(FieldName name, bool& value) override { add(name, "", value, "yes, no"); }
    void choice(FieldName name, int& value, std::span<const char* const> words) override {
        std::string all;
        for (const char* word : words)
            all += (all.empty() ? "" : ", ") + std::string(word);
        add(name, "", words[static_cast<std::size_t>(value)], all);
    }
    void text(FieldName name, std::string& value, TextKind) override { add(name, "", value, "text"); }
    void part(FieldName name, PartId& value) override { add(name, "", value.value, "another part"); }
    bool all() const override { return all_; }

    /// `all`: also members that have no effect at the moment.
    explicit Describer(bool all)
        : all_(all) {}

  private:
    bool all_;
    void add(FieldName name, const char* unit, nlohmann::json value, std::string range) {
        rows.push_back(
            {name.key + std::string(unit), std::move(range), name.label, name.help, std::move(value)});
    }
};

std::string without_unit(std::string key) {
    for (const char* unit : {"_mm", "_degrees", "_percent"})
        if (key.ends_with(unit)) key.resize(key.size() - std::string_view(unit).size());
    return key;
}

/// The keys of the members that have an effect, and the words of the choices among them.
class InEffect final : public Fields {
  public:
    std::set<std::string> keys;
    std::vector<std::pair<std::string, std::vector<std::string>>> choices;

    void length(FieldName name, Length&, Length, Length) override { keys.insert(name.key); }
    void maybe_length(FieldName name, std::optional<Length>&, Length, Length, const char*) override {
        keys.insert(name.key);
    }
    void angle(FieldName name, Angle&) override { keys.insert(name.key); }
    void number(FieldName name, double&, double, double) override { keys.insert(name.key); }
    void em_space(FieldName name, EmSpace&, double, double) override { keys.insert(name.key); }
    void whole(FieldName name, int&, int, int) override { keys.insert(name.key); }
    void flag(FieldName name, bool&) override {
        keys.insert(name.key);
        choices.push_back({name.key, {"yes", "no"}});
    }
    void choice(FieldName name, int&, std::span<const char* const> words) override {
        keys.insert(name.key);
        choices.push_back({name.key, {words.begin(), words.end()}});
    }
    void text(FieldName name, std::string&, TextKind) override { keys.insert(name.key); }
    void part(FieldName name, PartId&) override { keys.insert(name.key); }
    bool all() const override { return false; }
};

/// A choice that gives the member an effect ("size=own"), tried one by one on a copy; empty when none does.
std::string choice_for(const std::string& key, const Settable& target, const Project& project) {
    InEffect now;
    target.visit(now);
    for (const auto& [choice, words] : now.choices)
        for (const std::string& word : words) {
            const auto copy = target.copy();
            TextSetter setter({{choice, word}}, project);
            copy->visit(setter);
            InEffect then;
            copy->visit(then);
            if (then.keys.contains(key)) return choice + "=" + word;
        }
    return {};
}

} // namespace

Result<void> set_fields(const Settable& target, const std::vector<std::string>& pairs,
                        const Project& project) {
    std::map<std::string, std::string> values;
    for (const std::string& pair : pairs) {
        const auto at = pair.find('=');
        if (at == std::string::npos || at == 0)
            return fail("cli.set", say("\"%1\" is not of the form key=value.", pair));
        values[pair.substr(0, at)] = pair.substr(at + 1);
    }
    TextSetter setter(values, project);
    target.visit(setter);
    if (const auto ok = setter.result(); !ok) return ok;
    InEffect now;
    target.visit(now);
    for (const auto& [key, value] : values)
        if (!now.keys.contains(key)) {
            const std::string needs = choice_for(key, target, project);
            return fail("cli.no-effect", say("%1 has no effect here%2 Nothing has changed.", key,
                                             (needs.empty() ? say(".") : say(": it needs %1.", needs))));
        }
    return {};
}

void print_fields(std::ostream& out, const std::function<void(Fields&)>& fields) {
    Describer describer(true);
    fields(describer);
    for (const auto& row : describer.rows) {
        std::string key = without_unit(row.key);
        key.resize(std::max<std::size_t>(key.size(), 17), ' ');
        out << "    " << key << " " << row.range << " (now " << row.value.dump() << ")\n";
    }
}

nlohmann::json described_json(const std::function<void(Fields&)>& fields) {
    Describer describer(true);
    fields(describer);
    nlohmann::json out = nlohmann::json::array();
    for (const auto& row : describer.rows)
        out.push_back({{"key", without_unit(row.key)},
                       {"label", row.label},
                       {"help", row.help},
                       {"range", row.range},
                       {"offered", row.value}});
    return out;
}

nlohmann::json fields_json(const std::function<void(Fields&)>& fields) {
    Describer describer(false);
    fields(describer);
    nlohmann::json out = nlohmann::json::object();
    for (const auto& row : describer.rows) {
        std::string key = row.key;
        std::replace(key.begin(), key.end(), '-', '_');
        out[key] = row.value;
    }
    return out;
}

nlohmann::json figures_json(const std::vector<Figure>& figures) {
    nlohmann::json out = nlohmann::json::object();
    for (const Figure& f : figures) {
        auto& slot = out[f.key + std::string(*f.unit ? "_" : "") + f.unit];
        if (slot.is_null())
            slot = f.value;
        else if (slot.is_array())
            slot.push_back(f.value);
        else
            slot = {slot, f.value};
    }
    return out;
}

void print_figures(std::ostream& out, const std::vector<Figure>& figures) {
    for (const Figure& f : figures) {
        std::string key = f.key;
        std::replace(key.begin(), key.end(), '_', ' ');
        out << "    " << key << ": " << number(f.value, 2) << (*f.unit ? " " : "") << f.unit << "\n";
    }
}

} // namespace dotlane::cli
