// One class for each verb. A verb declares its options on a CLI11 sub-command and runs against Context, which
// holds the disk, the workshop and the two output streams, so that tests can run verbs in-process.
#pragma once

#include <CLI/CLI.hpp>
#include <functional>
#include <memory>
#include <nlohmann/json.hpp>
#include <ostream>
#include <string>

#include "cli/names.h"
#include "core/base/files.h"
#include "core/derive/workshop.h"

namespace dotlane {

// The command line speaks English.
inline void to_json(nlohmann::json& j, const Phrase& phrase) {
    j = phrase.english();
}
inline std::ostream& operator<<(std::ostream& out, const Phrase& phrase) {
    return out << phrase.english();
}

} // namespace dotlane

namespace dotlane::cli {

/// Exit codes of every verb.
enum Exit { fine = 0, findings = 1, bad = 2 };

struct Context {
    FileSystem& files;
    Workshop& workshop;
    std::ostream& out;
    std::ostream& err;
    bool json = false;
    std::string to = {};  ///< the project is saved here instead of where it was read
    bool dry_run = false; ///< nothing is saved

    /// Tells an error, as text on stderr or in the JSON document, and gives the exit code for it.
    int error(const Error& error) const;
    /// Answers with a JSON document.
    /// Numbers are rounded to what they mean: lengths to 0.0001 mm, times to 0.01 s, money to the cent.
    void print(const nlohmann::json& document) const;
    /// The same with all digits, for what is read back.
    void print_exact(const nlohmann::json& document) const;
    /// What `--json` answers with: exactly one document, an error's code, message and place among it.
    std::string document(int code) const;
    mutable nlohmann::json answer = {}, failure = {};
};

/// With the routes that are run, found with all effort.
std::shared_ptr<const Derived> planned(const Context& context, Project project, NotThisRun left_out = {});

/// "1 line", "3 lines".
std::string counted(std::size_t n, const char* one, const char* many);

/// An error as the one JSON document.
std::string error_document(const Error& error);

class Verb {
  public:
    virtual ~Verb() = default;
    virtual void declare(CLI::App& app) = 0;
    virtual int run(Context& context) = 0;
    /// Whether it may change a project: --to and --dry-run go with it.
    virtual bool writes() const { return false; }
};

/// Reads the project of a file, lets it be changed, and saves it when it differs and `act` did not give up
/// (`bad`). Other writers of the file wait meanwhile. `begin`: a project that is not there yet is begun.
int change_project(Context& context, const std::string& path, bool begin,
                   const std::function<int(Project&)>& act);

/// Project file given as the first argument; loads and saves it.
class ProjectVerb : public Verb {
  public:
    void declare(CLI::App& app) override;
    int run(Context& context) override;
    bool writes() const override { return changes(); }

  protected:
    virtual void options(CLI::App& app) = 0;
    /// Changes `project`; it is saved afterwards when it differs.
    virtual int act(Context& context, Project& project) = 0;
    /// A verb that only looks does not wait for others.
    virtual bool changes() const { return true; }
    std::string path_;
};

nlohmann::json to_json(const Finding& finding);
nlohmann::json to_json(const Findings& findings);
/// Of a whole project, `whose` they are is said.
void print_findings(std::ostream& out, const Findings& list, const Project* whose = nullptr);

/// A length as makers write it, in the project's unit when bare.
Result<Length> length_option(const Project& project, const std::string& text);
/// "20mm,35mm". Error "cli.place".
Result<Point> place_option(const Project& project, const std::string& text);

/// What the machine's time goes to, part by part.
nlohmann::json parts_json(const Program& program, const Timeline& timeline);

/// Tells what was done, if anything, and what a computed part came to; its exit code is that of its findings.
int report_part(Context& context, const Project& project, PartId part, const std::string& done);

std::unique_ptr<Verb> make_part();
std::unique_ptr<Verb> make_sheet();
std::unique_ptr<Verb> make_project();
std::unique_ptr<Verb> make_kinds();
std::unique_ptr<Verb> make_catalog();
std::unique_ptr<Verb> make_import();
std::unique_ptr<Verb> make_make();
std::unique_ptr<Verb> make_source();
std::unique_ptr<Verb> make_glyphs();
std::unique_ptr<Verb> make_apart();
std::unique_ptr<Verb> make_colours();
std::unique_ptr<Verb> make_step();
std::unique_ptr<Verb> make_show();
std::unique_ptr<Verb> make_lane();
std::unique_ptr<Verb> make_fill();
std::unique_ptr<Verb> make_samples();
std::unique_ptr<Verb> make_place();
std::unique_ptr<Verb> make_arrange();
std::unique_ptr<Verb> make_check();
std::unique_ptr<Verb> make_plan();
std::unique_ptr<Verb> make_setting();
std::unique_ptr<Verb> make_program();
std::unique_ptr<Verb> make_rehearse();
std::unique_ptr<Verb> make_export();

} // namespace dotlane::cli
