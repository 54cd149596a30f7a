// What holds for all verbs: one rule for what is left out, nothing depends on the country, slips are told.
#include <fstream>

#include "tests/cli/terminal.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("what is written does not depend on where decimals have a comma") {
    const auto written = [] {
        Terminal t;
        t.prepare();
        REQUIRE(t.run({"make", "p.dotlane", "lettering", "--set", "text=A{-1.5}V", "--set", "size=12,5mm"}) ==
                0);
        REQUIRE(t.run({"step", "p.dotlane", "--part", "A{-1.5}V", "--add", "outline", "--set",
                       "distance=1.25mm"}) == 0);
        REQUIRE(t.run({"place", "p.dotlane", "--part", "A{-1.5}V"}) == 0);
        t.run({"check", "p.dotlane", "--mend"});
        t.run({"export", "p.dotlane", "--to", "out", "--override-errors"});
        std::map<std::string, std::string> out;
        for (const auto& [path, bytes] : t.files.files)
            if (!path.ends_with(".pdf") && !path.ends_with("export.json"))
                out[path] = bytes; // PDF tells the time
        return out;
    };
    const auto plain = written();
    REQUIRE(plain.size() > 5);
    const CommaLocale here;
    const auto again = written();
    for (const auto& [path, bytes] : plain) {
        INFO(path);
        REQUIRE(again.contains(path));
        CHECK((again.at(path) == bytes)); // too long to be printed
    }
}

TEST_CASE("a fill is the same whichever verb adds it, and everything is filled when nothing is named") {
    const auto filled = [](std::vector<std::string> words) {
        Terminal t;
        REQUIRE(t.run({"import", "card.svg", "p.dotlane"}) == 0);
        REQUIRE(t.run(std::move(words)) == 0);
        return t.project();
    };
    const Project by_verb = filled({"fill", "p.dotlane"}),
                  by_step = filled({"step", "p.dotlane", "--add", "fill"});
    CHECK(by_verb == by_step);
    const Step& step = by_verb.parts[0].steps.at(0);
    CHECK(step.of.size() == 2); // the card and the sun are closed, fold and line are not
    const auto& fill = std::get<FillStep>(step.what);
    CHECK(in_degrees(fill.angle) == Approx(35));
    const Lane& lane = *find(by_verb, step.lane);
    CHECK(lane.action != Action::cut);
    CHECK(!fill.spacing); // as the tip is
    CHECK(in_mm(fill.spaced(catalog().tool(lane.tool)->tip)) ==
          Approx(0.85 * in_mm(catalog().tool(lane.tool)->tip)));

    Terminal t;
    REQUIRE(t.run({"import", "card.svg", "p.dotlane"}) == 0);
    REQUIRE(t.run({"fill", "p.dotlane", "--line-set", "F", "--keep-outline"}) == 0);
    for (const LineSet& set : t.project().parts[0].sets)
        CHECK_FALSE(set.set_aside);
    CHECK(t.run({"step", "p.dotlane", "--add", "outline"}) == 0); // of everything as well
}

TEST_CASE_METHOD(Terminal, "slips are told with what would have been right") {
    prepare();
    const std::string before = files.files["p.dotlane"];
    CHECK(run({"frob", "p.dotlane"}) == 2);
    CHECK(err.find("no command \"frob\"") != std::string::npos);
    CHECK(err.find("arrange") != std::string::npos);
    for (const std::vector<std::string>& words :
         std::vector<std::vector<std::string>>{{"step", "p.dotlane", "--remove"},
                                               {"step", "p.dotlane", "--off"},
                                               {"step", "p.dotlane", "--move-to", "1"},
                                               {"step", "p.dotlane", "--set", "distance=3mm"},
                                               {"fill", "p.dotlane", "--remove"},
                                               {"fill", "p.dotlane", "--off"}}) {
        CHECK(run(words) == 2);
        CHECK(err.find("--step") != std::string::npos);
    }
    CHECK(files.files["p.dotlane"] == before);
}

TEST_CASE_METHOD(Terminal, "a lane run twice tells how much is run, once") {
    REQUIRE(run({"make", "p.dotlane", "label"}) == 0);
    REQUIRE(run({"place", "p.dotlane"}) == 0);
    const auto sheet = [&] {
        REQUIRE(run({"export", "p.dotlane", "--to", "out"}) == 0);
        const std::string& text = files.files.at("out/run-sheet.txt");
        const auto at = text.find("1 stroke, ");
        REQUIRE(at != std::string::npos);
        return text.substr(at, text.find('\n', at) - at);
    };
    const std::string once = sheet();
    REQUIRE(run({"lane", "p.dotlane", "--change", "C", "--repeats", "2"}) == 0);
    CHECK(sheet() == once + ", all run 2 times");
}

TEST_CASE_METHOD(Terminal, "kinds and catalog are told without a project, with what the other verbs take") {
    const json all = answer({"kinds"})["kinds"];
    CHECK(all.size() == all_source_kinds().size() + step_kinds().size() + fill_kinds().size());
    for (const json& kind : all) {
        CHECK_FALSE(kind["about"].get<std::string>().empty());
        for (const json& field : kind["fields"])
            CHECK_FALSE(field["range"].get<std::string>().empty());
    }
    const json one = answer({"kinds", "step", "outline"})["kinds"];
    REQUIRE(one.size() == 1);
    const auto& fields = one[0]["fields"];
    CHECK(std::any_of(fields.begin(), fields.end(), [](const json& f) { return f["key"] == "distance"; }));
    CHECK(answer({"kinds", "fill"})["kinds"].size() == fill_kinds().size());
    CHECK(answer({"kinds", "fill", "parallel"})["kinds"][0]["fields"].size() > 4);
    CHECK(answer({"kinds", "step"})["kinds"].size() == step_kinds().size()); // a fill is one
    CHECK(run({"kinds", "step", "castle"}) == 2);
    CHECK(err.find("cut-out") != std::string::npos); // what there is
    CHECK(run({"kinds", "castles"}) == 2);

    const json catalog = answer({"catalog"});
    CHECK(catalog["stocks"].size() == test::catalog().stocks.size());
    CHECK(catalog["tools"].size() == test::catalog().tools.size());
    CHECK(answer({"catalog", "mats"}).size() == 1);
    // What it lists can be given to the verbs that ask for it.
    REQUIRE(run({"make", "p.dotlane", "label"}) == 0);
    const std::string stock = catalog["stocks"][0]["id"], mat = answer({"catalog", "mats"})["mats"][0]["id"];
    CHECK(run({"place", "p.dotlane", "--stock", stock, "--mat", mat}) <= 1);
    CHECK(project().sheets.at(0).stock == stock);
    REQUIRE(run({"catalog", "machines"}) == 0);
    CHECK(out.find(test::catalog().machines[0].id) != std::string::npos);
    CHECK(files.files.size() == 3); // two drawings and the project
}

TEST_CASE_METHOD(Terminal, "docs/kinds.md describes every kind as the program does") {
    // DOTLANE_REFRESH=1 writes it anew.
    std::string text = "# Kinds of source, step and fill\n\nWhat `dot-lane-cli kinds` tells, written by "
                       "`tests/cli/rules_test.cpp`. Set members with `--set KEY=VALUE`.\n";
    const json all = answer({"kinds"})["kinds"];
    for (const json& kind : all) {
        const auto word = [](const json& of, const char* key) { return of[key].get<std::string>(); };
        text += "\n## " + word(kind, "group") + " `" + word(kind, "kind") + "`: " + word(kind, "name") +
                "\n\n" + word(kind, "about") + "\n\n| key | | range | offered |\n|---|---|---|---|\n";
        for (const json& field : kind["fields"]) {
            const std::string help = word(field, "help");
            text += "| `" + word(field, "key") + "` | " + word(field, "label") +
                    (help.empty() ? "" : ". " + help) + " | " + word(field, "range") + " | " +
                    (field["offered"].is_string() ? word(field, "offered") : field["offered"].dump()) +
                    " |\n";
        }
    }
    const std::string path = DOTLANE_SOURCE "/docs/kinds.md";
    if (std::getenv("DOTLANE_REFRESH")) std::ofstream(path) << text;
    CHECK(file(path) == text);
}

namespace {

std::vector<std::string> verbs() {
    Terminal t;
    REQUIRE(t.run({"--help"}) == 0);
    std::vector<std::string> out;
    std::istringstream lines(t.out.substr(t.out.find("Subcommands:")));
    std::string line;
    for (std::getline(lines, line); std::getline(lines, line);)
        if (line.starts_with("  ") && line.size() > 2 && line[2] != ' ')
            out.push_back(words_of(line.substr(2))[0]);
    return out;
}

} // namespace

TEST_CASE("every verb's help has two examples, and each of them does what it says") {
    CHECK(verbs().size() >= 21);
    Terminal writer;
    writer.files.files["walk.dotlane"] = file(DOTLANE_SOURCE "/data/demo/saltmarsh.dotlane");
    REQUIRE(writer.run({"program", "walk.dotlane"}) == 0);
    const std::string program = writer.out;
    for (const std::string& verb : verbs()) {
        Terminal t;
        REQUIRE(t.run({verb, "--help"}) == 0);
        const std::string help = t.out;
        int examples = 0;
        for (auto at = help.find("\n  dot-lane-cli "); at != std::string::npos;
             at = help.find("\n  dot-lane-cli ", at + 1)) {
            const std::string line = help.substr(at + 3, help.find('\n', at + 1) - at - 3);
            INFO(line);
            auto words = words_of(line);
            words.erase(words.begin());
            CHECK(words.front() == verb);
            Terminal fresh;
            fresh.files.files["walk.dotlane"] = file(DOTLANE_SOURCE "/data/demo/saltmarsh.dotlane");
            fresh.files.files["invitation.svg"] = fresh.files.files["card.svg"];
            fresh.files.files["walk.jsonl"] = program;
            if (const auto redirected = std::find(words.begin(), words.end(), ">"); redirected != words.end())
                words.erase(redirected, words.end());
            const int code = fresh.run(words);
            INFO(fresh.err);
            CHECK(code == 0);
            CHECK_FALSE(fresh.out.empty());
            ++examples;
        }
        INFO(verb);
        CHECK(examples == 2);
    }
}

TEST_CASE("with --json there is one document on stdout and nothing else, whatever happens") {
    const std::vector<std::vector<std::string>> all = {
        {"import", "card.svg", "q.dotlane"},
        {"import", "none.svg", "q.dotlane"},
        {"make", "q.dotlane", "label"},
        {"make", "q.dotlane", "nothing"},
        {"kinds"},
        {"kinds", "frob"},
        {"catalog"},
        {"catalog", "frob"},
        {"project", "p.dotlane"},
        {"project", "p.dotlane", "--machine", "none"},
        {"part", "p.dotlane", "--copy"},
        {"part", "p.dotlane"},
        {"source", "p.dotlane"},
        {"step", "p.dotlane"},
        {"step", "p.dotlane", "--add", "outline"},
        {"step", "p.dotlane", "--add", "frob"},
        {"fill", "p.dotlane"},
        {"fill", "p.dotlane", "--spacing", "x"},
        {"samples", "p.dotlane", "--lane", "X"},
        {"samples", "empty.dotlane"},
        {"lane", "p.dotlane", "--machine", "one-slot"},
        {"lane", "p.dotlane", "--all", "--to", "C"},
        {"lane", "p.dotlane", "--change", "C", "--repeats", "2"},
        {"lane", "p.dotlane", "--change", "X"},
        {"apart", "p.dotlane", "--by", "colour"},
        {"colours", "p.dotlane"},
        {"colours", "p.dotlane", "--within", "99"},
        {"glyphs", "Lobster Two"},
        {"glyphs", "No Such Font"},
        {"sheet", "p.dotlane", "--add"},
        {"sheet", "p.dotlane", "--sheet", "none", "--remove"},
        {"place", "p.dotlane"},
        {"place", "p.dotlane", "--wanted", "3"},
        {"place", "p.dotlane", "--change", "999"},
        {"arrange", "p.dotlane", "--align", "left"},
        {"show", "p.dotlane"},
        {"show", "card.svg"},
        {"check", "p.dotlane"},
        {"plan", "p.dotlane"},
        {"plan", "empty.dotlane"},
        {"plan", "p.dotlane", "--compare", "tools"},
        {"plan", "p.dotlane", "--why-move", "stop 1"},
        {"setting"},
        {"setting", "--tool", "frob", "--pressure", "1"},
        {"samples", "p.dotlane", "--crosses"},
        {"program", "p.dotlane"},
        {"program"},
        {"rehearse", "p.dotlane"},
        {"rehearse", "p.dotlane", "--at", "nan"},
        {"export", "p.dotlane", "--to", "out"},
        {"export", "p.dotlane"},
        {"frob"},
        {"show", "p.dotlane", "--frob"},
    };
    std::set<std::string> seen;
    for (auto words : all) {
        Terminal t;
        t.prepare();
        t.files.files["empty.dotlane"] = write_project(Workshop(catalog()).new_project("empty"));
        seen.insert(words[0]);
        words.emplace_back("--json");
        std::string line;
        for (const std::string& w : words)
            line += w + " ";
        INFO(line);
        const int code = t.run(words);
        const json answer = json::parse(t.out, nullptr, false);
        REQUIRE_FALSE(answer.is_discarded());
        CHECK_FALSE(answer.empty());
        CHECK(t.err.empty());
        CHECK(answer.contains("error") == (code == 2));
        if (code == 2)
            for (const char* key : {"code", "message", "place"})
                CHECK(answer["error"].contains(key));
        // No number carries the dust of binary fractions: 5.08, not 5.079999999999999.
        if (words[0] == "program") continue; // whose numbers are all their digits
        CHECK(t.out.find("99999999") == std::string::npos);
        CHECK(t.out.find("00000000") == std::string::npos);
    }
    for (const std::string& verb : verbs())
        CHECK(seen.contains(verb));
}

TEST_CASE("every verb that writes can save elsewhere or not at all") {
    for (const std::string& verb : verbs()) {
        Terminal t;
        REQUIRE(t.run({verb, "--help"}) == 0);
        const bool dry = t.out.find("--dry-run") != std::string::npos;
        const std::set<std::string> looks = {"kinds",   "catalog", "glyphs",   "show",
                                             "setting", "program", "rehearse", "export"};
        INFO(verb);
        CHECK(dry != looks.contains(verb));
        if (dry) CHECK(t.out.find("--to") != std::string::npos);
    }
    Terminal t;
    t.prepare();
    const std::string before = t.files.files["p.dotlane"];
    CHECK(t.answer({"part", "p.dotlane", "--quantity", "7", "--dry-run"})["dry_run"] == true);
    CHECK(t.files.files["p.dotlane"] == before);
    REQUIRE(t.run({"part", "p.dotlane", "--quantity", "7", "--to", "other.dotlane"}) == 0);
    CHECK(t.files.files["p.dotlane"] == before);
    CHECK(t.project("other.dotlane").parts[0].quantity == 7);
    CHECK(t.run({"part", "p.dotlane", "--quantity", "8", "--to", "other.dotlane"}) ==
          2); // never over what is there
    CHECK(t.project("other.dotlane").parts[0].quantity == 7);
    REQUIRE(t.run({"lane", "p.dotlane", "--all", "--to", "C", "--to", "cut.dotlane"}) == 0);
    CHECK(t.files.files["p.dotlane"] == before);
    const Project cut = t.project("cut.dotlane");
    for (const LineSet& set : cut.parts[0].sets)
        CHECK(find(cut, set.lane)->action == Action::cut);
    CHECK(t.run({"make", "none.dotlane", "label", "--dry-run"}) == 0);
    CHECK_FALSE(t.files.files.contains("none.dotlane"));
}
