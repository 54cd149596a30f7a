#include "core/exports/export_names.h"

#include <algorithm>
#include <vector>

#include "core/base/text.h"

namespace dotlane {
namespace {

constexpr std::size_t ending_bytes = 4; ///< ".svg"

} // namespace

std::string file_word(std::string_view name, std::size_t most_bytes) {
    std::string out;
    for (const char c : printable(name)) {
        const bool borne = std::string_view(" /\\:*?\"<>|\n\r\t").find(c) == std::string_view::npos;
        if (borne)
            out += c;
        else if (!out.ends_with('-'))
            out += '-';
    }
    const auto trim = [&] {
        while (!out.empty() && (out.back() == '-' || out.back() == '.'))
            out.pop_back();
        out.erase(0, std::min(out.find_first_not_of("-."), out.size()));
    };
    trim();
    out = shortened(std::move(out), most_bytes);
    trim();
    return out.empty() ? "unnamed" : out;
}

ExportNames::ExportNames(const Program& program) {
    std::vector<const ProgramSheet*> sheets;
    const auto take = [&](const ProgramSheet& sheet) {
        if (std::none_of(sheets.begin(), sheets.end(),
                         [&](const auto* s) { return s->sheet == sheet.sheet; }))
            sheets.push_back(&sheet);
    };
    for (const ProgramSheet& sheet : program.sheets)
        take(sheet);
    for (const PrintSheet& print : program.prints)
        take(print.sheet);
    if (sheets.size() < 2) return;
    for (const ProgramSheet* sheet : sheets) {
        // Room for what stands before and behind it, a number among many of the same name too.
        const std::string word = file_word(sheet->name, 70);
        std::string different = word;
        for (int n = 2; std::any_of(words_.begin(), words_.end(),
                                    [&](const auto& known) { return same_word(known.second, different); });
             ++n)
            different = word + "-" + std::to_string(n);
        words_[sheet->sheet] = std::move(different);
    }
}

std::string ExportNames::of_sheet(const char* begin, SheetId sheet) const {
    const auto word = words_.find(sheet);
    return begin + (word == words_.end() ? std::string() : "-" + word->second);
}

std::string ExportNames::pass(const PassMove& pass) const {
    std::string name = (pass.number < 10 ? "0" : "") + std::to_string(pass.number) + "-";
    if (const auto word = words_.find(pass.sheet); word != words_.end()) name += word->second + "-";
    name += std::string(action_name(pass.action)) + "-";
    return name + file_word(pass.lane_name, longest_file_name - ending_bytes - name.size()) + ".svg";
}

} // namespace dotlane
