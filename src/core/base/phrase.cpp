#include "core/base/phrase.h"

namespace dotlane {

std::string of_number(std::string_view text, std::size_t n) {
    std::string out;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const std::size_t bar = text[i] == '[' ? text.find('|', i) : text.npos,
                          end = bar == text.npos ? bar : text.find(']', bar);
        if (end != text.npos) {
            out += n == 1 ? text.substr(i + 1, bar - i - 1) : text.substr(bar + 1, end - bar - 1);
            i = end;
        } else if (text.substr(i, 2) == "%n") {
            out += std::to_string(n), ++i;
        } else {
            out += text[i];
        }
    }
    return out;
}

std::string filled_in(std::string_view text, const std::vector<std::string>& said) {
    std::string out;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const bool place = text[i] == '%' && i + 1 < text.size() && text[i + 1] >= '1' && text[i + 1] <= '9';
        if (const std::size_t at = place ? static_cast<std::size_t>(text[i + 1] - '1') : 9; at < said.size())
            out += said[at], ++i;
        else
            out += text[i];
    }
    return out;
}

std::string Phrase::english() const {
    if (context.empty()) return text;
    std::vector<std::string> said;
    for (const Phrase& arg : args)
        said.push_back(arg.english());
    return filled_in(n ? of_number(text, *n) : text, said);
}

Phrase joined(const std::vector<Phrase>& all, const char* between) {
    Phrase out;
    for (const Phrase& next : all)
        out = out.empty() ? next : Phrase{"%1" + std::string(between) + "%2", core_words, {}, {out, next}};
    return out;
}

} // namespace dotlane
