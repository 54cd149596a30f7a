// What is typed is what is done: names, numbers, places; and what has no effect is refused.
#include "tests/cli/terminal.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

double width_of(const json& made) {
    return made["width_mm"].get<double>();
}

} // namespace

TEST_CASE_METHOD(Terminal,
                 "names: first by name, # is a number, what several bear is refused with the candidates") {
    for (const char* name : {"first", "second", "third", "1"})
        REQUIRE(run({"make", "n.dotlane", "label", "--name", name}) == 0);
    // A part called "1" is meant by "1", whatever other part has that number.
    CHECK(answer({"source", "n.dotlane", "--part", "1"})["name"] == "1");
    const auto first = answer({"show", "n.dotlane"})["parts"][0]["id"].get<int>();
    CHECK(answer({"source", "n.dotlane", "--part", "#" + std::to_string(first)})["name"] == "first");
    CHECK(answer({"source", "n.dotlane", "--part", "SECOND"})["name"] == "second");
    // Two parts of one name, as imports of two files may have them.
    REQUIRE(run({"import", "card.svg", "n.dotlane", "--name", "Twin"}) == 0);
    REQUIRE(run({"import", "card.svg", "n.dotlane", "--name", "twin"}) == 0);
    CHECK(run({"place", "n.dotlane", "--part", "Twin"}) == 2);
    const std::string told = err;
    CHECK(told.find("Several are called") != std::string::npos);
    const json shown = answer({"show", "n.dotlane"});
    for (const auto& part : shown["parts"])
        if (part["name"] == "Twin" || part["name"] == "twin")
            CHECK(told.find("#" + std::to_string(part["id"].get<int>())) != std::string::npos);
    CHECK(run({"source", "n.dotlane", "--part", "#999"}) == 2);
    CHECK(err.find("There is no part") != std::string::npos);
}

TEST_CASE_METHOD(Terminal, "names: the case of letters of all languages does not matter") {
    for (const char* name : {"Häher", "Ёлка", "Øre", "Čaj"})
        REQUIRE(run({"make", "c.dotlane", "label", "--name", name}) == 0);
    for (const auto& [typed, name] : {std::pair("HÄHER", "Häher"), std::pair("ёЛКА", "Ёлка"),
                                      std::pair("øRE", "Øre"), std::pair("čAJ", "Čaj")})
        CHECK(answer({"source", "c.dotlane", "--part", typed})["name"] == name);
    CHECK(run({"source", "c.dotlane", "--part", "HAHER"}) == 2);
}

TEST_CASE_METHOD(Terminal, "a line set's name is its own before it is a step's kind") {
    REQUIRE(run({"make", "l.dotlane", "label"}) == 0);
    REQUIRE(run({"step", "l.dotlane", "--add", "outline", "--of", "outline"}) == 0);
    const json steps =
        answer({"step", "l.dotlane", "--add", "corners", "--of", "outline"}); // the label's, not the step's
    const Project p = project("l.dotlane");
    CHECK(p.parts[0].steps.back().of == std::vector{p.parts[0].sets[0].id});
    CHECK(run({"step", "l.dotlane", "--add", "corners", "--of", "outline", "--of", "hole"}) == 2);
    CHECK(err.find("There is no line set") != std::string::npos);
}

TEST_CASE_METHOD(Terminal, "a number that has no effect is refused with the choice that it needs") {
    const auto refused = [&](const std::vector<std::string>& words, const char* needs) {
        INFO(words.back());
        CHECK(run(words) == 2);
        INFO(err);
        CHECK(err.find("no effect") != std::string::npos);
        CHECK(err.find(needs) != std::string::npos);
    };
    refused({"make", "b.dotlane", "badge", "--set", "visible=50mm", "--set", "cut=62mm"}, "size=own");
    CHECK_FALSE(files.exists("b.dotlane"));
    CHECK(width_of(answer({"make", "b.dotlane", "badge", "--set", "size=own", "--set", "visible=50mm",
                           "--set", "cut=62mm"})) == Approx(62));
    refused({"make", "b.dotlane", "label", "--set", "edge=plain", "--set", "scallop=9mm"}, "edge=scalloped");
    refused({"make", "b.dotlane", "label", "--set", "hole-size=9mm"}, "hole=round");
    refused({"make", "b.dotlane", "lettering", "--set", "radius=90mm"}, "path=arc");
    refused({"make", "b.dotlane", "repeat-pattern", "--set", "wanted=16", "--set", "size=9mm"}, "no effect");
    refused({"source", "b.dotlane", "--set", "size=58/70", "--set", "cut=9mm"}, "size=own");
    REQUIRE(run({"step", "b.dotlane", "--add", "outline", "--of", "outline"}) == 0);
    refused({"step", "b.dotlane", "--add", "outline", "--of", "outline", "--set", "mitre-limit=3"},
            "corners=mitred");
    // What is told is what is in effect: with a usual size nothing is said of the numbers of another.
    const json badge = answer({"source", "b.dotlane", "--set", "size=58/70"});
    CHECK(badge["numbers"]["size"] == "58/70");
    CHECK_FALSE(badge["numbers"].contains("visible_mm"));
    CHECK(badge["figures"]["visible_mm"] == 58);
    CHECK(badge["figures"]["cut_mm"] == 70);
}

TEST_CASE_METHOD(Terminal, "numbers are read as they are meant, or refused with an example") {
    REQUIRE(run({"make", "m.dotlane", "label", "--set", "edge=plain"}) == 0);
    const auto width = [&](const std::string& text) {
        return width_of(answer({"source", "m.dotlane", "--set", "width=" + text}));
    };
    CHECK(width("8-1/2in") == Approx(215.9));
    CHECK(width("8 1/2\"") == Approx(215.9));
    CHECK(width("8½in") == Approx(215.9));
    CHECK(width("1 ft 2 in") == Approx(355.6));
    CHECK(width("3 × 40") == Approx(120));
    CHECK(width("12,5") == Approx(12.5));
    CHECK(run({"source", "m.dotlane", "--set", "width=50%"}) == 2);
    CHECK(err.find("120mm - 2*6") != std::string::npos);
    REQUIRE(run({"place", "m.dotlane", "--left", "90mm", "--top", "90mm"}) == 0);
    const std::string placed = std::to_string(project("m.dotlane").sheets[0].placements[0].id.value);
    for (const char* turn : {"45deg", "45°", "45", "1/8 turn"}) {
        REQUIRE(run({"place", "m.dotlane", "--change", placed, "--turn", turn}) == 0);
        CHECK(in_degrees(project("m.dotlane").sheets[0].placements[0].turn) == Approx(45));
    }
    CHECK(run({"place", "m.dotlane", "--change", placed, "--turn", "45mm"}) == 2);
    REQUIRE(run({"place", "m.dotlane", "--scale", "50%"}) == 0);
    CHECK(project("m.dotlane").parts[0].scale == Approx(0.5));
    // Space between letters in hundredths of the em or in millimetres.
    const auto spaced = [&](const std::string& tracking) {
        return width_of(
            answer({"make", "m.dotlane", "lettering", "--set", "text=mmm", "--set", "tracking=" + tracking}));
    };
    const double plain = spaced("0");
    CHECK(spaced("2mm") == Approx(plain + 4));
    CHECK(spaced("-0.9mm") == Approx(plain - 1.8));
    CHECK(spaced("10%") > plain + 1);
    CHECK(answer({"source", "m.dotlane", "--part", "mmm 3", "--set", "sized-by=width", "--set",
                  "size=80mm"})["width_mm"] == Approx(80)); // the letters take what the spaces leave
    CHECK(run({"source", "m.dotlane", "--part", "mmm 3", "--set", "tracking=3deg"}) == 2);
    CHECK(err.find("-0.9mm") != std::string::npos);
}

TEST_CASE_METHOD(Terminal, "a label with circles: 100 x 70 with circles of 25 is 125 x 70 and 7000.00 mm2") {
    const json made = answer({"make", "k.dotlane", "label", "--set", "edge=circles", "--set", "width=100mm",
                              "--set", "height=70mm", "--set", "circle=25mm"});
    CHECK(width_of(made) == Approx(125));
    CHECK(made["height_mm"].get<double>() == Approx(70));
    Workshop workshop(catalog());
    const auto d = workshop.derive(std::make_shared<Project>(project("k.dotlane")));
    const auto& part = *d->parts.begin()->second;
    Shape outline{{part.drawing->lines[0].shape.contours[0]}};
    // Quarters cut out and halves added are the same circles (I); arcs are within 0.03 % of their radius.
    CHECK(area_of(region_of(outline, mm(1e-4))) == Approx(7000).margin(0.05));
    CHECK(run({"make", "k.dotlane", "label", "--set", "edge=circles", "--set", "height=40mm", "--set",
               "circle=25mm"}) != 0);
}

TEST_CASE_METHOD(Terminal,
                 "place: where it is said it lies as it is, and groups move together by every way") {
    REQUIRE(run({"make", "g.dotlane", "label", "--set", "edge=plain", "--set", "width=299mm", "--set",
                 "height=80mm"}) == 0);
    CHECK(run({"place", "g.dotlane", "--left", "3.45mm", "--top", "20mm"}) ==
          1); // it reaches beyond: said, not turned
    Project p = project("g.dotlane");
    CHECK(in_radians(p.sheets[0].placements[0].turn) == 0);
    REQUIRE(run({"make", "h.dotlane", "label", "--set", "edge=plain", "--set", "width=40mm", "--set",
                 "height=20mm"}) == 0);
    for (int i = 0; i < 3; ++i)
        REQUIRE(run({"place", "h.dotlane"}) == 0);
    REQUIRE(run({"arrange", "h.dotlane", "--group"}) == 0);
    const auto boxes = [&] {
        std::vector<std::array<double, 4>> all;
        const json shown = answer({"show", "h.dotlane"});
        for (const auto& one : shown["sheets"][0]["placed"])
            all.push_back({one["left_mm"], one["top_mm"], one["width_mm"], one["height_mm"]});
        return all;
    };
    const auto before = boxes();
    const std::string id = std::to_string(project("h.dotlane").sheets[0].placements[1].id.value);
    REQUIRE(run({"place", "h.dotlane", "--change", id, "--left", "150mm", "--top", "60mm"}) == 0);
    const auto after = boxes();
    CHECK(after[1][0] == Approx(150));
    CHECK(after[1][1] == Approx(60));
    for (std::size_t i = 0; i < 3; ++i) {
        CHECK(after[i][0] - before[i][0] == Approx(after[1][0] - before[1][0]));
        CHECK(after[i][1] - before[i][1] == Approx(after[1][1] - before[1][1]));
    }
    // Turned about the middle of all: what lay side by side lies one below the other.
    REQUIRE(run({"place", "h.dotlane", "--change", id, "--turn", "90"}) == 0);
    const auto turned = boxes();
    CHECK(turned[0][2] == Approx(20));
    const double across = after[2][0] - after[0][0], down = after[2][1] - after[0][1];
    CHECK(turned[2][1] + turned[2][3] / 2 - turned[0][1] - turned[0][3] / 2 == Approx(across));
    CHECK(-(turned[2][0] - turned[0][0]) == Approx(down).margin(1e-9));
}

TEST_CASE_METHOD(Terminal, "place: three of 200 x 200 mm take three sheets, none lies on another") {
    REQUIRE(run({"make", "f.dotlane", "label", "--set", "edge=plain", "--set", "width=200mm", "--set",
                 "height=200mm"}) == 0);
    for (int i = 0; i < 3; ++i)
        CHECK(run({"place", "f.dotlane"}) == 0);
    const json shown = answer({"show", "f.dotlane"});
    CHECK(shown["sheets"].size() == 3);
    CHECK(run({"place", "f.dotlane", "--sheet", "sheet 1", "--left", "10mm", "--top", "10mm"}) == 1);
    CHECK(out.find("cut through") != std::string::npos);
    CHECK(run({"export", "f.dotlane", "--to", "out"}) == 1); // an error stops it
    CHECK_FALSE(files.exists("out/run-sheet.txt"));
}

TEST_CASE_METHOD(Terminal, "a 5 mm outline does not move what lies on a sheet, and old files look the same") {
    REQUIRE(run({"make", "a.dotlane", "label", "--set", "edge=plain"}) == 0);
    REQUIRE(run({"place", "a.dotlane", "--left", "30mm", "--top", "40mm"}) == 0);
    REQUIRE(run({"step", "a.dotlane", "--add", "outline", "--of", "outline", "--set", "distance=5mm"}) == 0);
    json placed = answer({"show", "a.dotlane"}).at("sheets").at(0).at("placed").at(0);
    CHECK(placed["left_mm"].get<double>() == Approx(25)); // the rim grew outwards, the label stayed at 30
    CHECK(placed["top_mm"].get<double>() == Approx(35));
    // The same project as version 5 wrote it: (25, 35) is the corner of the box.
    json old = json::parse(files.files["a.dotlane"]);
    old["version"] = 5;
    for (json& p : old["sheets"][0]["placements"]) {
        p["left_mm"] = 25, p["top_mm"] = 35;
        p.erase("anchor_left_mm"), p.erase("anchor_top_mm");
    }
    for (json& part : old["parts"])
        part["source"]["numbers"].erase("circle_mm");
    files.files["old.dotlane"] = old.dump();
    placed = answer({"show", "old.dotlane"})["sheets"][0]["placed"][0];
    CHECK(placed["left_mm"].get<double>() == Approx(25));
    const std::string outline = std::to_string(project("a.dotlane").parts[0].steps[0].id.value);
    REQUIRE(run({"step", "old.dotlane", "--step", outline, "--set", "distance=8mm"}) == 0);
    placed = answer({"show", "old.dotlane"})["sheets"][0]["placed"][0];
    CHECK(placed["left_mm"].get<double>() == Approx(22)); // from now on it holds on to its source
}

TEST_CASE_METHOD(Terminal,
                 "step join: the lane is that of the set named first, and check says that lanes differed") {
    files.files["two.svg"] = svg("<rect x='10' y='10' width='30' height='20' fill='none' stroke='#22282c'/>"
                                 "<circle cx='40' cy='20' r='8' fill='none' stroke='#a8462d'/>");
    REQUIRE(run({"import", "two.svg", "two.dotlane"}) == 0);
    const json sets = answer({"show", "two.dotlane"})["parts"][0]["line_sets"];
    REQUIRE(sets.size() == 2);
    for (const bool swapped : {false, true}) {
        files.files["j.dotlane"] = files.files["two.dotlane"];
        const json &first = sets[swapped ? 1 : 0], &second = sets[swapped ? 0 : 1];
        REQUIRE(run({"step", "j.dotlane", "--add", "join", "--of", first["name"], "--of", second["name"]}) ==
                0);
        const json found = answer({"check", "j.dotlane"})["findings"];
        const auto it =
            std::find_if(found.begin(), found.end(), [](const json& f) { return f["code"] == "join.lanes"; });
        REQUIRE(it != found.end());
        CHECK((*it)["arguments"]["first"] == first["name"]);
        REQUIRE(run({"place", "j.dotlane"}) == 0);
        const json plan = answer({"plan", "j.dotlane"});
        INFO(plan.dump());
        int passes = 0;
        for (const json& move : plan["moves"])
            if (move["kind"] == "pass") {
                ++passes;
                CHECK(move["lane"] == first["lane"]);
            }
        CHECK(passes == 1);
    }
}

TEST_CASE_METHOD(Terminal, "every style of fill is added by its name, and tells its figures") {
    REQUIRE(run({"make", "p.dotlane", "label", "--set", "edge=plain", "--set", "width=60mm", "--set",
                 "height=60mm"}) == 0);
    for (const FillKind& kind : fill_kinds())
        for (const char* ends : {"apart", "joined", "one-stroke"}) {
            const std::string before = files.files["p.dotlane"];
            INFO(kind.key << " " << ends << " " << err);
            REQUIRE(run({"step", "p.dotlane", "--part", "1", "--add", "fill", "--set",
                         std::string("style=") + kind.key, "--set", std::string("ends=") + ends}) == 0);
            const json shown = answer({"show", "p.dotlane"});
            const json fill = shown["parts"][0]["fills"][0];
            CHECK(fill["style"] == kind.key);
            for (const char* key :
                 {"coverage", "overspill", "lifts", "strokes", "length_mm", "pieces_left_out"})
                CHECK(fill[key].is_number());
            CHECK(fill["coverage"].get<double>() > 0);
            CHECK(fill["coverage"].get<double>() <= 1);
            CHECK(fill["strokes"].get<int>() == fill["lifts"].get<int>() + 1);
            files.files["p.dotlane"] = before;
        }
    // The worked example: lines at 10 to 50, 600 mm, 36 cells. A pattern that is meant to be seen is not
    // joined along the edge unless that is wished.
    REQUIRE(run({"step", "p.dotlane", "--part", "1", "--add", "fill", "--set", "style=grid", "--set",
                 "spacing=10mm", "--set", "inset=0", "--set", "phase=corner"}) == 0);
    const json grid = answer({"show", "p.dotlane"})["parts"][0]["fills"][0];
    CHECK(grid["length_mm"].get<double>() == Approx(600).margin(0.01));
    CHECK(grid["cells"] == 36);
    CHECK(grid["strokes"] == 10);
    // A number typed for a pattern is not taken over to a style that makes areas solid.
    const std::string step = std::to_string(grid["step"].get<int>());
    REQUIRE(run({"fill", "p.dotlane", "--step", step, "--style", "cross"}) == 0);
    const json cross = answer({"show", "p.dotlane"})["parts"][0]["fills"][0];
    CHECK(cross["spacing_mm"].get<double>() == Approx(0.85 * cross["tip_mm"].get<double>()));
    CHECK(cross["strokes"].get<int>() < 10); // joined: hundreds of lines
    REQUIRE(run({"fill", "p.dotlane", "--step", step, "--ends", "one-stroke"}) == 0);
    CHECK(answer({"fill", "p.dotlane", "--step", step, "--style", "grid"})["strokes"] ==
          1); // what was wished stays
    CHECK(answer({"fill", "p.dotlane", "--step", step, "--ends", "joined"})["length_mm"].get<double>() > 620);
    CHECK(answer({"fill", "p.dotlane", "--step", step, "--style", "hexagons", "--spacing",
                  "6mm"})["spacing_mm"] == 6);
}

TEST_CASE_METHOD(Terminal,
                 "a fill is told before it is drawn: share of the tip, best angle, other ways, heat, tone") {
    REQUIRE(run({"make", "p.dotlane", "label", "--set", "edge=oval", "--set", "width=50mm", "--set",
                 "height=24mm"}) == 0);
    REQUIRE(run({"step", "p.dotlane", "--part", "1", "--add", "fill", "--set", "spacing=70%"}) == 0);
    const json fill = answer({"show", "p.dotlane"})["parts"][0]["fills"][0];
    const std::string step = std::to_string(fill["step"].get<int>());
    CHECK(fill["spacing_mm"].get<double>() == Approx(0.7 * fill["tip_mm"].get<double>()));
    CHECK(fill["time_s"].get<double>() > 0);
    for (const char* key :
         {"widest_gap_mm", "seams", "landing_mm", "visible_gaps", "spacing_without_gaps_mm"})
        CHECK(fill[key].is_number());
    // Lines along the longer way are fewer.
    REQUIRE(run({"fill", "p.dotlane", "--step", step, "--ends", "apart", "--angle", "80"}) == 0);
    const json before = answer({"show", "p.dotlane"})["parts"][0]["fills"][0];
    const json best = answer({"fill", "p.dotlane", "--step", step, "--best", "fewest-lifts"});
    CHECK(best["lifts"].get<int>() < before["lifts"].get<int>());
    const std::string found = files.files["p.dotlane"];
    const json level = answer({"fill", "p.dotlane", "--step", step, "--angle", "0"});
    CHECK(best["lifts"].get<int>() <= level["lifts"].get<int>());
    files.files["p.dotlane"] = found;
    REQUIRE(run({"fill", "p.dotlane", "--step", step, "--best", "fewest-lifts"}) == 0);
    CHECK(out.find("No angle is better") != std::string::npos);
    CHECK(run({"fill", "p.dotlane", "--step", step, "--best", "prettiest"}) != 0);
    const json told = answer({"fill", "p.dotlane", "--step", step, "--alternatives", "--heat"});
    REQUIRE(told["alternatives"].size() == 4); // as it is (parallel), cross, contour, one stroke
    CHECK(told["alternatives"][0]["lifts"] == told["lifts"]);
    CHECK(answer({"fill", "p.dotlane", "--alternatives", "--heat"}) == told); // there is one fill
    CHECK(run({"fill", "p.dotlane", "--remove"}) != 0);                       // but that is to be named
    const json heat = told["heat"];
    const double whole = told["to_fill_mm2"].get<double>();
    CHECK(heat["once_mm2"].get<double>() + heat["twice_mm2"].get<double>() ==
          Approx(whole * told["coverage"].get<double>()).epsilon(0.01));
    CHECK(heat["bare_mm2"].get<double>() ==
          Approx(whole * (1 - told["coverage"].get<double>())).margin(0.01 * whole));
    // There is one piece: pressed, it is filled as before; pressed again, all are, which is it again.
    const json pressed = answer({"fill", "p.dotlane", "--step", step, "--press", "25mm,12mm"});
    CHECK(pressed["lifts"] == told["lifts"]);
    CHECK(run({"fill", "p.dotlane", "--step", step, "--press", "2mm,2mm"}) != 0); // beside the oval
    CHECK(run({"fill", "p.dotlane", "--step", step, "--press", "2mm"}) != 0);
    // As dark as a picture.
    files.files["heron.png"] = file(DOTLANE_SOURCE "/data/demo/heron.png");
    REQUIRE(run({"fill", "p.dotlane", "--step", step, "--tone", "heron.png"}) == 0);
    const json toned = answer({"show", "p.dotlane"})["parts"][0]["fills"][0];
    CHECK(toned["coverage"].get<double>() < 0.75);
    CHECK(toned["coverage"].get<double>() > 0.2);
    files.files["words.png"] = "no picture";
    CHECK(run({"fill", "p.dotlane", "--step", step, "--tone", "words.png"}) != 0);
    CHECK(run({"fill", "p.dotlane", "--step", step, "--tone", "gone.png"}) != 0);
    REQUIRE(run({"fill", "p.dotlane", "--step", step, "--style", "grid"}) == 0);
    CHECK(run({"fill", "p.dotlane", "--step", step, "--tone", "heron.png"}) != 0);
}

TEST_CASE_METHOD(Terminal, "samples: every style once, on a sheet of their own, without an error") {
    const json made = answer({"samples", "book.dotlane"});
    CHECK(made["parts"] == fill_kinds().size());
    const json shown = answer({"show", "book.dotlane"});
    std::set<std::string> styles;
    for (const json& part : shown["parts"])
        styles.insert(part["fills"][0]["style"].get<std::string>());
    CHECK(styles.size() == fill_kinds().size());
    CHECK(run({"check", "book.dotlane"}) == 0);
    CHECK(run({"samples", "book.dotlane"}) == 0); // once more, on a further sheet
}
