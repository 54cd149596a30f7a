// Each command given once in the window and once on the command line makes the same project of the same
// project.
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// What is done in the window, and the words of the command line that mean the same.
struct Both {
    const char* what;
    std::function<void(Driver&)> window;
    std::string words;
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

} // namespace

TEST_CASE("window and command line make the same of the same") {
    for (const Both& both : commands()) {
        INFO(both.what);
        Driver d;
        d.window->files().open_demo();
        d.settle();
        const std::string path = d.folder / "cli.dotlane";
        const Project before = d.project();
        must(save_project(disk(), path, before));
        both.window(d);
        CHECK_FALSE(d.project() == before);
        int status = 0;
        QString line =
            QString::fromStdString(both.words).replace("%1", QString::fromStdString("'" + path + "'"));
        if (line.contains("%2")) // the first step of the part that the window has chosen
            line.replace("%2", QString::number(
                                   dotlane::find(before, d.session().choice().part)->steps.front().id.value));
        const std::string words = line.toStdString();
        const std::string said =
            shell("'" DOTLANE_BUILD "/src/cli/dot-lane-cli' " + words + " 2>&1", &status);
        INFO(said);
        CHECK(WEXITSTATUS(status) != 2);                          // 1: there are findings
        CHECK((must(load_project(disk(), path)) == d.project())); // too long to be printed
    }
}
