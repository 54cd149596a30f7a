#include "cli/run.h"

#include <algorithm>
#include <optional>
#include <sstream>

#include "cli/verb.h"
#include "core/base/caught.h"
#include "core/base/data_folder.h"
#include "core/base/text.h"
#include "dotlane_config.h"

namespace dotlane::cli {
namespace {

struct {
    const char* name;
    const char* help;
    std::unique_ptr<Verb> (*make)();
    const char* examples[2]; ///< words behind the verb; the tests run them
} constexpr verbs[] = {
    {"import",
     "Open a file as a new part and put its lines into lanes",
     make_import,
     {"invitation.svg walk.dotlane", "invitation.svg walk.dotlane --width 120mm --name 'Small invitation'"}},
    {"make",
     "Make a part from numbers: a card, a label, lettering...",
     make_make,
     {"walk.dotlane folded-card --set width=5in --set height=4in",
      "walk.dotlane lettering --set text=Saltmarsh --set join=yes --set snug=0.3mm"}},
    {"kinds",
     "What parts can be made from, and what steps there are, with all their numbers",
     make_kinds,
     {"", "step outline"}},
    {"catalog", "Stocks, mats, machines and tools, with their ids", make_catalog, {"", "stocks"}},
    {"project",
     "Name, unit, machine and pass order of the project",
     make_project,
     {"walk.dotlane --unit in --machine two-slot", "walk.dotlane --pass-order usual --drop-empty-lanes"}},
    {"part",
     "Rename, copy or remove a part; how many are wanted, and of which stock",
     make_part,
     {"walk.dotlane --part Invitation --copy --rename 'Invitation for helpers' --quantity 6",
      "walk.dotlane --part 'Way-marker tag' --quantity 12 --stock heavy-paper-12x12"}},
    {"source",
     "Show or change the numbers a part is made from",
     make_source,
     {"walk.dotlane --part 'Crew badge'", "walk.dotlane --part Title --set size=30mm"}},
    {"step",
     "Steps of a part's recipe: join, outline, cut out, dash...",
     make_step,
     {"walk.dotlane --part 'Tide stencil'",
      "walk.dotlane --part 'Tide stencil' --add outline --set distance=3mm --lane C"}},
    {"fill",
     "Fill closed lines, in one of many styles",
     make_fill,
     {"walk.dotlane --part 'Tide stencil' --spacing 0.42mm --ends one-stroke",
      "walk.dotlane --part Invitation --line-set F --lane F --angle 45"}},
    {"samples",
     "A sheet with all styles of fill, their settings written beside them",
     make_samples,
     {"samples.dotlane", "walk.dotlane --lane F"}},
    {"lane",
     "Send lines to a lane, or change a lane",
     make_lane,
     {"walk.dotlane --part Invitation --colour '#22282c' --to S", "walk.dotlane --change C --repeats 2"}},
    {"apart",
     "A part of its own for each level, piece, colour, group or name",
     make_apart,
     {"walk.dotlane --part Invitation --by colour", "walk.dotlane --part Invitation --by group"}},
    {"colours",
     "The colours of a drawing, and which of them count as one",
     make_colours,
     {"walk.dotlane --part 'Heron map'", "walk.dotlane --part 'Heron map' --within 4"}},
    {"glyphs",
     "All glyphs of a font, and its switches",
     make_glyphs,
     {"'EB Garamond' --find Q", "'Lobster Two' --italic"}},
    {"sheet",
     "Add, name or remove a sheet; its stock and its mat",
     make_sheet,
     {"walk.dotlane --add --stock heavy-paper-12x12", "walk.dotlane --sheet 'sheet 2' --rename 'backs'"}},
    {"place",
     "Put a part on a sheet, or change its place or size",
     make_place,
     {"walk.dotlane --part 'Way-marker tag' --columns 2",
      "walk.dotlane --part Title --new-sheet titles --left 20mm --top 30mm"}},
    {"arrange",
     "Line up, spread, turn or group what lies on a sheet",
     make_arrange,
     {"walk.dotlane --sheet 'sheet 1' --spread across --with reach",
      "walk.dotlane --sheet 'sheet 1' --down top --with reach"}},
    {"show", "What the project holds", make_show, {"walk.dotlane", "walk.dotlane --json"}},
    {"check", "All findings", make_check, {"walk.dotlane", "walk.dotlane --mend part.want-placed"}},
    {"plan",
     "Passes, stops, times; why they are so, what another order would cost, and rules of your own",
     make_plan,
     {"walk.dotlane --why --only 'Way-marker tag'", "walk.dotlane --compare tools"}},
    {"setting",
     "What tools are set to for a stock, and where their tips touch: shown, kept, forgotten",
     make_setting,
     {"--tool fine-blade --stock heavy-paper-12x12 --pressure 95 --from swatch",
      "--tool pen-0.8 --offset 1.2,-0.5"}},
    {"program",
     "The program a cutter runs, as JSON lines; or what such a program comes to",
     make_program,
     {"walk.dotlane > walk.jsonl", "--read walk.jsonl"}},
    {"rehearse", "The simulated run, move by move", make_rehearse, {"walk.dotlane", "walk.dotlane --at 90"}},
    {"export",
     "Write a folder of SVG files and the run sheet",
     make_export,
     {"walk.dotlane --to out", "walk.dotlane --to out --override-errors"}}};

std::string examples_of(std::size_t verb) {
    std::string out = "Examples:";
    for (const char* words : verbs[verb].examples)
        out += std::string("\n  dot-lane-cli ") + verbs[verb].name + (*words ? " " : "") + words;
    return out;
}

/// Nothing has been saved when it throws: a verb saves last.
int guarded(Verb& verb, Context& context) {
    const auto code = caught([&]() -> Result<int> { return verb.run(context); });
    return code ? *code : context.error(code.error());
}

} // namespace

int run(int argc, const char* const* argv, FileSystem& files, std::ostream& out, std::ostream& err,
        Workshop* workshop) {
    CLI::App app{"Plans what a craft cutter cuts, scores, draws, foils and engraves.", "dot-lane-cli"};
    app.set_version_flag("--version", DOTLANE_VERSION);
    app.require_subcommand(1);
    bool as_json = false, dry_run = false;
    std::string to;
    std::vector<std::unique_ptr<Verb>> made;
    std::vector<CLI::App*> subs;
    for (std::size_t i = 0; i < std::size(verbs); ++i) {
        made.push_back(verbs[i].make());
        CLI::App* sub = app.add_subcommand(verbs[i].name, verbs[i].help);
        sub->add_flag("--json", as_json,
                      "Answer in one JSON document, errors too; numbers carry their unit in the key");
        made.back()->declare(*sub);
        if (made.back()->writes()) {
            sub->add_flag("--dry-run", dry_run, "Tell what would be done; save nothing");
            if (!sub->get_option_no_throw("--to")) // the lane verb's own takes a file too
                sub->add_option("--to", to, "Save to this new project file instead (.dotlane)");
        }
        const std::string more = sub->get_footer();
        sub->footer(examples_of(i) + (more.empty() ? "" : "\n" + more));
        subs.push_back(sub);
    }
    const bool wants_json =
        std::any_of(argv, argv + argc, [](const char* word) { return std::string_view(word) == "--json"; });
    const auto fail_early = [&](const Error& error) {
        if (wants_json)
            out << error_document(error) << std::flush;
        else
            err << "dot-lane-cli: " << printable(to_text(error)) << "\n";
        return static_cast<int>(bad);
    };
    const std::string_view first = argc > 1 ? argv[1] : "";
    if (!first.empty() && first.front() != '-' &&
        std::none_of(std::begin(verbs), std::end(verbs), [&](const auto& v) { return v.name == first; })) {
        std::string all;
        for (const auto& v : verbs)
            all += (all.empty() ? "" : ", ") + std::string(v.name);
        return fail_early({"cli.verb", say("There is no command \"%1\". There are: %2.", first, all), {}});
    }
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& e) {
        if (wants_json && e.get_exit_code() != 0) return fail_early({"cli.usage", as_is(e.what()), {}});
        std::ostringstream said, complained;
        const int code = app.exit(e, said, complained);
        out << printable(said.str()) << std::flush;
        err << printable(complained.str()) << std::flush;
        return code == 0 && out ? fine : bad;
    }
    auto catalog = load_catalog(files, data_folder() + "/catalog", user_catalog_folder());
    if (!catalog) return fail_early(catalog.error());
    std::optional<Workshop> own;
    if (!workshop)
        workshop = &own.emplace(std::move(*catalog));
    else
        workshop->take_catalog(std::move(*catalog));
    // Gathered first: what is printed is clean, and whether it could be printed is known at the end.
    std::ostringstream said, complained;
    Context context{files, *workshop, said, complained, as_json, to, dry_run, {}, {}};
    int code = bad;
    for (std::size_t i = 0; i < subs.size(); ++i)
        if (subs[i]->parsed()) code = guarded(*made[i], context);
    if (as_json)
        out << printable(context.document(code)) << std::flush;
    else
        out << printable(said.str()) << (dry_run && code != bad ? "nothing was saved\n" : "") << std::flush;
    err << printable(complained.str()) << std::flush;
    if (out) return code;
    err << "dot-lane-cli: the answer could not be written; what was to be done has been done.\n";
    return bad;
}

} // namespace dotlane::cli
