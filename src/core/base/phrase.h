// What is said to the maker. A phrase is an English sentence with places for what it speaks of, kept apart
// until somebody says it: the command line in English, the window in the language of its user, with that
// language's plural forms. Names and numbers are said as they are.
//
//     say("\"%1\" is no file.", path)
//     say_n(lines, "%n [line lies|lines lie] outside, up to %1 mm.", number(over, 2))
//
// "%1" to "%9" are the arguments; "%n" is the number that chooses between "[one|many]".
// The texts stand as literals in the call: cmake/core_words.py gathers them for translators.
#pragma once

#include <concepts>
#include <cstddef>
#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace dotlane {

struct Phrase {
    std::string text;    ///< with places; said as it is when there is no context
    std::string context; ///< of translators
    std::optional<std::size_t> n;
    std::vector<Phrase> args;

    Phrase() = default;
    // No aggregate: a bare literal where a phrase is wanted must not compile.
    Phrase(std::string said, std::string of, std::optional<std::size_t> number = {},
           std::vector<Phrase> arguments = {})
        : text(std::move(said))
        , context(std::move(of))
        , n(number)
        , args(std::move(arguments)) {}

    bool operator==(const Phrase&) const = default;
    bool empty() const { return text.empty(); }
    /// The whole in English.
    std::string english() const;
};

/// The context of all phrases that `say` makes, for translators.
inline constexpr const char* core_words = "Core";

/// Names, numbers, and what other programs say.
inline Phrase as_is(std::string text) {
    return {std::move(text), {}};
}
/// A word of a table, which has a context of its own: as_word("Steps", kind.name).
inline Phrase as_word(const char* context, std::string text) {
    return {std::move(text), context};
}

namespace phrases {
inline Phrase argument(Phrase said) {
    return said;
}
inline Phrase argument(std::string name) {
    return as_is(std::move(name));
}
inline Phrase argument(std::string_view name) {
    return as_is(std::string(name));
}
Phrase argument(const char*) = delete; // would be said in English by everybody: say() or as_is()
Phrase argument(std::integral auto number) {
    return as_is(std::to_string(number));
}
} // namespace phrases

template<class... Args>
Phrase say(const char* english, const Args&... args) {
    return {english, core_words, {}, {phrases::argument(args)...}};
}
template<class... Args>
Phrase say_n(std::size_t n, const char* english, const Args&... args) {
    return {english, core_words, n, {phrases::argument(args)...}};
}
/// A text that is said later, by as_word(core_words, text): kept in tables and passed on as a pointer.
constexpr const char* to_say(const char* english) {
    return english;
}
/// One behind the other with `between` ("; ") between them.
Phrase joined(const std::vector<Phrase>& all, const char* between);

/// Who says phrases: the window in its own language.
using Speaker = std::function<std::string(const Phrase&)>;
inline std::string in_english(const Phrase& phrase) {
    return phrase.english();
}

/// "[line|lines]" becomes the one that goes with the number in English, "%n" the number.
std::string of_number(std::string_view text, std::size_t n);
/// Puts the arguments, already said, into the places "%1" to "%9" of a text.
std::string filled_in(std::string_view text, const std::vector<std::string>& said);

} // namespace dotlane
