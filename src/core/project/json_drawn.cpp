#include "core/project/json_drawn.h"

#include <cmath>

namespace dotlane {

using nlohmann::json;
namespace in = json_in;

Colour colour_from(const json& j, const char* key) {
    const auto c = colour_from_hex(in::text(j, key));
    if (!c) throw Damaged{say("\"%1\" is not a colour", in::text(j, key))};
    return *c;
}

namespace {

double number_of_line(const json& j, const char* key, double otherwise) {
    const json* value = in::maybe(j, key);
    if (value && value->is_null()) throw LostLine{}; // what is not finite was once written so
    return in::number(j, key, otherwise);
}

} // namespace

Drawn drawn_from(const json& j) {
    Drawn d;
    if (in::maybe(j, "stroke")) {
        d.stroke = colour_from(j, "stroke");
        d.stroke_width = mm(number_of_line(j, "stroke_width_mm", -1));
        if (in_mm(d.stroke_width) < 0) in::wrong("stroke_width_mm", to_say("a width"));
    }
    if (in::maybe(j, "fill")) d.fill = colour_from(j, "fill");
    d.stroke_opacity = number_of_line(j, "stroke_opacity", 1);
    d.fill_opacity = number_of_line(j, "fill_opacity", 1);
    const auto cap = in::text(j, "cap", "butt"), join = in::text(j, "join", "mitre");
    d.cap = cap == "round" ? LineCap::round : cap == "square" ? LineCap::square : LineCap::butt;
    d.join = join == "round" ? LineJoin::round : join == "bevel" ? LineJoin::bevel : LineJoin::mitre;
    d.mitre_limit = number_of_line(j, "mitre_limit", 4);
    if (in::maybe(j, "dashes_mm"))
        for (const json& dash : in::list(j, "dashes_mm")) {
            if (dash.is_null()) throw LostLine{};
            d.dashes_mm.push_back(in::number_in(dash, "dashes_mm"));
        }
    d.dash_offset_mm = number_of_line(j, "dash_offset_mm", 0);
    if (in::maybe(j, "nib")) {
        const json& nib = in::list(j, "nib");
        if (nib.size() != d.nib.size()) in::wrong("nib", to_say("four numbers"));
        for (std::size_t i = 0; i < d.nib.size(); ++i) {
            if (nib[i].is_null()) throw LostLine{};
            d.nib[i] = in::number_in(nib[i], "nib");
        }
        const double size = std::abs(d.nib[0] * d.nib[3] - d.nib[1] * d.nib[2]);
        if (!(size > 1e-6 && size < 1e6)) in::wrong("nib", to_say("a map that can be undone"));
    }
    return d;
}

json drawn_json(const Drawn& d) {
    json j = json::object();
    if (d.stroke) {
        j["stroke"] = to_hex(*d.stroke);
        j["stroke_width_mm"] = in_mm(d.stroke_width);
    }
    if (d.fill) j["fill"] = to_hex(*d.fill);
    if (d.stroke && d.stroke_opacity != 1) j["stroke_opacity"] = d.stroke_opacity;
    if (d.fill && d.fill_opacity != 1) j["fill_opacity"] = d.fill_opacity;
    if (d.cap != LineCap::butt) j["cap"] = d.cap == LineCap::round ? "round" : "square";
    if (d.join != LineJoin::mitre) j["join"] = d.join == LineJoin::round ? "round" : "bevel";
    if (d.mitre_limit != 4) j["mitre_limit"] = d.mitre_limit;
    if (!d.dashes_mm.empty()) j["dashes_mm"] = d.dashes_mm;
    if (d.dash_offset_mm != 0) j["dash_offset_mm"] = d.dash_offset_mm;
    if (d.nib != Drawn{}.nib) j["nib"] = d.nib;
    return j;
}

} // namespace dotlane
