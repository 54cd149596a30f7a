#include "core/project/pieces_text.h"

#include <charconv>

#include "core/base/text.h"

namespace dotlane {

Result<std::vector<int>> piece_numbers(const std::string& text) {
    std::vector<int> out;
    for (const auto word : split(text, ", ")) {
        int from = 0, to = 0;
        const char* end = word.data() + word.size();
        auto read = std::from_chars(word.data(), end, from);
        to = from;
        if (read.ec == std::errc() && read.ptr != end && *read.ptr == '-')
            read = std::from_chars(read.ptr + 1, end, to);
        if (read.ec != std::errc() || read.ptr != end || from < 1 || to < from || to > 100000)
            return fail("step.pieces", say("\"%1\" is no number of a piece. Write 2 or 5-7.", word));
        for (int n = from; n <= to; ++n)
            out.push_back(n);
    }
    return out;
}

std::string piece_text(const std::set<int>& numbers) {
    std::string out;
    for (auto it = numbers.begin(); it != numbers.end();) {
        const int first = *it;
        int last = first;
        while (++it != numbers.end() && *it == last + 1)
            last = *it;
        out += (out.empty() ? "" : ", ") + std::to_string(first);
        if (last > first) out += (last == first + 1 ? ", " : "-") + std::to_string(last);
    }
    return out;
}

Result<std::vector<std::set<int>>> piece_groups(const std::string& text) {
    std::vector<std::set<int>> out;
    for (const auto group : split(text, ";")) {
        const auto numbers = piece_numbers(std::string(group));
        if (!numbers) return tl::make_unexpected(numbers.error());
        if (!numbers->empty()) out.emplace_back(numbers->begin(), numbers->end());
    }
    return out;
}

std::string group_text(const std::vector<std::set<int>>& groups) {
    std::string out;
    for (const auto& group : groups)
        if (!group.empty()) out += (out.empty() ? "" : "; ") + piece_text(group);
    return out;
}

} // namespace dotlane
