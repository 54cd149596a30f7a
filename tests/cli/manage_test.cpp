// Parts, sheets and the project as wholes, from the command line; lines that steps made; exit codes.
#include "core/project/edits.h"
#include "tests/cli/terminal.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

struct Walk : Terminal {
    Walk() { files.files["walk.dotlane"] = file(DOTLANE_SOURCE "/data/demo/saltmarsh.dotlane"); }
    Project now() { return project("walk.dotlane"); }
    const Part& part(const Project& p, const char* name) {
        for (const Part& part : p.parts)
            if (part.name == name) return part;
        FAIL("no part " << name);
        return p.parts.front();
    }
    /// What the part comes to, without ids.
    json picture(const char* name) {
        const json shown = answer({"show", "walk.dotlane"});
        for (json p : shown["parts"])
            if (p["name"] == name) {
                p.erase("id"), p.erase("name");
                for (const char* list : {"line_sets", "steps", "fills"})
                    for (json& one : p[list])
                        one.erase("id"), one.erase("line_set"), one.erase("step");
                return p;
            }
        return {};
    }
};

} // namespace

TEST_CASE_METHOD(Walk, "a copy of a part is a part of its own that makes the same lines") {
    for (const char* name : {"Invitation", "Title", "Bunting letters", "Signpost", "Lamp label backing"}) {
        INFO(name);
        REQUIRE(run({"part", "walk.dotlane", "--part", name, "--copy", "--rename", "Twin"}) == 0);
        CHECK(picture("Twin") == picture(name));
        const Project p = now();
        CHECK(check_rules(p));
        std::set<std::uint32_t> ids;
        for (const Part& part : p.parts) { // no id stands for two things
            CHECK(ids.insert(part.id.value).second);
            for (const LineSet& set : part.sets)
                CHECK(ids.insert(set.id.value).second);
            for (const Step& step : part.steps) {
                CHECK(ids.insert(step.id.value).second);
                if (step.result) CHECK(ids.insert(step.result.value).second);
            }
        }
        // What is done to the one is not done to the other.
        const json before = picture(name);
        REQUIRE(run({"lane", "walk.dotlane", "--part", "Twin", "--all", "--to", "S"}) == 0);
        CHECK(picture(name) == before);
        CHECK(picture("Twin") != before);
        REQUIRE(run({"part", "walk.dotlane", "--part", "Twin", "--remove"}) == 0);
    }
    REQUIRE(run({"part", "walk.dotlane", "--part", "Invitation", "--copy"}) == 0);
    REQUIRE(run({"part", "walk.dotlane", "--part", "Invitation 2", "--copy"}) == 0);
    (void)part(now(), "Invitation 3");
}

TEST_CASE_METHOD(Walk, "part: renamed, wanted, given stock, removed, what goes with it is told") {
    const json a = answer({"part", "walk.dotlane", "--part", "title", "--rename", "Big title", "--quantity",
                           "3", "--stock", "slate-card-12x12"});
    CHECK(a["done"].size() == 3);
    const Project p = now();
    const Part& big = part(p, "Big title");
    CHECK(big.quantity == 3);
    CHECK(big.stock == "slate-card-12x12");
    CHECK(a["part"] == big.id.value);
    const std::string before = files.files["walk.dotlane"];
    CHECK(run({"part", "walk.dotlane", "--part", "Big title", "--quantity", "5", "--stock", "none"}) == 2);
    CHECK(err.find("cream-card-12x12") != std::string::npos); // all there are
    CHECK(run({"part", "walk.dotlane", "--part", "Big title", "--rename", "INVITATION"}) == 2);
    CHECK(run({"part", "walk.dotlane", "--part", "Big title", "--rename", ""}) == 2);
    CHECK(run({"part", "walk.dotlane", "--part", "Big title", "--quantity", "0"}) == 2);
    CHECK(run({"part", "walk.dotlane", "--part", "Big title"}) == 2);
    CHECK(run({"part", "walk.dotlane", "--part", "Big title", "--remove", "--quantity", "2"}) == 2);
    CHECK(run({"part", "walk.dotlane", "--part", "Big title", "--remove"}) == 2); // its backing follows it
    CHECK(files.files["walk.dotlane"] == before);                                 // all of it or nothing
    const json gone = answer({"part", "walk.dotlane", "--part", "Invitation", "--remove"});
    CHECK(gone["lost"] == json::array({"2 copies left sheet 1.", "2 copies left sheet 2."}));
}

TEST_CASE_METHOD(Walk,
                 "sheet: added like the last, named, given stock and mat, removed with what lies on it") {
    const std::size_t had = now().sheets.size();
    const Sheet last = now().sheets.back();
    const json added = answer({"sheet", "walk.dotlane", "--add"});
    Project p = now();
    REQUIRE(p.sheets.size() == had + 1);
    CHECK(p.sheets.back().stock == last.stock);
    CHECK(p.sheets.back().mat == last.mat);
    CHECK(added["sheet"] == p.sheets.back().id.value);
    REQUIRE(run({"sheet", "walk.dotlane", "--sheet", p.sheets.back().name, "--rename", "backs", "--stock",
                 "letter-card", "--mat", "mat-12x12-strong"}) == 0);
    p = now();
    CHECK(p.sheets.back().name == "backs");
    CHECK(p.sheets.back().stock == "letter-card");
    CHECK(p.sheets.back().mat == "mat-12x12-strong");
    CHECK(run({"sheet", "walk.dotlane", "--add", "--name", "BACKS"}) == 2);
    CHECK(run({"sheet", "walk.dotlane", "--sheet", "backs", "--mat", "none"}) == 2);
    CHECK(run({"sheet", "walk.dotlane", "--sheet", "backs"}) == 2);
    CHECK(run({"sheet", "walk.dotlane", "--add", "--remove"}) == 2);
    CHECK(now() == p);
    const std::size_t lay = p.sheets.front().placements.size();
    REQUIRE(lay > 1);
    const json gone = answer({"sheet", "walk.dotlane", "--sheet", p.sheets.front().name, "--remove"});
    CHECK(gone["lost"][0] == std::to_string(lay) + " things that lay on it are on no sheet now.");
    CHECK(now().sheets.size() == had);
}

TEST_CASE_METHOD(
    Walk, "a sheet whose stock and mat this catalog does not have can be named and mended one by one") {
    Project p = now();
    p.sheets.back().stock = "velvet", p.sheets.back().mat = "mat-of-another";
    files.files["walk.dotlane"] = write_project(p);
    const std::string sheet = p.sheets.back().name;
    CHECK(run({"sheet", "walk.dotlane", "--sheet", sheet, "--rename", "far"}) == 0);
    CHECK(out == "\"far\": velvet on the mat-of-another.\n");
    CHECK(run({"sheet", "walk.dotlane", "--add"}) == 0); // like no stock that is not there
    CHECK(now().sheets.back().stock == catalog().stocks.front().id);
    CHECK(run({"sheet", "walk.dotlane", "--sheet", "far", "--stock", "letter-card"}) == 0);
    CHECK(run({"sheet", "walk.dotlane", "--sheet", "far", "--mat", "mat-12x12-light"}) == 0);
    CHECK(run({"part", "walk.dotlane", "--part", "Title", "--rename", "  "}) == 2);
}

TEST_CASE_METHOD(Walk, "project: name, unit, machine, pass order, and lanes that are empty") {
    REQUIRE(run({"project", "walk.dotlane", "--name", "Tide walk", "--unit", "in", "--machine", "one-slot",
                 "--pass-order", "S,D,F,C"}) == 0);
    Project p = now();
    CHECK(p.name == "Tide walk");
    CHECK(p.unit == LengthUnit::inch);
    CHECK(p.machine == "one-slot");
    CHECK(p.pass_order.size() == 4);
    CHECK(answer({"project", "walk.dotlane"})["pass_order"] == "S,D,F,C");
    CHECK(run({"project", "walk.dotlane", "--pass-order", "S,Q"}) == 2);
    CHECK(run({"project", "walk.dotlane", "--name", " "}) == 2);
    CHECK(now() == p);
    REQUIRE(run({"project", "walk.dotlane", "--pass-order", "usual"}) == 0);
    CHECK(now().pass_order.empty());

    CHECK(run({"project", "walk.dotlane", "--drop-empty-lanes"}) == 0);
    CHECK(out == "No lane is empty.\n");
    REQUIRE(run({"lane", "walk.dotlane", "--part", "Invitation", "--line-set", "Fill", "--to", "D"}) == 0);
    // Lines that are set aside keep their lane, for when they are run again.
    CHECK(answer({"project", "walk.dotlane", "--drop-empty-lanes"})["lost"].empty());
    REQUIRE(run({"lane", "walk.dotlane", "--part", "Invitation", "--line-set", "gold foil tip 0.5", "--to",
                 "D"}) == 0);
    const json dropped = answer({"project", "walk.dotlane", "--drop-empty-lanes"});
    REQUIRE(dropped["lost"].size() >= 1);
    CHECK(dropped["lost"][0].get<std::string>().find("gold foil") != std::string::npos);
    CHECK(now().lanes.size() == p.lanes.size() - dropped["lost"].size());
}

TEST_CASE_METHOD(Walk, "lines that a step made go to any lane, new ones too, and are listed") {
    const auto lane_of_made = [&](const char* part, const char* kind) {
        const json shown = answer({"show", "walk.dotlane"});
        for (const json& p : shown["parts"])
            if (p["name"] == part)
                for (const json& s : p["steps"])
                    if (s["kind"] == kind) {
                        CHECK(s["lines"].get<int>() > 0);
                        for (const json& lane : shown["lanes"])
                            if (lane["id"] == s["lane"]) return lane["action"].get<std::string>();
                    }
        return std::string();
    };
    CHECK(lane_of_made("Title", "outline") == "cut");
    REQUIRE(run({"lane", "walk.dotlane", "--part", "Title", "--line-set", "Outline", "--action", "emboss"}) ==
            0);
    CHECK(lane_of_made("Title", "outline") == "emboss"); // made for it
    CHECK(lane_of_made("Invitation", "fill") == "foil");
    CHECK(answer({"lane", "walk.dotlane", "--part", "Invitation", "--line-set", "Fill", "--to",
                  "D"})["fills"] == 1);
    CHECK(lane_of_made("Invitation", "fill") == "draw");
    REQUIRE(run({"lane", "walk.dotlane", "--part", "Invitation", "--line-set", "Fill", "--to", "aside"}) ==
            0);
    CHECK(run({"show", "walk.dotlane"}) == 0);
    CHECK(out.find("Outline (line set 57): 1 line") != std::string::npos);
}

TEST_CASE_METHOD(Terminal,
                 "show and rehearse answer 1 while errors stand, an empty lane's wrong tool is none") {
    prepare();
    CHECK(run({"show", "p.dotlane"}) == 0);
    CHECK(run({"rehearse", "p.dotlane"}) == 0);
    // A lane that nothing is sent to.
    Project p = project();
    Lane spare = p.lanes.front();
    spare.name = "spare", spare.action = Action::engrave, spare.tool = "pen-0.4";
    add_lane(p, spare);
    files.files["p.dotlane"] = write_project(p);
    CHECK(run({"check", "p.dotlane"}) == 0);
    CHECK(out.find("spare") != std::string::npos); // told all the same
    CHECK(run({"export", "p.dotlane", "--to", "out"}) == 0);
    REQUIRE(run({"lane", "p.dotlane", "--line-set", "C", "--to", "spare"}) == 0);
    CHECK(run({"export", "p.dotlane", "--to", "out"}) == 1);
    CHECK(run({"show", "p.dotlane"}) == 1);
    CHECK(run({"lane", "p.dotlane", "--line-set", "spare", "--to", "none"}) == 0);
    CHECK(run({"check", "p.dotlane"}) == 1);
    CHECK(out.find("of \"Card\" has no lane") != std::string::npos);
    CHECK(run({"rehearse", "p.dotlane"}) == 1);
}

TEST_CASE_METHOD(Walk,
                 "every verb that changes something says what it did: to what, and with which numbers") {
    const auto said = [&](std::vector<std::string> words) {
        words.insert(words.begin() + 1, "walk.dotlane");
        CHECK(run(words) != 2);
        INFO(err);
        return out.substr(0, out.find('\n'));
    };
    CHECK(said({"step", "--part", "Title backing", "--add", "outline", "--set", "distance=3mm"}) ==
          "Added step 1, Outline, to \"Title backing\". It works on \"outline\". Its lines go to C fine "
          "blade.");
    const Step made = part(now(), "Title backing").steps.front();
    CHECK(std::get<OutlineStep>(made.what).distance == mm(3));
    const std::string id = std::to_string(made.id.value);
    CHECK(said({"step", "--part", "Title backing", "--step", id, "--off"}) ==
          "Switched off step 1, Outline, of \"Title backing\". It works on \"outline\". Its lines go to C "
          "fine blade.");
    CHECK(said({"step", "--part", "Title backing", "--step", id, "--sources", "aside"}) ==
          "What it works on, \"outline\", is set aside.");
    CHECK(said({"step", "--part", "Signpost", "--step",
                std::to_string(part(now(), "Signpost").steps[2].id.value), "--move-to", "1"}) ==
          "Words of \"Signpost\" is step 1 of 4 now.");
    CHECK(said({"step", "--part", "Crew badge", "--add", "corners", "--off"}) ==
          "Added step 2, Corners, to \"Crew badge\". It is switched off. It works on all that is there.");
    CHECK(said({"step", "--part", "Title backing", "--step", id, "--remove"}) ==
          "Removed step 1, Outline, from \"Title backing\".");
    CHECK(said({"source", "--part", "Lamp label", "--set", "width=90mm"}) ==
          "Changed \"Lamp label\": width 84 to 90 mm.");
    CHECK(said({"source", "--part", "Lamp label", "--set", "width=90mm"}) == "Nothing changed.");
    CHECK(said({"lane", "--part", "Star stencil", "--all", "--to", "aside"}) ==
          "21 lines of \"Star stencil\": set aside, not run");
    // Given again, an action changes nothing, though there are two lanes of it.
    REQUIRE(run({"lane", "walk.dotlane", "--part", "Signpost", "--all", "--action", "cut", "--tool",
                 "deep-blade"}) != 2);
    REQUIRE(run({"lane", "walk.dotlane", "--part", "Title", "--all", "--action", "cut"}) != 2);
    const Project once = now();
    REQUIRE(run({"lane", "walk.dotlane", "--part", "Title", "--all", "--action", "cut"}) != 2);
    CHECK(now() == once);
    CHECK(said({"arrange", "--sheet", "sheet 1", "--mirror", "--across", "left"}) ==
          "2 placed parts on sheet 1: mirrored. 2 placed parts on sheet 1: lined up left with what the tool "
          "reaches.");
    CHECK(said({"apart", "--part", "Star stencil", "--by", "piece"})
              .starts_with("Took \"Star stencil\" apart by piece: "));
    CHECK(said({"make", "badge", "--name", "Pin"}) == "Made \"Pin\" (Badge).");
    // The same in the one document.
    const json one = answer({"step", "walk.dotlane", "--part", "Title backing", "--add", "corners"});
    CHECK(one["done"] ==
          json::array({"Added step 1, Corners, to \"Title backing\". It works on all that is there."}));
    CHECK(answer({"source", "walk.dotlane", "--part", "Lamp label", "--set", "height=50mm"})["done"] ==
          "Nothing changed.");
}

TEST_CASE("check says whose a finding is where its message does not") {
    Terminal t;
    t.files.files["thin.svg"] =
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='0 0 100 100'>"
        "<rect x='10' y='10' width='0.4' height='30' fill='#a8462d'/>"
        "<rect x='30' y='30' width='30' height='30' fill='#a8462d'/></svg>";
    for (const char* name : {"sliver", "sliver too"})
        REQUIRE(t.run({"import", "thin.svg", "p.dotlane", "--name", name}) == 0);
    REQUIRE(t.run({"check", "p.dotlane"}) == 0);
    for (const std::string name : {"sliver", "sliver too"}) {
        CHECK(t.out.find("caution: \"" + name + "\": A cut piece of 0.4 x 30 mm") != std::string::npos);
        CHECK(t.out.find("caution: \"" + name + "\" lies on no sheet") !=
              std::string::npos); // says so itself
    }
    REQUIRE(t.run({"show", "p.dotlane"}) == 0);
    CHECK(t.out.find("\"sliver\": A cut piece") != std::string::npos);
}
