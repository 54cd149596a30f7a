// Plans on the command line: this run only, other orders, rules, tools on the shelf.
#include "tests/cli/terminal.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

json figure_of(const json& compared, const std::string& key) {
    for (const json& row : compared["figures"])
        if (row["figure"] == key) return row;
    FAIL(key);
    return {};
}

/// Points of all strokes of passes with this action, in running order.
std::vector<Point> points_of(Terminal& t, const std::string& action) {
    REQUIRE(t.run({"program", "p.dotlane"}) == 0);
    std::vector<Point> out;
    std::istringstream lines(t.out);
    bool mine = false;
    for (std::string line; std::getline(lines, line);) {
        const json j = json::parse(line);
        if (j.contains("pass")) mine = j["action"] == action;
        if (j.contains("points_mm") && mine)
            for (const json& p : j["points_mm"])
                out.push_back({p[0], p[1]});
    }
    return out;
}

} // namespace

TEST_CASE("plan --only and --without run just some, and leave the project as it is") {
    Terminal t;
    t.files.files["w.dotlane"] = file(DOTLANE_SOURCE "/data/demo/saltmarsh.dotlane");
    const std::string before = t.files.files["w.dotlane"];
    const json whole = t.answer({"plan", "w.dotlane"});
    const json tags = t.answer({"plan", "w.dotlane", "--only", "Way-marker tag"});
    CHECK(tags["parts"].size() == 1);
    CHECK(tags["parts"][0]["name"] == "Way-marker tag");
    CHECK(tags["lines"]["left_out"].get<int>() + tags["lines"]["run"].get<int>() +
              tags["lines"]["printed"].get<int>() ==
          whole["lines"]["run"].get<int>() + whole["lines"]["printed"].get<int>());
    CHECK(tags["hands_s"].get<double>() < whole["hands_s"].get<double>());
    const json first = t.answer({"plan", "w.dotlane", "--only", "sheet:sheet 1", "--without", "lane:F"});
    CHECK(first["by_sheet"].size() == 1);
    for (const json& move : first["moves"])
        if (move["kind"] == "pass") CHECK(move["action"] != "foil");
    CHECK(t.files.files["w.dotlane"] == before);
    const int code = t.run({"export", "w.dotlane", "--to", "out", "--only", "sheet:sheet 2"});
    INFO(t.err);
    REQUIRE(code == 0);
    // As many passes as the plan of that sheet has, and one of everything.
    const json second = t.answer({"plan", "w.dotlane", "--only", "sheet:sheet 2"});
    int drawings = 0;
    for (const auto& [path, bytes] : t.files.files)
        drawings += path.starts_with("out/") && path.ends_with(".svg") ? 1 : 0;
    CHECK(drawings == second["passes"].get<int>() + 1);
    CHECK(t.files.files["out/run-sheet.txt"].find("Not of this run: ") != std::string::npos);
    CHECK(t.answer({"plan", "w.dotlane", "--only", "no such"}, 2)["error"]["code"] == "cli.unknown");
    CHECK(t.answer({"plan", "w.dotlane", "--only", "sheet:no such"}, 2)["error"]["code"] == "cli.unknown");
    CHECK(t.answer({"plan", "w.dotlane", "--only", "part:"}, 2)["error"]["code"] == "cli.unknown");
}

TEST_CASE("plan --compare lays another order beside it, --why-move asks what it would cost") {
    Terminal t;
    t.files.files["w.dotlane"] = file(DOTLANE_SOURCE "/data/demo/saltmarsh.dotlane");
    const json whole = t.answer({"plan", "w.dotlane"}),
               tools = t.answer({"plan", "w.dotlane", "--compare", "tools"});
    CHECK(figure_of(tools, "hands_s")["this"] == whole["hands_s"]);
    CHECK(figure_of(tools, "stops")["this"] == whole["stops"]);
    CHECK(figure_of(tools, "risks")["other"] == 1);
    // It is what the project comes to when it is run so.
    const json so = t.answer({"plan", "w.dotlane", "--school", "tools"});
    CHECK(figure_of(tools, "hands_s")["other"] == so["hands_s"]);
    CHECK(figure_of(tools, "stops")["other"] == so["stops"]);
    CHECK(so["risks"][0]["code"] == "order.out-and-in");
    REQUIRE(t.run({"check", "w.dotlane", "--mend", "order.whole-sheets"}) < 2);
    CHECK(t.answer({"plan", "w.dotlane"})["hands_s"] == whole["hands_s"]);
    t.files.files["other.dotlane"] = t.files.files["w.dotlane"];
    CHECK(figure_of(t.answer({"plan", "w.dotlane", "--compare", "other.dotlane"}), "stops")["better"] ==
          "same");
    CHECK(t.answer({"plan", "w.dotlane", "--compare", "none.dotlane"}, 2)["error"]["code"] == "file.missing");
    CHECK_FALSE(t.answer({"plan", "w.dotlane", "--why-move", "stop 1"})["why"].empty());
    CHECK_FALSE(t.answer({"plan", "w.dotlane", "--why-move", "pass 3"})["why"].empty());
    CHECK(t.answer({"plan", "w.dotlane", "--why-move", "pass 999"}, 2)["error"]["code"] == "cli.move");
}

TEST_CASE("plan --rule, --pin and --school are kept in the project, --usual takes them away") {
    Terminal t;
    t.prepare();
    const auto order = [&] {
        std::string out;
        const json plan = t.answer({"plan", "p.dotlane"});
        for (const json& move : plan["moves"])
            if (move["kind"] == "pass") out += move["plate"];
        return out;
    };
    REQUIRE(order() == "DFSC");
    const json done = t.answer({"plan", "p.dotlane", "--rule", "S<D: folds guide the pen"});
    CHECK(done["done"][0].get<std::string>().find("S runs before D") != std::string::npos);
    CHECK(order().find('S') < order().find('D'));
    REQUIRE(t.run({"plan", "p.dotlane", "--why"}) == 0);
    CHECK(t.out.find("folds guide the pen") != std::string::npos);
    CHECK(t.answer({"plan", "p.dotlane", "--rule", "D<S"}, 2)["error"]["code"] == "order.circle");
    CHECK(t.answer({"plan", "p.dotlane", "--rule", "off:nothing"}, 2)["error"]["code"] == "order.rule");
    CHECK(t.answer({"plan", "p.dotlane", "--rule", "on:nothing"}, 2)["error"]["code"] == "order.rule");
    CHECK(t.answer({"plan", "p.dotlane", "--rule", "D"}, 2)["error"]["code"] == "cli.rule");
    CHECK(t.answer({"plan", "p.dotlane", "--drop-rule", "C<D"}, 2)["error"]["code"] == "cli.rule");
    REQUIRE(t.run({"plan", "p.dotlane", "--rule", "C<D", "--drop-rule", "S<D"}) == 0);
    CHECK(order().find('C') < order().find('D'));
    REQUIRE(t.run({"plan", "p.dotlane", "--rule", "off:marks-first", "--pin", "sheet 1=1"}) == 0);
    CHECK(t.project().wishes.off == std::vector<std::string>{"marks-first"});
    CHECK(t.project().wishes.pins.size() == 1);
    CHECK(t.answer({"plan", "p.dotlane", "--pin", "sheet 1"}, 2)["error"]["code"] == "cli.pin");
    const std::string kept = t.files.files["p.dotlane"];
    REQUIRE(t.run({"plan", "p.dotlane", "--dry-run", "--usual"}) == 0);
    CHECK(t.files.files["p.dotlane"] == kept);
    CHECK(t.answer({"plan", "p.dotlane", "--mats", "2"})["done"][0].get<std::string>().find("2 mats") !=
          std::string::npos);
    REQUIRE(t.run({"plan", "p.dotlane", "--usual"}) == 0);
    PlanWishes wishes;
    wishes.mats = 2; // are there, whatever the order
    CHECK(t.project().wishes == wishes);
    CHECK(order() == "DFSC");
}

TEST_CASE("setting keeps what worked and where tips touch, and plans and programs follow") {
    const OwnHome home;
    Terminal t;
    t.prepare();
    const std::vector<Point> before = points_of(t, "draw");
    REQUIRE(t.run({"setting", "--tool", "pen-0.4", "--offset", "1.2,-0.5"}) == 0);
    const std::vector<Point> after = points_of(t, "draw");
    REQUIRE(before.size() == after.size());
    for (std::size_t i = 0; i < before.size(); ++i) {
        CHECK(after[i].x == Approx(before[i].x - 1.2));
        CHECK(after[i].y == Approx(before[i].y + 0.5));
    }
    REQUIRE(t.run({"setting", "--tool", "fine-blade", "--stock", "card", "--pressure", "150", "--speed", "20",
                   "--passes", "2", "--from", "swatch"}) == 0);
    const json slow = t.answer({"plan", "p.dotlane"});
    for (const json& move : slow["moves"])
        if (move["kind"] == "pass" && move["action"] == "cut") {
            CHECK(move["speed_mm_s"] == 20);
            CHECK(move["repeats"] == 2);
            CHECK(move["setting"]["pressure"] == 150);
            CHECK(move["setting"]["from"] == "swatch");
        }
    CHECK(t.answer({"setting", "--tool", "pen-0.4"})["offsets"][0]["offset_mm"] == json({1.2, -0.5}));
    // Ink that dries: waited for, and kept beside what was set before.
    const double hands = slow["hands_s"];
    REQUIRE(t.run({"setting", "--tool", "pen-0.4", "--stock", "card", "--pressure", "60"}) == 0);
    REQUIRE(t.run({"setting", "--tool", "pen-0.4", "--stock", "card", "--dry", "300"}) == 0);
    const json kept = t.answer({"setting", "--tool", "pen-0.4"});
    REQUIRE(kept["settings"].size() == 2); // the catalog's for film is another
    for (const json& s : kept["settings"])
        if (s["stock"] == "card") {
            CHECK(s["pressure"] == 60);
            CHECK(s["dry_s"] == 300);
        }
    const json wet = t.answer({"plan", "p.dotlane"});
    CHECK(wet["hands_s"].get<double>() > hands + 200);
    CHECK(wet["hands_s"].get<double>() < hands + 300);
    CHECK(wet.dump().find("Let the ink of the") != std::string::npos);
    CHECK(t.answer({"setting", "--tool", "pen-0.4", "--dry", "-1"}, 2)["error"]["code"] == "setting.range");
    REQUIRE(t.run({"setting", "--tool", "fine-blade", "--stock", "card", "--forget"}) == 0);
    CHECK(t.answer({"setting", "--tool", "fine-blade", "--stock", "card", "--forget"}, 2)["error"]["code"] ==
          "setting.none");
    CHECK(t.answer({"setting", "--tool", "no-such", "--pressure", "5"}, 2)["error"]["code"] ==
          "command.unknown");
    CHECK(t.answer({"setting", "--tool", "fine-blade", "--stock", "mud", "--pressure", "5"},
                   2)["error"]["code"] == "command.unknown");
    CHECK(t.answer({"setting", "--tool", "fine-blade", "--offset", "left"}, 2)["error"]["code"] ==
          "cli.offset");
    CHECK(t.answer({"setting", "--tool", "fine-blade", "--pressure", "-3"}, 2)["error"]["code"] ==
          "setting.range");
}

TEST_CASE("lanes: where lines begin, overcut, lead-in and dwell, split for a part, and merged") {
    Terminal t;
    t.prepare();
    const auto cut_length = [&] {
        double length = 0;
        const json plan = t.answer({"plan", "p.dotlane"});
        for (const json& move : plan["moves"])
            if (move["kind"] == "pass" && move["action"] == "cut") length += move["length_mm"].get<double>();
        return length;
    };
    const double plain = cut_length(), time = t.answer({"plan", "p.dotlane"})["machine_s"];
    REQUIRE(t.run({"lane", "p.dotlane", "--change", "C", "--start", "off-corners", "--overcut", "0.5mm",
                   "--dwell", "2"}) == 0);
    CHECK(cut_length() == Approx(plain + 0.5)); // one closed line
    CHECK(t.answer({"plan", "p.dotlane"})["machine_s"].get<double>() > time + 1.9);
    CHECK(t.answer({"lane", "p.dotlane", "--change", "C", "--overcut", "50mm"}, 2)["error"]["code"] ==
          "lane.run");
    REQUIRE(t.run({"lane", "p.dotlane", "--change", "C", "--pieces", "small"}) == 0);
    CHECK(find(t.project(), t.project().lanes.front().id)); // it can be read back
    const auto small = [&] {
        const Project project = t.project();
        return std::any_of(project.lanes.begin(), project.lanes.end(),
                           [](const Lane& l) { return l.run.small_first; });
    };
    CHECK(small());
    REQUIRE(t.run({"lane", "p.dotlane", "--change", "C", "--dwell", "1"}) == 0);
    CHECK(small()); // what is not given stays
    REQUIRE(t.run({"lane", "p.dotlane", "--change", "C", "--pieces", "shortest"}) == 0);
    CHECK_FALSE(small());
    REQUIRE(t.run({"import", "card.svg", "p.dotlane", "--name", "again"}) == 0);
    const std::size_t lanes = t.project().lanes.size();
    REQUIRE(t.run({"lane", "p.dotlane", "--change", "C", "--split", "again"}) == 0);
    CHECK(t.project().lanes.size() == lanes + 1);
    REQUIRE(t.run({"lane", "p.dotlane", "--change", "C", "--merge", "C2"}) == 0);
    CHECK(t.project().lanes.size() == lanes);
}
