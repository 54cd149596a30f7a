// Each verb in-process: words, JSON, exit codes, what is written and what is not.
#include <zlib.h>

#include "core/formats/svg/reader.h"
#include "tests/cli/terminal.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE_METHOD(Terminal, "help and usage: every verb has it, nothing needs a display") {
    CHECK(run({"--help"}) == 0);
    for (const char* verb :
         {"import", "show", "lane", "fill", "place", "check", "plan", "rehearse", "export"}) {
        CHECK(run({verb, "--help"}) == 0);
        CHECK(out.find("--json") != std::string::npos);
    }
    CHECK(run({"--version"}) == 0);
    CHECK(run({}) == 2);
    CHECK(run({"fly"}) == 2);
    CHECK(run({"show"}) == 2);
    CHECK_FALSE(err.empty());
    CHECK(run({"show", "none.dotlane"}) == 2);
    CHECK(err.find("no file") != std::string::npos);
    CHECK(out.empty());
}

TEST_CASE_METHOD(Terminal, "import: parts, lanes and reasons, a file without size asks") {
    const json a = answer({"import", "card.svg", "p.dotlane", "--name", "Card"});
    CHECK(a["name"] == "Card");
    CHECK(a["lines"] == 4);
    CHECK(a["width_mm"].get<double>() == Approx(80));
    CHECK(a["lanes"].size() == 4);
    CHECK(a["lanes"][0]["action"] == "cut");
    CHECK(run({"import", "bare.svg", "q.dotlane"}) == 2);
    for (const char* size : {"76.2 mm", "81.28 mm", "101.6 mm"})
        CHECK(err.find(size) != std::string::npos);
    CHECK_FALSE(files.exists("q.dotlane"));
    CHECK(answer({"import", "bare.svg", "q.dotlane", "--per-inch", "72"})["width_mm"].get<double>() ==
          Approx(101.6));
    CHECK(answer({"import", "bare.svg", "q.dotlane", "--width", "4.5in"})["width_mm"].get<double>() ==
          Approx(114.3));
    CHECK(project("q.dotlane").parts.size() == 2); // a second part in the same project
    CHECK(run({"import", "bare.svg", "q.dotlane", "--width", "wide"}) == 2);
    CHECK(run({"import", "bare.svg", "q.dotlane", "--width", "1in", "--per-inch", "90"}) == 2);
    CHECK(run({"import", "none.svg", "q.dotlane"}) == 2);
    files.files["bad.svg"] = "<svg><g>";
    CHECK(run({"import", "bad.svg", "q.dotlane", "--json"}) == 2);
    CHECK(json::parse(out)["error"]["code"] == "svg.not-xml");
    CHECK(json::parse(out)["error"]["place"]["line"] == 1);
    CHECK(project("q.dotlane").parts.size() == 2);
}

TEST_CASE_METHOD(Terminal,
                 "import: options of size work where they apply and are refused where they do not") {
    const auto width = [&](std::vector<std::string> words) {
        return answer(std::move(words))["width_mm"].get<double>();
    };
    // bare.svg is 288 units wide and does not say how large they are.
    CHECK(width({"import", "bare.svg", "u.dotlane", "--unit", "mm"}) == Approx(288));
    CHECK(width({"import", "bare.svg", "u.dotlane", "--unit", "cm"}) == Approx(2880));
    CHECK(width({"import", "bare.svg", "u.dotlane", "--unit", "in"}) == Approx(288 * 25.4));
    files.files["bare.dxf"] =
        "0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n144\n21\n0\n0\nENDSEC\n0\nEOF\n";
    CHECK(width({"import", "bare.dxf", "u.dotlane", "--per-inch", "72"}) == Approx(50.8));
    const std::size_t before = project("u.dotlane").parts.size();
    files.files["plot.plt"] = "IN;SP1;PU0,0;PD4000,0;PU;";
    for (const auto& [file, option, value] :
         std::vector<std::array<const char*, 3>>{{"card.svg", "--per-inch", "72"},
                                                 {"card.svg", "--unit", "in"},
                                                 {"plot.plt", "--unit", "in"},
                                                 {"plot.plt", "--per-inch", "300"}}) {
        INFO(file << " " << option);
        CHECK(run({"import", file, "u.dotlane", option, value}) == 2);
        CHECK(err.find("does not apply") != std::string::npos);
        CHECK(err.find("--width") != std::string::npos); // what does
    }
    CHECK(project("u.dotlane").parts.size() == before);
    CHECK(width({"import", "card.svg", "u.dotlane", "--width", "40mm"}) == Approx(40));
}

TEST_CASE_METHOD(Terminal, "import: pictures say or ask how large they are") {
    // 60 x 30 pixels, black; PNG by hand: with and without its density (ISO/IEC 15948, pHYs in pixels to the
    // metre).
    const auto big_endian = [](std::uint32_t v) {
        return std::string{char(v >> 24), char(v >> 16 & 255), char(v >> 8 & 255), char(v & 255)};
    };
    const auto chunk = [&](const std::string& kind, const std::string& data) {
        const std::string body = kind + data;
        return big_endian(static_cast<std::uint32_t>(data.size())) + body +
               big_endian(static_cast<std::uint32_t>(
                   ::crc32(0, reinterpret_cast<const Bytef*>(body.data()), static_cast<uInt>(body.size()))));
    };
    const auto png = [&](const std::string& density) {
        std::string rows;
        for (int y = 0; y < 30; ++y)
            rows += std::string(1, '\0') + std::string(20, '\xff') + std::string(20, '\0') +
                    std::string(20, '\xff');
        uLongf size = ::compressBound(static_cast<uLong>(rows.size()));
        std::string packed(size, '\0');
        ::compress(reinterpret_cast<Bytef*>(packed.data()), &size,
                   reinterpret_cast<const Bytef*>(rows.data()), static_cast<uLong>(rows.size()));
        packed.resize(size);
        return "\x89PNG\r\n\x1a\n" +
               chunk("IHDR", big_endian(60) + big_endian(30) + std::string("\x08\0\0\0\0", 5)) + density +
               chunk("IDAT", packed) + chunk("IEND", "");
    };
    files.files["sized.png"] =
        png(chunk("pHYs", big_endian(11811) + big_endian(11811) + "\1")); // 300 to the inch
    files.files["bare.png"] = png("");
    const auto width = [&](std::vector<std::string> words) {
        return answer(std::move(words))["numbers"]["width_mm"].get<double>();
    };
    CHECK(width({"import", "sized.png", "i.dotlane"}) == Approx(60 / 300.0 * 25.4).epsilon(1e-4));
    CHECK(run({"import", "bare.png", "i.dotlane"}) == 2);
    for (const char* size : {"5.08 mm", "10.16 mm", "15.88 mm", "--per-inch 300", "--width"})
        CHECK(err.find(size) != std::string::npos);
    CHECK(width({"import", "bare.png", "i.dotlane", "--per-inch", "150"}) == Approx(10.16));
    CHECK(width({"import", "sized.png", "i.dotlane", "--per-inch", "150"}) ==
          Approx(10.16)); // densities are often wrong
    CHECK(width({"import", "bare.png", "i.dotlane", "--width", "2in"}) == Approx(50.8));
    CHECK(run({"import", "bare.png", "i.dotlane", "--unit", "in"}) == 2);
    CHECK(err.find("does not apply") != std::string::npos);
    CHECK(run({"import", "bare.png", "i.dotlane", "--width", "9m"}) == 2);
    files.files["cut.png"] = files.files["sized.png"].substr(0, files.files["sized.png"].size() - 20);
    CHECK(run({"import", "cut.png", "i.dotlane"}) == 2);
    CHECK(project("i.dotlane").parts.size() == 4);
}

TEST_CASE_METHOD(Terminal, "import: what is too large names the way to have it all the same") {
    std::string big =
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='0 0 100 100'>";
    for (int i = 0; i < 160'000; ++i)
        big += "<path stroke='red' d='M1,1h" + std::to_string(i % 50) + "'/>";
    files.files["big.svg"] = big + "</svg>";
    CHECK(run({"import", "big.svg", "l.dotlane"}) == 2);
    CHECK(err.find("--large") != std::string::npos);
    CHECK_FALSE(files.exists("l.dotlane"));
    CHECK(run({"import", "big.svg", "l.dotlane", "--large"}) == 0);
}

TEST_CASE_METHOD(Terminal, "glyphs: a font's glyphs, what may stand for them, its switches") {
    const json all = answer({"glyphs", "EB Garamond", "--italic"});
    CHECK(all["glyphs"].size() == 2515);
    const json some = answer({"glyphs", "EB Garamond", "--italic", "--find", "Q"});
    CHECK(some["glyphs"][0]["character"] == "Q");
    CHECK(some["glyphs"][0]["alternates"].dump().find("Q.sw") != std::string::npos);
    CHECK(some["features"].size() > 10);
    REQUIRE(run({"glyphs", "EB Garamond", "--italic", "--find", "Q.sw"}) == 0);
    CHECK(out.find("{/Q.sw}") != std::string::npos);
    CHECK(run({"glyphs", "No Such Font"}) == 2);
    CHECK(run({"glyphs"}) == 2);
}

TEST_CASE_METHOD(Terminal, "make: parts from numbers, every kind, in a project that is made for them") {
    for (const SourceKind& kind : source_kinds()) {
        const json made = answer({"make", "m.dotlane", kind.key});
        CHECK(made["lines"] > 0);
        CHECK(made["width_mm"] > 1);
        CHECK(made["findings"].size() <= 1);
    }
    CHECK(project("m.dotlane").parts.size() == source_kinds().size());
    // A card folded in half: the base is twice as wide as the card, the fold in its middle.
    const json card = answer({"make", "m.dotlane", "folded-card", "--set", "width=150mm", "--set",
                              "height=10cm", "--name", "Thanks", "--quantity", "12"});
    CHECK(card["figures"]["base_width_mm"] == 300);
    CHECK(card["figures"]["fold_at_mm"] == 150);
    CHECK(card["numbers"]["height_mm"] == 100);
    CHECK(card["name"] == "Thanks");
    CHECK(project("m.dotlane").parts.back().quantity == 12);
    REQUIRE(run({"make", "m.dotlane", "folded-card"}) == 0);
    CHECK(out.find("fits envelope C6") != std::string::npos);
    CHECK(run({"make", "m.dotlane", "castle"}) == 2);
    CHECK(err.find("folded-card") != std::string::npos); // what there is
    CHECK(run({"make", "m.dotlane", "label", "--set", "wdith=3"}) == 2);
    CHECK(err.find("width") != std::string::npos);
    CHECK(run({"make", "m.dotlane", "label", "--set", "width=-3"}) == 2);
    CHECK(run({"make", "m.dotlane", "label", "--set", "edge=wobbly"}) == 2);
    CHECK(run({"make", "m.dotlane", "label", "--set", "width"}) == 2);
    CHECK(run({"make", "m.dotlane", "lettering", "--set", "weight=4.5"}) == 2);
    CHECK(run({"make", "m.dotlane", "lettering", "--set", "join=perhaps"}) == 2);
}

TEST_CASE_METHOD(Terminal, "source and step: numbers changed, steps added, moved, switched, removed") {
    REQUIRE(run({"make", "m.dotlane", "lettering", "--set", "text=tide\\nmarsh", "--set", "join=yes"}) == 0);
    CHECK(std::get<Lettering>(project("m.dotlane").parts[0].source.spec).text == "tide\nmarsh");
    CHECK(answer({"source", "m.dotlane", "--set", "text=Saltmarsh", "--set",
                  "snug=0.3"})["figures"]["pieces"] == 1);
    REQUIRE(run({"source", "m.dotlane"}) == 0);
    CHECK(out.find("glyph-width") != std::string::npos);
    json steps =
        answer({"step", "m.dotlane", "--add", "outline", "--of", "letters", "--set", "distance=2mm"});
    REQUIRE(steps["steps"].size() == 1);
    const auto rim = std::to_string(steps["steps"][0]["step"].get<int>());
    CHECK(steps["steps"][0]["figures"]["holes_after"] == 0);
    steps = answer({"step", "m.dotlane", "--add", "dash", "--of", "outline"});
    const auto dash = std::to_string(steps["steps"][1]["step"].get<int>());
    CHECK(run({"step", "m.dotlane", "--step", dash, "--move-to", "1"}) == 2);
    CHECK(run({"step", "m.dotlane", "--step", rim, "--remove"}) == 2); // the dashes need it
    CHECK(answer({"step", "m.dotlane", "--step", dash, "--off"})["steps"][1]["on"] == false);
    CHECK(answer({"step", "m.dotlane", "--step", dash, "--remove"})["steps"].size() == 1);
    CHECK(answer({"step", "m.dotlane", "--add", "words", "--set", "text=2026"})["steps"].size() == 2);
    CHECK(run({"step", "m.dotlane", "--add", "outline", "--of", "letters", "--set", "distance=-40mm"}) == 1);
    CHECK(run({"step", "m.dotlane", "--add", "polish"}) == 2);
    CHECK(run({"step", "m.dotlane", "--add", "outline", "--of", "nothing"}) == 2);
    CHECK(run({"step", "m.dotlane", "--step", "999", "--off"}) == 2);
    prepare();
    CHECK(run({"source", "p.dotlane"}) == 2); // a file has no numbers
}

TEST_CASE_METHOD(Terminal, "import: DXF with and without a unit, HP-GL, pictures") {
    const auto dxf = [](const char* units) {
        return std::string("0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n") + units +
               "\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n0\nLINE\n8\nfold\n10\n0\n20\n0\n11\n4\n21\n0\n"
               "0\nCIRCLE\n8\ncut\n10\n2\n20\n2\n40\n1\n0\nENDSEC\n0\nEOF\n";
    };
    files.files["inch.dxf"] = dxf("1");
    files.files["bare.dxf"] = dxf("0");
    files.files["plot.plt"] = "IN;SP1;PU0,0;PD4000,0;PU;";
    CHECK(answer({"import", "inch.dxf", "d.dotlane"})["width_mm"] == Approx(101.6));
    CHECK(run({"import", "bare.dxf", "d.dotlane"}) == 2); // asks, with the sizes it would have
    CHECK(err.find("--unit mm") != std::string::npos);
    CHECK(answer({"import", "bare.dxf", "d.dotlane", "--unit", "cm"})["width_mm"] == Approx(40));
    CHECK(answer({"import", "plot.plt", "d.dotlane"})["width_mm"] == Approx(100));
    const Project p = project("d.dotlane");
    REQUIRE(p.parts.size() == 3);
    const auto& lines = p.parts[0].source.drawing->lines;
    CHECK(std::any_of(lines.begin(), lines.end(), [](const DrawnLine& l) { return l.group == "fold"; }));
    files.files["torn.png"] = "\x89PNG\r\n\x1a\n";
    CHECK(run({"import", "torn.png", "d.dotlane"}) == 2);
    CHECK(err.find("damaged or cut short") != std::string::npos);
    CHECK(project("d.dotlane").parts.size() == 3);
    files.files["no.jpg"] = "not a picture";
    CHECK(run({"import", "no.jpg", "d.dotlane"}) == 2);
}

TEST_CASE_METHOD(Terminal, "step: each kind can be added, says what it did, and is taken away again") {
    REQUIRE(run({"make", "s.dotlane", "label", "--name", "Tag"}) == 0); // for the step that brings its lines
    REQUIRE(run({"make", "s.dotlane", "lettering", "--set", "text=tide"}) == 0);
    REQUIRE(run({"make", "s.dotlane", "folded-card", "--name", "Card"}) == 0);
    for (const StepKind& kind : step_kinds()) {
        INFO(kind.key);
        const bool other = kind.second == StepKind::Second::wanted;
        std::vector<std::string> words = {"step", "s.dotlane", "--part", "tide", "--add", kind.key};
        // What folds need is a card's.
        const bool folds = kind.wanted == StepRow::Wanted::fold && kind.makes;
        if (folds) words[3] = "Card", words.insert(words.end(), {"--of", "fold"});
        if ((kind.makes && !folds) || other) words.insert(words.end(), {"--of", "letters"});
        if (other) words.insert(words.end(), {"--by", "letters"});
        words.emplace_back("--json");
        // "Align" has nothing else to align to, and one fold crosses none: both are told.
        const int code = run(words);
        CHECK((code == 0 ||
               (code == 1 && (std::string(kind.key) == "align" || std::string(kind.key) == "relief"))));
        const json steps = json::parse(out)["steps"];
        REQUIRE(steps.size() == 1);
        CHECK(steps[0]["kind"] == kind.key);
        CHECK((steps[0]["result"] > 0) == kind.makes);
        REQUIRE(run({"step", "s.dotlane", "--part", words[3], "--step",
                     std::to_string(steps[0]["step"].get<int>()), "--remove"}) == 0);
        for (const LineSet& set : project("s.dotlane").parts[1].sets)
            CHECK_FALSE(set.set_aside);
    }
}

TEST_CASE_METHOD(Terminal, "lane: sends lines, changes lanes, machine and order") {
    prepare();
    CHECK(answer({"lane", "p.dotlane", "--named", "fold", "--action", "perforate"})["lines"] == 1);
    CHECK(answer({"check", "p.dotlane"}, 0)["errors"] == 0);
    CHECK(answer({"lane", "p.dotlane", "--colour", "#a8462d", "--to", "none"})["to"] == "no lane");
    CHECK(answer({"check", "p.dotlane"}, 1)["errors"] == 1);
    CHECK(answer({"lane", "p.dotlane", "--box", "0", "0", "35", "20", "--to", "D"})["lines"] == 1);
    CHECK(answer({"lane", "p.dotlane", "--inside",
                  std::to_string(project().parts[0].source.drawing->lines[0].id.value), "--to",
                  "aside"})["lines"] == 2);
    CHECK(answer({"lane", "p.dotlane", "--change", "D", "--pen-colour", "#2f5d62", "--repeats", "2"})["to"] ==
          "D teal pen 0.4");
    CHECK(answer({"lane", "p.dotlane", "--change", "D", "--rename", "fine line", "--tool",
                  "pen-0.8"})["to"] == "D fine line");
    CHECK(run({"lane", "p.dotlane", "--change", "S", "--fold", "mountain"}) == 0);
    const Project folded = project();
    CHECK(std::any_of(folded.lanes.begin(), folded.lanes.end(),
                      [](const Lane& l) { return l.fold == Fold::mountain; }));
    CHECK(run({"lane", "p.dotlane", "--change", "S", "--fold", "hill"}) == 2);
    CHECK(run({"lane", "p.dotlane", "--machine", "one-slot"}) == 0);
    CHECK(project().machine == "one-slot");
    CHECK(run({"lane", "p.dotlane", "--pass-order", "C,D"}) == 0);
    CHECK(project().pass_order.size() == 2);
    CHECK(run({"lane", "p.dotlane", "--pass-order", "usual"}) == 0);
    CHECK(project().pass_order.empty());
    const std::string before = files.files["p.dotlane"];
    for (const auto& wrong : std::vector<std::vector<std::string>>{{"--all", "--to", "X"},
                                                                   {"--all", "--action", "fly"},
                                                                   {"--colour", "blue", "--to", "D"},
                                                                   {"--named", "nothing", "--to", "D"},
                                                                   {"--change", "D", "--tool", "x"},
                                                                   {"--machine", "x"},
                                                                   {"--pass-order", "C,C"},
                                                                   {"--to", "D"},
                                                                   {},
                                                                   {"--all", "--named", "x", "--to", "D"}}) {
        std::vector<std::string> words{"lane", "p.dotlane"};
        words.insert(words.end(), wrong.begin(), wrong.end());
        CHECK(run(words) == 2);
        CHECK_FALSE(err.empty());
    }
    CHECK(files.files["p.dotlane"] == before); // a refused command changes nothing
}

TEST_CASE_METHOD(Terminal, "fill: added, changed, switched off, removed, with its figures") {
    REQUIRE(run({"import", "card.svg", "p.dotlane"}) == 0);
    const json a = answer({"fill", "p.dotlane", "--line-set", "F", "--spacing", "0.42mm", "--angle", "35"});
    CHECK(a["coverage_percent"].get<double>() > 90);
    CHECK(a["overspill_percent"].get<double>() < 0.5);
    CHECK(a["lifts"].get<int>() + 1 == a["strokes"].get<int>());
    CHECK(a["inset_mm"].get<double>() == Approx(0.25)); // half the 0.5 tip
    // 8 mm disc inset by a quarter: pi 7.75^2 / 0.42 and the short ways between the lines
    CHECK(a["length_mm"].get<double>() == Approx(188.7 / 0.42).epsilon(0.1));
    const std::string id = std::to_string(a["step"].get<int>());
    CHECK(answer({"fill", "p.dotlane", "--step", id, "--separate", "--inset", "1mm"})["lifts"].get<int>() >
          20);
    CHECK(answer({"fill", "p.dotlane", "--step", id, "--inset", "auto"})["inset_mm"].get<double>() ==
          Approx(0.25));
    CHECK(answer({"fill", "p.dotlane", "--step", id, "--off"})["on"] == false);
    CHECK(run({"fill", "p.dotlane", "--step", id, "--on"}) == 0);
    CHECK(run({"fill", "p.dotlane", "--step", id, "--spacing", "0"}) == 2);
    CHECK(run({"fill", "p.dotlane", "--step", "999"}) == 2);
    CHECK(run({"fill", "p.dotlane", "--line-set", "none"}) == 2);
    CHECK(run({"fill", "p.dotlane", "--step", id, "--remove"}) == 0);
    CHECK(project().parts[0].steps.empty());
    CHECK_FALSE(project().parts[0].sets.back().set_aside);
}

TEST_CASE_METHOD(Terminal, "place: by itself, by numbers, in a grid, turned, mirrored, resized, off") {
    REQUIRE(run({"import", "card.svg", "p.dotlane"}) == 0);
    CHECK(answer({"place", "p.dotlane"})["placed"] == 1);
    CHECK(answer({"place", "p.dotlane", "--left", "20mm", "--top", "1in", "--turn", "90", "--columns", "3",
                  "--gap", "4mm"},
                 1)["placed"] == 3); // where it was told to, over the first: said as an error
    Project p = project();
    REQUIRE(p.sheets[0].placements.size() == 4);
    CHECK(in_mm(p.sheets[0].placements[1].top) == Approx(25.4));
    CHECK(in_mm(p.sheets[0].placements[2].left) == Approx(20 + 50 + 4));
    const std::string id = std::to_string(p.sheets[0].placements[0].id.value);
    CHECK(answer({"place", "p.dotlane", "--change", id, "--left", "-5mm", "--mirror"},
                 1)["findings"][0]["code"] == "sheet.outside");
    CHECK(project().sheets[0].placements[0].mirrored);
    CHECK(answer({"check", "p.dotlane"}, 1)["findings"][0]["arguments"]["left_mm"] == "8.45");
    CHECK(run({"place", "p.dotlane", "--change", id, "--remove"}) == 0);
    CHECK(project().sheets[0].placements.size() == 3);
    CHECK(run({"place", "p.dotlane", "--part-width", "160mm"}) == 0);
    CHECK(project().parts[0].scale == Approx(2));
    CHECK(run({"place", "p.dotlane", "--scale", "0.5"}) == 0);
    CHECK(run({"place", "p.dotlane", "--new-sheet", "two", "--stock", "white-card-a4", "--mat",
               "mat-12x12-light"}) == 0);
    CHECK(project().sheets[1].stock == "white-card-a4");
    for (const auto& wrong : std::vector<std::vector<std::string>>{{"--stock", "x"},
                                                                   {"--mat", "x"},
                                                                   {"--change", "999"},
                                                                   {"--sheet", "none"},
                                                                   {"--left", "x"},
                                                                   {"--scale", "0"},
                                                                   {"--columns", "0", "--sheet", "two"}}) {
        std::vector<std::string> words{"place", "p.dotlane"};
        words.insert(words.end(), wrong.begin(), wrong.end());
        INFO(wrong[0]);
        CHECK(run(words) == 2);
    }
}

TEST_CASE_METHOD(Terminal, "show and check say what there is") {
    prepare();
    const json a = answer({"show", "p.dotlane"});
    CHECK(a["lanes"].size() == 4);
    CHECK(a["parts"][0]["width_mm"].get<double>() == Approx(80));
    CHECK(a["parts"][0]["fills"].size() == 1);
    CHECK(a["sheets"][0]["placed"].size() == 1);
    CHECK(run({"show", "p.dotlane"}) == 0);
    for (const char* word : {"Two-holder", "Lanes", "fold stylus", "set aside", "Sheets"})
        CHECK(out.find(word) != std::string::npos);
    CHECK(run({"check", "p.dotlane"}) == 0);
}

TEST_CASE_METHOD(Terminal, "plan: moves, reasons, totals, for one holder and for two") {
    prepare();
    const json two = answer({"plan", "p.dotlane"});
    CHECK(two["stops"] == 4);
    CHECK(two["passes"] == 4);
    CHECK(two["moves"].front()["kind"] == "stop");
    CHECK(two["moves"].front()["hands"].size() >= 2);
    CHECK(two["reasons"].size() >= 3);
    double total = 0;
    for (const json& m : two["moves"]) {
        // Every figure is rounded to a hundredth of a second, of the whole they are half of it off each.
        CHECK(m["start_s"].get<double>() == Approx(total).margin(0.005 * (two["moves"].size() + 1.0)));
        total += m["time_s"].get<double>();
    }
    CHECK(total == Approx(two["machine_s"].get<double>() + two["hands_s"].get<double>())
                       .margin(0.005 * (two["moves"].size() + 2.0)));
    REQUIRE(run({"lane", "p.dotlane", "--machine", "one-slot"}) == 0);
    CHECK(answer({"plan", "p.dotlane"})["stops"] == 5);
    CHECK(run({"plan", "p.dotlane", "--why"}) == 0);
    CHECK(out.find("Why this order") != std::string::npos);
    files.files["e.dotlane"] = write_project(Workshop(catalog()).new_project("empty"));
    CHECK(run({"plan", "e.dotlane"}) == 2);
}

TEST_CASE_METHOD(Terminal, "rehearse: the state at every move or at a time") {
    prepare();
    const json all = answer({"rehearse", "p.dotlane"});
    CHECK(all["states"].size() == 8);
    CHECK(all["states"][0]["doing"] == "stop");
    const json one = answer({"rehearse", "p.dotlane", "--at", "1e9"});
    CHECK(one["states"].size() == 1);
    CHECK(one["states"][0]["time_s"].get<double>() == Approx(one["total_s"].get<double>()));
    CHECK(run({"rehearse", "p.dotlane"}) == 0);
    CHECK(out.find("total") != std::string::npos);
}

TEST_CASE_METHOD(Terminal, "export: a folder that measures true, refused while errors stand") {
    prepare();
    const json a = answer({"export", "p.dotlane", "--to", "out"});
    CHECK(a["files"].size() == 7);
    CHECK(files.files["out/run-sheet.pdf"].starts_with("%PDF"));
    const auto cut = must(read_svg(files.files["out/04-cut-fine-blade.svg"], {})).drawing;
    bool found = false;
    for (const DrawnLine& l : cut.lines)
        found |=
            std::abs(bounds(l.shape).width() - 80) < 1e-3 && std::abs(bounds(l.shape).height() - 50) < 1e-3;
    CHECK(found);
    REQUIRE(run({"lane", "p.dotlane", "--colour", "#a8462d", "--to", "none"}) == 0);
    files.files.erase("out/run-sheet.txt");
    CHECK(run({"export", "p.dotlane", "--to", "out"}) == 1);
    CHECK(err.find("no lane") != std::string::npos);
    CHECK_FALSE(files.exists("out/run-sheet.txt"));
    CHECK(run({"export", "p.dotlane", "--to", "out", "--override-errors"}) == 1);
    CHECK(files.files["out/run-sheet.txt"].find("in spite of 1 error") != std::string::npos);
}

TEST_CASE_METHOD(Terminal, "program: written as JSON lines, read back, the same totals as the plan's") {
    prepare();
    REQUIRE(run({"program", "p.dotlane"}) == 0);
    files.files["p.jsonl"] = out;
    std::istringstream lines(out);
    std::size_t strokes = 0;
    for (std::string line; std::getline(lines, line);) {
        const json j = json::parse(line);
        if (!j.contains("points_mm")) continue;
        ++strokes;
        for (const char* key : {"part", "placement", "line_set", "step", "line", "contour"})
            CHECK(j[key].is_number_unsigned());
        CHECK(j["part"] == 1);
    }
    const json plan = answer({"plan", "p.dotlane"}), read = answer({"program", "--read", "p.jsonl"});
    CHECK(read["strokes"] == strokes);
    for (const char* key : {"stops", "passes", "machine_s", "hands_s", "tool_down_mm", "travel_mm", "parts"})
        CHECK(read[key] == plan[key]);
    CHECK(answer({"program", "p.dotlane"})["program"].size() > strokes); // one document
    CHECK(run({"program", "--read", "p.jsonl"}) == 0);
    CHECK(out.find("4 passes") != std::string::npos);
    CHECK(run({"program"}) == 2);
    CHECK(run({"program", "p.dotlane", "--read", "p.jsonl"}) == 2);
    CHECK(run({"program", "--read", "none"}) == 2);
    CHECK(run({"program", "--read", "card.svg"}) == 2);
    CHECK(err.find("no Dot Lane program") != std::string::npos);
    const json states = answer({"rehearse", "p.dotlane"})["states"];
    CHECK(states.back()["x_mm"] ==
          states.front()["x_mm"]); // the carriage rests while the last sheet is unloaded
    CHECK(states.back()["x_mm"].get<double>() > 0);
    for (const char* never : {"nan", "inf", "-1", "soon"})
        CHECK(run({"rehearse", "p.dotlane", "--at", never}) == 2);
    CHECK(answer({"rehearse", "p.dotlane", "--at", "0"})["states"].size() == 1);
    CHECK(std::any_of(states.begin(), states.end(),
                      [](const json& s) { return s.value("draws", "").find("fold of Card") == 0; }));
}

TEST_CASE_METHOD(Terminal, "a damaged project is left as it is") {
    prepare();
    const std::string cut = files.files["p.dotlane"].substr(0, 300);
    files.files["p.dotlane"] = cut;
    for (const char* verb : {"show", "check", "plan", "rehearse", "lane", "fill", "place"})
        CHECK(run({verb, "p.dotlane"}) == 2);
    CHECK(run({"import", "card.svg", "p.dotlane"}) == 2);
    CHECK(files.files["p.dotlane"] == cut);
}

TEST_CASE("the program itself, from a shell, without a display") {
    TemporaryFolder folder;
    const std::string cli = DOTLANE_BUILD "/src/cli/dot-lane-cli", project = folder / "demo.dotlane";
    int status = 0;
    shell("cp '" DOTLANE_SOURCE "/data/demo/saltmarsh.dotlane' '" + project + "'", &status);
    REQUIRE(status == 0);
    const std::string said = shell("env -u DISPLAY -u QT_QPA_PLATFORM '" + cli + "' export '" + project +
                                       "' --to '" + folder / "out" + "' --json 2>/dev/null",
                                   &status);
    CHECK(status == 0);
    CHECK(json::parse(said)["files"].size() >= 8);
    CHECK(file(folder / "out/run-sheet.pdf").starts_with("%PDF"));
    CHECK(shell("'" + cli + "' show '" + folder / "none" + "' 2>&1 >/dev/null", &status).find("no file") !=
          std::string::npos);
    CHECK(status == 2);
}

TEST_CASE_METHOD(Terminal, "pieces lie apart, and what lies on a sheet is arranged: from the command line") {
    REQUIRE(run({"make", "w.dotlane", "lettering", "--set", "text=QUAY", "--set", "font=League Spartan",
                 "--set", "size=30mm"}) == 0);
    CHECK(run({"place", "w.dotlane", "--pieces"}) == 2); // they lie as one yet
    CHECK(err.find("lay-apart") != std::string::npos);
    REQUIRE(run({"step", "w.dotlane", "--add", "lay-apart", "--set", "together=1, 2"}) == 0);
    CHECK(run({"place", "w.dotlane", "--piece", "2"}) == 2); // it lies with the first
    CHECK(answer({"place", "w.dotlane", "--pieces"})["placed"] == 3);
    const json placed = answer({"show", "w.dotlane"})["sheets"][0]["placed"];
    REQUIRE(placed.size() == 3);
    std::set<int> pieces;
    for (const json& one : placed)
        pieces.insert(one["piece"].get<int>());
    CHECK(pieces == std::set{1, 3, 4});
    const std::string first = std::to_string(placed[0]["id"].get<int>()),
                      second = std::to_string(placed[1]["id"].get<int>());
    json now = answer({"arrange", "w.dotlane", "--only", second, "--across", "middle", "--down", "bottom",
                       "--with", "stock"},
                      1)["placed"]; // out of the machine's reach, and it says so
    REQUIRE(now.size() == 1);
    CHECK(now[0]["left_mm"].get<double>() + placed[1]["width_mm"].get<double>() / 2 == Approx(304.8 / 2));
    CHECK(run({"arrange", "w.dotlane", "--down", "top"}) == 0);
    CHECK(run({"arrange", "w.dotlane", "--spread", "across", "--with", "reach"}) == 0);
    now = answer({"arrange", "w.dotlane", "--only", first + "," + second, "--group"})["placed"];
    CHECK(now[1]["group"] == 1);
    CHECK(answer({"arrange", "w.dotlane", "--only", first, "--down", "top", "--with", first})["placed"]
              .size() == 2);
    CHECK(run({"arrange", "w.dotlane", "--turn", "30", "--mirror", "--ungroup"}) <= 1);
    CHECK(project("w.dotlane").sheets[0].placements[0].mirrored);
    const std::string kept = files.files["w.dotlane"];
    for (const std::vector<std::string>& wrong : {std::vector<std::string>{"--across", "up"},
                                                  {"--spread", "round"},
                                                  {"--only", "x"},
                                                  {"--with", "999"},
                                                  {"--turn", "abc"},
                                                  {"--only", first, "--spread", "down"},
                                                  {"--only", first, "--group"}}) {
        std::vector<std::string> words{"arrange", "w.dotlane"};
        words.insert(words.end(), wrong.begin(), wrong.end());
        INFO(wrong[0] << " " << wrong.back());
        CHECK(run(words) == 2);
        CHECK_FALSE(err.empty());
    }
    CHECK(files.files["w.dotlane"] == kept);
}

TEST_CASE_METHOD(Terminal, "a stack of layers, each on the one before: from the command line") {
    REQUIRE(run({"make", "l.dotlane", "label", "--name", "Tag", "--set", "edge=plain", "--set", "width=80mm",
                 "--set", "height=50mm"}) == 0);
    REQUIRE(run({"make", "l.dotlane", "layer", "--set", "reveal=4mm", "--stack", "3"}) == 0);
    const json parts = answer({"show", "l.dotlane"})["parts"];
    REQUIRE(parts.size() == 4);
    for (int i = 0; i < 4; ++i) // 4 mm on either side each time
        CHECK(parts[static_cast<std::size_t>(i)]["width_mm"].get<double>() == Approx(80 - 8 * i));
    CHECK(run({"make", "l.dotlane", "layer", "--step", "stencil"}) ==
          2); // nothing asked for is lost silently
    CHECK(err.find("--step") != std::string::npos);
    CHECK(run({"make", "l.dotlane", "label", "--stack", "2"}) == 2);
    CHECK(err.find("--stack") != std::string::npos);
}

TEST_CASE_METHOD(Terminal, "apart, layers, sources of steps: from the command line") {
    REQUIRE(run({"make", "l.dotlane", "label", "--name", "Tag", "--set", "also=40x30"}) == 0);
    CHECK(answer({"make", "l.dotlane", "layer", "--set", "of=Tag", "--set", "reveal=-3mm"})["width_mm"] > 80);
    CHECK(run({"make", "l.dotlane", "layer", "--set", "of=Nobody"}) == 2);
    const json parts = answer({"apart", "l.dotlane", "--part", "Tag", "--by", "piece"})["parts"];
    CHECK(parts.size() == 2);
    CHECK(project("l.dotlane").parts.size() == 3);
    CHECK(run({"apart", "l.dotlane", "--part", "Tag", "--by", "level"}) == 2);
    REQUIRE(run({"make", "w.dotlane", "lettering", "--set", "text=tide", "--set", "kind=centre-line"}) == 0);
    CHECK(project("w.dotlane").lanes.at(0).action == Action::draw);
    REQUIRE(run({"make", "w.dotlane", "lettering", "--set", "text=walk"}) == 0);
    REQUIRE(run({"step", "w.dotlane", "--part", "walk", "--add", "outline", "--of", "letters", "--sources",
                 "aside"}) == 0);
    CHECK(project("w.dotlane").parts.at(1).sets.at(0).set_aside);
}

TEST_CASE_METHOD(Terminal,
                 "numbers that cannot be: every field of every source and step is refused with a reason") {
    // What no number, length, choice or switch is; texts and names of fonts may be anything.
    std::size_t tried = 0;
    const auto refuse = [&](const std::vector<std::string>& command, const json& numbers) {
        for (const auto& [key, value] : numbers.items()) {
            std::string name = key;
            for (const std::string unit : {"_mm", "_degrees", "_percent"})
                if (name.ends_with(unit)) name.resize(name.size() - unit.size());
            std::replace(name.begin(), name.end(), '_', '-');
            if (name == "text" || name == "font" || name == "features" || name == "also" || name == "of" ||
                name == "picture-base64" || name == "drop" || name == "together" || name == "at" ||
                name == "order")
                continue;
            std::vector<std::string> words = command;
            words.insert(words.end(), {"--set", name + "=about so much"});
            const std::string kept = files.files["n.dotlane"];
            INFO(command[2] << " " << name);
            CHECK(run(words) == 2);
            CHECK(err.find(name.substr(0, name.find('-'))) != std::string::npos); // it names the field
            CHECK(files.files["n.dotlane"] == kept);
            ++tried;
        }
    };
    REQUIRE(run({"make", "n.dotlane", "label", "--name", "tag"}) == 0);
    const json kinds = answer({"kinds", "source"});
    for (const json& kind : kinds["kinds"]) {
        json numbers = json::object();
        for (const json& field : kind["fields"])
            numbers[field["key"].get<std::string>()] = field["offered"];
        refuse({"make", "n.dotlane", kind["kind"]}, numbers);
    }
    for (const StepKind& kind : step_kinds()) {
        if (std::string(kind.key) == "fill") continue; // it has a verb of its own
        std::vector<std::string> add{"step",  "n.dotlane", "--part", "tag",
                                     "--add", kind.key,    "--of",   "outline"};
        if (kind.brings) add.resize(6);
        if (kind.second == StepKind::Second::wanted) continue; // tried where it has something to cut by
        if (std::string(kind.key) == "part") continue;         // it needs another part
        const std::string before = files.files["n.dotlane"];
        add.emplace_back("--json");
        REQUIRE(run(add) <= 1); // alone on its part a step may have nothing to do, and says so
        const json made = json::parse(out)["steps"].back();
        refuse({"step", "n.dotlane", "--part", "tag", "--step", std::to_string(made["step"].get<int>())},
               made["numbers"]);
        files.files["n.dotlane"] = before;
    }
    CHECK(tried > 100);
}

TEST_CASE_METHOD(
    Terminal, "weeding and knocking out tell their order, and what could be saved: from the command line") {
    files.files["pile.svg"] = svg("<rect x='10' y='10' width='100' height='100' fill='#a8462d'/>"
                                  "<rect x='30' y='30' width='100' height='100' fill='#111111'/>");
    REQUIRE(run({"import", "pile.svg", "k.dotlane", "--name", "pile"}) == 0);
    REQUIRE(run({"step", "k.dotlane", "--part", "pile", "--add", "knock-out", "--set", "mode=full"}) == 0);
    REQUIRE(run({"place", "k.dotlane", "--part", "pile", "--new-sheet", "s", "--stock",
                 "cream-card-12x12"}) <= 1);
    const auto step = [&] {
        run({"show", "k.dotlane", "--json"}); // findings or none
        return json::parse(out)["parts"][0]["steps"].back();
    };
    json told = step()["figures"];
    CHECK(told["saved_mm2"] == 0);
    CHECK(told["hidden_mm2"].get<double>() == Approx(6400)); // 80 x 80 mm lie below
    CHECK(told["hidden_sheets"].get<double>() == Approx(6400 / (304.8 * 304.8)).epsilon(1e-4));
    CHECK(told["hidden_price"].get<double>() == Approx(0.62 * 6400 / (304.8 * 304.8)).margin(0.005));
    REQUIRE(run({"step", "k.dotlane", "--part", "pile", "--step", step()["id"].dump(), "--set",
                 "mode=knock-out"}) <= 1);
    told = step()["figures"];
    CHECK(told["saved_mm2"].get<double>() == Approx(6400));
    CHECK(told["saved_sheets"] == told["hidden_sheets"]);
    REQUIRE(run({"step", "k.dotlane", "--part", "pile", "--add", "weed", "--set", "strip=0"}) <= 1);
    told = step()["figures"];
    REQUIRE(told["order"].size() == 1);                       // all around in one
    CHECK(told["order"][0][0].get<double>() == Approx(-2.5)); // within the frame, 5 mm around
}
