// Small text helpers shared by readers and writers. Locale independent: a decimal comma never appears.
#pragma once

#include <cstddef>
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace dotlane {

/// Shortest form with at most `decimals` digits after the point, no trailing zeros, never "-0".
std::string number(double value, int decimals);
/// The text as a whole, a finite number with a point; a plus before it is taken.
std::optional<double> plain_number(std::string_view text);
/// "4 min 10 s", "36 min", "1 h 5 min", "8 s": a duration in the words of the board.
std::string spoken_seconds(double seconds);
/// "1,234,567".
std::string with_thousands(std::size_t n);
std::string_view trimmed(std::string_view text);
std::string lower_case(std::string_view ascii);
/// Whether two words are the same in any case, in the letters of all languages (simple case mapping of
/// Unicode).
bool same_word(std::string_view a, std::string_view b);
/// RFC 4648.
std::string base64(std::string_view bytes);
/// None when the text is not base64.
std::optional<std::string> from_base64(std::string_view text);
std::vector<std::string_view> split(std::string_view text, std::string_view separators);
/// 1-based line of byte `offset` in `text`.
int line_of_offset(std::string_view text, std::size_t offset);
/// Lower-case letters, digits and single hyphens: for codes made of words that come out of files.
std::string code_word(std::string_view text);
/// The text with every byte that is no part of valid UTF-8 replaced by '?', control characters by blanks: fit
/// for names that come out of files.
std::string valid_utf8(std::string_view text);
/// For terminals and plain text files: every byte that is no part of valid UTF-8, every control character but
/// the new line, and every mark that turns the direction of reading about is replaced by '?'.
std::string printable(std::string_view text);
/// At most so many bytes, cut between characters.
std::string shortened(std::string text, std::size_t most_bytes);
/// FNV-1a, 64 bit: content hash for caches and for telling whether a source file changed.
std::uint64_t content_hash(std::string_view bytes);

} // namespace dotlane
