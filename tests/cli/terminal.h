// Runs verbs of the command line in-process, on files in memory.
#pragma once

#include <nlohmann/json.hpp>
#include <sstream>

#include "cli/run.h"
#include "core/project/format.h"
#include "tests/support/support.h"

namespace dotlane::test {

using nlohmann::json;

/// The files in memory on top of the real catalog.
class Files : public MemoryFiles {
  public:
    Result<std::string> read(const std::string& path, std::uint64_t max) override {
        return path.starts_with(DOTLANE_SOURCE) ? disk().read(path, max) : MemoryFiles::read(path, max);
    }
};

/// The words of a command as a shell takes them apart: quotes hold blanks together.
inline std::vector<std::string> words_of(const std::string& line) {
    std::vector<std::string> out(1);
    bool quoted = false;
    for (const char c : line)
        if (c == '\'')
            quoted = !quoted;
        else if (c == ' ' && !quoted)
            out.emplace_back();
        else
            out.back() += c;
    return out;
}

/// Verbs that are run one after the other keep what was worked out for each: of the demo that is a second.
struct Terminal {
    Files files;
    std::string out, err;

    Terminal() {
        ::setenv("DOTLANE_DATA", DOTLANE_SOURCE "/data", 1);
        files.files["card.svg"] =
            svg("<rect x='2' y='2' width='80' height='50' fill='none' stroke='#22282c'/><circle id='sun' "
                "cx='60' cy='30' r='8' fill='#a8832d'/>"
                "<path id='fold' d='M40,2 v50' fill='none' stroke='#5a6996'/><path d='M10,10 h20' "
                "fill='none' stroke='#a8462d'/>");
        files.files["bare.svg"] = "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 288 144'><rect "
                                  "width='288' height='144'/></svg>";
    }
    int run(std::vector<std::string> words) {
        words.insert(words.begin(), "dot-lane-cli");
        std::vector<const char*> argv;
        for (const std::string& w : words)
            argv.push_back(w.c_str());
        std::ostringstream o, e;
        static Workshop kept(catalog());
        const int code = cli::run(static_cast<int>(argv.size()), argv.data(), files, o, e, &kept);
        out = o.str(), err = e.str();
        return code;
    }
    json answer(std::vector<std::string> words, int code = 0) {
        words.emplace_back("--json");
        INFO(words[0]);
        const int got = run(words);
        INFO(err);
        REQUIRE(got == code);
        return json::parse(out);
    }
    Project project(const std::string& path = "p.dotlane") { return must(load_project(files, path)); }
    /// Imported, filled and placed.
    void prepare() {
        REQUIRE(run({"import", "card.svg", "p.dotlane"}) == 0);
        REQUIRE(run({"fill", "p.dotlane", "--line-set", "F"}) == 0);
        REQUIRE(run({"place", "p.dotlane"}) == 0);
    }
};

} // namespace dotlane::test
