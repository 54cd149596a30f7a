#include "core/checks/project_checks.h"
#include "core/project/format.h"

#include <nlohmann/json.hpp>

#include "core/base/text.h"
#include "core/commands/filling.h"
#include "core/commands/making.h"
#include "core/commands/placing.h"
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

TEST_CASE("a note is read back as the phrase it was, one of an older file as its English") {
    Project project = must(load_project(disk(), DOTLANE_SOURCE "/tests/support/invitation.dotlane"));
    Finding note{"svg.pictures",
                 Grade::caution,
                 say_n(2, "%n [picture|pictures]: left out of %1 by %2", std::string("\"%n\""),
                       as_word("Steps", "Outline")),
                 {{"count", "2"}}};
    project.parts.front().source.notes = {note};
    const std::string text = write_project(project);
    CHECK(must(read_project(text)).parts.front().source.notes == project.parts.front().source.notes);
    auto document = nlohmann::json::parse(text);
    for (auto& part : document["parts"])
        if (part["source"].contains("notes"))
            for (auto& old : part["source"]["notes"])
                old.erase("said");
    const Findings old = must(read_project(document.dump())).parts.front().source.notes;
    REQUIRE(old.size() == 1);
    CHECK(old.front().message == as_is("2 pictures: left out of \"%n\" by Outline"));
    // Words within words without end are refused.
    nlohmann::json deep = {{"text", "%1"}, {"context", ""}, {"arguments", nlohmann::json::array()}};
    for (int i = 0; i < 40; ++i)
        deep = {{"text", "%1"}, {"context", "Core"}, {"arguments", nlohmann::json::array({deep})}};
    document = nlohmann::json::parse(text);
    for (auto& part : document["parts"])
        if (part["source"].contains("notes"))
            for (auto& told : part["source"]["notes"])
                told["said"] = deep;
    CHECK_FALSE(read_project(document.dump()));
}

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
        CHECK(in_mm(*std::get<FillStep>(step.what).spacing) == Approx(0.42));
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

namespace {

/// The keys of members that say what their absence means.
class Younger final : public Fields {
  public:
    std::map<std::string, Since> found;
    void length(FieldName n, Length&, Length, Length) override { note(n, "_mm"); }
    void maybe_length(FieldName n, std::optional<Length>&, Length, Length, const char*) override {
        CHECK_FALSE(n.since.absent); // its absence means what its word says
    }
    void angle(FieldName n, Angle&) override { note(n, "_rad"); }
    void number(FieldName n, double&, double, double) override { note(n); }
    void em_space(FieldName n, EmSpace&, double, double) override { note(n); }
    void whole(FieldName n, int&, int, int) override { note(n); }
    void flag(FieldName n, bool&) override { note(n); }
    void choice(FieldName n, int&, std::span<const char* const>) override { note(n); }
    void text(FieldName n, std::string&, TextKind) override { note(n); }
    void part(FieldName n, PartId&) override { note(n); }
    bool all() const override { return true; }

  private:
    void note(const FieldName& n, const char* unit = "") {
        CHECK((n.since.edition > 1) == (n.since.absent != nullptr));
        CHECK(n.since.edition <= newest_edition());
        if (!n.since.absent) return;
        std::string key = std::string(n.key) + unit;
        std::replace(key.begin(), key.end(), '-', '_');
        found[key] = n.since;
    }
};

/// What a part with this source or step is written as, with and without its younger members.
template<class Kind, class Set>
void check_absence(const Kind& kind, const Set& put, const char* list) {
    INFO(kind.key);
    Younger younger;
    auto fresh = kind.fresh;
    fields(fresh, younger);
    Project p;
    p.next_id = 10;
    put(p, kind.fresh);
    json document = json::parse(write_project(p));
    json& numbers = list[0] == 's' && list[1] == 't' ? document["parts"][0]["steps"][0]["numbers"]
                                                     : document["parts"][0]["source"]["numbers"];
    for (const auto& [key, since] : younger.found) {
        REQUIRE(numbers.contains(key));
        numbers.erase(key);
    }
    const json again = json::parse(write_project(must(read_project(document.dump()))));
    const json& now = list[0] == 's' && list[1] == 't' ? again["parts"][0]["steps"][0]["numbers"]
                                                       : again["parts"][0]["source"]["numbers"];
    for (const auto& [key, since] : younger.found) {
        INFO(key);
        CHECK(now[key] == json::parse(since.absent));
    }
    // Whoever does not know them reads the same; line sets of steps came with edition 10.
    const bool sets = std::any_of(p.parts[0].sets.begin(), p.parts[0].sets.end(),
                                  [](const LineSet& set) { return static_cast<bool>(set.step); });
    CHECK(again["edition"] == (sets ? 10 : 1));
}

} // namespace

TEST_CASE("what the absence of a member means is no matter of what is offered today") {
    for (const SourceKind& kind : all_source_kinds())
        check_absence(
            kind,
            [](Project& p, const SourceSpec& spec) {
                p.parts.push_back({PartId{1}, "it"});
                p.parts[0].source.spec = spec;
            },
            "source");
    for (const StepKind& kind : step_kinds())
        check_absence(
            kind,
            [](Project& p, const StepWhat& what) {
                p.parts.push_back({PartId{1}, "it"});
                p.parts[0].source.spec = Label{};
                p.parts[0].sets.push_back({LineSetId{2}, "outline", {}, false, {}, "outline"});
                p.parts[0].sets.push_back({LineSetId{3}, "hole", {}, false, {}, "hole"});
                Step step{StepId{4}, true, {}, what};
                if (!kind_of(what).brings) step.of = {LineSetId{2}};
                if (kind_of(what).second != StepRow::Second::none) step.by = {LineSetId{3}};
                if (kind_of(what).makes) step.result = LineSetId{5};
                std::uint32_t id = 6;
                for (const char* role : roles_of(what))
                    p.parts[0].sets.push_back({LineSetId{id++}, role, {}, false, {}, role, step.id});
                p.parts[0].steps.push_back(step);
            },
            "step");
}

TEST_CASE("a file says which edition it needs, and a newer one is refused") {
    Project p;
    p.next_id = 10;
    p.parts.push_back({PartId{1}, "card"});
    FoldedCard card;
    p.parts[0].source.spec = card;
    CHECK(json::parse(write_project(p))["edition"] == 1);
    card.hinge = mm(12);
    p.parts[0].source.spec = card;
    json document = json::parse(write_project(p));
    CHECK(document["edition"] == 6);
    document["edition"] = newest_edition() + 1;
    const auto newer = read_project(document.dump());
    REQUIRE_FALSE(newer);
    CHECK(newer.error().code == "project.newer");
    document.erase("edition");
    CHECK(read_project(document.dump()) == p);
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

TEST_CASE("parts of version 5 lie where they lay, and cards of an outline are as large as they were") {
    auto p = must(read_project(file(DOTLANE_SOURCE "/tests/core/project/old/version-5.dotlane")));
    Workshop workshop(catalog());
    for (const Placement& placement : p.sheets.at(0).placements)
        CHECK(placement.by_box);
    settle_placements(p, workshop);
    for (const Placement& placement : p.sheets.at(0).placements)
        CHECK_FALSE(placement.by_box);
    const auto derived = workshop.derive(std::make_shared<Project>(p));
    // Places and sizes as `dot-lane-cli show` of that version gave them: the oval has an outline of 5 mm
    // around it.
    REQUIRE(derived->sheets.size() == 1);
    const auto& parts = derived->sheets[0].parts;
    REQUIRE(parts.size() == 3);
    const double lefts[] = {30, 20, 142.99}, tops[] = {40, 140, 1.9};
    for (std::size_t i = 0; i < 3; ++i) {
        CHECK(parts[i].box.x0 == Approx(lefts[i]).margin(0.01));
        CHECK(parts[i].box.y0 == Approx(tops[i]).margin(0.01));
    }
    const auto& card = std::get<ShapeCard>(p.parts[1].source.spec);
    CHECK(in_mm(card.overlap) == Approx(6)); // 3 on each half before
    CHECK(derived->part(p.parts[1].id)->source_box.width() == Approx(209.99).margin(0.01));
    CHECK(in_mm(std::get<FoldedCard>(p.parts[2].source.spec).hinge) == 0);
    // The step around the oval may grow now without moving it.
    Step step = p.parts[0].steps.at(0);
    std::get<OutlineStep>(step.what).distance = mm(9);
    must(change_step(p, p.parts[0].id, step));
    const auto grown = workshop.derive(std::make_shared<Project>(p));
    CHECK(grown->sheets[0].parts[0].box.x0 == Approx(30 - 4).margin(0.02));
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
    CHECK(d["sheets"][0]["placements"][0].contains("anchor_left_mm"));
    CHECK(d["parts"][0]["steps"][0]["numbers"].contains("ends"));
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

TEST_CASE("what a project cannot be opened with is not saved") {
    MemoryFiles files;
    Project p = rich();
    must(save_project(files, "/a.dotlane", p));
    const std::string before = files.files["/a.dotlane"];
    const auto spoil = [&](auto change) {
        Project q = p;
        auto drawing = std::make_shared<Drawing>(*q.parts[0].source.drawing);
        change(q, *drawing);
        q.parts[0].source.drawing = drawing;
        const auto ok = save_project(files, "/a.dotlane", q);
        CHECK(files.files["/a.dotlane"] == before);
        return ok ? std::string("saved") : ok.error().code;
    };
    const double inf = std::numeric_limits<double>::infinity(), nan = std::nan("");
    for (const double bad : {inf, -inf, nan, 1e200, 1.1e6}) {
        INFO(bad);
        CHECK(spoil([&](Project&, Drawing& d) { d.lines[0].shape.contours[0].start.x = bad; }) ==
              "project.number");
        CHECK(spoil([&](Project&, Drawing& d) {
                  d.lines[0].shape.contours[0].cubic_to({0, 0}, {0, bad}, {5, 5});
              }) == "project.number");
        CHECK(spoil([&](Project&, Drawing& d) {
                  d.lines[0].drawn.dashes_mm = {1, bad};
              }) == "project.number");
        CHECK(spoil([&](Project&, Drawing& d) { d.page_width = mm(bad); }) == "project.number");
        CHECK(spoil([&](Project& q, Drawing&) { q.sheets[0].placements[0].left = mm(bad); }) ==
              "project.number");
    }
    CHECK(spoil([&](Project& q, Drawing&) { q.parts[0].scale = nan; }) == "project.number");
    CHECK(spoil([&](Project& q, Drawing&) { q.parts[0].scale = 1e9; }) ==
          "project.unsafe"); // out of its range
    CHECK(spoil([&](Project& q, Drawing&) { q.next_id = 2; }) == "project.unsafe");
    CHECK(checked_text(p, 100).error().code == "project.large");
    CHECK(must(checked_text(p)) == write_project(p));
}

TEST_CASE("a project with a line that cannot be read opens without it and says so") {
    const json whole = document();
    const auto& line = whole["parts"][0]["source"]["drawing"]["lines"][0];
    const std::string name = whole["parts"][0]["name"];
    const auto opened = [&](const char* member, const json& value) {
        json d = whole;
        d["parts"][0]["source"]["drawing"]["lines"][0][member] = value;
        const Project p = must(read_project(d.dump(), "x.dotlane"));
        const Part& part = p.parts[0];
        CHECK(part.source.drawing->lines.size() ==
              whole["parts"][0]["source"]["drawing"]["lines"].size() - 1);
        REQUIRE(has(part.source.notes, "project.lines-lost"));
        CHECK(get(part.source.notes, "project.lines-lost").message.english().find("1 line of \"" + name) ==
              0);
        must(check_rules(p));
        MemoryFiles files; // and can be saved and opened again
        must(save_project(files, "/b.dotlane", p));
        CHECK(must(load_project(files, "/b.dotlane")) == p);
    };
    REQUIRE(line.contains("path_mm"));
    for (const char* path :
         {"M0 0Linf 5", "M0 0C0 0 nan 0 5 5", "M0 0L1e999 0", "M0 0L1e200 0", "M0 0L2000000 0"})
        opened("path_mm", path);
    opened("dash_offset_mm", nullptr); // what is not finite was once written so
    opened("dashes_mm", json::array({1, nullptr}));
}

TEST_CASE("errors in a project's file are told in words, never in those of a library") {
    const json whole = document();
    const auto told = [&](auto change) {
        json d = whole;
        change(d);
        const auto p = read_project(d.dump(), "x.dotlane");
        REQUIRE_FALSE(p);
        INFO(p.error().message);
        CHECK(p.error().message.english().find("json") == std::string::npos);
        CHECK(p.error().message.english().find("exception") == std::string::npos);
        return p.error().message;
    };
    CHECK(told([](json& d) { d.erase("parts"); }).english().find("\"parts\" is missing") !=
          std::string::npos);
    CHECK(told([](json& d) { d["parts"] = 3; }).english().find("\"parts\" is not a list") !=
          std::string::npos);
    CHECK(told([](json& d) { d["parts"][0]["scale"] = "big"; }).english().find("\"scale\" is not a number") !=
          std::string::npos);
    CHECK(told([](json& d) { d["next_id"] = 1e300; }).english().find("next_id") != std::string::npos);
    CHECK(told([](json& d) { d["parts"][0] = "x"; }).english().find("no group of members") !=
          std::string::npos);
    CHECK(told([](json& d) { d["parts"][0]["source"]["file_hash"] = "zz"; }).english().find("file_hash") !=
          std::string::npos);
    CHECK(read_project("{\"format\": 1e999}").error().message.english().find("bounds") != std::string::npos);
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

TEST_CASE("the size of a project's file is foreseen, and told from three quarters of the limit on") {
    Random random("sizes");
    INFO("seed " << random.seed());
    for (int round = 0; round < 12; ++round) {
        // Few long lines, many short ones, straight or curved, with short numbers or long ones.
        std::string body;
        const int lines = random.whole(1, 400), steps = random.whole(1, 20'000 / lines);
        const bool curved = random.coin(), rough = random.coin();
        const auto number = [&] { return dotlane::number(random.real(0, 99), rough ? 1 : 9); };
        for (int i = 0; i < lines; ++i) {
            body += "<path stroke='#223344' fill='none' d='M" + number() + "," + number();
            for (int k = 0; k < steps; ++k) {
                body += curved ? "C" : "L";
                for (int n = 0; n < (curved ? 6 : 2); ++n)
                    body += (n ? "," : "") + number();
            }
            body += "'/>";
        }
        const Bench b = bench(body);
        const double actual = static_cast<double>(write_project(b.project).size());
        INFO(lines << " lines of " << steps << (curved ? " curves" : " sides"));
        CHECK(static_cast<double>(estimated_bytes(b.project)) == Approx(actual).epsilon(0.2).margin(20'000));
    }
    CHECK_FALSE(near_limit(383ULL << 20));
    CHECK(near_limit(385ULL << 20)->grade == Grade::caution);
    CHECK(near_limit(385ULL << 20)->message.english().find("385 MB of the 512 MB") != std::string::npos);
    CHECK(near_limit(513ULL << 20)->grade == Grade::error);
}

TEST_CASE("how lanes are run and what is wished of the order are kept, and say which edition they need") {
    Bench b = bench("<rect x='2' y='2' width='60' height='40' fill='none' stroke='#22282c'/>"
                    "<path d='M10,10 q10,10 20,0' fill='none' stroke='#a8462d'/>");
    REQUIRE(json::parse(write_project(b.project))["edition"] == 1);
    for (const LineStart start : all_line_starts) {
        Lane lane = *find(b.project, b.lane(Action::cut));
        lane.run = {start, mm(0.8), mm(1.5), seconds(0.3)};
        must(change_lane(b.project, lane));
        PlanWishes wishes;
        wishes.school = School::tools;
        wishes.rules = {{b.lane(Action::draw), b.lane(Action::cut), "so it is"}};
        wishes.pins = {{b.sheet, 2}};
        wishes.off = {"light-first"};
        must(set_wishes(b.project, wishes));
        const std::string text = write_project(b.project);
        CHECK(json::parse(text)["edition"] == 12);
        CHECK(must(read_project(text)) == b.project);
    }
    const Project without = b.project;
    Lane small = *find(b.project, b.lane(Action::cut));
    small.run.small_first = true;
    must(change_lane(b.project, small));
    CHECK(json::parse(write_project(b.project))["edition"] == 13);
    CHECK(must(read_project(write_project(b.project))) == b.project);
    b.project = without;
    PlanWishes spare = b.project.wishes;
    spare.mats = 3;
    must(set_wishes(b.project, spare));
    CHECK(json::parse(write_project(b.project))["edition"] == 13);
    CHECK(must(read_project(write_project(b.project))) == b.project);
    for (const int mats : {0, 10}) {
        spare.mats = mats;
        CHECK(set_wishes(b.project, spare).error().code == "order.mats");
    }
    // Beyond all reason: refused where it is set and where it is read, and nothing changes.
    const Project before = b.project;
    Lane lane = *find(b.project, b.lane(Action::cut));
    lane.run.overcut = mm(11);
    CHECK(change_lane(b.project, lane).error().code == "lane.run");
    lane.run = {LineStart::top, mm(0), mm(-1), {}};
    CHECK(change_lane(b.project, lane).error().code == "lane.run");
    CHECK(b.project == before);
    json document = json::parse(write_project(b.project));
    for (json& l : document["lanes"])
        if (l.contains("run")) l["run"]["overcut_mm"] = 99;
    CHECK_FALSE(read_project(document.dump()));
    document = json::parse(write_project(b.project));
    document["wishes"]["school"] = "both";
    CHECK_FALSE(read_project(document.dump()));
    document = json::parse(write_project(b.project));
    document["wishes"]["rules"][0]["after"] = 4000000;
    CHECK_FALSE(read_project(document.dump()));
}
