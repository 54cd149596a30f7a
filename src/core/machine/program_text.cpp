#include "core/machine/program_text.h"

#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/project/json_drawn.h"

namespace dotlane {
namespace {

using nlohmann::json;
namespace in = json_in;

/// In the order of HandStep::Kind.
constexpr const char* hand_kinds[] = {"print", "cool",   "dry",  "lift-off", "unload", "take-out",  "put-in",
                                      "depth", "lay-on", "load", "warm-up",  "test",   "meanwhile", "care"};
constexpr int most_repeats = 8; ///< as of a lane: each of them is timed
constexpr double most_mm = 1e6; ///< from the sheet's corner

// Written.

json points_json(const std::vector<Point>& points) {
    json out = json::array();
    for (const Point p : points)
        out.push_back({p.x, p.y});
    return out;
}

json box_json(const Box& b) {
    return {b.x0, b.y0, b.x1, b.y1};
}

json line_json(const Polyline& line) {
    return {{"closed", line.closed}, {"points_mm", points_json(line.points)}};
}

json lines_json(const Polylines& lines) {
    json out = json::array();
    for (const Polyline& line : lines)
        out.push_back(line_json(line));
    return out;
}

std::vector<std::string> english(const std::vector<Phrase>& all) {
    std::vector<std::string> out;
    for (const Phrase& one : all)
        out.push_back(one.english());
    return out;
}

json sheet_json(const ProgramSheet& s) {
    return {{"sheet", s.sheet.value},
            {"name", s.name},
            {"stock", s.stock.english()},
            {"mat", s.mat.english()},
            {"mat_mm", {in_mm(s.mat_width), in_mm(s.mat_height)}},
            {"usable_mm", box_json(s.usable)},
            {"stock_mm", box_json(s.stock_area)},
            {"colour", to_hex(s.colour)}};
}

json head_json(const Program& p) {
    json parts = json::array();
    for (const ProgramPart& part : p.parts) {
        json placements = json::array(), sets = json::array(), lines = json::array();
        for (const PlacementId id : part.placements)
            placements.push_back(id.value);
        for (const auto& [id, name] : part.line_sets)
            sets.push_back({{"line_set", id.value}, {"name", name.english()}});
        for (const auto& [id, name] : part.lines)
            lines.push_back({{"line", id}, {"name", name}});
        parts.push_back({{"part", part.part.value},
                         {"name", part.name},
                         {"placements", std::move(placements)},
                         {"line_sets", std::move(sets)},
                         {"lines", std::move(lines)}});
    }
    return {{"dot_lane_program", program_version},
            {"project", p.project},
            {"machine", p.machine.english()},
            {"slots", english(p.slots)},
            {"motion",
             {{"travel_mm_s", in_mm_per_second(p.motion.travel)},
              {"acceleration_mm_s2", in_mm_per_second2(p.motion.acceleration)},
              {"deviation_mm", in_mm(p.motion.deviation)},
              {"lift_s", in_seconds(p.motion.lift)},
              {"lower_s", in_seconds(p.motion.lower)}}},
            {"parts", std::move(parts)}};
}

json setting_json(const PassSetting& s) {
    json j = json::object();
    if (s.pressure) j["pressure"] = *s.pressure;
    if (s.depth) j["depth_mm"] = in_mm(*s.depth);
    if (!s.from.empty()) j["from"] = s.from;
    if (!s.note.empty()) j["note"] = s.note;
    return j;
}

class Writer {
  public:
    std::string text(const Program& p) {
        line(head_json(p));
        for (const ProgramSheet& s : p.sheets)
            line(sheet_json(s));
        for (const PrintSheet& print : p.prints)
            write(print);
        for (const Move& move : p.moves)
            std::visit([&](const auto& m) { write(m); }, move);
        line({{"end", lines_ + 1}}); // counting itself: a text that was cut short is seen
        return std::move(out_);
    }

  private:
    void line(const json& j) {
        out_ += j.dump(-1, ' ', false, json::error_handler_t::replace) + "\n";
        ++lines_;
    }

    void write(const PrintSheet& print) {
        json j = {{"print", sheet_json(print.sheet)},
                  {"marks", lines_json(print.marks)},
                  {"pictures", print.pictures.size()},
                  {"shapes", print.shapes.size()}};
        if (print.square) j["square_mm"] = box_json(*print.square);
        line(j);
        for (const PrintPicture& picture : print.pictures) {
            const Affine& m = picture.to_sheet;
            line({{"picture", base64(*picture.bytes)},
                  {"width_mm", in_mm(picture.width)},
                  {"to_sheet", {m.a, m.b, m.c, m.d, m.e, m.f}},
                  {"art", lines_json(picture.art)},
                  {"whole", lines_json(picture.whole)},
                  {"lines", picture.lines}});
        }
        for (const PrintShape& shape : print.shapes) {
            line({{"contours", lines_json(shape.contours)},
                  {"rule", shape.rule == FillRule::evenodd ? "evenodd" : "nonzero"},
                  {"drawn", drawn_json(shape.drawn)}});
        }
    }

    void write(const StopMove& stop) {
        json hands = json::array();
        for (const HandStep& step : stop.steps)
            hands.push_back(
                {{"kind", hand_kinds[static_cast<std::size_t>(step.kind)]}, {"text", step.text.english()}});
        json j = {{"stop", stop.number},
                  {"sheet", stop.sheet.value},
                  {"time_s", in_seconds(stop.time)},
                  {"hands", hands},
                  {"holds", english(stop.holds)}};
        if (stop.meanwhile != Duration()) j["meanwhile_s"] = in_seconds(stop.meanwhile);
        line(j);
    }

    void write(const PassMove& pass) {
        line({{"pass", pass.number},
              {"sheet", pass.sheet.value},
              {"lane", pass.lane.value},
              {"action", action_name(pass.action)},
              {"lane_name", pass.lane_name},
              {"plate", pass.plate},
              {"tool", pass.tool.english()},
              {"slot", pass.slot.english()},
              {"colour", to_hex(pass.colour)},
              {"tip_mm", in_mm(pass.tip)},
              {"speed_mm_s", in_mm_per_second(pass.speed)},
              {"repeats", pass.repeats},
              {"dwell_s", in_seconds(pass.dwell)},
              {"offset_mm", {pass.offset.x, pass.offset.y}},
              {"setting", setting_json(pass.setting)},
              {"strokes", pass.strokes.size()}});
        for (const Stroke& stroke : pass.strokes) {
            json j = line_json(stroke);
            j["part"] = stroke.of.part.value;
            j["placement"] = stroke.of.placement.value;
            j["line_set"] = stroke.of.line_set.value;
            j["step"] = stroke.of.step.value;
            j["line"] = stroke.of.line.value;
            if (stroke.of.line.step) j["line_step"] = stroke.of.line.step.value;
            j["contour"] = stroke.of.contour;
            line(j);
        }
    }

    std::string out_;
    std::size_t lines_ = 0;
};

// Read.

template<class IdType>
IdType id_of(const json& j, const char* key) {
    return IdType{in::id(j, key)};
}

double positive(const json& j, const char* key) {
    const double v = in::number(j, key);
    if (!(v >= 1e-3 && v <= 1e6)) in::wrong(key, to_say("a number from 0.001 to 1,000,000"));
    return v;
}

double not_negative(const json& j, const char* key) {
    const double v = in::number(j, key);
    if (!(v >= 0 && v <= 1e6)) in::wrong(key, to_say("a number from 0 to 1,000,000"));
    return v;
}

std::vector<double> numbers(const json& list, std::size_t count, const char* what) {
    if (!list.is_array() || list.size() != count) in::wrong(what, to_say("as many numbers as it needs"));
    std::vector<double> out;
    for (const json& v : list)
        out.push_back(in::number_in(v, what));
    return out;
}

Box box_from(const json& j, const char* key) {
    const auto v = numbers(in::list(j, key), 4, key);
    return {v[0], v[1], v[2], v[3]};
}

Polyline line_from(const json& j) {
    Polyline out;
    for (const json& p : in::list(j, "points_mm")) {
        const auto xy = numbers(p, 2, "points_mm");
        if (std::abs(xy[0]) > most_mm || std::abs(xy[1]) > most_mm)
            in::wrong("points_mm", to_say("within 1 km"));
        out.points.push_back({xy[0], xy[1]});
    }
    if (out.points.empty()) in::wrong("points_mm", to_say("one point or more"));
    out.closed = in::flag(j, "closed");
    return out;
}

Polylines lines_from(const json& j, const char* key) {
    Polylines out;
    for (const json& line : in::list(j, key))
        out.push_back(line_from(line));
    return out;
}

std::vector<Phrase> phrases(const json& j, const char* key) {
    std::vector<Phrase> out;
    for (const json& v : in::list(j, key))
        out.push_back(as_is(in::text_in(v, key)));
    return out;
}

ProgramSheet sheet_from(const json& j) {
    const auto mat = numbers(in::list(j, "mat_mm"), 2, "mat_mm");
    return {id_of<SheetId>(j, "sheet"),
            in::text(j, "name"),
            as_is(in::text(j, "stock")),
            as_is(in::text(j, "mat")),
            mm(mat[0]),
            mm(mat[1]),
            box_from(j, "usable_mm"),
            box_from(j, "stock_mm"),
            colour_from(j, "colour")};
}

std::size_t count_of(const json& j, const char* key) {
    const int n = in::whole(j, key);
    if (n < 0) in::wrong(key, to_say("a number from 0"));
    return static_cast<std::size_t>(n);
}

class Reader {
  public:
    explicit Reader(std::string_view text)
        : rest_(text) {}
    int line() const { return line_; }

    Program program() {
        Program p = head(next());
        json j = next();
        for (; in::maybe(j, "sheet") && in::maybe(j, "mat_mm"); j = next())
            p.sheets.push_back(sheet_from(j));
        for (; in::maybe(j, "print"); j = next())
            p.prints.push_back(print(j));
        for (; !in::maybe(j, "end"); j = next())
            if (in::maybe(j, "stop"))
                p.moves.emplace_back(stop(j));
            else if (in::maybe(j, "pass"))
                p.moves.emplace_back(pass(j));
            else
                throw Damaged{say("the line is neither a stop nor a pass")};
        if (in::whole(j, "end") != line_) throw Damaged{say("it does not have as many lines as it says")};
        if (!trimmed(rest_).empty()) throw Damaged{say("something follows its end")};
        return p;
    }

    /// Of the first line.
    int version() {
        Reader first(rest_);
        const json j = first.next();
        return in::whole(j, "dot_lane_program");
    }

  private:
    json next() {
        if (rest_.empty()) throw Damaged{say("it ends too early")};
        const auto end = std::min(rest_.find('\n'), rest_.size());
        const std::string_view text = rest_.substr(0, end);
        rest_.remove_prefix(std::min(end + 1, rest_.size()));
        ++line_;
        json j = json::parse(text.begin(), text.end(), nullptr, false);
        if (!j.is_object()) throw Damaged{say("a line is no JSON object")};
        return j;
    }

    Program head(const json& j) {
        Program p;
        p.project = in::text(j, "project");
        p.machine = as_is(in::text(j, "machine"));
        p.slots = phrases(j, "slots");
        const json& m = in::object(j, "motion");
        p.motion = {mm_per_second(positive(m, "travel_mm_s")),
                    mm_per_second2(positive(m, "acceleration_mm_s2")),
                    in::maybe(m, "deviation_mm") ? mm(not_negative(m, "deviation_mm")) : usual_deviation,
                    seconds(not_negative(m, "lift_s")), seconds(not_negative(m, "lower_s"))};
        for (const json& part : in::list(j, "parts")) {
            ProgramPart out{id_of<PartId>(part, "part"), in::text(part, "name"), {}, {}, {}};
            for (const json& id : in::list(part, "placements"))
                out.placements.push_back(PlacementId{in::id_in(id, "placements")});
            for (const json& set : in::list(part, "line_sets"))
                out.line_sets[id_of<LineSetId>(set, "line_set")] = as_is(in::text(set, "name"));
            for (const json& line : in::list(part, "lines"))
                out.lines[in::id(line, "line")] = in::text(line, "name");
            p.parts.push_back(std::move(out));
        }
        return p;
    }

    PrintSheet print(const json& j) {
        PrintSheet out;
        out.sheet = sheet_from(in::object(j, "print"));
        out.marks = lines_from(j, "marks");
        if (in::maybe(j, "square_mm")) out.square = box_from(j, "square_mm");
        for (std::size_t n = in::maybe(j, "pictures") ? count_of(j, "pictures") : 0; n > 0; --n) {
            const json picture = next();
            auto bytes = from_base64(in::text(picture, "picture"));
            if (!bytes) in::wrong("picture", to_say("base64"));
            const auto m = numbers(in::list(picture, "to_sheet"), 6, "to_sheet");
            out.pictures.push_back({std::make_shared<const std::string>(std::move(*bytes)),
                                    mm(positive(picture, "width_mm")),
                                    {m[0], m[1], m[2], m[3], m[4], m[5]},
                                    lines_from(picture, "art"),
                                    lines_from(picture, "whole"),
                                    count_of(picture, "lines")});
        }
        for (std::size_t n = count_of(j, "shapes"); n > 0; --n) {
            const json shape = next();
            PrintShape s;
            s.contours = lines_from(shape, "contours");
            s.rule = in::text(shape, "rule") == "evenodd" ? FillRule::evenodd : FillRule::nonzero;
            s.drawn = drawn_from(in::object(shape, "drawn"));
            out.shapes.push_back(std::move(s));
        }
        return out;
    }

    static StopMove stop(const json& j) {
        StopMove out;
        out.number = in::whole(j, "stop");
        out.sheet = id_of<SheetId>(j, "sheet");
        out.time = seconds(not_negative(j, "time_s"));
        if (in::maybe(j, "meanwhile_s")) out.meanwhile = seconds(not_negative(j, "meanwhile_s"));
        for (const json& hand : in::list(j, "hands")) {
            const std::string& kind = in::text(hand, "kind");
            const auto* it = std::find(std::begin(hand_kinds), std::end(hand_kinds), kind);
            if (it == std::end(hand_kinds)) in::wrong("kind", to_say("what hands can do"));
            out.steps.push_back(
                {static_cast<HandStep::Kind>(it - std::begin(hand_kinds)), as_is(in::text(hand, "text"))});
        }
        out.holds = phrases(j, "holds");
        return out;
    }

    static PassSetting setting_from(const json& j) {
        PassSetting out;
        if (in::maybe(j, "pressure")) out.pressure = not_negative(j, "pressure");
        if (in::maybe(j, "depth_mm")) out.depth = mm(not_negative(j, "depth_mm"));
        out.from = in::text(j, "from", "");
        out.note = in::text(j, "note", "");
        return out;
    }

    PassMove pass(const json& j) {
        PassMove out;
        out.number = in::whole(j, "pass");
        out.sheet = id_of<SheetId>(j, "sheet");
        out.lane = id_of<LaneId>(j, "lane");
        const auto action = action_from_name(in::text(j, "action"));
        if (!action) in::wrong("action", to_say("an action"));
        out.action = *action;
        out.lane_name = in::text(j, "lane_name"), out.plate = in::text(j, "plate");
        out.tool = as_is(in::text(j, "tool")), out.slot = as_is(in::text(j, "slot"));
        out.colour = colour_from(j, "colour");
        out.tip = mm(not_negative(j, "tip_mm"));
        out.speed = mm_per_second(positive(j, "speed_mm_s"));
        out.repeats = in::whole(j, "repeats");
        if (out.repeats < 1 || out.repeats > most_repeats)
            in::wrong("repeats", to_say("a number from 1 to 8"));
        if (in::maybe(j, "dwell_s")) out.dwell = seconds(not_negative(j, "dwell_s"));
        if (in::maybe(j, "offset_mm")) {
            const auto xy = numbers(in::list(j, "offset_mm"), 2, "offset_mm");
            out.offset = {xy[0], xy[1]};
        }
        if (in::maybe(j, "setting")) out.setting = setting_from(in::object(j, "setting"));
        for (std::size_t n = count_of(j, "strokes"); n > 0; --n) {
            const json s = next();
            const StepId line_step = in::maybe(s, "line_step") ? id_of<StepId>(s, "line_step") : StepId{};
            out.strokes.push_back({line_from(s),
                                   {id_of<PartId>(s, "part"),
                                    id_of<PlacementId>(s, "placement"),
                                    id_of<LineSetId>(s, "line_set"),
                                    id_of<StepId>(s, "step"),
                                    {in::id(s, "line"), line_step},
                                    in::id(s, "contour")}});
        }
        return out;
    }

    std::string_view rest_;
    int line_ = 0;
};

} // namespace

std::string program_text(const Program& program) {
    return Writer().text(program);
}

Result<Program> program_from_text(std::string_view text, const std::string& file_name) {
    Reader reader(text);
    const auto damaged = [&](const Phrase& what) {
        return fail("program.damaged", say("The program is damaged: %1.", what), {file_name, reader.line()});
    };
    try {
        const int version = Reader(text).version();
        if (version > program_version)
            return fail(
                "program.newer",
                say("This program was written by a newer Dot Lane (version %1, this one reads up to %2).",
                    version, program_version),
                {file_name, 1});
        if (version < 1) return damaged(say("its version is not known"));
    } catch (const Damaged&) {
        return fail("program.not-ours", say("This is no Dot Lane program: see docs/program.md."),
                    {file_name, 1});
    }
    try {
        return reader.program();
    } catch (const Damaged& d) {
        return damaged(d.what);
    } catch (const LostLine&) {
        return damaged(say("a number cannot be used"));
    }
}

} // namespace dotlane
