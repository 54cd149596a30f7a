#include "core/formats/svg/prepare.h"

#include <algorithm>
#include <map>
#include <zlib.h>

#include "core/base/text.h"
#include "core/formats/limits.h"

namespace dotlane::svg {
namespace {

constexpr std::size_t max_expansion = 4U << 20; // bytes that entities may add

Result<std::string> unpacked(const std::string& packed, std::size_t most_bytes) {
    z_stream stream{};
    if (inflateInit2(&stream, 15 + 32) != Z_OK)
        return fail("svg.packed", say("The packed file could not be opened."));
    stream.next_in = reinterpret_cast<Bytef*>(const_cast<char*>(packed.data()));
    stream.avail_in = static_cast<uInt>(packed.size());
    std::string out;
    std::string chunk(1 << 16, '\0');
    int status = Z_OK;
    while (status == Z_OK && out.size() <= most_bytes) {
        stream.next_out = reinterpret_cast<Bytef*>(chunk.data());
        stream.avail_out = static_cast<uInt>(chunk.size());
        status = inflate(&stream, Z_NO_FLUSH);
        out.append(chunk, 0, chunk.size() - stream.avail_out);
    }
    inflateEnd(&stream);
    if (out.size() > most_bytes)
        return fail("svg.large", say("The packed file unpacks to more than %1 MB. %2 Nothing has changed.",
                                     most_bytes / 1'000'000, what_to_do_when_large()));
    if (status != Z_STREAM_END) return fail("svg.packed", say("The packed file is damaged or cut short."));
    return out;
}

/// The internal subset's  <!ENTITY name "value">  declarations.
class Entities {
  public:
    Result<Prepared> expand(std::string text) {
        const auto doctype = text.find("<!DOCTYPE");
        if (doctype == std::string::npos) return Prepared{std::move(text), 0};
        const auto bracket = text.find_first_of("[>", doctype);
        if (bracket == std::string::npos)
            return fail("svg.not-xml", say("The document type is cut short."),
                        {"", line_of_offset(text, doctype)});
        if (text[bracket] == '>') return Prepared{std::move(text), 0};
        const auto end = end_of_subset(text, bracket);
        if (end == std::string::npos)
            return fail("svg.not-xml", say("The document type is cut short."),
                        {"", line_of_offset(text, doctype)});
        read(std::string_view(text).substr(bracket, end - bracket));
        if (table_.empty()) return Prepared{std::move(text), external_};
        std::string out = text.substr(0, end);
        if (!append(out, std::string_view(text).substr(end), 0))
            return fail("svg.entities",
                        say("The file's entities expand to more than 4 MB or refer to one another without "
                            "end. It was not opened; nothing has changed."),
                        {"", line_of_offset(text, doctype)});
        return Prepared{std::move(out), external_};
    }

  private:
    static std::size_t end_of_subset(const std::string& text, std::size_t at) {
        char quote = 0;
        for (std::size_t i = at + 1; i < text.size(); ++i) {
            const char c = text[i];
            if (quote)
                quote = c == quote ? '\0' : quote;
            else if (text.compare(i, 4, "<!--") == 0) {
                i = text.find("-->", i);
                if (i == std::string::npos) return i;
                i += 2;
            } else if (c == '"' || c == '\'')
                quote = c;
            else if (c == ']')
                return i;
        }
        return std::string::npos;
    }

    void read(std::string_view subset) {
        for (std::size_t at = subset.find("<!ENTITY"); at != std::string_view::npos;
             at = subset.find("<!ENTITY", at)) {
            at += 8;
            const auto quote_at = subset.find_first_of("\"'>", at);
            if (quote_at == std::string_view::npos) return;
            const auto head = split(subset.substr(at, quote_at - at), " \t\r\n");
            const auto close = subset.find(subset[quote_at], quote_at + 1);
            if (subset[quote_at] == '>' || close == std::string_view::npos) continue;
            if (head.size() == 1)
                table_.try_emplace(std::string(head[0]), subset.substr(quote_at + 1, close - quote_at - 1));
            else if (head.size() >= 2)
                ++external_; // SYSTEM, PUBLIC or a parameter entity
            at = close;
        }
    }

    bool append(std::string& out, std::string_view from, int depth) {
        if (depth > 16) return false;
        std::size_t at = 0;
        while (true) {
            const auto amp = from.find('&', at);
            out.append(from.substr(at, amp == std::string_view::npos ? amp : amp - at));
            if (amp == std::string_view::npos) return true;
            const auto end = from.find(';', amp);
            const auto known = end == std::string_view::npos || end - amp > 128
                                   ? table_.end()
                                   : table_.find(std::string(from.substr(amp + 1, end - amp - 1)));
            if (known == table_.end()) {
                out += '&';
                at = amp + 1;
                continue;
            }
            added_ += known->second.size() + 1;
            if (added_ > max_expansion || !append(out, known->second, depth + 1)) return false;
            at = end + 1;
        }
    }

    std::map<std::string, std::string> table_;
    std::size_t added_ = 0;
    int external_ = 0;
};

} // namespace

Result<Prepared> prepare(std::string bytes, std::size_t most_bytes) {
    if (bytes.size() >= 2 && bytes[0] == '\x1f' && bytes[1] == '\x8b') {
        auto plain = unpacked(bytes, most_bytes);
        if (!plain) return tl::make_unexpected(plain.error());
        bytes = std::move(*plain);
    }
    if (trimmed(bytes).empty()) return fail("svg.empty", say("The file is empty."));
    return Entities().expand(std::move(bytes));
}

LineNumbers::LineNumbers(std::string_view text) {
    for (auto at = text.find('\n'); at != std::string_view::npos; at = text.find('\n', at + 1))
        ends_.push_back(static_cast<std::ptrdiff_t>(at));
}

int LineNumbers::at(std::ptrdiff_t offset) const {
    return 1 + static_cast<int>(std::lower_bound(ends_.begin(), ends_.end(), offset) - ends_.begin());
}

} // namespace dotlane::svg
