#include "core/project/format.h"

#include <nlohmann/json.hpp>

#include "core/workflow/filling.h"
#include "core/workflow/making.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;
using nlohmann::json;

namespace {

Project rich() {
    Bench b = bench(
        "<g id='layer'><path id='p' d='M1.23456789012345,2 C3,4 5,6 7.7,8 L9,1 Z' fill='#a8832d' "
        "fill-rule='evenodd' stroke='#123456' "
        "stroke-width='.35' stroke-dasharray='1 .5' stroke-dashoffset='.2' stroke-linecap='round' "
        "stroke-linejoin='bevel' opacity='.5'/></g>"
        "<path d='M1,30 h20' fill='none' stroke='#a8462d' stroke-linecap='square' stroke-miterlimit='7'/>");
    must(fill_lines(b.project, catalog(), b.part, {b.lines()[0]}));
    must(change_placement(b.project, [&] {
        Placement p = b.project.sheets[0].placements[0];
        p.turn = degrees(33.3), p.mirrored = true;
        return p;
    }()));
    must(set_pass_order(b.project, {b.lane(Action::draw)}));
    for (const SourceKind& kind : source_kinds()) // every kind of source and step there is
        must(make_part(b.project, catalog(), b.workshop->fonts(), kind.fresh));
    const LineSetId letters = find(b.project, b.part)->sets.front().id;
    for (const StepKind& kind : step_kinds())
        must(append_step(b.project, catalog(), b.part, kind.fresh, {letters},
                         kind.second == StepKind::Second::wanted ? std::vector{letters}
                                                                 : std::vector<LineSetId>{}));
    b.project.unit = LengthUnit::inch;
    return b.project;
}

json document() {
    return json::parse(write_project(rich()));
}

std::string code(const std::string& text) {
    const auto p = read_project(text, "x.dotlane");
    REQUIRE_FALSE(p);
    CHECK(p.error().place.file == "x.dotlane");
    CHECK_FALSE(p.error().message.empty());
    return p.error().code;
}

} // namespace

TEST_CASE("a project is the same after saving and reading, to the last bit") {
    const Project before = rich();
    const std::string text = write_project(before);
    const Project after = must(read_project(text));
    CHECK(after == before);
    CHECK(write_project(after) == text);
}

TEST_CASE("files of older versions are migrated") {
    for (const int version : {1, 2}) {
        INFO("version " << version);
        const auto p = must(read_project(
            file(DOTLANE_SOURCE "/tests/core/project/old/version-" + std::to_string(version) + ".dotlane")));
        REQUIRE(p.lanes.size() == 4);
        for (const Lane& lane : p.lanes)
            CHECK((lane.fold == Fold::mountain) == (version == 2 && lane.action == Action::score));
        REQUIRE(p.parts.at(0).steps.size() == 1);
        const Step& step = p.parts[0].steps[0];
        CHECK(in_mm(std::get<FillStep>(step.what).spacing) == Approx(0.42));
        CHECK(in_degrees(std::get<FillStep>(step.what).angle) == Approx(35));
        CHECK(step.of.size() == 1);
        CHECK(step.result);
        CHECK(json::parse(write_project(p))["version"] == format_version);
    }
}

TEST_CASE("sources of version 3 get what they did not know, and make what they made") {
    auto p = must(read_project(file(DOTLANE_SOURCE "/tests/core/project/old/version-3.dotlane")));
    REQUIRE(p.parts.size() == 7);
    const auto& badge = std::get<Badge>(p.parts[1].source.spec);
    CHECK(badge.size == Badge::Size::own);
    CHECK(in_mm(badge.visible) == Approx(40));
    CHECK(in_mm(badge.cut) == Approx(52));
    CHECK(std::get<Label>(p.parts[0].source.spec).also.empty());
    CHECK(std::get<Carton>(p.parts[3].source.spec).folds == Fold::valley);
    CHECK(std::get<WordsStep>(p.parts[5].steps.at(0).what).lettering.path == Lettering::Path::straight);
    CHECK(std::get<Picture>(p.parts[6].source.spec).by == Picture::By::grey);
    Workshop workshop(catalog());
    const auto derived = workshop.derive(std::make_shared<Project>(p));
    // Sizes as `dot-lane-cli show` of that version gave them.
    CHECK(derived->part(p.parts[1].id)->box.width() == Approx(52).epsilon(1e-3));
    CHECK(derived->part(p.parts[6].id)->box.width() == Approx(60.28).epsilon(1e-3));
    CHECK(read_project(write_project(p)) == p);
}

TEST_CASE("what lies on the sheets of version 4 lies there whole and by itself, where it lay") {
    const std::string old = file(DOTLANE_SOURCE "/tests/core/project/old/version-4.dotlane");
    const auto p = must(read_project(old));
    REQUIRE(p.sheets.size() == 5);
    const json before = json::parse(old)["sheets"];
    for (std::size_t s = 0; s < p.sheets.size(); ++s)
        for (std::size_t i = 0; i < p.sheets[s].placements.size(); ++i) {
            const Placement& now = p.sheets[s].placements[i];
            CHECK(now.piece == 0);
            CHECK(now.group == 0);
            CHECK(in_mm(now.left) == before[s]["placements"][i]["left_mm"].get<double>());
        }
    CHECK(read_project(write_project(p)) == p);
}

TEST_CASE("random coordinates survive exactly") {
    Random random("path text");
    Shape shape;
    for (int i = 0; i < 50; ++i) {
        Contour c{{random.real(-1e3, 1e3), random.real(-1e-5, 1e-5)}, {}, random.coin()};
        for (int k = 0; k < 5; ++k)
            if (random.coin())
                c.line_to({random.real(-1e6, 1e6), random.real(-1, 1)});
            else
                c.cubic_to({random.real(-9, 9), 0}, {1, random.real(-9, 9)}, {random.real(-9, 9), -0.5});
        shape.contours.push_back(c);
    }
    INFO("seed " << random.seed());
    const auto back = contours_from_text(path_text(shape));
    REQUIRE(back);
    CHECK(*back == shape.contours);
    for (const char* wrong : {"L1 2", "M1", "M1 2 Q1 2 3 4", "M1 2 L", "Mx y", "M1e999 0"})
        CHECK_FALSE(contours_from_text(wrong));
}

TEST_CASE("the file is open JSON that says what it is, with units in its names") {
    const json d = document();
    CHECK(d["format"] == "dot-lane-project");
    CHECK(d["version"] == format_version);
    CHECK(d["parts"][0]["source"]["drawing"].contains("page_mm"));
    CHECK(d["sheets"][0]["placements"][0].contains("left_mm"));
    CHECK(d["parts"][0]["steps"][0]["numbers"].contains("spacing_mm"));
    // Source is stored, everything else is derived: nothing computed stands in the file.
    for (const char* derived : {"plan", "passes", "findings", "fills", "program"})
        CHECK_FALSE(d.contains(derived));
}

TEST_CASE("broken files are refused with the line and what is wrong") {
    const std::string text = write_project(rich());
    const auto cut = read_project(text.substr(0, text.size() / 2), "x.dotlane");
    REQUIRE_FALSE(cut);
    CHECK(cut.error().code == "project.not-json");
    CHECK(cut.error().place.line > 5);
    CHECK(code("") == "project.not-json");
    CHECK(code("[]") == "project.not-ours");
    CHECK(code("{\"format\": \"other\"}") == "project.not-ours");
    json d = document();
    d["version"] = format_version + 1;
    CHECK(code(d.dump()) == "project.newer");
    d["version"] = 0;
    CHECK(code(d.dump()) == "project.damaged");
}

TEST_CASE("each damaged member is refused, none crashes") {
    const json whole = document();
    int refused = 0, accepted = 0;
    // Every member anywhere in the document is taken out, and replaced by something of another type.
    const std::function<void(const json::json_pointer&, const json&)> visit =
        [&](const json::json_pointer& at, const json& j) {
            const auto attempt = [&](const json& replaced) {
                const auto p = read_project(replaced.dump(), "x.dotlane");
                ++(p ? accepted : refused);
                if (!p) CHECK(p.error().code.starts_with("project."));
            };
            if (!at.empty()) {
                json changed = whole;
                changed[at] = j.is_string() ? json(17) : json("wrong");
                attempt(changed);
                json removed = whole;
                if (removed[at.parent_pointer()].is_object()) {
                    removed[at.parent_pointer()].erase(at.back());
                    attempt(removed);
                }
            }
            if (j.is_object())
                for (const auto& [key, value] : j.items())
                    visit(at / key, value);
            if (j.is_array())
                for (std::size_t i = 0; i < j.size(); ++i)
                    visit(at / i, j[i]);
        };
    visit(json::json_pointer(), whole);
    CHECK(refused > 100);
    CHECK(accepted < refused / 2); // only optional members may be missing
}

TEST_CASE("documents that break the rules are refused") {
    const auto broken = [](auto change) {
        json d = document();
        change(d);
        return code(d.dump());
    };
    CHECK(broken([](json& d) { d["lanes"][0]["id"] = d["lanes"][1]["id"]; }) == "project.rules");
    CHECK(broken([](json& d) { d["parts"][0]["line_sets"][0]["lane"] = 4000; }) == "project.rules");
    CHECK(broken([](json& d) { d["parts"][0]["line_sets"][0]["lines"] = json::array(); }) ==
          "project.rules"); // a line in no set
    CHECK(broken([](json& d) { d["parts"][0]["scale"] = 0; }) == "project.rules");
    CHECK(broken([](json& d) { d["sheets"][0]["placements"][0]["part"] = 4000; }) == "edit.missing");
    CHECK(broken([](json& d) { d["next_id"] = 2; }) == "project.rules");
    CHECK(broken([](json& d) { d["pass_order"] = {4000}; }) == "project.rules");
    CHECK(broken([](json& d) { d["lanes"][0]["repeats"] = 99; }) == "project.rules");
}

TEST_CASE("saving is all or nothing") {
    MemoryFiles files;
    const Project p = rich();
    must(save_project(files, "/a.dotlane", p));
    files.writes_left = 0;
    Project changed = p;
    changed.name = "other";
    CHECK_FALSE(save_project(files, "/a.dotlane", changed));
    CHECK(must(load_project(files, "/a.dotlane")) == p);
}

TEST_CASE("the shipped demo can be read and has no errors") {
    const Project demo = must(load_project(disk(), DOTLANE_SOURCE "/data/demo/saltmarsh.dotlane"));
    CHECK(demo.name == "Saltmarsh Lantern Walk");
    Workshop workshop(catalog());
    const auto d = workshop.derive(std::make_shared<Project>(demo));
    CHECK(count(d->findings, Grade::error) == 0);
    REQUIRE(d->plan);
    std::vector<Action> actions;
    for (const Lane& l : demo.lanes)
        actions.push_back(l.action);
    for (const Action a : {Action::foil, Action::draw, Action::score, Action::cut})
        CHECK(std::find(actions.begin(), actions.end(), a) != actions.end());
}
