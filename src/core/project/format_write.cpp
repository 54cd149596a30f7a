// The project file, written.
#include "core/project/format.h"
#include "core/project/json_drawn.h"
#include "core/project/json_fields.h"
#include "core/project/json_running.h"

namespace dotlane {
namespace {

using nlohmann::json;

json to_json(const Drawing& drawing) {
    json lines = json::array();
    for (const DrawnLine& line : drawing.lines) {
        json j = drawn_json(line.drawn);
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

json to_json(const Step& step, int& edition) {
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
    edition = std::max(edition, writer.needed_edition());
    return j;
}

json to_json(const Phrase& phrase) {
    json j = {{"text", phrase.text}, {"context", phrase.context}, {"arguments", json::array()}};
    if (phrase.n) j["n"] = *phrase.n;
    for (const Phrase& arg : phrase.args)
        j["arguments"].push_back(to_json(arg));
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
                       {"message", note.message.english()},
                       {"said", to_json(note.message)},
                       {"arguments", std::move(arguments)}});
    }
    return out;
}

json to_json(const Source& source, int& edition) {
    if (const SourceKind* kind = kind_of(source.spec)) {
        json j = {{"kind", kind->key}, {"numbers", json::object()}};
        JsonWriter writer(j["numbers"]);
        SourceSpec spec = source.spec;
        fields(spec, writer);
        edition = std::max(edition, writer.needed_edition());
        return j;
    }
    return {{"kind", "file"},
            {"file_name", source.file_name},
            {"file_hash", std::to_string(source.file_hash)},
            {"notes", notes_to_json(source.notes)},
            {"drawing", to_json(*source.drawing)}};
}

constexpr int edition_of_step_sets = 10, edition_of_one_colour = 11, edition_of_found_marks = 11;

json to_json(const Part& part, int& edition) {
    json sets = json::array(), steps = json::array();
    for (const LineSet& set : part.sets) {
        json j = {
            {"id", set.id.value}, {"name", set.name}, {"lane", set.lane.value}, {"set_aside", set.set_aside}};
        if (set.step) {
            j["step"] = set.step.value;
            edition = std::max(edition, edition_of_step_sets);
        }
        if (set.role.empty())
            j["lines"] = id_list(set.lines);
        else
            j["role"] = set.role;
        sets.push_back(std::move(j));
    }
    for (const Step& step : part.steps)
        steps.push_back(to_json(step, edition));
    json out = {{"id", part.id.value},          {"name", part.name},
                {"quantity", part.quantity},    {"stock", part.stock},
                {"scale", part.scale},          {"source", to_json(part.source, edition)},
                {"line_sets", std::move(sets)}, {"steps", std::move(steps)}};
    if (part.one_colour > 0) {
        out["one_colour"] = part.one_colour;
        edition = std::max(edition, edition_of_one_colour);
    }
    return out;
}

json to_json(const Sheet& sheet, int& edition) {
    json placements = json::array();
    for (const Placement& p : sheet.placements) {
        json j = {{"id", p.id.value},
                  {"part", p.part.value},
                  {"anchor_left_mm", in_mm(p.left)},
                  {"anchor_top_mm", in_mm(p.top)},
                  {"turn_rad", in_radians(p.turn)},
                  {"mirrored", p.mirrored},
                  {"piece", p.piece},
                  {"group", p.group}};
        if (p.by_box) j["by_box"] = true;
        placements.push_back(std::move(j));
    }
    json out = {{"id", sheet.id.value},
                {"name", sheet.name},
                {"stock", sheet.stock},
                {"mat", sheet.mat},
                {"placements", std::move(placements)}};
    if (!sheet.found.empty()) {
        for (const Point p : sheet.found)
            out["found_mm"].push_back({p.x, p.y});
        edition = std::max(edition, edition_of_found_marks);
    }
    return out;
}

constexpr std::uint64_t bytes_per_line = 110; // its keys, colours and widths, indented
constexpr std::uint64_t bytes_per_object = 900;

std::uint64_t bytes_of(const Drawing& drawing) {
    constexpr std::size_t samples = 64, most_segments = 200;
    std::uint64_t segments = 0, read = 0, written = 0;
    const std::size_t every = std::max<std::size_t>(1, drawing.lines.size() / samples);
    for (std::size_t i = 0; i < drawing.lines.size(); ++i) {
        const Shape& shape = drawing.lines[i].shape;
        const std::size_t count = segment_count(shape) + shape.contours.size();
        segments += count;
        if (i % every != 0) continue;
        Shape some = shape;
        for (Contour& c : some.contours)
            if (c.segments.size() > most_segments) c.segments.resize(most_segments);
        if (some.contours.size() > most_segments) some.contours.resize(most_segments);
        read += segment_count(some) + some.contours.size();
        written += path_text(some).size();
    }
    return drawing.lines.size() * bytes_per_line +
           (read == 0 ? 0 : static_cast<std::uint64_t>(static_cast<double>(segments) * written / read));
}

} // namespace

int newest_edition() {
    static const int newest = [] {
        json numbers;
        JsonWriter writer(numbers);
        for (SourceKind kind : all_source_kinds())
            fields(kind.fresh, writer);
        for (StepKind kind : step_kinds())
            fields(kind.fresh, writer);
        return std::max(writer.newest_edition(), newest_edition_of_running);
    }();
    return newest;
}

std::uint64_t estimated_bytes(const Project& project) {
    std::uint64_t out = bytes_per_object;
    for (const Part& part : project.parts) {
        out += bytes_per_object * (1 + part.sets.size() + part.steps.size());
        for (const LineSet& set : part.sets)
            out += set.lines.size() * 14; // ids, a line each
        if (!is_made(part)) out += bytes_of(*part.source.drawing);
        if (const auto* picture = std::get_if<Picture>(&part.source.spec); picture && picture->bytes)
            out += picture->bytes->size() * 4 / 3; // base64
    }
    for (const Sheet& sheet : project.sheets)
        out += bytes_per_object + sheet.placements.size() * 260;
    return out;
}

std::string write_project(const Project& project) {
    json lanes = json::array(), parts = json::array(), sheets = json::array();
    int edition = 1;
    for (const Lane& lane : project.lanes) {
        lanes.push_back({{"id", lane.id.value},
                         {"action", action_name(lane.action)},
                         {"name", lane.name},
                         {"tool", lane.tool},
                         {"colour", to_hex(lane.colour)},
                         {"repeats", lane.repeats},
                         {"fold", lane.fold == Fold::mountain ? "mountain" : "valley"}});
        if (lane.run == LineRun{}) continue;
        lanes.back()["run"] = to_json(lane.run);
        edition = std::max(edition, edition_of(lane.run));
    }
    edition = std::max(edition, edition_of(project.wishes));
    for (const Part& part : project.parts)
        parts.push_back(to_json(part, edition));
    for (const Sheet& sheet : project.sheets)
        sheets.push_back(to_json(sheet, edition));
    json document = {{"format", "dot-lane-project"},
                     {"version", format_version},
                     {"edition", edition},
                     {"name", project.name},
                     {"unit", project.unit == LengthUnit::inch ? "in" : "mm"},
                     {"machine", project.machine},
                     {"pass_order", id_list(project.pass_order)},
                     {"next_id", project.next_id},
                     {"lanes", std::move(lanes)},
                     {"parts", std::move(parts)},
                     {"sheets", std::move(sheets)}};
    if (project.wishes != PlanWishes{}) document["wishes"] = to_json(project.wishes);
    return document.dump(1, ' ', false, json::error_handler_t::replace) + "\n";
}

} // namespace dotlane
