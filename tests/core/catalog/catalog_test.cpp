#include "core/catalog/catalog.h"

#include <nlohmann/json.hpp>

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
    for (const char* name : {"machines", "tools", "stocks"}) {
        const auto document =
            nlohmann::json::parse(file(DOTLANE_SOURCE "/data/catalog/" + std::string(name) + ".json"));
        for (const char* list : {"machines", "tools", "stocks", "mats"}) {
            if (!document.contains(list)) continue;
            for (const auto& item : document[list]) {
                INFO(item["id"]);
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
    for (const char* name : {"machines.json", "tools.json", "stocks.json", "envelopes.json"})
        files.files["/c/" + std::string(name)] = file(DOTLANE_SOURCE "/data/catalog/" + std::string(name));
    files.files["/mine/pens.json"] =
        R"({"tools": [{"id": "pen-0.4", "name": "my pen", "kind": "pen", "actions": ["draw"], "tip": 0.38, "speed": 90},
        {"id": "brush", "name": "brush", "kind": "pen", "actions": ["draw"], "tip": 2, "speed": 40}]})";
    const Catalog c = must(load_catalog(files, "/c", "/mine"));
    CHECK(c.tool("pen-0.4")->name == "my pen");
    CHECK(in_mm(c.tool("brush")->tip) == 2);
    CHECK(c.tools.size() == catalog().tools.size() + 1);
}

TEST_CASE("a damaged catalog is refused with its file") {
    MemoryFiles files;
    for (const char* name : {"machines.json", "tools.json", "stocks.json", "envelopes.json"})
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
