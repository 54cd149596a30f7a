// A finding is registered once: its code, its grade, what it says, its arguments with their kinds, and its
// remedies. A check tells it by calling it; what is no argument of it, or of another kind, does not compile.
//
//     inline constexpr FindingKind<Count, Mm<2, 3>> lines_gaps{
//         "lines.gaps", Grade::caution, to_say("%n [gap|gaps] of up to %2 mm ..."), {"count", "widest_mm"},
//         {{{"clean.close", to_say("Join the ends")}}}};
//     out.push_back(lines_gaps(place, Count{3}, Mm<2, 3>{0.15}));
#pragma once

#include <array>
#include <type_traits>

#include "core/base/finding.h"
#include "core/base/text.h"

namespace dotlane {

// The kinds of arguments: what is said of them, and what scripts are told.

/// Chooses the plural; at most one in a finding. "%n", or its place like all others.
struct Count {
    std::size_t n = 0;
    explicit Count(std::integral auto number) ///< not negative
        : n(static_cast<std::size_t>(number)) {}
    Phrase said() const { return as_is(std::to_string(n)); }
    std::string told() const { return std::to_string(n); }
};
/// Millimetres, said and told with so many decimals at most.
template<int Said, int Told = Said>
struct Mm {
    double mm = 0;
    Phrase said() const { return as_is(number(mm, Said)); }
    std::string told() const { return number(mm, Told); }
};
struct Degrees {
    double degrees = 0;
    Phrase said() const { return as_is(number(degrees, 1)); }
    std::string told() const { return number(degrees, 2); }
};
struct Percent {
    double percent = 0;
    Phrase said() const { return as_is(number(percent, 1)); }
    std::string told() const { return number(percent, 2); }
};
/// The same, said without decimals.
struct WholePercent {
    double percent = 0;
    Phrase said() const { return as_is(number(percent, 0)); }
    std::string told() const { return number(percent, 1); }
};
/// A factor, for remedies.
struct Factor {
    double by = 1;
    Phrase said() const { return as_is(number(by, 2)); }
    std::string told() const { return number(by, 6); }
};
/// A name: the maker's own, or a word that is said in the language of who reads it and told in English.
struct Name {
    Phrase name;
    Name(Phrase said) // NOLINT: a phrase is a name wherever one is wanted
        : name(std::move(said)) {}
    Name(std::string own) // NOLINT
        : name(as_is(std::move(own))) {}
    Phrase said() const { return name; }
    std::string told() const { return name.english(); }
};

struct RemedyKind {
    const char* code = nullptr;  ///< of commands/remedies; null: none
    const char* words = nullptr; ///< of its button, with the finding's arguments
};

template<class... Args>
struct FindingKind {
    static_assert((0 + ... + int{std::is_same_v<Args, Count>}) <= 1, "one number chooses the plural");
    const char* code;
    Grade grade;
    const char* words;                             ///< "%1" is the first argument
    std::array<const char*, sizeof...(Args)> keys; ///< of the arguments, for scripts; null: only said
    std::array<RemedyKind, 3> remedies = {};       ///< the first is the one that is offered first

    Finding operator()(const FindingPlace& place, const Args&... args) const {
        Finding out{code, grade, {words, core_words, counted(args...), {args.said()...}}, {}, place};
        const std::array<std::string, sizeof...(Args)> told{args.told()...};
        for (std::size_t i = 0; i < told.size(); ++i)
            if (keys[i]) out.args.emplace_back(keys[i], told[i]);
        for (const RemedyKind& one : remedies) {
            if (!one.code) break;
            Remedy remedy{one.code, {one.words, core_words, {}, out.message.args}};
            if (out.remedy.code.empty())
                out.remedy = std::move(remedy);
            else
                out.more.push_back(std::move(remedy));
        }
        return out;
    }

  private:
    /// What chooses the plural, where the words have one.
    std::optional<std::size_t> counted(const Args&... args) const {
        std::optional<std::size_t> n;
        const std::string_view said = words;
        if (said.find("%n") == said.npos && said.find('|') == said.npos) return n;
        [[maybe_unused]] const auto take = [&](const auto& arg) {
            if constexpr (requires { arg.n; }) n = arg.n;
        };
        (take(args), ...);
        return n;
    }
};

/// The finding with another grade than its usual one.
inline Finding graded(Finding finding, Grade grade) {
    finding.grade = grade;
    return finding;
}
/// With those of its remedies alone that help: `helps` is asked with the code of each.
template<class Helps>
Finding with_remedies(Finding finding, const Helps& helps) {
    std::vector<Remedy> all = std::move(finding.more);
    all.insert(all.begin(), std::move(finding.remedy));
    std::erase_if(all, [&](const Remedy& remedy) { return !helps(remedy.code); });
    finding.remedy = all.empty() ? Remedy{} : all.front();
    if (!all.empty()) all.erase(all.begin());
    finding.more = std::move(all);
    return finding;
}
/// The same where all of them help, or none.
inline Finding with_remedies_if(bool helps, Finding finding) {
    return with_remedies(std::move(finding), [helps](const std::string&) { return helps; });
}

} // namespace dotlane
