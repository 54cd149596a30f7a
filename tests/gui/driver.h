// Drives the real window: finds controls by name, presses, types, waits; answers dialogs.
#pragma once

#include <QApplication>
#include <QComboBox>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QTest>
#include <set>

#include "app/bench/part_view.h"
#include "app/bench/rehearsal_view.h"
#include "app/bench/sheets_view.h"
#include "app/board/board.h"
#include "app/commands/dialogs.h"
#include "app/widgets/picker.h"
#include "app/window/main_window.h"
#include "app/window/project_files.h"
#include "app/window/style.h"
#include "core/project/format.h"
#include "tests/support/support.h"

namespace dotlane::test {

class Answers : public app::Dialogs {
  public:
    std::optional<QString> file_to_open(QWidget*, const QString&, const QString&) override {
        return ++asked, open;
    }
    std::optional<QString> file_to_save(QWidget*, const QString&, const QString&) override {
        return ++asked, save;
    }
    std::optional<QString> folder(QWidget*, const QString&, const QString&) override {
        return ++asked, folder_answer;
    }
    Unsaved unsaved(QWidget*, const QString&) override { return ++asked, unsaved_answer; }
    bool confirm(QWidget*, const QString&, const QString&, const QString&) override { return ++asked, true; }
    ChangedOnDisk changed_on_disk(QWidget*, const QString&) override { return ++asked, changed_answer; }
    ChangedOnDisk changed_answer = ChangedOnDisk::cancel;
    std::optional<QString> open, save, folder_answer;
    Unsaved unsaved_answer = Unsaved::cancel;
    int asked = 0;
};

class Driver {
  public:
    /// `shared`: what other windows worked out is there already, and outlives this one.
    explicit Driver(bool demo = true, Workshop* shared = nullptr)
        : own_(shared ? nullptr : std::make_unique<Workshop>(catalog()))
        , workshop(shared ? *shared : *own_) {
        ::setenv("DOTLANE_DATA", DOTLANE_SOURCE "/data", 1);
        app::apply_style(false);
        app::set_dialogs(&answers);
        window = std::make_unique<app::MainWindow>(workshop, disk(), folder.path + "/state");
        window->show();
        QApplication::setActiveWindow(window.get()); // a virtual screen has no window manager to do it
        // The demo's invitation alone: one part of seven lines on two sheets.
        if (demo)
            window->files().start_project(
                must(load_project(disk(), DOTLANE_SOURCE "/tests/support/invitation.dotlane")), {});
        settle();
    }
    ~Driver() {
        answers.unsaved_answer = app::Dialogs::Unsaved::discard;
        window.reset();
        app::set_dialogs(nullptr);
    }

    void settle() { window->settle(); }
    app::Session& session() { return window->session(); }
    const Project& project() { return session().project(); }

    /// A visible control by its object name; fails the test when there is none.
    template<class T = QWidget>
    T* find(const char* name) {
        for (T* w : window->findChildren<T*>(QString::fromLatin1(name)))
            if (w->isVisible()) return w;
        FAIL("no visible control named " << name);
        return nullptr;
    }
    bool shown(const char* name) {
        for (QWidget* w : window->findChildren<QWidget*>(QString::fromLatin1(name)))
            if (w->isVisible()) return true;
        return false;
    }
    void press(const char* name) {
        auto* w = find<QWidget>(name);
        INFO(name);
        CHECK(w->isEnabled());
        QTest::mouseClick(w, Qt::LeftButton);
        settle();
    }
    /// By the words on it.
    void press_words(const QString& words) {
        for (auto* b : window->findChildren<QPushButton*>())
            if (b->isVisible() && b->text() == words) {
                QTest::mouseClick(b, Qt::LeftButton);
                settle();
                return;
            }
        FAIL("no visible button says " << words.toStdString());
    }
    /// Presses a button near its left end: check boxes and radio buttons only react on their words.
    void tick(const char* name) {
        auto* w = find<QWidget>(name);
        QTest::mouseClick(w, Qt::LeftButton, {}, QPoint(8, w->height() / 2));
        settle();
    }
    void type(const char* name, const QString& text) {
        auto* field = find<QLineEdit>(name);
        field->setFocus();
        field->selectAll();
        QTest::keyClicks(field, text);
        QTest::keyClick(field, Qt::Key_Return);
        settle();
    }
    void choose(const char* name, const QString& text) {
        auto* box = find<QComboBox>(name);
        const int index = box->findText(text, Qt::MatchContains);
        INFO(name << " " << text.toStdString());
        REQUIRE(index >= 0);
        box->setCurrentIndex(index);
        Q_EMIT box->activated(index);
        settle();
    }
    void key(Qt::Key key, Qt::KeyboardModifiers modifiers = {}, QWidget* on = nullptr) {
        QTest::keyClick(on ? on : canvas(), key, modifiers);
        settle();
    }
    void trigger(const char* command) {
        auto* action = window->findChild<QAction*>(QString::fromLatin1(command));
        INFO(command);
        REQUIRE(action);
        action->trigger();
        settle();
    }
    /// In a picker: types the words and takes what is then the first.
    void pick(const char* picker, const QString& words) {
        auto* typed = find<app::Picker>(picker)->findChild<QLineEdit*>("picker-typed");
        typed->selectAll();
        QTest::keyClicks(typed, words);
        QTest::keyClick(typed, Qt::Key_Return);
        settle();
    }
    /// From the recipe's picker.
    void add_step(const QString& words) {
        press("add-step");
        pick("step-picker", words);
    }
    /// The lowest visible control of this name: cards of steps lie below the source's.
    template<class T>
    T* last(const char* name) {
        T* best = nullptr;
        for (T* w : window->findChildren<T*>(QString::fromLatin1(name)))
            if (w->isVisible() && (!best || w->mapToGlobal(QPoint()).y() > best->mapToGlobal(QPoint()).y()))
                best = w;
        INFO(name);
        REQUIRE(best);
        return best;
    }
    app::Canvas* canvas() {
        for (app::Canvas* c : window->findChildren<app::Canvas*>())
            if (c->isVisible()) return c;
        FAIL("no bench");
        return nullptr;
    }
    QPoint at(Point mm) { return canvas()->view().map(mm).toPoint(); }
    /// How many pixels of a bench have which colour.
    static std::map<QRgb, int> colours_of(app::Canvas& view) {
        view.finish_painting();
        const QImage seen = view.grab().toImage();
        std::map<QRgb, int> out;
        for (int y = 0; y < seen.height(); ++y)
            for (int x = 0; x < seen.width(); ++x)
                ++out[seen.pixel(x, y) | 0xff000000];
        return out;
    }
    void click(Point mm, Qt::KeyboardModifiers modifiers = {}) {
        QTest::mouseClick(canvas(), Qt::LeftButton, modifiers, at(mm));
        settle();
    }
    void drag(QWidget* on, QPoint from, QPoint to, Qt::KeyboardModifiers modifiers = {}) {
        const auto send = [&](QEvent::Type type, QPoint p, Qt::MouseButton button, Qt::MouseButtons buttons) {
            QMouseEvent e(type, p, on->mapToGlobal(p), button, buttons, modifiers);
            QApplication::sendEvent(on, &e);
        };
        send(QEvent::MouseButtonPress, from, Qt::LeftButton, Qt::LeftButton);
        for (int i = 1; i <= 8; ++i)
            send(QEvent::MouseMove, from + (to - from) * i / 8, Qt::NoButton, Qt::LeftButton);
        send(QEvent::MouseButtonRelease, to, Qt::LeftButton, Qt::NoButton);
        settle();
    }
    bool notice_says(const char* words) { return window->notice_text().contains(QString::fromLatin1(words)); }
    /// A drawing file in the test's folder.
    QString drawing_file(const char* name, const std::string& text) {
        must(disk().write_atomically(folder / name, text));
        return QString::fromStdString(folder / name);
    }
    std::size_t lines_in(Action action) {
        std::size_t n = 0;
        for (const LineSet& s : session().part()->sets)
            if (const Lane* l = dotlane::find(project(), s.lane); l && l->action == action && !s.set_aside)
                n += s.lines.size();
        return n;
    }

  private:
    std::unique_ptr<Workshop> own_;

  public:
    TemporaryFolder folder;
    Answers answers;
    Workshop& workshop;
    std::unique_ptr<app::MainWindow> window;
};

} // namespace dotlane::test
