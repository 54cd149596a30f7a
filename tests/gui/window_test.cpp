// The window as a whole: every view, keys, names for screen readers, themes, large drawings.
#include <QAbstractButton>
#include <QMenuBar>
#include <QTranslator>
#include <iostream>

#include "app/window/palette.h"
#include "core/opening/opening.h"
#include "present/words.h"
#include "shots/views.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;
using View = app::WorkPage::View;
using std::string_literals::operator""s;

TEST_CASE("every named view can be pictured, in both themes, and fills its picture") {
    TemporaryFolder folder;
    Workshop workshop(catalog());
    for (const char* view :
         {"start",    "opening", "part",    "chosen", "jobs",      "steps",     "recipe",        "map",
          "layers",   "pop-up",  "stencil", "sheets", "rehearsal", "stop",      "end",           "lanes",
          "findings", "why",     "help",    "find",   "empty",     "part-dark", "rehearsal-dark"}) {
        const QString out = QString::fromStdString(folder / (std::string(view) + ".png"));
        INFO(view);
        CHECK(shots::take_shot(workshop, view, out, "1280x800") == 0);
        const QImage image(out);
        CHECK(image.size() == QSize(1280, 800)); // nothing forces the window wider
        std::set<QRgb> colours;
        for (int y = 0; y < image.height(); y += 4)
            for (int x = 0; x < image.width(); x += 4)
                colours.insert(image.pixel(x, y));
        CHECK(colours.size() > 12);
    }
    CHECK(shots::take_shot(workshop, "no-such-view", "x.png", "1280x800") == 2);
    app::apply_style(false);
}

TEST_CASE("the window can be made small and nothing is lost sideways") {
    Driver d;
    for (const View view : {View::part, View::sheets, View::rehearsal}) {
        d.window->work().show_view(view);
        d.window->resize(1024, 700);
        d.settle();
        CHECK(d.window->width() <= 1024);
    }
}

TEST_CASE("every control has a name for screen readers") {
    Driver d;
    const auto check = [&] {
        for (QWidget* w : d.window->findChildren<QWidget*>()) {
            if (!w->isVisible() || w->focusPolicy() == Qt::NoFocus) continue;
            const auto* button = qobject_cast<QAbstractButton*>(w);
            if (button && !button->text().isEmpty()) continue; // its text is its name
            if (qobject_cast<QMenuBar*>(w)) continue;
            INFO(w->metaObject()->className() << " " << w->objectName().toStdString());
            CHECK_FALSE(w->accessibleName().isEmpty());
        }
    };
    for (const View view : {View::part, View::sheets, View::rehearsal}) {
        d.window->work().show_view(view);
        d.settle();
        check();
    }
    d.trigger("lanes");
    check();
}

TEST_CASE("every command has a menu place, and no key does two things") {
    Driver d;
    std::map<QString, QString> keys;
    int commands = 0;
    for (const QAction* top : d.window->menuBar()->actions())
        for (const QAction* action : top->menu()->actions()) {
            if (action->isSeparator() || action->menu()) continue;
            ++commands;
            CHECK_FALSE(action->objectName().isEmpty());
            for (const QKeySequence& key : action->shortcuts()) {
                const auto [it, fresh] = keys.try_emplace(key.toString(), action->text());
                INFO(key.toString().toStdString()
                     << ": " << it->second.toStdString() << " and " << action->text().toStdString());
                CHECK(fresh);
            }
        }
    CHECK(commands > 35);
    for (const char* standard : {"Ctrl+Z", "Ctrl+S", "Ctrl+O", "Del", "F1", "F11", "Ctrl+K"})
        CHECK(keys.contains(standard));
}

TEST_CASE("a command is found by a few of its letters") {
    Driver d;
    d.trigger("find-command");
    auto* field = d.find<QLineEdit>("palette-field");
    QTest::keyClicks(field, "rehears");
    QTest::keyClick(field, Qt::Key_Down);
    QTest::keyClick(field, Qt::Key_Up);
    QTest::keyClick(field, Qt::Key_Return);
    d.settle();
    CHECK(d.window->work().view() == View::rehearsal);
    d.trigger("find-command");
    QTest::keyClick(d.find<QLineEdit>("palette-field"), Qt::Key_Escape);
    CHECK_FALSE(d.shown("palette-field"));
}

TEST_CASE("inches are shown everywhere, kept in millimetres") {
    Driver d;
    d.trigger("inches");
    CHECK(d.project().unit == LengthUnit::inch);
    CHECK(d.find<QLineEdit>("finished-width")->text() == "11.811 in");
    d.type("finished-width", "12");
    CHECK(d.session().evaluated()->source_box.width() == Approx(304.8));
    d.trigger("inches");
    CHECK(d.find<QLineEdit>("finished-width")->text() == "304.8 mm");
}

TEST_CASE("long names, many parts and many lanes keep their places") {
    Driver d;
    d.session().change("many", [&](Project& p) -> Result<void> {
        const Source source = p.parts.front().source;
        p.parts.front().name = std::string(200, 'W');
        for (int i = 0; i < 30; ++i)
            add_part(p, "Way-marker tag number " + std::to_string(i), source);
        for (int i = 0; i < 8; ++i)
            add_lane(p, {{},
                         Action::draw,
                         "pen with a very long name indeed " + std::to_string(i),
                         "pen-0.4",
                         {static_cast<std::uint8_t>(i * 30), 90, 90},
                         1});
        return {};
    });
    d.window->resize(1280, 800);
    d.settle();
    CHECK(d.window->width() == 1280);
    CHECK(d.window->height() == 800);
    CHECK(d.project().parts.size() == 31);
}

TEST_CASE("what core says is said in another language, with its plural forms and its arguments") {
    class Words : public QTranslator {
        QString translate(const char* context, const char* source, const char*, int n) const override {
            const QString text = QLatin1String(context) + QString(": ") + QString::fromUtf8(source);
            if (text == "Core: %n [line has|lines have] no lane in \"%1\".")
                return n == 1 ? "Eine Linie von „%1“ ohne Spur." : "%n Linien von „%1“ ohne Spur.";
            if (text == "Core: There is no file \"%1\".") return "Keine Datei „%1“.";
            if (text == "Core: %1 (%2, line %3)") return "%1 (%2, Zeile %3)";
            if (text == "Core: \"%1\" does nothing. %2") return "%2 („%1“ tut nichts.)";
            if (text == "Steps: Outline") return "Umriss";
            return {};
        }
        bool isEmpty() const override { return false; }
    } translator;
    const auto lines = [](std::size_t n) {
        return Finding{"lane.none", Grade::error,
                       say_n(n, "%n [line has|lines have] no lane in \"%1\".", "%1 a"s)};
    };
    const Error error{"file.missing", say("There is no file \"%1\".", "a"s), {"a", 2}};
    CHECK(present::words(lines(3)) == "3 lines have no lane in \"%1 a\".");
    CHECK(present::words(lines(1)) == "1 line has no lane in \"%1 a\".");
    CHECK(present::words(error).toStdString() == to_text(error));
    QCoreApplication::installTranslator(&translator);
    CHECK(present::words(lines(1)) == "Eine Linie von „%1 a“ ohne Spur.");
    CHECK(present::words(lines(3)) == "3 Linien von „%1 a“ ohne Spur.");
    CHECK(present::words(error) == "Keine Datei „a“. (a, Zeile 2)");
    CHECK(present::words(say("\"%1\" does nothing. %2", word(*step_kind("outline")), "Why."s)) ==
          "Why. („Umriss“ tut nichts.)");
    CHECK(present::words(as_is("Outline")) == "Outline");
    QCoreApplication::removeTranslator(&translator);
    CHECK(to_text(error) == "There is no file \"a\". (a, line 2)");
}

TEST_CASE("a drawing of 200,000 segments opens without freezing the window") {
    Driver d(false);
    std::string big = "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 1000 1000'>";
    Random random("large drawing");
    for (int i = 0; i < 2000; ++i) {
        big += "<path fill='none' stroke='#a8462d' d='M" + std::to_string(random.real(0, 960)) + "," +
               std::to_string(random.real(0, 960));
        for (int k = 0; k < 100; ++k)
            big += "l" + std::to_string(random.real(-8, 8)) + "," + std::to_string(random.real(-8, 8));
        big += "'/>";
    }
    big += "<!--" +
           std::string(20 * 1024 * 1024 - std::min<std::size_t>(big.size(), 20 * 1024 * 1024 - 1), ' ') +
           "--></svg>"; // 20 MB
    const QString path = d.drawing_file("big.svg", big);
    // A heartbeat: the longest gap between two beats is the longest time that a click would have waited.
    QElapsedTimer beat, whole;
    qint64 longest = 0;
    int beats = 0;
    QTimer heartbeat;
    const auto run_until = [&](const char* what, auto done) {
        longest = 0, beats = 0;
        const auto connection = QObject::connect(&heartbeat, &QTimer::timeout, [&] {
            longest = std::max(longest, beat.restart()), beats += done() ? 0 : 1;
        });
        beat.start(), whole.start();
        heartbeat.start(2);
        while (!done() && whole.elapsed() < 60000)
            QCoreApplication::processEvents(QEventLoop::AllEvents, 2);
        QObject::disconnect(connection);
        CHECK(done());
        std::cout << what << ": " << whole.elapsed() << " ms, longest wait of the window " << longest
                  << " ms\n";
        // How often is the machine's, which may hold any process up: a window that did the work itself would
        // be done before its first beat.
        CHECK(beats >= 1);
    };
    d.window->files().open_path(path);
    run_until("20 MB, 200,000 segments opened", [&] { return d.shown("take-in") && d.canvas()->painted(); });
    d.tick("scale-72");
    QTimer::singleShot(0, [&] { QTest::mouseClick(d.find<QPushButton>("take-in"), Qt::LeftButton); });
    run_until("taken in, planned and painted",
              [&] { return d.shown("add-step") && !d.session().deriving() && d.canvas()->painted(); });
    REQUIRE(d.session().part());
    CHECK(d.session().part()->source.drawing->lines.size() == 2000);
    d.trigger("choose-all");
    QTimer::singleShot(0, [&] { QTest::keyClick(d.canvas(), Qt::Key_S); });
    run_until("all sent to another lane", [&] {
        return d.lines_in(Action::score) == 2000 && !d.session().deriving() && d.canvas()->painted();
    });
}
