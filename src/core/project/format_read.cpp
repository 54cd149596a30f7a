// The project file, read.
#include <algorithm>
#include <charconv>
#include <set>

#include "core/base/finding_kind.h"
#include "core/base/text.h"
#include "core/project/edits.h"
#include "core/project/format.h"
#include "core/project/json_drawn.h"
#include "core/project/json_fields.h"
#include "core/project/json_in.h"
#include "core/project/json_running.h"
#include "core/project/migrations.h"

namespace dotlane {
namespace {

constexpr FindingKind<Count, Name> lines_lost{"project.lines-lost",
                                              Grade::caution,
                                              to_say("%n [line|lines] of \"%2\" could not be read, as their "
                                                     "numbers are damaged, and [was|were] left out."),
                                              {"count", "part"}};

using nlohmann::json;
namespace in = json_in;

template<class IdType>
IdType id_from(const json& j, const char* key) {
    return IdType{in::id(j, key)};
}

template<class IdType>
std::vector<IdType> ids_from(const json& j, const char* key) {
    const json& list = in::list(j, key);
    std::vector<IdType> out;
    out.reserve(list.size());
    for (const json& v : list)
        out.push_back(IdType{in::id_in(v, key)});
    return out;
}

DrawnLine line_from(const json& j) {
    DrawnLine line;
    line.id = id_from<LineId>(j, "id");
    line.name = in::text(j, "name", "");
    line.group = in::text(j, "group", "");
    line.shape.rule = in::text(j, "rule", "nonzero") == "evenodd" ? FillRule::evenodd : FillRule::nonzero;
    line.drawn = drawn_from(j);
    auto contours = contours_from_text(in::text(j, "path_mm"));
    if (!contours) throw LostLine{};
    line.shape.contours = std::move(*contours);
    if (!sound(line)) throw LostLine{};
    return line;
}

double page_side(const json& j, std::size_t i) {
    const json& page = in::list(j, "page_mm");
    if (page.size() != 2) in::wrong("page_mm", to_say("a width and a height"));
    return page[i].is_null() ? 0 : in::number_in(page[i], "page_mm");
}

Drawing drawing_from(const json& j, std::vector<LineId>& lost) {
    Drawing out;
    out.page_width = mm(page_side(j, 0));
    out.page_height = mm(page_side(j, 1));
    const json& lines = in::list(j, "lines");
    out.lines.reserve(lines.size());
    for (const json& l : lines) {
        try {
            out.lines.push_back(line_from(l));
        } catch (const LostLine&) {
            lost.push_back(id_from<LineId>(l, "id"));
        }
    }
    return out;
}

Step step_from(const json& j) {
    const StepKind* kind = step_kind(in::text(j, "kind"));
    if (!kind) throw Damaged{say("a step of kind \"%1\" is not known", in::text(j, "kind"))};
    Step step{id_from<StepId>(j, "id"),        in::flag(j, "on"),
              id_from<LaneId>(j, "lane"),      kind->fresh,
              ids_from<LineSetId>(j, "of"),    ids_from<LineSetId>(j, "by"),
              id_from<LineSetId>(j, "result"), in::flag(j, "aside")};
    JsonReader reader(in::object(j, "numbers"));
    fields(step.what, reader);
    return step;
}

Phrase phrase_from(const json& j, int depth = 0) {
    if (depth > 8) in::wrong("said", to_say("what a note can say"));
    Phrase out{in::text(j, "text"), in::text(j, "context")};
    if (in::maybe(j, "n")) out.n = in::id(j, "n");
    for (const json& arg : in::list(j, "arguments"))
        out.args.push_back(phrase_from(arg, depth + 1));
    return out;
}

Findings notes_from(const json& list) {
    Findings out;
    for (const json& n : list) {
        const std::string& grade = in::text(n, "grade");
        const json* said = in::maybe(n, "said"); // notes of before it was there are English
        Finding note{in::text(n, "code"),
                     grade == "error"     ? Grade::error
                     : grade == "caution" ? Grade::caution
                                          : Grade::hint,
                     said ? phrase_from(*said) : as_is(in::text(n, "message"))};
        for (const json& a : in::list(n, "arguments")) {
            if (!a.is_array() || a.size() != 2) in::wrong("arguments", to_say("a list of pairs"));
            note.args.emplace_back(in::text_in(a[0], "arguments"), in::text_in(a[1], "arguments"));
        }
        out.push_back(std::move(note));
    }
    return out;
}

std::uint64_t hash_from(const std::string& text) {
    std::uint64_t hash = 0;
    const auto [end, bad] = std::from_chars(text.data(), text.data() + text.size(), hash);
    if (bad != std::errc() || end != text.data() + text.size()) in::wrong("file_hash", to_say("a number"));
    return hash;
}

Source source_from(const json& j, std::vector<LineId>& lost) {
    Source source;
    const std::string& word = in::text(j, "kind");
    if (word != "file") {
        const SourceKind* kind = source_kind(word);
        if (!kind) throw Damaged{say("a source of kind \"%1\" is not known", word)};
        source.spec = kind->fresh;
        JsonReader reader(in::object(j, "numbers"));
        fields(source.spec, reader);
        return source;
    }
    source.file_name = in::text(j, "file_name");
    source.file_hash = hash_from(in::text(j, "file_hash"));
    source.notes = notes_from(in::list(j, "notes"));
    source.drawing = std::make_shared<Drawing>(drawing_from(in::object(j, "drawing"), lost));
    return source;
}

/// A part whose lines could not all be read says so until the maker has seen it.
void tell_lost(Part& part, const std::vector<LineId>& lost) {
    if (lost.empty()) return;
    const std::set<LineId> gone(lost.begin(), lost.end());
    for (LineSet& set : part.sets)
        std::erase_if(set.lines, [&](LineId id) { return gone.contains(id); });
    part.source.notes.push_back(lines_lost({}, Count{lost.size()}, part.name));
}

Part part_from(const json& j) {
    Part part;
    std::vector<LineId> lost;
    part.id = id_from<PartId>(j, "id");
    part.name = in::text(j, "name");
    part.quantity = in::whole(j, "quantity");
    part.stock = in::text(j, "stock");
    part.scale = in::number(j, "scale");
    if (in::maybe(j, "one_colour")) part.one_colour = in::number(j, "one_colour");
    part.source = source_from(in::object(j, "source"), lost);
    for (const json& s : in::list(j, "line_sets")) {
        auto role = in::text(s, "role", "");
        part.sets.push_back({id_from<LineSetId>(s, "id"), in::text(s, "name"), id_from<LaneId>(s, "lane"),
                             in::flag(s, "set_aside"),
                             role.empty() ? ids_from<LineId>(s, "lines") : std::vector<LineId>(), role,
                             in::maybe(s, "step") ? id_from<StepId>(s, "step") : StepId{}});
    }
    for (const json& s : in::list(j, "steps"))
        part.steps.push_back(step_from(s));
    tell_lost(part, lost);
    return part;
}

Sheet sheet_from(const json& j) {
    Sheet sheet{id_from<SheetId>(j, "id"), in::text(j, "name"), in::text(j, "stock"), in::text(j, "mat"), {}};
    for (const json& p : in::list(j, "placements"))
        sheet.placements.push_back({id_from<PlacementId>(p, "id"), id_from<PartId>(p, "part"),
                                    mm(in::number(p, "anchor_left_mm")), mm(in::number(p, "anchor_top_mm")),
                                    radians(in::number(p, "turn_rad")), in::flag(p, "mirrored"),
                                    in::whole(p, "piece"), in::whole(p, "group"),
                                    in::maybe(p, "by_box") != nullptr && in::flag(p, "by_box")});
    if (in::maybe(j, "found_mm"))
        for (const json& p : in::list(j, "found_mm")) {
            if (!p.is_array() || p.size() != 2 || !p[0].is_number() || !p[1].is_number())
                throw Damaged{say("a mark that was found has no two numbers")};
            sheet.found.push_back({p[0].get<double>(), p[1].get<double>()});
        }
    return sheet;
}

Lane lane_from(const json& j) {
    const auto action = action_from_name(in::text(j, "action"));
    if (!action) throw Damaged{say("\"%1\" is not an action", in::text(j, "action"))};
    const std::string& fold = in::text(j, "fold");
    if (fold != "valley" && fold != "mountain") throw Damaged{say("\"%1\" is no fold", fold)};
    return {id_from<LaneId>(j, "id"),
            *action,
            in::text(j, "name"),
            in::text(j, "tool"),
            colour_from(j, "colour"),
            in::whole(j, "repeats"),
            fold == "mountain" ? Fold::mountain : Fold::valley,
            in::maybe(j, "run") ? line_run_from(in::object(j, "run")) : LineRun{}};
}

Project project_from(const json& j) {
    Project p;
    p.name = in::text(j, "name");
    p.unit = in::text(j, "unit") == "in" ? LengthUnit::inch : LengthUnit::mm;
    p.machine = in::text(j, "machine");
    p.pass_order = ids_from<LaneId>(j, "pass_order");
    if (in::maybe(j, "wishes")) p.wishes = plan_wishes_from(in::object(j, "wishes"));
    p.next_id = in::id(j, "next_id");
    for (const json& l : in::list(j, "lanes"))
        p.lanes.push_back(lane_from(l));
    for (const json& part : in::list(j, "parts"))
        p.parts.push_back(part_from(part));
    for (const json& sheet : in::list(j, "sheets"))
        p.sheets.push_back(sheet_from(sheet));
    return p;
}

} // namespace

Result<Project> read_project(const std::string& bytes, const std::string& file_name) {
    const auto damaged = [&](const Phrase& what) {
        return fail("project.damaged", say("The project file is damaged: %1.", what), {file_name, 0});
    };
    json document;
    try {
        document = json::parse(bytes);
    } catch (const json::parse_error& e) {
        return fail("project.not-json", say("The project file is damaged or cut short."),
                    {file_name, line_of_offset(bytes, e.byte)});
    } catch (const json::exception&) {
        return fail("project.not-json",
                    say("The project file is damaged: a number in it is beyond all bounds."), {file_name, 0});
    }
    if (!document.is_object() || !document.contains("format") || document["format"] != "dot-lane-project")
        return fail("project.not-ours", say("This is not a Dot Lane project."), {file_name, 0});
    try {
        const int version = in::whole(document, "version");
        if (version > format_version)
            return fail(
                "project.newer",
                say("This project was saved by a newer Dot Lane (format %1, this one reads up to %2).",
                    version, format_version),
                {file_name, 0});
        if (const int edition = in::maybe(document, "edition") ? in::whole(document, "edition") : 1;
            edition > newest_edition())
            return fail(
                "project.newer",
                say("This project uses numbers of a newer Dot Lane (edition %1, this one knows up to %2).",
                    edition, newest_edition()),
                {file_name, 0});
        if (version < 1) return damaged(say("its format version is not known"));
        migrate(document, version);
        Project project = project_from(document);
        if (const auto ok = check_rules(project); !ok)
            return fail(ok.error().code, ok.error().message, {file_name, 0});
        return project;
    } catch (const Damaged& d) {
        return damaged(d.what);
    }
}

} // namespace dotlane
