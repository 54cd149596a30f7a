#include "core/project/format.h"

#include <nlohmann/json.hpp>

#include "core/base/text.h"
#include "core/project/edits.h"
#include "core/project/json_fields.h"

namespace dotlane {
namespace {

using nlohmann::json;

// ---- writing -------------------------------------------------------------------------------------------

json to_json(const Drawn& d) {
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
    return j;
}

json to_json(const Drawing& drawing) {
    json lines = json::array();
    for (const DrawnLine& line : drawing.lines) {
        json j = to_json(line.drawn);
        j["id"] = line.id.value;
        if (!line.name.empty()) j["name"] = line.name;
        if (!line.group.empty()) j["group"] = line.group;
        if (line.shape.rule == FillRule::evenodd) j["rule"] = "evenodd";
        j["path_mm"] = path_text(line.shape);
        lines.push_back(std::move(j));
    }
    return {{"page_mm", {in_mm(drawing.page_width), in_mm(drawing.page_height)}},
            {"lines", std::move(lines)}};
}

template<class IdType>
json id_list(const std::vector<IdType>& ids) {
    json out = json::array();
    for (const auto id : ids)
        out.push_back(id.value);
    return out;
}

json to_json(const Step& step) {
    json j = {{"id", step.id.value},
              {"kind", kind_of(step.what).key},
              {"on", step.on},
              {"lane", step.lane.value},
              {"of", id_list(step.of)},
              {"by", id_list(step.by)},
              {"result", step.result.value},
              {"aside", step.aside},
              {"numbers", json::object()}};
    JsonWriter writer(j["numbers"]);
    StepWhat what = step.what;
    fields(what, writer);
    return j;
}

json notes_to_json(const Findings& notes) {
    json out = json::array();
    for (const Finding& note : notes) {
        json arguments = json::array();
        for (const auto& [name, value] : note.args)
            arguments.push_back({name, value});
        out.push_back({{"code", note.code},
                       {"grade", grade_name(note.grade)},
                       {"message", note.message},
                       {"arguments", std::move(arguments)}});
    }
    return out;
}

json to_json(const Source& source) {
    if (const SourceKind* kind = kind_of(source.spec)) {
        json j = {{"kind", kind->key}, {"numbers", json::object()}};
        JsonWriter writer(j["numbers"]);
        SourceSpec spec = source.spec;
        fields(spec, writer);
        return j;
    }
    return {{"kind", "file"},
            {"file_name", source.file_name},
            {"file_hash", std::to_string(source.file_hash)},
            {"notes", notes_to_json(source.notes)},
            {"drawing", to_json(*source.drawing)}};
}

json to_json(const Part& part) {
    json sets = json::array(), steps = json::array();
    for (const LineSet& set : part.sets) {
        json j = {
            {"id", set.id.value}, {"name", set.name}, {"lane", set.lane.value}, {"set_aside", set.set_aside}};
        if (set.role.empty())
            j["lines"] = id_list(set.lines);
        else
            j["role"] = set.role;
        sets.push_back(std::move(j));
    }
    for (const Step& step : part.steps)
        steps.push_back(to_json(step));
    return {{"id", part.id.value},          {"name", part.name},        {"quantity", part.quantity},
            {"stock", part.stock},          {"scale", part.scale},      {"source", to_json(part.source)},
            {"line_sets", std::move(sets)}, {"steps", std::move(steps)}};
}

json to_json(const Sheet& sheet) {
    json placements = json::array();
    for (const Placement& p : sheet.placements)
        placements.push_back({{"id", p.id.value},
                              {"part", p.part.value},
                              {"left_mm", in_mm(p.left)},
                              {"top_mm", in_mm(p.top)},
                              {"turn_rad", in_radians(p.turn)},
                              {"mirrored", p.mirrored},
                              {"piece", p.piece},
                              {"group", p.group}});
    return {{"id", sheet.id.value},
            {"name", sheet.name},
            {"stock", sheet.stock},
            {"mat", sheet.mat},
            {"placements", std::move(placements)}};
}

// ---- reading -------------------------------------------------------------------------------------------
// json throws on missing or mistyped members; the one catch is in read_project.

template<class IdType>
IdType id_from(const json& j) {
    return IdType{j.get<std::uint32_t>()};
}

template<class IdType>
std::vector<IdType> ids_from(const json& j) {
    std::vector<IdType> out;
    out.reserve(j.size());
    for (const auto& v : j)
        out.push_back(id_from<IdType>(v));
    return out;
}

Colour colour_from(const json& j) {
    const auto c = colour_from_hex(j.get_ref<const std::string&>());
    if (!c) throw Damaged{"\"" + j.get<std::string>() + "\" is not a colour"};
    return *c;
}

Drawn drawn_from(const json& j) {
    Drawn d;
    if (j.contains("stroke")) {
        d.stroke = colour_from(j["stroke"]);
        d.stroke_width = mm(j.at("stroke_width_mm").get<double>());
    }
    if (j.contains("fill")) d.fill = colour_from(j["fill"]);
    d.stroke_opacity = j.value("stroke_opacity", 1.0);
    d.fill_opacity = j.value("fill_opacity", 1.0);
    const auto cap = j.value("cap", "butt"), join = j.value("join", "mitre");
    d.cap = cap == "round" ? LineCap::round : cap == "square" ? LineCap::square : LineCap::butt;
    d.join = join == "round" ? LineJoin::round : join == "bevel" ? LineJoin::bevel : LineJoin::mitre;
    d.mitre_limit = j.value("mitre_limit", 4.0);
    d.dashes_mm = j.value("dashes_mm", std::vector<double>{});
    d.dash_offset_mm = j.value("dash_offset_mm", 0.0);
    return d;
}

Drawing drawing_from(const json& j) {
    Drawing out;
    out.page_width = mm(j.at("page_mm").at(0).get<double>());
    out.page_height = mm(j.at("page_mm").at(1).get<double>());
    out.lines.reserve(j.at("lines").size());
    for (const json& l : j.at("lines")) {
        DrawnLine line;
        line.id = id_from<LineId>(l.at("id"));
        line.name = l.value("name", "");
        line.group = l.value("group", "");
        line.drawn = drawn_from(l);
        line.shape.rule = l.value("rule", "nonzero") == "evenodd" ? FillRule::evenodd : FillRule::nonzero;
        auto contours = contours_from_text(l.at("path_mm").get_ref<const std::string&>());
        if (!contours) throw Damaged{"the path of line " + std::to_string(line.id.value) + " cannot be read"};
        line.shape.contours = std::move(*contours);
        out.lines.push_back(std::move(line));
    }
    return out;
}

Step step_from(const json& j) {
    const StepKind* kind = step_kind(j.at("kind").get<std::string>());
    if (!kind) throw Damaged{"a step of kind \"" + j.at("kind").get<std::string>() + "\" is not known"};
    Step step{id_from<StepId>(j.at("id")),        j.at("on").get<bool>(),
              id_from<LaneId>(j.at("lane")),      kind->fresh,
              ids_from<LineSetId>(j.at("of")),    ids_from<LineSetId>(j.at("by")),
              id_from<LineSetId>(j.at("result")), j.at("aside").get<bool>()};
    JsonReader reader(j.at("numbers"));
    fields(step.what, reader);
    return step;
}

Findings notes_from(const json& j) {
    Findings out;
    for (const json& n : j) {
        const auto grade = n.at("grade").get<std::string>();
        Finding note{n.at("code").get<std::string>(),
                     grade == "error"     ? Grade::error
                     : grade == "caution" ? Grade::caution
                                          : Grade::hint,
                     n.at("message").get<std::string>()};
        for (const json& a : n.at("arguments"))
            note.args.emplace_back(a.at(0).get<std::string>(), a.at(1).get<std::string>());
        out.push_back(std::move(note));
    }
    return out;
}

Source source_from(const json& j) {
    Source source;
    const auto word = j.at("kind").get<std::string>();
    if (word != "file") {
        const SourceKind* kind = source_kind(word);
        if (!kind) throw Damaged{"a source of kind \"" + word + "\" is not known"};
        source.spec = kind->fresh;
        JsonReader reader(j.at("numbers"));
        fields(source.spec, reader);
        return source;
    }
    source.file_name = j.at("file_name").get<std::string>();
    source.file_hash = std::stoull(j.at("file_hash").get<std::string>());
    source.notes = notes_from(j.at("notes"));
    source.drawing = std::make_shared<Drawing>(drawing_from(j.at("drawing")));
    return source;
}

Part part_from(const json& j) {
    Part part;
    part.id = id_from<PartId>(j.at("id"));
    part.name = j.at("name").get<std::string>();
    part.quantity = j.at("quantity").get<int>();
    part.stock = j.at("stock").get<std::string>();
    part.scale = j.at("scale").get<double>();
    part.source = source_from(j.at("source"));
    for (const json& s : j.at("line_sets")) {
        const auto role = s.value("role", std::string());
        part.sets.push_back({id_from<LineSetId>(s.at("id")), s.at("name").get<std::string>(),
                             id_from<LaneId>(s.at("lane")), s.at("set_aside").get<bool>(),
                             role.empty() ? ids_from<LineId>(s.at("lines")) : std::vector<LineId>(), role});
    }
    for (const json& s : j.at("steps"))
        part.steps.push_back(step_from(s));
    return part;
}

Sheet sheet_from(const json& j) {
    Sheet sheet{id_from<SheetId>(j.at("id")),
                j.at("name").get<std::string>(),
                j.at("stock").get<std::string>(),
                j.at("mat").get<std::string>(),
                {}};
    for (const json& p : j.at("placements"))
        sheet.placements.push_back({id_from<PlacementId>(p.at("id")), id_from<PartId>(p.at("part")),
                                    mm(p.at("left_mm").get<double>()), mm(p.at("top_mm").get<double>()),
                                    radians(p.at("turn_rad").get<double>()), p.at("mirrored").get<bool>(),
                                    p.at("piece").get<int>(), p.at("group").get<int>()});
    return sheet;
}

Fold fold_from(const json& j) {
    const auto word = j.get<std::string>();
    if (word != "valley" && word != "mountain") throw Damaged{"\"" + word + "\" is no fold"};
    return word == "mountain" ? Fold::mountain : Fold::valley;
}

Project project_from(const json& j) {
    Project p;
    p.name = j.at("name").get<std::string>();
    p.unit = j.at("unit") == "in" ? LengthUnit::inch : LengthUnit::mm;
    p.machine = j.at("machine").get<std::string>();
    p.pass_order = ids_from<LaneId>(j.at("pass_order"));
    p.next_id = j.at("next_id").get<std::uint32_t>();
    for (const json& l : j.at("lanes")) {
        const auto action = action_from_name(l.at("action").get<std::string>());
        if (!action) throw Damaged{"\"" + l.at("action").get<std::string>() + "\" is not an action"};
        p.lanes.push_back({id_from<LaneId>(l.at("id")), *action, l.at("name").get<std::string>(),
                           l.at("tool").get<std::string>(), colour_from(l.at("colour")),
                           l.at("repeats").get<int>(), fold_from(l.at("fold"))});
    }
    for (const json& part : j.at("parts"))
        p.parts.push_back(part_from(part));
    for (const json& sheet : j.at("sheets"))
        p.sheets.push_back(sheet_from(sheet));
    return p;
}

/// Version 1 did not know mountain folds.
void from_1(json& document) {
    for (json& lane : document.at("lanes"))
        lane["fold"] = "valley";
}

/// Version 2 knew one kind of step, whose lines no other step could use.
void from_2(json& document) {
    auto next = document.at("next_id").get<std::uint32_t>();
    for (json& part : document.at("parts"))
        for (json& step : part.at("steps")) {
            step["by"] = json::array();
            step["result"] = next++;
            step["aside"] = false;
            for (const char* number : {"spacing_mm", "angle_rad", "inset_mm", "joined", "alternate"})
                if (step.contains(number)) {
                    step["numbers"][number] = step[number];
                    step.erase(number);
                }
        }
    document["next_id"] = next;
}

void add_missing(json& numbers, const json& fresh) {
    for (const auto& [key, value] : fresh.items())
        if (!numbers.contains(key)) numbers[key] = value;
}

/// In version 4 sources learnt new numbers, which do nothing until they are set.
void from_3(json& document) {
    for (json& part : document.at("parts")) {
        json& source = part.at("source");
        if (const SourceKind* kind = source_kind(source.at("kind").get<std::string>())) {
            SourceSpec spec = kind->fresh;
            // Badges had sizes of their own.
            if (auto* badge = std::get_if<Badge>(&spec)) badge->size = Badge::Size::own;
            json fresh;
            JsonWriter writer(fresh);
            fields(spec, writer);
            add_missing(source.at("numbers"), fresh);
        }
        for (json& step : part.at("steps"))
            if (const StepKind* kind = step_kind(step.at("kind").get<std::string>())) {
                StepWhat what = kind->fresh;
                json fresh;
                JsonWriter writer(fresh);
                fields(what, writer);
                add_missing(step.at("numbers"), fresh);
            }
    }
}

/// In version 5 pieces of a part may lie apart, and what lies on a sheet can be grouped.
void from_4(json& document) {
    for (json& sheet : document.at("sheets"))
        for (json& placement : sheet.at("placements"))
            placement["piece"] = placement["group"] = 0;
}

/// Each entry takes a document of its version to the next.
using Migration = void (*)(json&);
constexpr Migration migrations[] = {nullptr, from_1, from_2, from_3, from_4};
static_assert(std::size(migrations) == format_version, "one migration for every version but the newest");

void migrate(json& document, int from) {
    for (int version = from; version < format_version; ++version)
        migrations[version](document);
}

} // namespace

std::string write_project(const Project& project) {
    json lanes = json::array(), parts = json::array(), sheets = json::array();
    for (const Lane& lane : project.lanes)
        lanes.push_back({{"id", lane.id.value},
                         {"action", action_name(lane.action)},
                         {"name", lane.name},
                         {"tool", lane.tool},
                         {"colour", to_hex(lane.colour)},
                         {"repeats", lane.repeats},
                         {"fold", lane.fold == Fold::mountain ? "mountain" : "valley"}});
    for (const Part& part : project.parts)
        parts.push_back(to_json(part));
    for (const Sheet& sheet : project.sheets)
        sheets.push_back(to_json(sheet));
    const json document = {
        {"format", "dot-lane-project"}, {"version", format_version},
        {"name", project.name},         {"unit", project.unit == LengthUnit::inch ? "in" : "mm"},
        {"machine", project.machine},   {"pass_order", id_list(project.pass_order)},
        {"next_id", project.next_id},   {"lanes", std::move(lanes)},
        {"parts", std::move(parts)},    {"sheets", std::move(sheets)}};
    return document.dump(1, ' ', false, json::error_handler_t::replace) + "\n";
}

Result<Project> read_project(const std::string& bytes, const std::string& file_name) {
    json document;
    try {
        document = json::parse(bytes);
    } catch (const json::parse_error& e) {
        return fail("project.not-json", "The project file is damaged or cut short.",
                    {file_name, line_of_offset(bytes, e.byte)});
    } catch (const json::exception& e) { // a number that no double can hold
        return fail("project.not-json", std::string("The project file is damaged: ") + e.what(),
                    {file_name, 0});
    }
    if (!document.is_object() || !document.contains("format") || document["format"] != "dot-lane-project")
        return fail("project.not-ours", "This is not a Dot Lane project.", {file_name, 0});
    try {
        const int version = document.at("version").get<int>();
        if (version > format_version)
            return fail("project.newer",
                        "This project was saved by a newer Dot Lane (format " + std::to_string(version) +
                            ", this one reads up to " + std::to_string(format_version) + ").",
                        {file_name, 0});
        if (version < 1) throw Damaged{"its format version is not known"};
        migrate(document, version);
        Project project = project_from(document);
        if (const auto ok = check_rules(project); !ok)
            return fail(ok.error().code, ok.error().message, {file_name, 0});
        return project;
    } catch (const Damaged& d) {
        return fail("project.damaged", "The project file is damaged: " + d.what + ".", {file_name, 0});
    } catch (const std::exception& e) {
        return fail("project.damaged", std::string("The project file is damaged: ") + e.what(),
                    {file_name, 0});
    }
}

Result<Project> load_project(FileSystem& files, const std::string& path) {
    return files.read(path, default_max_bytes).and_then([&](const std::string& bytes) {
        return read_project(bytes, path);
    });
}

Result<void> save_project(FileSystem& files, const std::string& path, const Project& project) {
    return files.write_atomically(path, write_project(project));
}

} // namespace dotlane
