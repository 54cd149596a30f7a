#include "shots/views.h"

#include <QApplication>
#include <QImage>
#include <QLineEdit>
#include <QPainter>
#include <QPushButton>
#include <QTemporaryDir>
#include <QTimer>
#include <cstdio>
#include <functional>

#include "app/bench/part_view.h"
#include "app/bench/rehearsal_view.h"
#include "app/lettering/glyph_grid.h"
#include "app/recipe/fill_picker.h"
#include "app/window/actions.h"
#include "app/window/exporter.h"
#include "app/window/main_window.h"
#include "app/window/project_files.h"
#include "app/window/style.h"
#include "core/base/data_folder.h"
#include "core/commands/making.h"
#include "core/opening/opening.h"
#include "core/project/edits.h"
#include "present/part_painter.h"

namespace dotlane::shots {
namespace {

using namespace app;

using Arrange = std::function<void(MainWindow&)>;

Result<PartId> made(MainWindow& w, Project& p, SourceSpec spec, std::string name = {}) {
    return apply(MakePart{std::move(spec), std::move(name)}, p, w.session().catalog(), w.session().fonts())
        .map([](const Done& done) { return done.part; });
}

void choose_step(MainWindow& w) {
    const Part* part = w.session().part();
    if (!part || part->steps.empty()) return;
    Choice choice = w.session().choice();
    choice.step = part->steps.front().id;
    w.session().choose(choice);
}

void rehearse_to(MainWindow& w, double share) {
    w.work().show_view(WorkPage::View::rehearsal);
    w.work().rehearsal().seek(w.work().rehearsal().total() * share);
}

/// In the middle of the named pass.
void rehearse_pass(MainWindow& w, Action action) {
    const auto derived = w.session().derived();
    w.work().show_view(WorkPage::View::rehearsal);
    if (!derived || !derived->plan) return;
    for (std::size_t m = 0; m < derived->plan->program.moves.size(); ++m)
        if (const auto* pass = std::get_if<PassMove>(&derived->plan->program.moves[m]);
            pass && pass->action == action) {
            const MoveSpan span = derived->plan->timeline.spans()[m];
            return w.work().rehearsal().seek(span.start + span.time * 0.62);
        }
}

void choose_placed(MainWindow& w) {
    w.work().show_view(WorkPage::View::sheets);
    Choice choice = w.session().choice();
    if (w.session().sheet() && !w.session().sheet()->placements.empty())
        choice.placement = w.session().sheet()->placements.front().id;
    w.session().choose(choice);
}

/// A part pushed over the edge and lines without a lane: what errors look like.
void spoil(MainWindow& w) {
    w.session().change("spoil", [](Project& p) -> Result<void> {
        const Part& part = p.parts.front();
        if (const auto ok = assign(p, part.id, part.sets.front().lines, LaneId{}); !ok) return ok;
        if (!p.sheets.empty() && !p.sheets.front().placements.empty()) {
            Placement moved = p.sheets.front().placements.front();
            moved.left -= mm(12);
            return change_placement(p, moved);
        }
        return {};
    });
}

void open_unsized(MainWindow& w) {
    static const QTemporaryDir folder;
    const QString path = folder.filePath("tide-wave.svg");
    (void)disk().write_atomically(
        path.toStdString(),
        R"(<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 560 180"><rect x="6" y="6" width="548" height="168" fill="none" stroke="#22282c"/>
<path d="M40 120c40-90 100-90 120-20s60 60 80 20 60-90 120-20 60 60 80 20 40-60 80-40" fill="none" stroke="#2f5d62" stroke-width="3"/>
<path d="M60 150h440" fill="none" stroke="#5a6996" stroke-dasharray="9 4"/><circle cx="480" cy="50" r="20" fill="#a8832d"/></svg>)");
    w.files().open_path(path);
}

/// The demo's own drawing as a picture.
void open_picture(MainWindow& w) {
    static const QTemporaryDir folder;
    QImage image(1500, 500, QImage::Format_RGB32);
    image.fill(Qt::white);
    QPainter painter(&image);
    const Drawing& drawing = *w.session().project().parts.front().source.drawing;
    present::paint_drawing(painter, drawing,
                           present::View::fitting(bounds(drawing), QRectF(20, 20, 1460, 460)), image.rect());
    painter.end();
    const QString path = folder.filePath("heron.png");
    if (image.save(path)) w.files().open_path(path);
}

/// A word in a script, joined to one piece.
void make_lettering(MainWindow& w) {
    w.session().change("lettering", [&](Project& p) -> Result<void> {
        Lettering word;
        word.text = "Saltmarsh", word.font = "Dancing Script", word.weight = 700;
        word.join = true, word.snug = mm(0.4), word.size = mm(28);
        return made(w, p, word).map([](PartId) {});
    });
    w.session().choose_part(w.session().project().parts.back().id);
}

/// The glyphs of a text face that holds many.
void show_glyphs(MainWindow& w) {
    w.session().change("lettering", [&](Project& p) -> Result<void> {
        Lettering word;
        word.text = "Saltmarsh & Quay", word.font = "EB Garamond", word.italic = true;
        word.features = "swsh", word.size = mm(20);
        return made(w, p, word).map([](PartId) {});
    });
    w.session().choose_part(w.session().project().parts.back().id);
    w.settle();
    w.work().show_glyphs();
    w.settle();
    if (auto* search = w.findChild<QLineEdit*>("glyph-search")) search->setText("Q");
    if (auto* grid = w.findChild<GlyphGrid*>("glyph-grid")) grid->set_current(0);
}

/// A part of the demo with its last step, what that put on the bench lit.
Arrange part_named(const char* name) {
    return [name](MainWindow& w) {
        for (const Part& part : w.session().project().parts)
            if (part.name == name) w.session().choose_part(part.id);
        w.settle();
        Choice choice = w.session().choice();
        if (w.session().part()->steps.empty()) return;
        choice.step = w.session().part()->steps.back().id;
        w.session().choose(choice);
    };
}

/// A name whose pieces are numbered on the bench, one of them dropped.
void drop_a_piece(MainWindow& w) {
    w.session().change("pieces", [&](Project& p) -> Result<void> {
        Lettering word;
        word.text = "Quay", word.size = mm(30);
        const auto part = made(w, p, word);
        if (!part) return tl::make_unexpected(part.error());
        return append_step(p, w.session().catalog(), *part, PiecesStep{"2"}, {}).map([](StepId) {});
    });
    w.session().choose_part(w.session().project().parts.back().id);
    w.settle();
    choose_step(w);
}

/// The demo's bunting: its letters are laid apart, two of them keep together.
void keep_together(MainWindow& w) {
    w.session().change("together", [&](Project& p) -> Result<void> {
        for (const Part& part : p.parts)
            for (Step step : part.steps)
                if (auto* apart = std::get_if<ApartStep>(&step.what)) {
                    apart->together = "2, 3";
                    Choice choice = w.session().choice();
                    choice.part = part.id, choice.step = step.id;
                    w.session().choose(choice);
                    for (Sheet& sheet : p.sheets) // it lies with the second from now on
                        std::erase_if(sheet.placements, [&](const Placement& placed) {
                            return placed.part == part.id && placed.piece == 3;
                        });
                    return change_step(p, part.id, step);
                }
        return {};
    });
}

/// Other ways to make the demo's foiled title.
void show_ways(MainWindow& w) {
    choose_step(w);
    w.settle();
    if (auto* ways = w.findChild<QPushButton*>("fill-ways")) ways->click();
    const auto* picker = w.findChild<FillPicker*>("fill-picker");
    for (int k = 0; picker && !picker->ready() && k < 1000; ++k) {
        QEventLoop soon;
        QTimer::singleShot(20, &soon, &QEventLoop::quit);
        soon.exec();
    }
}

/// How often each place of the demo's foiled title is inked, near enough to see it.
void show_heat(MainWindow& w) {
    choose_step(w);
    w.actions()->find("heat")->trigger();
    w.settle();
    const EvaluatedPart* part = w.session().evaluated();
    if (!part) return;
    for (const RunSet& run : part->runs)
        if (run.ink) {
            Box letters = bounds(run.lines);
            letters.x1 = letters.x0 + letters.width() * 0.3;
            w.work().part_view().show_area(letters);
            return w.work().part_view().ring_nothing(); // nothing was sought
        }
}

/// The signpost and the badges of the demo's sixth sheet.
void choose_several(MainWindow& w) {
    w.work().show_view(WorkPage::View::sheets);
    Choice choice = w.session().choice();
    if (w.session().project().sheets.size() < 6) return;
    const Sheet& sheet = w.session().project().sheets[5];
    choice.sheet = sheet.id;
    for (std::size_t i = 1; i < sheet.placements.size(); ++i)
        choice.with.insert(sheet.placements[i].id);
    choice.placement = *choice.with.begin();
    choice.with.erase(choice.placement);
    w.session().choose(choice);
}

/// A card in the outline of the demo's tag.
void fold_an_outline(MainWindow& w) {
    w.session().change("card", [&](Project& p) -> Result<void> {
        ShapeCard card;
        card.overlap = mm(11);
        for (const Part& part : p.parts)
            if (part.name == "Way-marker tag") card.of = part.id;
        return made(w, p, card, "Moon card").map([](PartId) {});
    });
    w.session().choose_part(w.session().project().parts.back().id);
}

const std::vector<std::pair<QString, Arrange>>& views() {
    static const std::vector<std::pair<QString, Arrange>> list = {
        {"start", [](MainWindow&) {}},
        {"opening", open_unsized},
        {"part", choose_step},
        {"chosen",
         [](MainWindow& w) {
             const Part* part = w.session().part();
             if (part && !part->sets.empty())
                 w.session().choose_lines({part->sets.front().lines.begin(), part->sets.front().lines.end()});
         }},
        {"jobs", [](MainWindow& w) { w.work().show_jobs(); }},
        {"steps", [](MainWindow& w) { w.work().show_steps(); }},
        {"lettering", [](MainWindow& w) { make_lettering(w); }},
        {"glyphs", show_glyphs},
        {"picture", open_picture},
        {"recipe", part_named("Heron patch silver")},
        {"map", part_named("Heron map")},
        {"layers", part_named("Big heron")},
        {"pop-up", part_named("Song sheet")},
        {"stencil", part_named("Tide border")},
        {"pieces", drop_a_piece},
        {"apart", keep_together},
        {"shape-card", fold_an_outline},
        {"ways", show_ways},
        {"heat", show_heat},
        {"samples", [](MainWindow& w) { w.actions()->find("samples")->trigger(); }},
        {"sheets",
         [](MainWindow& w) {
             w.work().show_view(WorkPage::View::sheets);
             Choice choice = w.session().choice();
             for (const Sheet& sheet : w.session().project().sheets)
                 if (sheet.name == "sheet 4") choice.sheet = sheet.id;
             w.session().choose(choice);
             choose_placed(w);
         }},
        {"several", choose_several},
        {"rehearsal", [](MainWindow& w) { rehearse_pass(w, Action::foil); }},
        {"stop",
         [](MainWindow& w) {
             rehearse_to(w, 0);
             w.work().rehearsal().next_stop();
         }},
        {"end", [](MainWindow& w) { rehearse_to(w, 0.999); }},
        {"lanes",
         [](MainWindow& w) {
             w.work().show_lanes(
                 w.session().project().lanes.empty() ? LaneId{} : w.session().project().lanes.front().id);
         }},
        {"findings",
         [](MainWindow& w) {
             spoil(w);
             w.settle();
             w.exporter().export_to({}, false);
         }},
        {"why", [](MainWindow& w) { w.work().show_why(); }},
        {"wishes", [](MainWindow& w) { w.work().show_wishes(); }},
        {"help", [](MainWindow& w) { w.actions()->find("keys")->trigger(); }},
        {"find", [](MainWindow& w) { w.actions()->find("find-command")->trigger(); }},
        {"empty",
         [](MainWindow& w) { w.files().start_project(w.session().workshop().new_project("Untitled"), {}); }},
    };
    return list;
}

} // namespace

QStringList view_names() {
    QStringList out;
    for (const auto& v : views())
        out << v.first;
    return out;
}

bool with_view(Workshop& workshop, const QString& view, QSize size,
               const std::function<void(MainWindow&)>& look) {
    const auto& list = views();
    const auto found = std::find_if(list.begin(), list.end(), [&](const auto& v) { return v.first == view; });
    if (found == list.end()) return false;
    const QTemporaryDir state; // no recent files or recovery copies of this user in the picture
    MainWindow window(workshop, disk(), state.path().toStdString());
    window.resize(size);
    window.show();
    if (view != "start" && view != "empty") window.files().open_demo();
    window.settle();
    found->second(window);
    window.settle();
    look(window);
    window.session().close();
    return true;
}

int take_shot(Workshop& workshop, const QString& name, const QString& out, const QString& size) {
    QString view = name;
    const bool dark = view.endsWith("-dark");
    if (dark) view.chop(5);
    apply_style(dark);
    bool saved = false;
    const auto look = [&](MainWindow& window) {
        window.settle_plan(); // pictures show the best plan, whenever they are taken
        saved = window.grab().save(out);
        if (!saved) std::fprintf(stderr, "dot-lane-shots: \"%s\" could not be written.\n", qPrintable(out));
    };
    if (!out.isEmpty() &&
        with_view(workshop, view, {size.section('x', 0, 0).toInt(), size.section('x', 1, 1).toInt()}, look))
        return saved ? 0 : 2;
    std::fprintf(stderr, "dot-lane-shots VIEW OUT.png [WxH]; views (each also with -dark): %s\n",
                 qPrintable(view_names().join(", ")));
    return 2;
}

} // namespace dotlane::shots
