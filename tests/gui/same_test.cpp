// Each command given once in the window and once on the command line makes the same project of the same
// project.
#include <QPlainTextEdit>
#include <QSlider>
#include <QTimer>

#include "app/recipe/fill_picker.h"
#include "app/widgets/grip.h"
#include "core/project/edits.h"
#include "tests/cli/terminal.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// What is done in the window, and the words of the command line that mean the same: %1 is the project's
/// file, %2 the first step of the part that is chosen, @{Name} what lies on the sheets of that part, by its
/// number.
struct Both {
    const char* what;
    std::function<void(Driver&)> window;
    std::string words;
    std::function<void(Project&)> first = {}; ///< so that there is something to do
};

void on_sheets(Driver& d) {
    d.window->work().show_view(app::WorkPage::View::sheets);
    d.settle();
}

/// The part of this name is chosen.
void on_part(Driver& d, const char* name) {
    for (const Part& part : d.project().parts)
        if (part.name == name) d.session().choose_part(part.id);
    d.settle();
}

std::vector<PlacementId> lying_of(const Project& project, const std::string& name) {
    std::vector<PlacementId> out;
    for (const Sheet& sheet : project.sheets)
        for (const Placement& p : sheet.placements)
            if (find(project, p.part)->name == name) out.push_back(p.id);
    return out;
}

/// These are chosen where they lie, the first of the first part last.
void on_placed(Driver& d, const std::vector<const char*>& names) {
    on_sheets(d);
    app::Choice choice = d.session().choice();
    choice.with.clear();
    for (const char* name : names)
        for (const PlacementId id : lying_of(d.project(), name))
            choice.with.insert(id);
    choice.placement = lying_of(d.project(), names.front()).front();
    choice.with.erase(choice.placement);
    (void)find_placement(d.project(), choice.placement, &choice.sheet);
    d.session().choose(choice);
    d.settle();
}

void group(Project& project, const std::string& name) {
    must(group_placements(project, lying_of(project, name)));
}

const char* const tags = "arrange %1 --sheet 'sheet 2' --only '@{Way-marker tag}' ";

/// Sources: made, changed, sized, taken apart.
const std::vector<Both>& parts() {
    static const std::vector<Both> all = {
        {"make a part", [](Driver& d) { d.trigger("make-label"); }, "make %1 label"},
        {"begin with a stencil",
         [](Driver& d) {
             d.press("new-part");
             d.pick("job-picker", "Stencil");
         },
         "make %1 lettering --step stencil"},
        {"make one that takes another's outline",
         [](Driver& d) {
             on_part(d, "Lamp label");
             d.trigger("make-shape-card");
         },
         "make %1 shape-card --set of='Lamp label'"},
        {"add layers",
         [](Driver& d) {
             on_part(d, "Crew badge");
             d.type("how-many-layers", "2");
             d.type("layers-reveal", "3.5 mm");
             d.press("add-layer");
         },
         "make %1 layer --stack 2 --set of='Crew badge' --set reveal=3.5mm"},
        {"a number of a source",
         [](Driver& d) {
             on_part(d, "Lamp label");
             d.type("width", "91.5 mm");
         },
         "source %1 --part 'Lamp label' --set width=91.5mm"},
        {"the text of lettering, which names its part",
         [](Driver& d) {
             on_part(d, "Title");
             auto* text = d.find<QPlainTextEdit>("text");
             text->setFocus();
             text->selectAll();
             QTest::keyClicks(text, "Tide");
             d.settle();
         },
         "source %1 --part Title --set text=Tide"},
        {"finished width", [](Driver& d) { d.type("finished-width", "210 mm"); },
         "place %1 --part Invitation --part-width 210mm"},
        {"take apart",
         [](Driver& d) {
             auto* apart = d.find<QPushButton>("take-apart");
             Q_EMIT apart->menu()->aboutToShow();
             apart->menu()->findChild<QAction*>("apart-by-colour")->trigger();
             d.settle();
         },
         "apart %1 --part Invitation --by colour"},
        {"open a drawing",
         [](Driver& d) {
             d.window->files().open_path(DOTLANE_SOURCE "/data/demo/invitation.svg");
             d.settle();
             d.press_words("Take it in");
         },
         "import '" DOTLANE_SOURCE "/data/demo/invitation.svg' %1"},
        {"open a drawing as a patch",
         [](Driver& d) {
             d.window->files().open_path(DOTLANE_SOURCE "/data/demo/heron_patch.svg");
             d.settle();
             d.choose("begin-with", "Fabric patch");
             d.press_words("Take it in");
         },
         "import '" DOTLANE_SOURCE "/data/demo/heron_patch.svg' %1 --step patch"},
        {"colours that count as one",
         [](Driver& d) {
             on_part(d, "Heron map");
             d.find<QSlider>("one-colour")->setValue(0);
             d.settle();
         },
         "colours %1 --part 'Heron map' --within 0",
         [](Project& p) {
             for (Part& part : p.parts)
                 if (part.name == "Heron map") part.one_colour = 4;
         }},
        {"usual order of passes", [](Driver& d) { d.trigger("usual-order"); },
         "project %1 --pass-order usual",
         [](Project& p) {
             for (const Lane& lane : p.lanes)
                 p.pass_order.insert(p.pass_order.begin(), lane.id);
         }},
        {"a remedy",
         [](Driver& d) {
             d.trigger("view-findings");
             d.press_words("Place it");
         },
         "check %1 --mend part.place --part 'Crew badge'",
         [](Project& p) {
             for (const PlacementId id : lying_of(p, "Crew badge"))
                 must(remove_placement(p, id));
         }},
    };
    return all;
}

/// What lies on sheets.
const std::vector<Both>& placed() {
    static const std::vector<Both> all = {
        {"place a part",
         [](Driver& d) {
             on_sheets(d);
             on_part(d, "Signpost");
             d.press("place-part");
         },
         "place %1 --part Signpost --sheet 'sheet 1'"},
        {"place a part whose pieces lie apart",
         [](Driver& d) {
             on_sheets(d);
             on_part(d, "Bunting letters");
             d.press("place-part");
         },
         "place %1 --part 'Bunting letters' --sheet 'sheet 1'"},
        {"from left",
         [](Driver& d) {
             on_placed(d, {"Lamp label"});
             d.type("left", "200.25 mm");
         },
         "place %1 --change @{Lamp label} --left 200.25mm"},
        {"from top",
         [](Driver& d) {
             on_placed(d, {"Lamp label"});
             d.type("top", "99.9 mm");
         },
         "place %1 --change @{Lamp label} --top 99.9mm"},
        {"turned",
         [](Driver& d) {
             on_placed(d, {"Lamp label"});
             d.type("turn", "33");
         },
         "place %1 --change @{Lamp label} --turn 33"},
        {"mirrored, of one that is turned",
         [](Driver& d) {
             on_placed(d, {"Tide stencil"});
             d.tick("mirrored");
         },
         "place %1 --change @{Tide stencil} --mirror"},
        {"mirrored by its key",
         [](Driver& d) {
             on_placed(d, {"Tide stencil"});
             d.trigger("mirror");
         },
         "arrange %1 --sheet 'sheet 4' --only @{Tide stencil} --mirror"},
        {"a quarter turn of one",
         [](Driver& d) {
             on_placed(d, {"Lamp label"});
             d.press("quarter-turn");
         },
         "arrange %1 --sheet 'sheet 2' --only @{Lamp label} --turn 90"},
        {"a quarter turn of several",
         [](Driver& d) {
             on_placed(d, {"Way-marker tag", "Lamp label"});
             d.trigger("quarter");
         },
         "arrange %1 --sheet 'sheet 2' --only '@{Way-marker tag},@{Lamp label}' --turn 90"},
        {"moved by a key",
         [](Driver& d) {
             on_placed(d, {"Way-marker tag"});
             d.key(Qt::Key_Right, Qt::ShiftModifier);
         },
         std::string(tags) + "--right 10mm"},
        {"grouped",
         [](Driver& d) {
             on_placed(d, {"Way-marker tag"});
             d.press("group");
         },
         std::string(tags) + "--group"},
        {"ungrouped",
         [](Driver& d) {
             on_placed(d, {"Way-marker tag"});
             d.press("ungroup");
         },
         std::string(tags) + "--ungroup", [](Project& p) { group(p, "Way-marker tag"); }},
        {"lined up with what the tool reaches",
         [](Driver& d) {
             on_placed(d, {"Way-marker tag"});
             d.press("up-right");
         },
         std::string(tags) + "--across right"},
        {"lined up with the sheet, as a group",
         [](Driver& d) {
             on_placed(d, {"Way-marker tag"});
             d.choose("arrange-to", "sheet of stock");
             d.press("up-centre");
         },
         std::string(tags) + "--down middle --with stock", [](Project& p) { group(p, "Way-marker tag"); }},
        {"lined up with the one chosen last",
         [](Driver& d) {
             on_placed(d, {"Lamp label", "Way-marker tag"});
             d.choose("arrange-to", "chosen last");
             d.press("up-right");
         },
         "arrange %1 --sheet 'sheet 2' --only '@{Way-marker tag},@{Lamp label}' --across right "
         "--with @{Lamp label}"},
        {"spread over the sheet",
         [](Driver& d) {
             on_placed(d, {"Bunting letters"});
             d.choose("arrange-to", "tool reaches");
             d.press("spread-down");
         },
         "arrange %1 --sheet 'sheet 7' --spread down --with reach",
         [](Project& p) { p.sheets.at(6).placements.resize(3); }},
        {"copies of what lies there",
         [](Driver& d) {
             on_placed(d, {"Way-marker tag"});
             d.trigger("duplicate");
         },
         std::string(tags) + "--copy", [](Project& p) { group(p, "Way-marker tag"); }},
        {"copies in a grid",
         [](Driver& d) {
             on_placed(d, {"Lamp label backing"});
             d.type("columns", "2");
             d.type("rows", "3");
             d.type("gap", "4 mm");
             d.press("copy-grid");
         },
         "place %1 --change '@{Lamp label backing}' --columns 2 --rows 3 --gap 4mm"},
        {"taken off",
         [](Driver& d) {
             on_placed(d, {"Way-marker tag"});
             d.trigger("take-off");
         },
         std::string(tags) + "--off"},
    };
    return all;
}

const std::vector<Both>& commands() {
    static const std::vector<Both> all = {
        {"rename part", [](Driver& d) { d.type("part-name", "Evening card"); },
         "part %1 --part Invitation --rename 'Evening card'"},
        {"want part", [](Driver& d) { d.type("quantity", "9"); }, "part %1 --part Invitation --quantity 9"},
        {"copy part", [](Driver& d) { d.trigger("copy-part"); }, "part %1 --part Invitation --copy"},
        {"remove part", [](Driver& d) { d.trigger("remove-part"); }, "part %1 --part Invitation --remove"},
        {"add sheet",
         [](Driver& d) {
             on_sheets(d);
             d.trigger("add-sheet");
         },
         "sheet %1 --add --stock cream-card-12x12 --mat mat-12x12-standard"},
        {"rename sheet",
         [](Driver& d) {
             on_sheets(d);
             d.type("sheet-name", "backs");
         },
         "sheet %1 --sheet 'sheet 1' --rename backs"},
        {"stock of a sheet",
         [](Driver& d) {
             on_sheets(d);
             d.choose("stock", "heavy paper");
         },
         "sheet %1 --sheet 'sheet 1' --stock heavy-paper-12x12"},
        {"mat of a sheet",
         [](Driver& d) {
             on_sheets(d);
             d.choose("mat", "strong mat 12 x 12");
         },
         "sheet %1 --sheet 'sheet 1' --mat mat-12x12-strong"},
        {"a sheet of samples", [](Driver& d) { d.trigger("samples"); }, "samples %1"},
        {"the stock of a part",
         [](Driver& d) {
             on_part(d, "Invitation");
             d.choose("part-stock", "heavy paper");
         },
         "part %1 --part Invitation --stock heavy-paper-12x12"},
        {"a sheet of crosses", [](Driver& d) { d.trigger("crosses"); }, "samples %1 --crosses"},
        {"a rule of the order",
         [](Driver& d) {
             d.trigger("wishes");
             d.choose("rule-before", "S  ");
             d.choose("rule-after", "D  ");
             d.find<QLineEdit>("rule-why")->setText("folds guide the pen");
             d.press("rule-add");
         },
         "plan %1 --rule 'S<D: folds guide the pen'"},
        {"a rule of the planner's let go",
         [](Driver& d) {
             d.trigger("wishes");
             d.tick("rule-light-first");
         },
         "plan %1 --rule off:light-first"},
        {"each tool through all sheets",
         [](Driver& d) {
             d.trigger("wishes");
             d.press("take-order");
         },
         "plan %1 --school tools"},
        {"a sheet pinned to its place",
         [](Driver& d) {
             d.trigger("wishes");
             const auto id = d.project().sheets.front().id.value;
             d.choose(("sheet-place-" + std::to_string(id)).c_str(), "as number 2");
         },
         "plan %1 --pin 'sheet 1=2'"},
        {"where lines begin",
         [](Driver& d) {
             d.trigger("lanes");
             d.choose("lane-start", "off their corners");
         },
         "lane %1 --change C --start off-corners"},
        {"overcut of a lane",
         [](Driver& d) {
             d.trigger("lanes");
             d.type("lane-overcut", "0.4");
         },
         "lane %1 --change C --overcut 0.4mm"},
        {"marks of a print forgotten",
         [](Driver& d) {
             on_sheets(d);
             d.press("forget-marks");
         },
         "sheet %1 --sheet 'sheet 1' --found none",
         [](Project& p) {
             p.sheets[0].found = {{10, 10}, {200, 10}, {10, 280}, {11, 10}, {201, 10}, {11, 281}};
         }},
        {"clear sheet", [](Driver& d) { d.trigger("clear-sheet"); }, "sheet %1 --sheet 'sheet 1' --clear"},
        {"remove sheet",
         [](Driver& d) {
             on_sheets(d);
             d.press("remove-sheet");
         },
         "sheet %1 --sheet 'sheet 1' --remove"},
        {"machine",
         [](Driver& d) {
             on_sheets(d);
             d.choose("machine", "One-holder");
         },
         "project %1 --machine one-slot"},
        {"unit", [](Driver& d) { d.trigger("inches"); }, "project %1 --unit in"},
        {"a step that makes lines, on all there is",
         [](Driver& d) {
             on_part(d, "Title backing");
             d.add_step("Outline");
         },
         "step %1 --part 'Title backing' --add outline"},
        {"a step that changes lines",
         [](Driver& d) {
             on_part(d, "Signpost");
             d.add_step("Corners");
         },
         "step %1 --part Signpost --add corners"},
        {"a step that brings lines",
         [](Driver& d) {
             on_part(d, "Lamp label backing");
             d.add_step("Words");
         },
         "step %1 --part 'Lamp label backing' --add words"},
        {"a fill",
         [](Driver& d) {
             on_part(d, "Lamp label backing");
             d.trigger("fill");
         },
         "fill %1 --part 'Lamp label backing'"},
        {"a fill by its step",
         [](Driver& d) {
             on_part(d, "Lamp label backing");
             d.add_step("Fill");
         },
         "step %1 --part 'Lamp label backing' --add fill"},
        {"a fill as dark as a picture",
         [](Driver& d) {
             on_part(d, "Invitation");
             d.answers.open = QString(DOTLANE_SOURCE "/data/demo/heron.png");
             d.trigger("tone");
         },
         "fill %1 --part Invitation --step %2 --tone '" DOTLANE_SOURCE "/data/demo/heron.png'"},
        {"a fill turned to its best angle",
         [](Driver& d) {
             on_part(d, "Invitation");
             d.press("fill-ways");
             auto* picker = d.find<app::FillPicker>("fill-picker");
             REQUIRE(QTest::qWaitFor([&] { return picker->ready(); }, 20'000));
             QTest::keyClicks(d.find<QLineEdit>("picker-typed"), "fewest");
             QTest::keyClick(d.find<QLineEdit>("picker-typed"), Qt::Key_Return);
             d.settle();
         },
         "fill %1 --part Invitation --step %2 --best fewest-lifts"},
        {"a step switched off",
         [](Driver& d) {
             on_part(d, "Bunting letters");
             d.tick("on");
         },
         "step %1 --part 'Bunting letters' --step %2 --off"},
        {"a step removed",
         [](Driver& d) {
             on_part(d, "Bunting letters");
             d.press("remove-step");
         },
         "step %1 --part 'Bunting letters' --step %2 --remove"},
        {"lines to an action that has a lane",
         [](Driver& d) {
             on_part(d, "Signpost");
             d.trigger("choose-all");
             d.trigger("score");
         },
         "lane %1 --part Signpost --all --action score"},
        {"lines to an action that has none yet",
         [](Driver& d) {
             on_part(d, "Star stencil");
             d.trigger("choose-all");
             d.trigger("engrave");
         },
         "lane %1 --part 'Star stencil' --all --action engrave"},
        {"a lane's repeats",
         [](Driver& d) {
             d.trigger("lanes");
             d.type("lane-repeats", "3");
         },
         "lane %1 --change C --repeats 3"},
        {"a lane's action, with its name and tool",
         [](Driver& d) {
             d.trigger("lanes");
             d.choose("lane-action", "Perforate");
         },
         "lane %1 --change C --action perforate"},
        {"a new lane",
         [](Driver& d) {
             d.trigger("lanes");
             d.press("new-lane");
         },
         "lane %1 --add draw --pen-colour '#2f5d62'"},
        {"remove a lane",
         [](Driver& d) {
             d.trigger("lanes");
             d.press("lane-remove");
         },
         "lane %1 --remove C"},
        {"remove empty lanes", [](Driver& d) { d.trigger("drop-empty-lanes"); },
         "project %1 --drop-empty-lanes",
         [](Project& p) {
             add_lane(p, {{}, Action::engrave, "spare", "engraving-tip", {}, 1});
         }},
        {"lines to a lane from its menu",
         [](Driver& d) {
             on_part(d, "Star stencil");
             QTimer::singleShot(0, [] {
                 auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
                 REQUIRE(menu);
                 for (QAction* lane : menu->actions())
                     if (lane->text() == "Score, fold stylus") lane->trigger();
                 menu->close();
             });
             d.press("line-set-lane");
         },
         "lane %1 --part 'Star stencil' --line-set outline --to S"},
        {"a number of a step",
         [](Driver& d) {
             on_part(d, "Title");
             d.type("distance", "4 mm");
         },
         "step %1 --part Title --step %2 --set distance=4mm"},
        {"what a step works on, run again",
         [](Driver& d) {
             on_part(d, "Title");
             d.press("sources-aside");
         },
         "step %1 --part Title --step %2 --sources run"},
        {"a step moved",
         [](Driver& d) {
             on_part(d, "Signpost");
             app::Grip* grip = nullptr; // of the first step
             for (auto* each : d.window->findChildren<app::Grip*>("step-grip"))
                 if (each->isVisible() &&
                     (!grip || each->mapToGlobal(QPoint()).y() < grip->mapToGlobal(QPoint()).y()))
                     grip = each;
             REQUIRE(grip);
             grip->setFocus();
             QTest::keyClick(grip, Qt::Key_Down);
             d.settle();
         },
         "step %1 --part Signpost --step %2 --move-to 2"},
        {"lines set aside",
         [](Driver& d) {
             on_part(d, "Star stencil");
             d.trigger("choose-all");
             d.trigger("aside");
         },
         "lane %1 --part 'Star stencil' --all --to aside"},
    };
    return all;
}

/// `words` with what they stand for.
std::string line_of(const Both& both, const std::string& path, const Project& before, const Part* chosen) {
    std::string out;
    for (std::size_t i = 0; i < both.words.size(); ++i) {
        const std::string_view rest = std::string_view(both.words).substr(i);
        if (rest.starts_with("%1"))
            out += "'" + path + "'", i += 1;
        else if (rest.starts_with("%2"))
            out += std::to_string(chosen->steps.front().id.value), i += 1;
        else if (rest.starts_with("@{")) {
            const auto end = rest.find('}');
            std::string numbers;
            for (const PlacementId id : lying_of(before, std::string(rest.substr(2, end - 2))))
                numbers += (numbers.empty() ? "" : ",") + std::to_string(id.value);
            out += numbers, i += end;
        } else
            out += both.words[i];
    }
    return out;
}

void check_same(const std::vector<Both>& all) {
    const Project demo = must(load_project(disk(), DOTLANE_SOURCE "/data/demo/saltmarsh.dotlane"));
    Workshop shared(catalog());
    for (const Both& both : all) {
        INFO(both.what);
        shared.take_catalog(catalog()); // where a window has taken another
        Driver d(false, &shared);
        Project before = demo;
        if (both.first) both.first(before);
        d.window->files().start_project(before, {});
        d.settle();
        const std::string path = "cli.dotlane";
        Terminal terminal;
        must(save_project(terminal.files, path, before));
        both.window(d);
        CHECK_FALSE(d.project() == before);
        const std::string words =
            line_of(both, path, before, dotlane::find(before, d.session().choice().part));
        const int code = terminal.run(words_of(words));
        INFO(words << "\n" << terminal.out << terminal.err);
        CHECK(code != 2);                                                 // 1: there are findings
        CHECK((must(load_project(terminal.files, path)) == d.project())); // too long to be printed
    }
}

} // namespace

TEST_CASE("window and command line make the same of the same") {
    check_same(commands());
}

TEST_CASE("window and command line make the same of sources, parts and files") {
    check_same(parts());
}

TEST_CASE("window and command line place and arrange the same") {
    check_same(placed());
}
