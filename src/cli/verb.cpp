#include "cli/verb.h"

#include <charconv>

#include "core/base/text.h"
#include "core/project/format.h"

namespace dotlane::cli {

using nlohmann::json;

namespace {

/// What a terminal could take for a command is written as an escape; words in all languages stay readable.
std::string json_text(const json& document) {
    std::string text = document.dump(1, ' ', false, json::error_handler_t::replace);
    if (text != printable(text)) text = document.dump(1, ' ', true, json::error_handler_t::replace);
    return text + "\n";
}

constexpr int lock_wait_ms = 120'000; ///< a picture may be traced while the lock is held

} // namespace

int Context::error(const Error& e) const {
    if (json)
        err << json_text(
            {{"error",
              {{"code", e.code}, {"message", e.message}, {"file", e.place.file}, {"line", e.place.line}}}});
    else
        err << "dot-lane-cli: " << to_text(e) << "\n";
    return e.code == "export.findings" ? findings : bad;
}

void Context::print(const nlohmann::json& document) const {
    out << json_text(document);
}

int change_project(Context& context, const std::string& path, bool begin,
                   const std::function<int(Project&)>& act) {
    const auto lock = context.files.lock(path, lock_wait_ms);
    if (!lock) return context.error(lock.error());
    std::optional<Project> before;
    if (!begin || context.files.exists(path)) {
        auto loaded = load_project(context.files, path);
        if (!loaded) return context.error(loaded.error());
        before = std::move(*loaded);
    }
    Project project = before ? *before : context.workshop.new_project(file_stem(path));
    const int code = act(project);
    if (code == bad || (before && project == *before)) return code;
    if (const auto saved = save_project(context.files, path, project); !saved)
        return context.error(saved.error());
    return code;
}

void ProjectVerb::declare(CLI::App& app) {
    app.add_option("project", path_, "The project file (.dotlane)")->required();
    options(app);
}

int ProjectVerb::run(Context& context) {
    if (changes())
        return change_project(context, path_, false, [&](Project& project) { return act(context, project); });
    auto loaded = load_project(context.files, path_);
    if (!loaded) return context.error(loaded.error());
    return act(context, *loaded);
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
