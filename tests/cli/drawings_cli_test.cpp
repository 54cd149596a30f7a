// Drawings on the command line: strays, what a renderer shows, taking apart, what fits turned.
#include "tests/cli/terminal.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE_METHOD(Terminal, "import: strays are told with a remedy, or treated as asked") {
    files.files["littered.svg"] = littered;
    const json told = answer({"import", "littered.svg", "s.dotlane"});
    bool found = false;
    for (const json& f : told["findings"])
        found = found || f["code"] == "open.stray";
    CHECK(found);
    CHECK(run({"check", "s.dotlane", "--mend", "stray.drop"}) == 0);
    CHECK(project("s.dotlane").parts[0].source.drawing->lines.size() == 2);
    CHECK(answer({"import", "littered.svg", "s.dotlane", "--strays", "near"})["width_mm"].get<double>() ==
          Approx(140 + 5 + 1.2));
    CHECK(answer({"import", "littered.svg", "s.dotlane", "--strays", "keep"})["width_mm"].get<double>() >
          380);
    // An option without an effect is refused.
    CHECK(run({"import", "card.svg", "s.dotlane", "--strays", "drop"}) == 2);
    CHECK(err.find("No line lies far off") != std::string::npos);
    CHECK(project("s.dotlane").parts.size() == 3);
}

TEST_CASE_METHOD(Terminal, "import --as-picture traces what a renderer shows, at the page's size") {
    files.files["littered.svg"] = littered;
    const json made = answer({"import", "littered.svg", "p.dotlane", "--as-picture"});
    CHECK(made["width_mm"].get<double>() == Approx(386.6).margin(1));
    const Project p = project("p.dotlane");
    const auto* picture = std::get_if<Picture>(&p.parts[0].source.spec);
    REQUIRE(picture);
    CHECK(in_mm(picture->width) == Approx(400));
    CHECK(run({"import", "littered.svg", "p.dotlane", "--as-picture", "--strays", "drop"}) == 2);
    files.files["broken.svg"] = "<svg xmlns='http://www.w3.org/2000/svg'><g>";
    CHECK(run({"import", "broken.svg", "p.dotlane", "--as-picture"}) == 2);
    CHECK(err.find("Nothing has changed") != std::string::npos);
    CHECK(project("p.dotlane").parts.size() == 1);
}

TEST_CASE_METHOD(
    Terminal, "apart: a drawing by colour, group, name and piece, and what cannot be told apart is refused") {
    files.files["littered.svg"] = littered;
    for (const char* by : {"colour", "group", "piece"}) {
        const std::string file = std::string(by) + ".dotlane";
        REQUIRE(run({"import", "littered.svg", file}) == 0);
        CHECK(answer({"apart", file, "--by", by})["parts"].size() == 3);
        CHECK(project(file).parts.size() == 3);
    }
    CHECK(run({"apart", "group.dotlane", "--part", "#1", "--by", "level"}) == 2);
    CHECK(run({"apart", "group.dotlane", "--part", "#1", "--by", "name"}) == 2);
    CHECK(err.find("By name the lines make 1 part") != std::string::npos);
    CHECK(project("group.dotlane").parts.size() == 3);
}

TEST_CASE_METHOD(Terminal, "what fits only askew is said and turned, what fits nowhere becomes panels") {
    REQUIRE(run({"make", "f.dotlane", "label", "--name", "Strip", "--set", "edge=plain", "--set",
                 "width=310mm", "--set", "height=100mm"}) == 0);
    REQUIRE(run({"lane", "f.dotlane", "--machine", "one-slot"}) == 0);
    CHECK(run({"place", "f.dotlane"}) == 1);
    CHECK(run({"check", "f.dotlane"}) == 1);
    CHECK(out.find("It fits turned by 41.8 to 49.6 degrees") != std::string::npos);
    CHECK(run({"check", "f.dotlane", "--mend", "part.turn-to-fit"}) == 0);
    CHECK(run({"check", "f.dotlane"}) == 0);
    REQUIRE(run({"make", "f.dotlane", "folded-card", "--set", "width=250mm", "--set", "height=250mm"}) == 0);
    CHECK(run({"check", "f.dotlane", "--mend", "card.panels"}) == 0);
    const Project p = project("f.dotlane");
    const auto* card = std::get_if<FoldedCard>(&p.parts.back().source.spec);
    REQUIRE(card);
    CHECK(in_mm(card->hinge) == Approx(15));
    CHECK(run({"place", "f.dotlane", "--part", "Folded card", "--pieces"}) == 0);
}
