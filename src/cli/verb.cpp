#include "cli/verb.h"

#include "core/base/text.h"
#include "core/commands/placing.h"
#include "core/commands/remedies.h"
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

constexpr int default_decimals = 6;

/// What a member's number means stands at the end of its key.
int decimals_of(const std::string& key, int otherwise) {
    constexpr std::pair<const char*, int> by_end[] = {{"_mm", 4},  {"_mm2", 3},    {"_s", 2},
                                                      {"_m", 4},   {"cost", 2},    {"price", 2},
                                                      {"_deg", 4}, {"percent", 3}, {"degrees", 4}};
    for (const auto& [end, decimals] : by_end)
        if (key.ends_with(end)) return decimals;
    return otherwise;
}

void round_numbers(json& j, int decimals) {
    if (j.is_object())
        for (auto it = j.begin(); it != j.end(); ++it)
            round_numbers(it.value(), decimals_of(it.key(), decimals));
    else if (j.is_array())
        for (json& v : j)
            round_numbers(v, decimals);
    else if (j.is_number_float() && std::isfinite(j.get<double>()))
        // By way of the shortest decimal text, so that 5.08 is not written as 5.079999.
        j = plain_number(number(j.get<double>(), decimals)).value_or(j.get<double>());
}

json error_json(const Error& e) {
    return {{"code", e.code},
            {"message", e.message},
            {"place", {{"file", e.place.file}, {"line", e.place.line}}}};
}

constexpr int lock_wait_ms = 120'000; ///< a picture may be traced while the lock is held

} // namespace

std::string counted(std::size_t n, const char* one, const char* many) {
    return std::to_string(n) + " " + (n == 1 ? one : many);
}

std::string error_document(const Error& e) {
    return json_text({{"error", error_json(e)}});
}

int Context::error(const Error& e) const {
    if (json) // the one document; what a verb had begun to say is worth nothing now
        failure = error_json(e);
    else
        err << "dot-lane-cli: " << to_text(e) << "\n";
    return e.code == "export.findings" ? findings : bad;
}

std::shared_ptr<const Derived> planned(const Context& context, Project project, NotThisRun left_out) {
    return context.workshop.derive(std::make_shared<Project>(std::move(project)), no_progress(), {},
                                   {{}, Effort::best, std::move(left_out)});
}

void Context::print(const nlohmann::json& document) const {
    nlohmann::json rounded = document;
    round_numbers(rounded, default_decimals);
    answer = std::move(rounded);
}

void Context::print_exact(const nlohmann::json& document) const {
    answer = document;
}

std::string Context::document(int code) const {
    nlohmann::json all = answer.is_null() ? nlohmann::json::object() : answer;
    if (!all.is_object() && failure.is_null()) return json_text(all); // a list
    if (!failure.is_null()) {
        if (code == bad) all = nlohmann::json::object(); // nothing of it is true
        all["error"] = failure;
    }
    if (dry_run) all["dry_run"] = true;
    if (all.empty()) all["done"] = true;
    return json_text(all);
}

int change_project(Context& context, const std::string& path, bool begin,
                   const std::function<int(Project&)>& act) {
    const std::string& to = context.to.empty() ? path : context.to;
    const auto lock = context.files.lock(to, lock_wait_ms);
    if (!lock) return context.error(lock.error());
    if (!context.to.empty() && to != path && context.files.exists(to))
        return context.error(
            {"project.exists", say("\"%1\" is there already: nothing was written over it.", to), {}});
    std::optional<Project> before;
    if (!begin || context.files.exists(path)) {
        auto loaded = load_project(context.files, path);
        if (!loaded) return context.error(loaded.error());
        before = std::move(*loaded);
    }
    if (before) settle_placements(*before, context.workshop);
    Project project = before ? *before : context.workshop.new_project(file_stem(path));
    const int code = act(project);
    if (code == bad || (to == path && before && project == *before)) return code;
    if (context.dry_run) {
        if (const auto text = checked_text(project); !text) return context.error(text.error());
        return code;
    }
    if (const auto saved = save_project(context.files, to, project); !saved)
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
    settle_placements(*loaded, context.workshop);
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
    if (!f.more.empty()) {
        j["remedies"] = json::array({f.remedy.code});
        for (const Remedy& r : f.more)
            j["remedies"].push_back(r.code);
    }
    return j;
}

json to_json(const Findings& list) {
    json out = json::array();
    for (const Finding& f : list)
        out.push_back(to_json(f));
    return out;
}

void print_findings(std::ostream& out, const Findings& list, const Project* whose) {
    for (const Finding& f : list) {
        const std::string owner = whose ? owner_of(*whose, f) : "";
        out << grade_name(f.grade) << ": " << (owner.empty() ? "" : "\"" + owner + "\": ") << f.message
            << "\n";
    }
}

Result<Length> length_option(const Project& project, const std::string& text) {
    return parse_length(text, project.unit);
}

Result<Point> place_option(const Project& project, const std::string& text) {
    const auto at = split(text, ",");
    if (at.size() != 2) return fail("cli.place", say("\"%1\" is no place such as 20mm,35mm.", text));
    const auto x = length_option(project, std::string(at[0])), y = length_option(project, std::string(at[1]));
    if (!x) return tl::make_unexpected(x.error());
    if (!y) return tl::make_unexpected(y.error());
    return Point{in_mm(*x), in_mm(*y)};
}

} // namespace dotlane::cli
