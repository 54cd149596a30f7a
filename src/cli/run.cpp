#include "cli/run.h"

#include <algorithm>
#include <sstream>

#include "cli/verb.h"
#include "core/base/caught.h"
#include "core/base/text.h"
#include "core/workflow/data_folder.h"
#include "dotlane_config.h"

namespace dotlane::cli {
namespace {

constexpr struct {
    const char* name;
    const char* help;
    std::unique_ptr<Verb> (*make)();
} verbs[] = {
    {"import", "Open a file as a new part and put its lines into lanes", make_import},
    {"kinds", "What parts can be made from, and what steps there are, with all their numbers", make_kinds},
    {"catalog", "Stocks, mats, machines and tools, with their ids", make_catalog},
    {"make", "Make a part from numbers: a card, a label, lettering...", make_make},
    {"source", "Show or change the numbers a part is made from", make_source},
    {"step", "Steps of a part's recipe: join, outline, cut out, dash...", make_step},
    {"show", "What the project holds", make_show},
    {"lane", "Send lines to a lane, or change a lane", make_lane},
    {"fill", "Fill closed lines with parallel lines", make_fill},
    {"apart", "A part of its own for each level, piece, colour, group or name", make_apart},
    {"glyphs", "All glyphs of a font, and its switches", make_glyphs},
    {"place", "Put a part on a sheet, or change its place or size", make_place},
    {"arrange", "Line up, spread, turn or group what lies on a sheet", make_arrange},
    {"check", "All findings", make_check},
    {"plan", "Passes, stops, times", make_plan},
    {"program", "The program a cutter runs, as JSON lines; or what such a program comes to", make_program},
    {"rehearse", "The simulated run, move by move", make_rehearse},
    {"export", "Write a folder of SVG files and the run sheet", make_export}};

/// Nothing has been saved when it throws: a verb saves last.
int guarded(Verb& verb, Context& context) {
    const auto code = caught([&]() -> Result<int> { return verb.run(context); });
    return code ? *code : context.error(code.error());
}

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
    const std::string_view first = argc > 1 ? argv[1] : "";
    if (!first.empty() && first.front() != '-' &&
        std::none_of(std::begin(verbs), std::end(verbs), [&](const auto& v) { return v.name == first; })) {
        err << "dot-lane-cli: There is no command \"" << printable(first) << "\". There are:";
        for (const auto& v : verbs)
            err << (v.name == verbs[0].name ? " " : ", ") << v.name;
        err << ".\n";
        return bad;
    }
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& e) {
        std::ostringstream said, complained;
        const int code = app.exit(e, said, complained);
        out << printable(said.str()) << std::flush;
        err << printable(complained.str()) << std::flush;
        return code == 0 && out ? fine : bad;
    }
    auto catalog = load_catalog(files, data_folder() + "/catalog", user_catalog_folder());
    if (!catalog) {
        err << "dot-lane-cli: " << to_text(catalog.error()) << "\n";
        return bad;
    }
    Workshop workshop(std::move(*catalog));
    // Gathered first: what is printed is clean, and whether it could be printed is known at the end.
    std::ostringstream said, complained;
    Context context{files, workshop, said, complained, json};
    int code = bad;
    for (std::size_t i = 0; i < subs.size(); ++i)
        if (subs[i]->parsed()) code = guarded(*made[i], context);
    out << printable(said.str()) << std::flush;
    err << printable(complained.str()) << std::flush;
    if (out) return code;
    err << "dot-lane-cli: the answer could not be written; what was to be done has been done.\n";
    return bad;
}

} // namespace dotlane::cli
