// Errors are values. `Result<T>` carries either a T or an Error whose message is in the user's words.
#pragma once

#include <string>
#include <tl/expected.hpp>
#include <utility>

#include "core/base/phrase.h"

namespace dotlane {

/// Where an error arose; what does not apply stays empty.
struct ErrorPlace {
    std::string file; ///< path as the user gave it
    int line = 0;     ///< 1-based line in `file`, 0 when unknown
    bool operator==(const ErrorPlace&) const = default;
};

struct Error {
    std::string code; ///< stable, dotted: "svg.not-xml"
    Phrase message;   ///< one or two sentences: what happened, what was kept, what to do
    ErrorPlace place = {};
    bool operator==(const Error&) const = default;
};

/// "message (file, line 12)".
Phrase phrase_of(const Error& error);
/// The same in English, for the command line.
std::string to_text(const Error& error);

template<class T>
using Result = tl::expected<T, Error>;

inline tl::unexpected<Error> fail(std::string code, Phrase message, ErrorPlace place = {}) {
    return tl::make_unexpected(Error{std::move(code), std::move(message), std::move(place)});
}

/// The one always-on check for broken invariants: prints what was violated and aborts.
[[noreturn]] void invariant_broken(const char* condition, const char* file, int line);

#define DOTLANE_CHECK(condition)                                                                             \
    ((condition) ? (void)0 : ::dotlane::invariant_broken(#condition, __FILE__, __LINE__))

} // namespace dotlane
