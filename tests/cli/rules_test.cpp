// What holds for all verbs: one rule for what is left out, nothing depends on the country, slips are told.
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
    CHECK(in_mm(fill.spacing) == Approx(0.85 * in_mm(catalog().tool(lane.tool)->tip)));

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
    CHECK(all.size() == source_kinds().size() + step_kinds().size());
    for (const json& kind : all) {
        CHECK_FALSE(kind["about"].get<std::string>().empty());
        for (const json& field : kind["fields"])
            CHECK_FALSE(field["range"].get<std::string>().empty());
    }
    const json one = answer({"kinds", "step", "outline"})["kinds"];
    REQUIRE(one.size() == 1);
    const auto& fields = one[0]["fields"];
    CHECK(std::any_of(fields.begin(), fields.end(), [](const json& f) { return f["key"] == "distance"; }));
    CHECK(answer({"kinds", "fill"})["kinds"].size() == 1);
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
