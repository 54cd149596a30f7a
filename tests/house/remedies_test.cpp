// Each remedy that a finding offers has somebody who applies it.
#include <filesystem>

#include "core/commands/remedies.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;
namespace fs = std::filesystem;

namespace {

/// Codes that stand in `{"code", "Label"`: a label is no sentence, so it does not end with a full stop.
std::set<std::string> offered(const std::string& text) {
    std::set<std::string> out;
    for (auto at = text.find("{\""); at != std::string::npos; at = text.find("{\"", at + 1)) {
        const auto end = text.find('"', at + 2);
        if (end == std::string::npos) break;
        const std::string code = text.substr(at + 2, end - at - 2);
        if (code.find('.') == std::string::npos && code != "set-aside") continue;
        if (code.find_first_not_of("abcdefghijklmnopqrstuvwxyz.-") != std::string::npos) continue;
        std::size_t begin = 0; // said there, or a row of a finding (to_say)
        for (const std::string_view said : {"\", say(\"", "\", to_say(\""})
            if (text.compare(end, said.size(), said) == 0) begin = end + said.size();
        if (begin == 0) continue;
        const auto close = text.find('"', begin);
        const std::string label = text.substr(begin, close - begin);
        if (!label.empty() && std::isupper(static_cast<unsigned char>(label[0])) && !label.ends_with('.') &&
            !label.ends_with('\\') && label.find(". ") == std::string::npos)
            out.insert(code);
    }
    return out;
}

} // namespace

TEST_CASE("every remedy that is offered can be applied") {
    const std::set<std::string> elsewhere = {"open.as-picture"}; // while a file is being opened
    std::size_t found = 0;
    for (const auto& entry : fs::recursive_directory_iterator(DOTLANE_SOURCE "/src/core")) {
        if (entry.path().extension() != ".cpp" && entry.path().filename() != "findings.h") continue;
        const std::string text = file(entry.path());
        for (const std::string& code : offered(text)) {
            INFO(entry.path() << ": " << code);
            ++found;
            // What a step offers for its own findings it does itself: `mend` in its file.
            const bool of_step = text.find("== \"" + code + "\"") != std::string::npos ||
                                 text.find("!= \"" + code + "\"") != std::string::npos;
            const bool in_steps = entry.path().string().find("/recipe/steps/") != std::string::npos;
            CHECK((has_remedy(code) || elsewhere.contains(code) || (in_steps && of_step)));
        }
    }
    CHECK(found > 12);
    CHECK_FALSE(has_remedy("no.such"));
}
