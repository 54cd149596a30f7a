// The list of actions.
#include <QCoreApplication>

#include "app/window/actions.h"
#include "core/project/actions.h"
#include "core/project/sources.h"
#include "core/project/steps.h"
#include "present/words.h"

namespace dotlane::app {
namespace {

struct Words {
    Q_DECLARE_TR_FUNCTIONS(Actions)
};

QList<QKeySequence> key(const char* keys) {
    return {QKeySequence(QLatin1String(keys))};
}

QList<QKeySequence> key(QKeySequence::StandardKey standard) {
    return {QKeySequence(standard)};
}

using Entries = std::vector<ActionEntry>;

void add_project(Entries& out) {
    const MenuName menu = MenuName::project;
    out.push_back({"new", menu, Words::tr("&New"), key(QKeySequence::New)});
    out.push_back({"open", menu, Words::tr("&Open project..."), key(QKeySequence::Open)});
    out.push_back({"open-drawing", menu, Words::tr("Open &drawing as part..."), key("Ctrl+Shift+O")});
    out.push_back({"demo", menu, Words::tr("Open the de&mo")});
    out.push_back({"save", menu, Words::tr("&Save"), key(QKeySequence::Save), When::project, true});
    out.push_back({"save-as", menu, Words::tr("Save &as..."), key("Ctrl+Shift+S"), When::project});
    out.push_back({"inches", menu, Words::tr("Show &inches"), {}, When::project, true});
    out.push_back({"close", menu, Words::tr("&Close project"), key("Ctrl+W"), When::project});
    out.push_back({"quit", menu, Words::tr("&Quit"), key("Ctrl+Q")});
}

void add_edit(Entries& out) {
    const MenuName menu = MenuName::edit;
    out.push_back({"undo", menu, Words::tr("&Undo"), key(QKeySequence::Undo), When::undo});
    out.push_back({"redo",
                   menu,
                   Words::tr("&Redo"),
                   {QKeySequence("Ctrl+Shift+Z"), QKeySequence("Ctrl+Y")},
                   When::redo});
    out.push_back(
        {"choose-all", menu, Words::tr("Choose &all"), key(QKeySequence::SelectAll), When::project, true});
    out.push_back(
        {"same-colour", menu, Words::tr("Choose all of this &colour"), key("Ctrl+Alt+C"), When::lines});
    out.push_back(
        {"inside", menu, Words::tr("Choose all &inside this outline"), key("Ctrl+Alt+I"), When::lines});
    out.push_back({"find-command", menu, Words::tr("&Find a command..."), key("Ctrl+K"), When::always, true});
}

void add_part(Entries& out) {
    const MenuName menu = MenuName::part;
    out.push_back({"jobs", menu, Words::tr("&New part..."), key("Ctrl+T")});
    for (const SourceKind& kind : source_kinds())
        out.push_back({QString("make-") + kind.key,
                       menu,
                       Words::tr("New part: %1").arg(QCoreApplication::translate("Sources", kind.name)),
                       {},
                       When::always,
                       false,
                       false});
    out.push_back({"add-step", menu, Words::tr("&Add step..."), key("Ctrl+Alt+S"), When::part});
    for (const StepKind& kind : step_kinds())
        if (!kind.inks) // it has a place of its own below
            out.push_back({QString("step-") + kind.key,
                           menu,
                           Words::tr("Add step: %1").arg(QCoreApplication::translate("Steps", kind.name)),
                           {},
                           When::part,
                           false,
                           false});
    out.push_back({"fill", menu, Words::tr("&Fill the chosen lines"), key("Ctrl+Alt+F"), When::part, true});
    out.push_back({"tone", menu, Words::tr("Make a fill as dark as a p&icture..."), {}, When::part});
    out.push_back({"samples", menu, Words::tr("Add a sheet of fill &samples"), {}, When::always});
    out.push_back({"crosses", menu, Words::tr("Add a sheet of &crosses, one a tool"), {}, When::project});
    out.push_back({"aside", menu, Words::tr("&Set the chosen lines aside"), key("Ctrl+Alt+A"), When::lines});
    out.push_back(
        {"glyph-table", menu, Words::tr("&Glyphs of the font..."), key("Ctrl+Alt+G"), When::project});
    out.push_back({"copy-part", menu, Words::tr("&Copy part"), key("Ctrl+Alt+D"), When::part, true});
    out.push_back({"remove-part", menu, Words::tr("&Remove part"), {}, When::part});
}

void add_lane(Entries& out) {
    const MenuName menu = MenuName::lane;
    for (const Action action : all_actions) {
        ActionEntry entry{action_name(action), menu,
                          Words::tr("Send to %1").arg(present::action_title(action))};
        entry.when = When::lines;
        entry.letter = QLatin1Char(action_letter(action));
        out.push_back(std::move(entry));
    }
    out.push_back({"lanes", menu, Words::tr("&All lanes..."), key("Ctrl+L"), When::project, true});
    out.push_back({"drop-empty-lanes", menu, Words::tr("Remove &empty lanes"), {}, When::project});
}

void add_sheet(Entries& out) {
    const MenuName menu = MenuName::sheet;
    out.push_back({"add-sheet", menu, Words::tr("&Add sheet"), {}, When::project});
    out.push_back({"place", menu, Words::tr("&Place the chosen part"), key("Ctrl+P"), When::part});
    out.push_back({"quarter", menu, Words::tr("&Quarter turn"), key("Ctrl+R"), When::placed, true});
    out.push_back({"mirror", menu, Words::tr("&Mirror"), key("Ctrl+M"), When::placed});
    out.push_back({"duplicate", menu, Words::tr("&Duplicate"), key("Ctrl+D"), When::placed});
    out.push_back({"group", menu, Words::tr("&Group: move together"), key("Ctrl+G"), When::placed});
    out.push_back({"ungroup", menu, Words::tr("&Ungroup"), key("Ctrl+Shift+G"), When::placed});
    out.push_back(
        {"take-off", menu, Words::tr("&Take off the sheet"), key(QKeySequence::Delete), When::placed});
    out.push_back({"clear-sheet", menu, Words::tr("Take &everything off the sheet"), {}, When::project});
}

void add_run(Entries& out) {
    const MenuName menu = MenuName::run;
    out.push_back({"export", menu, Words::tr("&Export..."), key("Ctrl+E"), When::project});
    out.push_back({"play", menu, Words::tr("&Play or pause the rehearsal"), key("F5"), When::project, true});
    out.push_back({"next-stop", menu, Words::tr("&Next stop"), key("F6"), When::project});
    out.push_back({"why", menu, Words::tr("&Why this order?"), {}, When::project});
    out.push_back({"wishes", menu, Words::tr("&What runs, and when..."), key("Ctrl+Shift+R"), When::project});
    out.push_back({"usual-order", menu, Words::tr("Usual &order of passes"), {}, When::project});
}

void add_view(Entries& out) {
    const MenuName menu = MenuName::view;
    const auto view = [&](const char* id, const QString& words, const char* number) {
        out.push_back({id,
                       menu,
                       words,
                       {QKeySequence(number), QKeySequence(QString("Ctrl+") + number)},
                       When::project});
    };
    view("view-part", Words::tr("&Part"), "1");
    view("view-sheets", Words::tr("&Sheets"), "2");
    view("view-rehearsal", Words::tr("&Rehearsal"), "3");
    out.push_back({"view-findings", menu, Words::tr("F&indings"), key("F8"), When::project});
    out.push_back({"heat", menu, Words::tr("How often each place is in&ked"), key("Ctrl+H"), When::project,
                   false, true, true});
    out.push_back({"zoom-in", menu, Words::tr("Zoom &in"), key(QKeySequence::ZoomIn), When::project, true});
    out.push_back({"zoom-out", menu, Words::tr("Zoom &out"), key(QKeySequence::ZoomOut), When::project});
    out.push_back({"fit", menu, Words::tr("&Fit"), key("Ctrl+0"), When::project});
    out.push_back({"dark", menu, Words::tr("&Dark theme"), {}, When::always, true, true, true});
    out.push_back(
        {"full-screen", menu, Words::tr("F&ull screen"), key("F11"), When::always, false, true, true});
}

void add_help(Entries& out) {
    out.push_back({"keys", MenuName::help, Words::tr("&Keys and words"), key("F1"), When::project});
    out.push_back({"about", MenuName::help, Words::tr("&About Dot Lane"), {}, When::project});
}

} // namespace

QString title(MenuName menu) {
    const QString titles[menu_count] = {Words::tr("&Project"), Words::tr("&Edit"),  Words::tr("P&art"),
                                        Words::tr("&Lane"),    Words::tr("&Sheet"), Words::tr("&Run"),
                                        Words::tr("&View"),    Words::tr("&Help")};
    return titles[static_cast<int>(menu)];
}

std::vector<ActionEntry> action_entries() {
    Entries out;
    add_project(out);
    add_edit(out);
    add_part(out);
    add_lane(out);
    add_sheet(out);
    add_run(out);
    add_view(out);
    add_help(out);
    return out;
}

} // namespace dotlane::app
