#include "core/catalog/mats.h"

#include <nlohmann/json.hpp>

#include "core/catalog/user_catalog.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("the shipped catalog is complete and refers only to what it has") {
    const Catalog& c = catalog();
    REQUIRE(c.machines.size() >= 2);
    CHECK(c.machines[0].slots.size() == 2);
    CHECK(c.machines[1].slots.size() == 1);
    for (const Machine& m : c.machines)
        for (const std::string& mat : m.mats)
            CHECK(c.mat(mat));
    for (const Action a : all_actions)
        CHECK(c.first_tool(a));
    for (const Tool& t : c.tools) {
        bool fits = t.kind == "printer";
        for (const Slot& s : c.machines[0].slots)
            fits |= std::find(s.takes.begin(), s.takes.end(), t.kind) != s.takes.end();
        INFO(t.id);
        CHECK(fits);
    }
    for (const Tool& t : c.tools)
        if (t.kind == "blade" || t.kind == "foil" || t.kind == "engraver") CHECK_FALSE(t.caution.empty());
}

TEST_CASE("every figure of the shipped catalog has a source of a known kind") {
    // S published standard, C common practice, I identity, M from memory, D chosen for the demonstration.
    for (const char* name : {"machines", "tools", "stocks", "settings"}) {
        const auto document =
            nlohmann::json::parse(file(DOTLANE_SOURCE "/data/catalog/" + std::string(name) + ".json"));
        for (const char* list : {"machines", "tools", "stocks", "mats", "settings"}) {
            if (!document.contains(list)) continue;
            for (const auto& item : document[list]) {
                INFO(item.value("id", item.value("tool", "")));
                REQUIRE(item.contains("sources"));
                CHECK_FALSE(item["sources"].empty());
                for (const auto& source : item["sources"])
                    CHECK(std::string("SCIMD").find(source.get<std::string>()[0]) != std::string::npos);
            }
        }
    }
}

TEST_CASE("the maker's own file replaces and adds") {
    MemoryFiles files;
    for (const char* name : {"machines.json", "tools.json", "stocks.json", "envelopes.json", "settings.json"})
        files.files["/c/" + std::string(name)] = file(DOTLANE_SOURCE "/data/catalog/" + std::string(name));
    files.files["/mine/pens.json"] =
        R"({"tools": [{"id": "pen-0.4", "name": "my pen", "kind": "pen", "actions": ["draw"], "tip": 0.38, "speed": 90},
        {"id": "brush", "name": "brush", "kind": "pen", "actions": ["draw"], "tip": 2, "speed": 40}]})";
    const Catalog c = must(load_catalog(files, "/c", "/mine"));
    CHECK(c.tool("pen-0.4")->name == "my pen");
    CHECK(in_mm(c.tool("brush")->tip) == 2);
    CHECK(c.tools.size() == catalog().tools.size() + 1);
}

TEST_CASE("what is known of a tool: the stock itself before its kind, the machine before any") {
    Catalog c = catalog();
    c.settings.clear();
    const Tool& tool = *c.tool("fine-blade");
    const Stock& stock = *c.stock("heavy-paper-12x12");
    const auto known = [&](const char* machine = "two-slot") {
        const Setting* s = c.setting(tool, stock, *c.machine(machine));
        return s ? s->note : std::string("nothing");
    };
    const auto add = [&](const char* on, const char* machine, const char* note) {
        Setting s{"fine-blade", on, machine, {}, {}, {}, {}, 1, {}, note};
        c.settings.push_back(s);
    };
    CHECK(known() == "nothing");
    add("", "", "any");
    CHECK(known() == "any");
    add("paper", "", "paper");
    add("card", "two-slot", "of another kind");
    CHECK(known() == "paper");
    add("paper", "two-slot", "paper here");
    CHECK(known() == "paper here");
    CHECK(known("one-slot") == "paper");
    add("heavy-paper-12x12", "", "this paper");
    CHECK(known() == "this paper");
    c.settings.push_back(
        {"pen-0.4", "heavy-paper-12x12", "two-slot", {}, {}, {}, {}, 1, {}, "of another tool"});
    CHECK(known() == "this paper");
}

TEST_CASE("a maker keeps what worked and where tips touch, and takes it away again") {
    MemoryFiles files;
    for (const char* name : {"machines", "tools", "stocks", "envelopes", "settings"})
        files.files["/c/" + std::string(name) + ".json"] =
            file(DOTLANE_SOURCE "/data/catalog/" + std::string(name) + ".json");
    const auto now = [&] { return must(load_catalog(files, "/c", "/mine")); };
    const std::size_t shipped = now().settings.size();
    Setting setting{
        "fine-blade",          "heavy-paper-12x12", "", 95.0, mm_per_second(40), mm(0.25), seconds(20), 2,
        Setting::From::swatch, "weeds well"};
    must(keep_setting(files, "/mine", setting));
    Catalog c = now();
    CHECK(c.settings.size() == shipped + 1);
    CHECK(*c.setting(*c.tool("fine-blade"), *c.stock("heavy-paper-12x12"), c.machines[0]) == setting);
    setting.pressure = 80, setting.from = Setting::From::maker; // in its place
    must(keep_setting(files, "/mine", setting));
    CHECK(now().settings.size() == shipped + 1);
    CHECK(*now().setting(*c.tool("fine-blade"), *c.stock("heavy-paper-12x12"), c.machines[0]) == setting);
    must(keep_offset(files, "/mine", "pen-0.8", {1.2, -0.5}));
    must(keep_offset(files, "/mine", "pen-0.8", {1.3, -0.5}));
    CHECK(now().tool("pen-0.8")->offset == Point{1.3, -0.5});
    CHECK(now().tool("pen-0.4")->offset == Point{});
    must(forget_setting(files, "/mine", "fine-blade", "heavy-paper-12x12", ""));
    CHECK(now().settings.size() == shipped);
    CHECK(forget_setting(files, "/mine", "fine-blade", "heavy-paper-12x12", "").error().code ==
          "setting.none");
    // Nothing is lost by what cannot be: the file stays as it was.
    const auto kept = files.files["/mine/kept.json"];
    setting.pressure = -1;
    CHECK(keep_setting(files, "/mine", setting).error().code == "setting.range");
    CHECK(keep_offset(files, "/mine", "pen-0.8", {300, 0}).error().code == "setting.range");
    CHECK(files.files["/mine/kept.json"] == kept);
    files.files["/mine/kept.json"] = "[1, 2";
    CHECK(keep_offset(files, "/mine", "pen-0.8", {}).error().code == "catalog.damaged");
    CHECK(files.files["/mine/kept.json"] == "[1, 2");
}

TEST_CASE("a damaged catalog is refused with its file") {
    MemoryFiles files;
    for (const char* name : {"machines.json", "tools.json", "stocks.json", "envelopes.json", "settings.json"})
        files.files["/c/" + std::string(name)] = file(DOTLANE_SOURCE "/data/catalog/" + std::string(name));
    CHECK(load_catalog(files, "/none").error().code == "catalog.missing");
    const auto broken = [&](const std::string& text) {
        files.files["/mine/x.json"] = text;
        const auto c = load_catalog(files, "/c", "/mine");
        REQUIRE_FALSE(c);
        CHECK(c.error().place.file == "/mine/x.json");
        return c.error().code;
    };
    CHECK(broken("{") == "catalog.damaged");
    CHECK(broken(R"({"tools": [{"id": "x"}]})") == "catalog.damaged");
    CHECK(
        broken(
            R"({"tools": [{"id": "x", "name": "x", "kind": "pen", "actions": ["fly"], "tip": 1, "speed": 1}]})") ==
        "catalog.damaged");
    CHECK(
        broken(
            R"({"tools": [{"id": "x", "name": "x", "kind": "pen", "actions": ["draw"], "tip": -1, "speed": 1}]})") ==
        "catalog.damaged");
    CHECK(
        broken(
            R"({"machines": [{"id": "m", "name": "m", "slots": [], "mats": [], "travel_speed": 1, "acceleration": 1, "corner_degrees": 30, "lift_s": 0,
        "lower_s": 0, "swap_s": 0, "load_sheet_s": 0, "unload_sheet_s": 0, "max_thickness": 1}]})") ==
        "catalog.damaged");
}

TEST_CASE("a piece goes on the smallest mat of the machine that holds it, turned if need be, or on none") {
    Random dice("mats");
    for (const Machine& machine : catalog().machines)
        for (int i = 0; i < 60; ++i) {
            const Length wide = mm(dice.real(10, 700)), high = mm(dice.real(10, 700));
            const auto holds = [&](const Mat& mat) {
                const auto in = [&](Length x, Length y) {
                    return mat.usable.width() >= in_mm(x) && mat.usable.height() >= in_mm(y);
                };
                return in(wide, high) || in(high, wide);
            };
            const Mat* found = mat_that_holds(catalog(), machine, wide, high);
            INFO(machine.id << ": " << in_mm(wide) << " x " << in_mm(high));
            if (found) CHECK(holds(*found));
            for (const std::string& id : machine.mats)
                if (const Mat& mat = *catalog().mat(id); holds(mat)) {
                    REQUIRE(found);
                    CHECK(in_mm(found->width) * in_mm(found->height) <= in_mm(mat.width) * in_mm(mat.height));
                }
        }
}
