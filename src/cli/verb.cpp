#include "cli/verb.h"

#include <charconv>

#include "core/base/text.h"
#include "core/project/format.h"

namespace dotlane::cli {

using nlohmann::json;

int Context::error(const Error& e) const {
    if (json)
        err << nlohmann::json{{"error",
                               {{"code", e.code},
                                {"message", e.message},
                                {"file", e.place.file},
                                {"line", e.place.line}}}}
                   .dump(1)
            << "\n";
    else
        err << "dot-lane-cli: " << to_text(e) << "\n";
    return e.code == "export.findings" ? findings : bad;
}

void Context::print(const nlohmann::json& document) const {
    out << document.dump(1) << "\n";
}

void ProjectVerb::declare(CLI::App& app) {
    app.add_option("project", path_, "The project file (.dotlane)")->required();
    options(app);
}

int ProjectVerb::run(Context& context) {
    auto loaded = load_project(context.files, path_);
    if (!loaded) return context.error(loaded.error());
    Project project = *loaded;
    const int code = act(context, project);
    if (code == bad || project == *loaded) return code;
    if (const auto saved = save_project(context.files, path_, project); !saved)
        return context.error(saved.error());
    return code;
}

json to_json(const Finding& f) {
    json args = json::object();
    for (const auto& [name, value] : f.args)
        args[name] = value;
    json j = {{"code", f.code}, {"grade", grade_name(f.grade)}, {"message", f.message}, {"arguments", args}};
    if (f.place.part) j["part"] = f.place.part.value;
    if (f.place.sheet) j["sheet"] = f.place.sheet.value;
    if (f.place.line_set) j["line_set"] = f.place.line_set.value;
    if (f.place.step) j["step"] = f.place.step.value;
    if (f.place.box.valid()) j["box_mm"] = {f.place.box.x0, f.place.box.y0, f.place.box.x1, f.place.box.y1};
    if (!f.remedy.code.empty()) j["remedy"] = f.remedy.code;
    return j;
}

json to_json(const Findings& list) {
    json out = json::array();
    for (const Finding& f : list)
        out.push_back(to_json(f));
    return out;
}

void print_findings(std::ostream& out, const Findings& list) {
    for (const Finding& f : list)
        out << grade_name(f.grade) << ": " << f.message << "\n";
}

namespace {

template<class List, class Get>
auto named(const List& list, const std::string& name, const char* kind, char prefix, Get label)
    -> Result<decltype(list.front().id)> {
    if (name.empty() && list.size() == 1) return list.front().id;
    std::uint32_t number = 0;
    const char* begin = name.c_str() + (name.size() > 1 && name[0] == prefix ? 1 : 0);
    const auto [end, ec] = std::from_chars(begin, name.c_str() + name.size(), number);
    const bool numeric = ec == std::errc() && end == name.c_str() + name.size();
    std::string all;
    for (const auto& item : list) {
        if (lower_case(label(item)) == lower_case(name) || (numeric && item.id.value == number))
            return item.id;
        all +=
            (all.empty() ? "" : ", ") + ("\"" + label(item) + "\" (" + std::to_string(item.id.value) + ")");
    }
    if (list.empty()) return fail("cli.none", std::string("The project has no ") + kind + ".");
    if (name.empty()) return fail("cli.which", std::string("Which ") + kind + "? There are: " + all + ".");
    return fail("cli.unknown",
                std::string("There is no ") + kind + " \"" + name + "\". There are: " + all + ".");
}

} // namespace

Result<PartId> part_named(const Project& project, const std::string& name) {
    return named(project.parts, name, "part", 'p', [](const Part& p) { return p.name; });
}

Result<SheetId> sheet_named(const Project& project, const std::string& name) {
    return named(project.sheets, name, "sheet", 's', [](const Sheet& s) { return s.name; });
}

Result<LaneId> lane_named(const Project& project, const std::string& name) {
    for (const Lane& lane : project.lanes)
        if (lower_case(plate(project, lane.id)) == lower_case(name)) return lane.id;
    return named(project.lanes, name, "lane", 'l', [](const Lane& l) { return l.name; });
}

Result<Length> length_option(const Project& project, const std::string& text) {
    return parse_length(text, project.unit);
}

} // namespace dotlane::cli
