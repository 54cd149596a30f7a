#include "cli/run.h"
#include "cli/verb.h"
#include "core/workflow/data_folder.h"
#include "dotlane_config.h"

namespace dotlane::cli {
namespace {

constexpr struct {
    const char* name;
    const char* help;
    std::unique_ptr<Verb> (*make)();
} verbs[] = {{"import", "Open a file as a new part and put its lines into lanes", make_import},
             {"make", "Make a part from numbers: a card, a label, lettering...", make_make},
             {"source", "Show or change the numbers a part is made from", make_source},
             {"step", "Steps of a part's recipe: join, outline, cut out, dash...", make_step},
             {"show", "What the project holds", make_show},
             {"lane", "Send lines to a lane, or change a lane", make_lane},
             {"fill", "Fill closed lines with parallel lines", make_fill},
             {"apart", "A part of its own for each level or piece", make_apart},
             {"glyphs", "All glyphs of a font, and its switches", make_glyphs},
             {"place", "Put a part on a sheet, or change its place or size", make_place},
             {"arrange", "Line up, spread, turn or group what lies on a sheet", make_arrange},
             {"check", "All findings", make_check},
             {"plan", "Passes, stops, times", make_plan},
             {"rehearse", "The simulated run, move by move", make_rehearse},
             {"export", "Write a folder of SVG files and the run sheet", make_export}};

} // namespace

int run(int argc, const char* const* argv, FileSystem& files, std::ostream& out, std::ostream& err) {
    CLI::App app{"Plans what a craft cutter cuts, scores, draws, foils and engraves.", "dot-lane-cli"};
    app.set_version_flag("--version", DOTLANE_VERSION);
    app.require_subcommand(1);
    bool json = false;
    std::vector<std::unique_ptr<Verb>> made;
    std::vector<CLI::App*> subs;
    for (const auto& v : verbs) {
        made.push_back(v.make());
        CLI::App* sub = app.add_subcommand(v.name, v.help);
        sub->add_flag("--json", json, "Answer in JSON; numbers carry their unit in the key");
        made.back()->declare(*sub);
        subs.push_back(sub);
    }
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& e) {
        const int code = app.exit(e, out, err);
        return code == 0 ? fine : bad;
    }
    auto catalog = load_catalog(files, data_folder() + "/catalog", user_catalog_folder());
    if (!catalog) {
        err << "dot-lane-cli: " << to_text(catalog.error()) << "\n";
        return bad;
    }
    Workshop workshop(std::move(*catalog));
    Context context{files, workshop, out, err, json};
    for (std::size_t i = 0; i < subs.size(); ++i)
        if (subs[i]->parsed()) return made[i]->run(context);
    return bad;
}

} // namespace dotlane::cli
