// Every word reaches a translator: the window speaks a made-up language in which every word is marked, and
// all that it shows is listened to, painted text too.
#include <QMenuBar>
#include <QPaintEngine>
#include <QRegularExpression>
#include <QTranslator>
#include <iostream>

#include "core/exports/run_sheet.h"
#include "present/words.h"
#include "shots/views.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// Paints nothing and keeps what is written.
class Listener final : public QPaintDevice, private QPaintEngine {
  public:
    explicit Listener(QSize size)
        : QPaintEngine(AllFeatures)
        , size_(size) {}
    QStringList heard;

  private:
    QPaintEngine* paintEngine() const override { return const_cast<Listener*>(this); }
    int metric(PaintDeviceMetric m) const override {
        switch (m) {
        case PdmWidth:
            return size_.width();
        case PdmHeight:
            return size_.height();
        case PdmDpiX:
        case PdmDpiY:
        case PdmPhysicalDpiX:
        case PdmPhysicalDpiY:
            return 96;
        case PdmDevicePixelRatio:
            return 1;
        case PdmDevicePixelRatioScaled:
            return static_cast<int>(devicePixelRatioFScale());
        case PdmDepth:
            return 32;
        default:
            return 0;
        }
    }
    bool begin(QPaintDevice*) override { return true; }
    bool end() override { return true; }
    void updateState(const QPaintEngineState&) override {}
    void drawPixmap(const QRectF&, const QPixmap&, const QRectF&) override {}
    void drawImage(const QRectF&, const QImage&, const QRectF&, Qt::ImageConversionFlags) override {}
    void drawPath(const QPainterPath&) override {}
    void drawPolygon(const QPointF*, int, PolygonDrawMode) override {}
    void drawPolygon(const QPoint*, int, PolygonDrawMode) override {}
    void drawTextItem(const QPointF&, const QTextItem& item) override { heard << item.text(); }
    Type type() const override { return User; }

    QSize size_;
};

void hear(const QMenu& menu, QStringList& heard) {
    for (const QAction* action : menu.actions()) {
        heard << action->text().section(u'\t', 0, 0) << action->toolTip();
        if (action->menu()) hear(*action->menu(), heard);
    }
}

QStringList all_words(app::MainWindow& window) {
    Listener listener(window.size());
    window.render(&listener);
    QStringList heard = listener.heard;
    CHECK(heard.size() > 5);
    for (const QAction* action : window.menuBar()->actions()) {
        heard << action->text();
        if (action->menu()) hear(*action->menu(), heard);
    }
    for (const QWidget* widget : window.findChildren<QWidget*>()) {
        if (!widget->isVisible()) continue;
        heard << widget->toolTip() << widget->accessibleName() << widget->accessibleDescription();
        if (const auto* combo = qobject_cast<const QComboBox*>(widget);
            combo && combo->objectName() != "font")
            for (int i = 0; i < combo->count(); ++i)
                heard << combo->itemText(i);
    }
    return heard;
}

/// Names are the maker's own: each becomes one that no translator knows.
Result<void> rename_all(Project& project) {
    int n = 0;
    const auto name = [&n](std::string& it) { it = "Zz" + std::to_string(++n); };
    name(project.name);
    for (Lane& lane : project.lanes)
        name(lane.name);
    for (Sheet& sheet : project.sheets)
        name(sheet.name);
    for (Part& part : project.parts) {
        name(part.name), name(part.source.file_name);
        const auto& lines = part.source.drawing->lines;
        if (std::any_of(lines.begin(), lines.end(), [](const DrawnLine& l) { return !l.name.empty(); })) {
            auto drawing = std::make_shared<Drawing>(*part.source.drawing);
            for (DrawnLine& line : drawing->lines)
                if (!line.name.empty()) name(line.name);
            part.source.drawing = drawing; // else the same one, which has been worked out already
        }
        for (LineSet& set : part.sets)
            name(set.name);
    }
    return {};
}

/// What no language says in other words: the program's name, units, forms of files, keys, families of fonts.
bool the_same_everywhere(const QString& word, const QStringList& own) {
    static const QStringList all = {
        "Dot",    "Lane",  "mm",  "cm",    "in",     "min",   "SVG",       "DXF", "HPGL",
        "HP",     "GL",    "PNG", "JPEG",  "PDF",    "Ctrl",  "Shift",     "Alt", "Del",
        "Return", "Home",  "Esc", "Space", "Tab",    "Enter", "Backspace", "Up",  "Down",
        "Left",   "Right", "End", "PgUp",  "PgDown", "F1",    "F2",        "ft",  "dotlane"};
    // Also a stop in a picture of characters, the numbered features of fonts, and the plates of lanes, which
    // are letters as single ones are.
    static const QRegularExpression pattern("^(o+|(cv|ss)[0-9]{2}|[CDEFHMRS][0-9])$");
    return word.size() == 1 || pattern.match(word).hasMatch() || word.startsWith("Zz") ||
           all.contains(word) || own.contains(word);
}

QStringList unmarked(const QStringList& heard, const QStringList& own) {
    static const QRegularExpression word("(\\x{b7}?)(?<![\\w%#\\x{b7}])([A-Za-z][\\w\u2019']*)");
    QStringList out;
    for (QString text : heard) {
        text.remove(QRegularExpression("<[^>]*>|&(?=\\w)"));
        for (auto it = word.globalMatch(text); it.hasNext();) {
            const auto match = it.next();
            if (!match.captured(1).isEmpty() || the_same_everywhere(match.captured(2), own)) continue;
            if (match.capturedStart(2) > 0 && text[match.capturedStart(2) - 1] == u'\u00b7') continue;
            out << match.captured(2) + " in \"" + text + '"';
        }
    }
    out.removeDuplicates();
    return out;
}

} // namespace

TEST_CASE("every word of plans, run sheets, findings and what was done reaches a translator") {
    QTranslator marked;
    REQUIRE(marked.load(DOTLANE_BUILD "/words/marked.qm"));
    QCoreApplication::installTranslator(&marked);
    Workshop workshop(catalog());
    Random random("words");
    const Speaker speak = [](const Phrase& phrase) { return present::words(phrase).toStdString(); };
    std::size_t findings = 0, reasons = 0;
    const auto listen = [&](const Project& project) {
        const auto derived = workshop.derive(std::make_shared<Project>(project));
        QStringList heard;
        for (const Finding& f : derived->findings) {
            heard << present::words(f) << present::remedy_words(f);
            for (const Remedy& more : f.more)
                heard << present::words(more.label);
            ++findings;
        }
        heard << present::words(derived->no_plan);
        if (derived->plan) {
            heard << QString::fromStdString(speak(make_run_sheet(*derived, catalog()).subtitle));
            // The pictures of characters hold names and marks only.
            heard << QString::fromStdString(to_text(make_run_sheet(*derived, catalog()), *derived, speak));
            reasons += derived->plan->reasons.size();
            for (const Move& move : derived->plan->program.moves)
                if (const auto* pass = std::get_if<PassMove>(&move); pass && !pass->strokes.empty())
                    heard << present::words(spoken(derived->plan->program, pass->strokes.front().of));
        }
        const QStringList found = unmarked(heard, {});
        INFO("seed " << random.seed() << ": " << found.join("; ").toStdString());
        CHECK(found.isEmpty());
    };
    const std::pair<const char*, int> files[] = {{"/data/demo/saltmarsh.dotlane", 5}, // the demo takes long
                                                 {"/tests/support/invitation.dotlane", 15}};
    for (const auto& [file, rounds] : files) {
        Project project = must(load_project(disk(), std::string(DOTLANE_SOURCE) + file));
        must(rename_all(project));
        listen(project);
        for (int round = 0; round < rounds; ++round) { // spoiled in ways that a maker knows
            Project spoiled = project;
            for (Part& part : spoiled.parts) {
                part.quantity = random.whole(1, 4), part.scale *= random.real(0.05, 4);
                if (!part.sets.empty() && random.coin(0.3)) part.sets.front().lane = {};
                for (Step& step : part.steps)
                    if (random.coin(0.3)) step.lane = {};
            }
            for (Sheet& sheet : spoiled.sheets)
                for (Placement& placed : sheet.placements)
                    placed.left += mm(random.real(-80, 80)), placed.top += mm(random.real(-80, 80));
            for (Lane& lane : spoiled.lanes)
                if (random.coin(0.2)) lane.tool = random.coin(0.5) ? "Zz" : "pen-0.4";
            spoiled.pass_order.clear();
            for (const Lane& lane : spoiled.lanes)
                if (random.coin(0.5)) spoiled.pass_order.push_back(lane.id);
            listen(spoiled);
        }
    }
    CHECK(findings > 100);
    CHECK(reasons > 10);
    QCoreApplication::removeTranslator(&marked);
}

TEST_CASE("every word that the window shows reaches a translator") {
    ::setenv("DOTLANE_DATA", DOTLANE_SOURCE "/data", 1);
    QTranslator marked;
    REQUIRE(marked.load(DOTLANE_BUILD "/words/marked.qm"));
    QCoreApplication::installTranslator(&marked);
    app::apply_style(false);
    Workshop workshop(catalog());
    // Fonts, what is lettered, the file that is opened, names of features that a font file has.
    QStringList own = {"Saltmarsh", "Quay", "tide", "wave", "svg"};
    for (const char* tag : {"c2sc", "calt", "case", "clig", "frac", "hlig", "kern", "liga", "lnum", "onum",
                            "ordn", "pnum", "salt", "sc", "sups", "smcp", "dlig", "swsh", "tnum"})
        own << tag;
    for (const auto& family : workshop.fonts().families())
        own << QString::fromStdString(family).split(' ');
    for (const QString& view : shots::view_names())
        shots::with_view(workshop, view, {1280, 800}, [&](app::MainWindow& window) {
            if (window.session().is_open()) {
                window.session().change("Zz", rename_all);
                window.settle();
            }
            const QStringList found = unmarked(all_words(window), own);
            INFO(view.toStdString() << ": " << found.join("; ").toStdString());
            CHECK(found.isEmpty());
        });
    QCoreApplication::removeTranslator(&marked);
}

TEST_CASE("English says how many in one form or the other, never in both") {
    const std::string words = file(DOTLANE_SOURCE "/data/translations/dot-lane_en.ts"),
                      form = "<numerusform>";
    std::size_t forms = 0;
    for (std::size_t at = words.find(form); at != std::string::npos; at = words.find(form, at + 1), ++forms) {
        const std::string said = words.substr(at, words.find('\n', at) - at);
        INFO(said);
        CHECK(said.find("s)") == std::string::npos); // "%n line(s)", "%n pass(es)"
    }
    CHECK(forms > 20);
}
