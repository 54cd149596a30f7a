// Readers against bytes that nobody meant: whatever they are, there is a result or a clear error, never a
// crash, and what was read can be saved, opened again and planned. The same mutations every time; the
// sanitized build runs them too, and ./dotlane.sh fuzz goes on from here. DOTLANE_FUZZ_ROUNDS makes it
// longer, DOTLANE_FUZZ_SEED another one.
#include "tests/fuzz/readers.h"

#include <cstdlib>
#include <filesystem>

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

int number_from(const char* variable, int usual) {
    const char* given = std::getenv(variable);
    return given ? std::atoi(given) : usual;
}

std::vector<std::string> seeds_of(const std::string& reader) {
    std::vector<std::filesystem::path> paths;
    for (const std::string& folder : {std::string(DOTLANE_SOURCE "/tests/fuzz/corpus/") + reader,
                                      std::string(DOTLANE_SOURCE "/tests/core/project/old")}) {
        if (folder.ends_with("old") && reader != "project") continue;
        for (const auto& entry : std::filesystem::directory_iterator(folder))
            paths.push_back(entry.path());
    }
    std::sort(paths.begin(), paths.end());
    std::vector<std::string> out;
    for (const auto& path : paths)
        out.push_back(file(path.string()));
    return out;
}

class Mutator {
  public:
    Mutator(unsigned seed, const fuzz::Reader& reader)
        : engine_(seed)
        , words_(reader.words) {}

    std::string operator()(std::string text, const std::string& other) {
        for (std::size_t n = below(6) + 1; n > 0 && !text.empty(); --n) {
            const std::size_t at = below(text.size());
            switch (below(7)) {
            case 0:
                text[at] = static_cast<char>(below(256));
                break;
            case 1:
                text.erase(at, below(30) + 1);
                break;
            case 2:
                text.insert(at, words_[below(words_.size())]);
                break;
            case 3:
                text.resize(at);
                break;
            case 4:
                text.insert(at, text.substr(below(text.size()), below(200) + 1));
                break;
            case 5: // the rest of another one
                if (!other.empty()) text = text.substr(0, at) + other.substr(below(other.size()));
                break;
            default:
                text[at] = "0123456789-.eE<>/\"'#%"[below(21)];
            }
        }
        return text;
    }
    /// The engine's own numbers: distributions differ from library to library.
    std::size_t below(std::size_t n) { return engine_() % n; }

  private:
    std::mt19937 engine_;
    std::vector<std::string> words_;
};

/// Rounds that take about the same time in each reader.
int usual_rounds(const std::string& reader) {
    if (reader == "project") return 100; // each of them is planned
    if (reader == "svg" || reader == "hpgl") return 500;
    return reader == "typed" ? 20'000 : reader == "strokes" ? 2000 : 900;
}

void fuzz_one(const char* name) {
    const auto& all = fuzz::readers();
    const auto reader =
        std::find_if(all.begin(), all.end(), [&](const auto& r) { return std::string(r.name) == name; });
    REQUIRE(reader != all.end());
    const auto seeds = seeds_of(name);
    REQUIRE_FALSE(seeds.empty());
    const auto seed = static_cast<unsigned>(number_from("DOTLANE_FUZZ_SEED", 20261128));
    INFO("DOTLANE_FUZZ_SEED=" << seed);
    for (const std::string& bytes : seeds)
        CHECK(reader->read(bytes) == "");
    Mutator mutate(seed, *reader);
    for (int round = 0; round < number_from("DOTLANE_FUZZ_ROUNDS", usual_rounds(name)); ++round) {
        const std::string bytes =
            mutate(seeds[mutate.below(seeds.size())], seeds[mutate.below(seeds.size())]);
        INFO("round " << round);
        CHECK(reader->read(bytes) == "");
    }
}

} // namespace

TEST_CASE("mutated SVG files are opened or refused") {
    fuzz_one("svg");
}
TEST_CASE("mutated DXF files are opened or refused") {
    fuzz_one("dxf");
}
TEST_CASE("mutated HP-GL files are opened or refused") {
    fuzz_one("hpgl");
}
TEST_CASE("mutated pictures are traced or refused") {
    fuzz_one("picture");
}
TEST_CASE("mutated projects are opened or refused") {
    fuzz_one("project");
}
TEST_CASE("mutated catalogs are read or refused") {
    fuzz_one("tools");
}
TEST_CASE("mutated stroke fonts are read or refused") {
    fuzz_one("strokes");
}
TEST_CASE("mutated programs are read or refused") {
    fuzz_one("program");
}
TEST_CASE("anything may be typed into a number field") {
    fuzz_one("typed");
}
TEST_CASE("every reader that is fuzzed has its test here") {
    // Nine, as above: a tenth needs a test case and this number.
    CHECK(fuzz::readers().size() == 9);
}
