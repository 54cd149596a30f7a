// The window: its pages, its menus, and the wires between the work page, the files and what is done to the
// project. What can be computed is computed below it.
#pragma once

#include <QMainWindow>
#include <QTimer>

#include "app/commands/session.h"
#include "app/widgets/later.h"
#include "app/window/work_page.h"

class QLabel;
class QStackedWidget;

namespace dotlane::app {

class Actions;
class Ahead;
class CommandPalette;
class Exporter;
class LineActions;
class PartActions;
class ProjectFiles;
class StartPage;

class MainWindow : public QMainWindow {
    Q_OBJECT

  public:
    /// `copy_delay`: the most that a kill may lose of what is not saved.
    MainWindow(Workshop& workshop, FileSystem& files, const std::string& state_folder,
               std::chrono::milliseconds copy_delay = std::chrono::seconds(8), QWidget* parent = nullptr);
    ~MainWindow() override;

    Session& session() { return session_; }
    WorkPage& work() { return *work_; }
    ProjectFiles& files() { return *files_; }
    Exporter& exporter() { return *exporter_; }
    /// There once the window has been painted.
    const Actions* actions() const { return actions_; }
    QString notice_text() const;
    /// Waits until everything is read, derived, exported and painted; for pictures and tests.
    void settle();
    /// The same, and until no shorter routes are looked for any more.
    void settle_plan();

  protected:
    bool event(QEvent* event) override;
    void closeEvent(QCloseEvent* event) override;
    void showEvent(QShowEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    void changeEvent(QEvent* event) override;

  private:
    void connect_files();
    void connect_work();
    void prepare_start();
    void build_menu_bar();
    /// What the first picture of the window does not need: it follows at once.
    void wake();
    // bindings.cpp
    void bind_files();
    void bind_lines();
    void bind_sheets();
    void bind_views();
    void fill_menus();
    void follow_situation();

    void settle_typing();
    void show_start();
    void show_jobs();
    void show_saved();
    void tell_error(const Error& error);

    Session session_;
    QStackedWidget* pages_;
    WorkPage* work_;
    ProjectFiles* files_;
    Exporter* exporter_;
    LineActions* lines_;
    PartActions* parts_;
    Later<StartPage> start_;
    Actions* actions_ = nullptr;
    CommandPalette* palette_ = nullptr;
    QLabel* saved_;
    QTimer saved_timer_;
    bool awake_ = false;
};

} // namespace dotlane::app
