// Writes the words that stand in tables (kinds, their fields, actions, colours, the catalog), a line of JSON
// each with its context. What is said in sentences stands in the sources, from which cmake/core_words.py
// takes it.
#include <iostream>
#include <nlohmann/json.hpp>
#include <set>

#include "core/base/data_folder.h"
#include "core/base/files.h"
#include "core/base/finding.h"
#include "core/catalog/catalog.h"
#include "core/project/fills.h"
#include "core/project/kinds.h"
#include "core/project/sources.h"
#include "core/project/steps.h"

namespace dotlane {
namespace {

class Words {
  public:
    void add(const char* context, const std::string& text) {
        if (text.find_first_of("abcdefghijklmnopqrstuvwxyz") == std::string::npos) return;
        if (!said_.emplace(context, text).second) return;
        std::cout << nlohmann::json{{"context", context}, {"text", text}}.dump() << "\n";
    }

  private:
    std::set<std::pair<std::string, std::string>> said_;
};

/// What a form shows of the members.
class FieldWords final : public Fields {
  public:
    explicit FieldWords(Words& words)
        : words_(words) {}
    void length(FieldName name, Length&, Length, Length) override { add(name); }
    void maybe_length(FieldName name, std::optional<Length>&, Length, Length, const char* word) override {
        add(name), words_.add("Fields", word);
    }
    void angle(FieldName name, Angle&) override { add(name); }
    void number(FieldName name, double&, double, double) override { add(name); }
    void em_space(FieldName name, EmSpace&, double, double) override { add(name); }
    void whole(FieldName name, int&, int, int) override { add(name); }
    void flag(FieldName name, bool&) override { add(name); }
    void choice(FieldName name, int&, std::span<const char* const> words) override {
        add(name);
        for (const char* word : words)
            words_.add("Fields", word);
    }
    void text(FieldName name, std::string&, TextKind) override { add(name); }
    void part(FieldName name, PartId&) override { add(name); }
    bool all() const override { return true; }

  private:
    void add(FieldName name) { words_.add("Fields", name.label), words_.add("Fields", name.help); }
    Words& words_;
};

template<class Kinds>
void add_kinds(Words& words, const char* context, const Kinds& kinds) {
    FieldWords members(words);
    for (const auto& kind : kinds) {
        words.add(context, kind.name), words.add(context, kind.about);
        if constexpr (requires { title(kind.wanted); }) words.add(context, title(kind.wanted));
        if constexpr (requires { kind.press; })
            if (kind.press) words.add(context, kind.press);
        auto value = kind.fresh;
        fields(value, members);
    }
}

template<class List>
void add_names(Words& words, const List& list) {
    for (const auto& entry : list) {
        words.add("Catalog", entry.name);
        if constexpr (requires { entry.caution; }) words.add("Catalog", entry.caution);
    }
}

void write() {
    Words words;
    add_kinds(words, "Steps", step_kinds());
    add_kinds(words, "Sources", kinds_of<SourceKind, SourceSpec>());
    add_kinds(words, "Fills", fill_kinds());
    words.add("Sources", title(SourceRow::Wanted::files));
    for (const Action action : all_actions)
        words.add("Action", action_name(action));
    for (const Grade grade : {Grade::hint, Grade::caution, Grade::error})
        words.add("Grade", grade_name(grade));
    for (const char* colour : colour_words())
        words.add("Colour", colour);
    const auto catalog = load_catalog(disk(), data_folder() + "/catalog");
    if (!catalog) return;
    add_names(words, catalog->machines), add_names(words, catalog->tools), add_names(words, catalog->stocks),
        add_names(words, catalog->mats), add_names(words, catalog->envelopes);
    for (const Machine& machine : catalog->machines)
        add_names(words, machine.slots);
}

} // namespace
} // namespace dotlane

int main() {
    dotlane::write();
    return 0;
}
