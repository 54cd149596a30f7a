// A source, a step, a style of fill and an action describe themselves: each is named by its own file, the
// list of its kind, and what it computes. More files may name one only where a reason stands here.
#include <filesystem>
#include <set>

#include "core/project/project.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;
namespace fs = std::filesystem;

namespace {

struct Named {
    const char* type;
    std::size_t files;
    const char* because;
};

// Its value with its row, the list of its kind, what it computes.
constexpr std::size_t usual = 3;

constexpr Named more[] = {
    // Remedies and jobs are things of their own, which name the step or source that they add or change.
    {"FillStep", 12,
     "its ground, its surface and its pieces are files of their own, with their headers; other ways to fill "
     "are "
     "told of; samples are made of all; one that came as lines is filled anew"},
    {"ParallelFill", 4, "pieces that a solid style passes beside are filled by it"},
    {"OutlineStep", 4, "thin pieces are thickened by one"},
    {"PatchStep", 4, "its digits are made as those of seams"},
    {"SeamStep", 4, "its digits are made as those of patches"},
    {"StencilStep", 4, "its bridges are a file of their own, with its header"},
    {"JoinStep", 4, "lines that nearly meet are joined by one"},
    {"PiecesStep", 6, "pieces become parts, or are dropped, by one; pictures of the window"},
    {"ApartStep", 5, "panels of a card that is too large lie apart; pictures of the window"},
    {"CleanStep", 5, "doubled lines, gaps and narrow places are mended by one"},
    {"ResizeStep", 5, "marks beyond the edge are made smaller by one; text that is resized is not judged"},
    {"TurnStep", 4, "marks beyond the edge are turned by one"},
    {"AlignStep", 9,
     "samples have their words below; words and other parts are put at a place in the same way; so are parts "
     "on sheets"},
    {"DistributeStep", 4, "parts on sheets are spread in the same way"},
    {"WordsStep", 5, "samples have words; brings lines, which are made among the sources"},
    {"PartStep", 4, "brings lines, which are made among the sources"},
    {"FoldedCard", 10,
     "shape cards fold in the same way; envelopes are found for it; panels when it is too large, found and "
     "mended in two files"},
    {"ShapeCard", 4, "pictures of the window"},
    {"Label", 5,
     "samples are drawn on some; stands for the other part in the pictures of those that follow one"},
    {"Layer", 8, "stacks of layers are made at once"},
    {"Badge", 5, "art beyond what is seen of it is told"},
    {"RepeatPattern", 4, "is counted without being made"},
    {"Lettering", 22,
     "steps hold one; fonts, glyphs, names of parts and sizes that can be read; the picture of a stencil; "
     "digits"},
    {"Picture", 8,
     "its file is opened and asked about; levels become parts; it is large in the project's file"},
    {"FromFile", 6, "whatever a file brought is not computed"},
};

std::size_t allowed(const std::string& type) {
    for (const Named& n : more)
        if (type == n.type) return n.files;
    return usual;
}

const std::map<std::string, std::string>& sources() {
    static const auto all = [] {
        std::map<std::string, std::string> out;
        for (const auto& entry : fs::recursive_directory_iterator(DOTLANE_SOURCE "/src"))
            if (const auto ext = entry.path().extension(); ext == ".h" || ext == ".cpp")
                out[fs::relative(entry.path(), DOTLANE_SOURCE "/src")] = file(entry.path());
        return out;
    }();
    return all;
}

/// Files of the program that name the type, other than in comments; those in which the word means something
/// else are left out.
std::vector<std::string> files_naming(const std::string& type) {
    static const std::set<std::string> others = {"core/formats/dxf/reader.cpp", "app/bench/canvas.h",
                                                 "app/bench/canvas.cpp"}; // their own Layer and Picture
    const auto part_of_word = [](char c) { return std::isalnum(static_cast<unsigned char>(c)) || c == '_'; };
    const auto names = [&](const std::string& text) {
        for (auto at = text.find(type); at != std::string::npos; at = text.find(type, at + 1)) {
            if ((at > 0 && part_of_word(text[at - 1])) || part_of_word(text[at + type.size()])) continue;
            const auto line = text.rfind('\n', at) + 1, first = text.find_first_not_of(' ', line);
            if (text.compare(first, 2, "//") != 0) return true;
        }
        return false;
    };
    std::vector<std::string> out;
    for (const auto& [name, text] : sources())
        if (!others.contains(name) && names(text)) out.push_back(name);
    return out;
}

/// The types whose files lie in a folder of kinds, by the row that stands in each.
std::vector<std::string> types_in(const std::string& folder) {
    std::vector<std::string> out;
    for (const auto& [name, text] : sources()) {
        const auto row = text.find("static constexpr ");
        if (!name.starts_with(folder + "/") || row == std::string::npos ||
            text.find(" row{", row) == std::string::npos)
            continue;
        const auto type = text.rfind("\nstruct ", row) + 8; // at the margin: not one within it
        out.push_back(text.substr(type, text.find(' ', type) - type));
    }
    return out;
}

} // namespace

TEST_CASE("no more files name a source, a step or a style of fill than say why") {
    std::size_t checked = 0;
    for (const char* folder : {"core/project/sources", "core/project/steps", "core/project/fills"})
        for (const std::string& type : types_in(folder)) {
            ++checked;
            const auto files = files_naming(type);
            std::string all;
            for (const auto& f : files)
                all += f + " ";
            INFO(type << " is named by " << all);
            CHECK(files.size() <= allowed(type));
            CHECK(files.size() >= usual);
        }
    CHECK(checked == all_source_kinds().size() + step_kinds().size() + fill_kinds().size());
}

TEST_CASE("no reason stands for more files than there are") {
    for (const Named& n : more) {
        INFO(n.type);
        CHECK(files_naming(n.type).size() == n.files);
    }
}

TEST_CASE("rare actions are named by their table and their look alone") {
    for (const char* name : {"engrave", "emboss"}) {
        std::set<std::string> rooms;
        for (const auto& [file, text] : sources())
            if (text.find(std::string("Action::") + name) != std::string::npos) rooms.insert(file);
        rooms.erase("present/sheet_painter.cpp"); // dents are pale on a rehearsed sheet
        INFO(name);
        CHECK(rooms == std::set<std::string>{"core/project/actions.cpp", "core/project/actions.h",
                                             "present/lane_style.cpp"});
    }
}
