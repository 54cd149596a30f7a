#include "core/catalog/catalog.h"

#include <algorithm>
#include <nlohmann/json.hpp>

namespace dotlane {
namespace {

using nlohmann::json;

struct Damaged {
    std::string what;
};

double positive(const json& j, const char* name) {
    const double v = j.at(name).get<double>();
    if (!(v > 0))
        throw Damaged{std::string(name) + " of \"" + j.at("id").get<std::string>() + "\" must be above zero"};
    return v;
}

Slot slot_from(const json& j) {
    return {j.at("id"), j.at("name"), j.at("takes").get<std::vector<std::string>>()};
}

Machine machine_from(const json& j) {
    Machine m{j.at("id"),
              j.at("name"),
              {},
              j.at("mats").get<std::vector<std::string>>(),
              mm_per_second(positive(j, "travel_speed")),
              mm_per_second2(positive(j, "acceleration")),
              degrees(positive(j, "corner_degrees")),
              seconds(j.at("lift_s")),
              seconds(j.at("lower_s")),
              seconds(j.at("swap_s")),
              seconds(j.at("load_sheet_s")),
              seconds(j.at("unload_sheet_s")),
              mm(positive(j, "max_thickness"))};
    for (const json& s : j.at("slots"))
        m.slots.push_back(slot_from(s));
    if (m.slots.empty() || m.slots.size() > 4)
        throw Damaged{"machine \"" + m.id + "\" must have one to four slots"};
    return m;
}

Tool tool_from(const json& j) {
    Tool t{j.at("id"),
           j.at("name"),
           j.at("kind"),
           {},
           mm(positive(j, "tip")),
           mm_per_second(positive(j, "speed")),
           seconds(j.value("warm_up", 0.0)),
           j.value("caution", "")};
    for (const json& a : j.at("actions")) {
        const auto action = action_from_name(a.get<std::string>());
        if (!action) throw Damaged{"\"" + a.get<std::string>() + "\" is not an action"};
        t.actions.push_back(*action);
    }
    return t;
}

Stock stock_from(const json& j) {
    const auto colour = colour_from_hex(j.at("colour").get<std::string>());
    if (!colour) throw Damaged{"stock \"" + j.at("id").get<std::string>() + "\" has no colour"};
    return {j.at("id"),
            j.at("name"),
            j.at("kind"),
            mm(positive(j, "width")),
            mm(positive(j, "height")),
            mm(positive(j, "thickness")),
            j.value("weight", 0.0),
            j.value("price", 0.0),
            *colour,
            j.contains("least_width") ? mm(positive(j, "least_width")) : Stock{}.least_width};
}

Mat mat_from(const json& j) {
    const auto u = j.at("usable").get<std::vector<double>>();
    if (u.size() != 4)
        throw Damaged{"the usable area of mat \"" + j.at("id").get<std::string>() + "\" needs four numbers"};
    return {j.at("id"),
            j.at("name"),
            j.at("hold"),
            mm(positive(j, "width")),
            mm(positive(j, "height")),
            Box{u[0], u[1], u[0] + u[2], u[1] + u[3]}};
}

Envelope envelope_from(const json& j) {
    return {j.at("id"), j.at("name"), mm(positive(j, "width")), mm(positive(j, "height"))};
}

template<class T, class From>
void take(std::vector<T>& into, const json& document, const char* name, From from) {
    if (!document.contains(name)) return;
    for (const json& j : document.at(name)) {
        T item = from(j);
        const auto same = std::find_if(into.begin(), into.end(), [&](const T& t) { return t.id == item.id; });
        if (same == into.end())
            into.push_back(std::move(item));
        else
            *same = std::move(item);
    }
}

template<class T>
const T* by_id(const std::vector<T>& list, std::string_view id) {
    const auto it = std::find_if(list.begin(), list.end(), [id](const T& t) { return t.id == id; });
    return it == list.end() ? nullptr : &*it;
}

} // namespace

const Machine* Catalog::machine(std::string_view id) const {
    return by_id(machines, id);
}
const Tool* Catalog::tool(std::string_view id) const {
    return by_id(tools, id);
}
const Stock* Catalog::stock(std::string_view id) const {
    return by_id(stocks, id);
}
const Mat* Catalog::mat(std::string_view id) const {
    return by_id(mats, id);
}

const Tool* Catalog::first_tool(Action action) const {
    for (const Tool& t : tools)
        if (std::find(t.actions.begin(), t.actions.end(), action) != t.actions.end()) return &t;
    return nullptr;
}

Result<Catalog> load_catalog(FileSystem& files, const std::string& folder, const std::string& user_folder) {
    Catalog out;
    const auto read = [&](const std::string& path) -> Result<void> {
        const auto bytes = files.read(path, 16U << 20);
        if (!bytes) return fail("catalog.missing", "The catalog could not be read: " + bytes.error().message);
        try {
            const json document = json::parse(*bytes);
            take(out.machines, document, "machines", machine_from);
            take(out.tools, document, "tools", tool_from);
            take(out.stocks, document, "stocks", stock_from);
            take(out.mats, document, "mats", mat_from);
            take(out.envelopes, document, "envelopes", envelope_from);
        } catch (const Damaged& d) {
            return fail("catalog.damaged", "The catalog is damaged: " + d.what + ".", {path, 0});
        } catch (const std::exception& e) {
            return fail("catalog.damaged", std::string("The catalog is damaged: ") + e.what() + ".",
                        {path, 0});
        }
        return {};
    };
    for (const char* name : {"machines.json", "tools.json", "stocks.json", "envelopes.json"})
        if (const auto ok = read(folder + "/" + name); !ok) return tl::make_unexpected(ok.error());
    if (!user_folder.empty())
        for (const std::string& name : files.list(user_folder))
            if (name.ends_with(".json"))
                if (const auto ok = read(user_folder + "/" + name); !ok)
                    return tl::make_unexpected(ok.error());
    return out;
}

} // namespace dotlane
