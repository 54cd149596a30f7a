#include "core/catalog/catalog.h"

#include <algorithm>
#include <nlohmann/json.hpp>

#include "core/base/text.h"
#include "core/project/json_in.h"

namespace dotlane {
namespace {

using nlohmann::json;

namespace in = json_in;

double above_zero(const json& j, const char* name) {
    const double v = in::number(j, name);
    if (!(v > 0)) throw Damaged{say("%1 of \"%2\" must be above zero", as_is(name), in::text(j, "id"))};
    return v;
}

double not_below_zero(const json& j, const char* name, double absent) {
    const double v = in::number(j, name, absent);
    if (!(v >= 0)) throw Damaged{say("%1 of \"%2\" must not be below zero", as_is(name), in::text(j, "id"))};
    return v;
}

Duration duration(const json& j, const char* name) {
    return seconds(in::number(j, name));
}

std::vector<std::string> texts(const json& j, const char* name) {
    std::vector<std::string> out;
    for (const json& one : in::list(j, name))
        out.push_back(in::text_in(one, name));
    return out;
}

Slot slot_from(const json& j) {
    return {in::text(j, "id"), in::text(j, "name"), texts(j, "takes")};
}

Machine machine_from(const json& j) {
    Machine m{in::text(j, "id"),
              in::text(j, "name"),
              {},
              texts(j, "mats"),
              mm_per_second(above_zero(j, "travel_speed")),
              mm_per_second2(above_zero(j, "acceleration")),
              mm(not_below_zero(j, "corner_deviation", 0.05)),
              duration(j, "lift_s"),
              duration(j, "lower_s"),
              duration(j, "swap_s"),
              duration(j, "load_sheet_s"),
              duration(j, "unload_sheet_s"),
              mm(above_zero(j, "max_thickness")),
              mm(not_below_zero(j, "landing", 0)),
              !in::maybe(j, "follows_trail") || in::flag(j, "follows_trail"),
              seconds(not_below_zero(j, "test_s", 0)),
              seconds(not_below_zero(j, "feed_s", 15))};
    m.feed = std::min({m.feed, m.load_sheet, m.unload_sheet});
    for (const json& s : in::list(j, "slots"))
        m.slots.push_back(slot_from(s));
    if (m.slots.empty() || m.slots.size() > 4)
        throw Damaged{say("machine \"%1\" must have one to four slots", m.id)};
    return m;
}

Point offset_from(const json& j, const std::string& tool) {
    const json& xy = in::list(j, "offset");
    if (xy.size() != 2)
        throw Damaged{say("the offset of \"%1\" needs two numbers, to the right and down", tool)};
    return {in::number_in(xy[0], "offset"), in::number_in(xy[1], "offset")};
}

Tool tool_from(const json& j) {
    Tool t{in::text(j, "id"),
           in::text(j, "name"),
           in::text(j, "kind"),
           {},
           mm(above_zero(j, "tip")),
           mm_per_second(above_zero(j, "speed")),
           seconds(in::number(j, "warm_up", 0)),
           seconds(in::number(j, "cool_down", 0)),
           seconds(in::number(j, "lay_on", 0)),
           seconds(in::number(j, "lift_off", 0)),
           seconds(in::number(j, "per_sheet", 0)),
           in::text(j, "caution", ""),
           {},
           mm(not_below_zero(j, "trail", 0))};
    if (in::maybe(j, "offset")) t.offset = offset_from(j, t.id);
    for (const std::string& name : texts(j, "actions")) {
        const auto action = action_from_name(name);
        if (!action) throw Damaged{say("\"%1\" is not an action", name)};
        t.actions.push_back(*action);
    }
    return t;
}

Stock stock_from(const json& j) {
    const auto colour = colour_from_hex(in::text(j, "colour"));
    if (!colour) throw Damaged{say("stock \"%1\" has no colour", in::text(j, "id"))};
    return {in::text(j, "id"),
            in::text(j, "name"),
            in::text(j, "kind"),
            mm(above_zero(j, "width")),
            mm(above_zero(j, "height")),
            mm(above_zero(j, "thickness")),
            in::number(j, "weight", 0),
            in::number(j, "price", 0),
            *colour,
            in::maybe(j, "least_width") ? mm(above_zero(j, "least_width")) : Stock{}.least_width,
            in::maybe(j, "least_piece") ? mm(above_zero(j, "least_piece")) : Stock{}.least_piece};
}

Mat mat_from(const json& j) {
    std::vector<double> u;
    for (const json& side : in::list(j, "usable"))
        u.push_back(in::number_in(side, "usable"));
    if (u.size() != 4)
        throw Damaged{say("the usable area of mat \"%1\" needs four numbers", in::text(j, "id"))};
    return {in::text(j, "id"),           in::text(j, "name"),
            in::text(j, "hold"),         mm(above_zero(j, "width")),
            mm(above_zero(j, "height")), Box{u[0], u[1], u[0] + u[2], u[1] + u[3]}};
}

Envelope envelope_from(const json& j) {
    return {in::text(j, "id"), in::text(j, "name"), mm(above_zero(j, "width")), mm(above_zero(j, "height"))};
}

constexpr const char* sources_of_settings[] = {"catalog", "maker", "swatch"};

Setting setting_from(const json& j) {
    Setting s{
        in::text(j, "tool"), in::text(j, "stock", ""), in::text(j, "machine", ""), {}, {}, {}, {}, 1, {}, {}};
    const auto above = [&](const char* name) -> std::optional<double> {
        if (!in::maybe(j, name)) return {};
        const double v = in::number(j, name);
        if (!(v > 0)) throw Damaged{say("%1 of a setting of \"%2\" must be above zero", as_is(name), s.tool)};
        return v;
    };
    s.pressure = above("pressure");
    if (const auto v = above("speed")) s.speed = mm_per_second(*v);
    if (const auto v = above("depth")) s.depth = mm(*v);
    if (const auto v = above("dry")) s.dry = seconds(*v);
    if (in::maybe(j, "passes")) s.passes = in::whole(j, "passes");
    if (s.passes < 1 || s.passes > 8)
        throw Damaged{say("the passes of a setting of \"%1\" are not 1 to 8", s.tool)};
    const std::string from = in::text(j, "from", "catalog");
    const auto it = std::find(std::begin(sources_of_settings), std::end(sources_of_settings), from);
    if (it == std::end(sources_of_settings)) throw Damaged{say("a setting comes from \"%1\"", from)};
    s.from = static_cast<Setting::From>(it - std::begin(sources_of_settings));
    s.note = in::text(j, "note", "");
    return s;
}

/// Those of the user's own stand in for those on the same thing.
void take_settings(std::vector<Setting>& into, const json& document) {
    if (!in::maybe(document, "settings")) return;
    for (const json& j : in::list(document, "settings")) {
        Setting s = setting_from(j);
        std::erase_if(into, [&](const Setting& o) {
            return o.tool == s.tool && o.stock == s.stock && o.machine == s.machine;
        });
        into.push_back(std::move(s));
    }
}

/// Where tips touch, of tools that are there: measured for them, whoever describes them.
void take_offsets(std::vector<Tool>& tools, const json& document) {
    if (!in::maybe(document, "offsets")) return;
    for (const json& j : in::list(document, "offsets")) {
        const std::string& id = in::text(j, "tool");
        for (Tool& tool : tools)
            if (tool.id == id) tool.offset = offset_from(j, id);
    }
}

template<class T, class From>
void take(std::vector<T>& into, const json& document, const char* name, From from) {
    if (!in::maybe(document, name)) return;
    for (const json& j : in::list(document, name)) {
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

const char* key_of(Setting::From from) {
    return sources_of_settings[static_cast<int>(from)];
}

const Setting* Catalog::setting(const Tool& tool, const Stock& stock, const Machine& machine) const {
    const Setting* best = nullptr;
    int most = -1;
    for (const Setting& s : settings) {
        if (s.tool != tool.id || (!s.machine.empty() && s.machine != machine.id)) continue;
        const int near = s.stock == stock.id ? 4 : s.stock.empty() ? 0 : s.stock == stock.kind ? 2 : -9;
        const int nearness = near + (s.machine.empty() ? 0 : 1);
        if (nearness > most) most = nearness, best = &s;
    }
    return best;
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
        if (!bytes)
            return fail("catalog.missing", say("The catalog could not be read: %1", bytes.error().message));
        try {
            const json document = json::parse(*bytes);
            take(out.machines, document, "machines", machine_from);
            take(out.tools, document, "tools", tool_from);
            take(out.stocks, document, "stocks", stock_from);
            take(out.mats, document, "mats", mat_from);
            take(out.envelopes, document, "envelopes", envelope_from);
            take_settings(out.settings, document);
            take_offsets(out.tools, document);
        } catch (const Damaged& d) {
            return fail("catalog.damaged", say("The catalog is damaged: %1.", d.what), {path, 0});
        } catch (const json::parse_error& e) {
            return fail("catalog.damaged", say("The catalog is damaged or cut short."),
                        {path, line_of_offset(*bytes, e.byte)});
        } catch (const json::exception&) {
            return fail("catalog.damaged",
                        say("The catalog is damaged: a number in it is beyond all bounds."), {path, 0});
        }
        return {};
    };
    for (const char* name : {"machines.json", "tools.json", "stocks.json", "envelopes.json", "settings.json"})
        if (const auto ok = read(folder + "/" + name); !ok) return tl::make_unexpected(ok.error());
    if (!user_folder.empty())
        for (const std::string& name : files.list(user_folder))
            if (name.ends_with(".json"))
                if (const auto ok = read(user_folder + "/" + name); !ok)
                    return tl::make_unexpected(ok.error());
    return out;
}

} // namespace dotlane
