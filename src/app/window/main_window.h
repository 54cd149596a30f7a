// The window: menus, header, tray, bench, side panel, board. It wires the regions to the session; what can be
// computed is computed below it.
#pragma once

#include <QDateTime>
#include <QFutureWatcher>
#include <QMainWindow>
#include <QTimer>

#include "app/commands/opener.h"
#include "app/commands/recent.h"
#include "app/commands/recovery.h"
#include "app/commands/session.h"
#include "app/widgets/later.h"
#include "core/workflow/exporting.h"

class QLabel;
class QStackedWidget;

namespace dotlane::app {

class Board;
class Canvas;
class CommandPalette;
class FindingsPanel;
class Ahead;
class Header;
class HelpPanel;
class JobsPanel;
class LanePanel;
class Notice;
class OpeningPanel;
class OpeningView;
class OrderPanel;
class PartView;
class RecipePanel;
class RehearsalView;
class SheetPanel;
class SheetsView;
class StartPage;
class GlyphPanel;
class Tray;

class MainWindow : public QMainWindow {
    Q_OBJECT

  public:
    enum class View { part, sheets, rehearsal };

    /// `copy_delay`: the most that a kill may lose of what is not saved.
    MainWindow(Workshop& workshop, FileSystem& files, const std::string& state_folder,
               std::chrono::milliseconds copy_delay = std::chrono::seconds(8), QWidget* parent = nullptr);
    ~MainWindow() override;

    Session& session() { return session_; }
    Recovery& recovery() { return recovery_; }
    void open_path(const QString& path); ///< a drawing or a project, by its ending
    void open_demo();
    /// Says that an earlier run left unsaved work behind, when a project is opened past the start page.
    void offer_recovery();
    void show_view(View view);
    View view() const { return view_; }
    void show_lanes(LaneId lane);
    void show_findings();
    void show_why();
    void show_help();
    void show_jobs();
    void show_glyphs();
    /// A new part of this kind of source (core/project/sources.h), in a new project when none is open.
    void make(const QString& kind);
    void add_layers(int count, Length reveal);
    void make_from(const SourceSpec& spec, const QString& name);
    void show_about();
    RehearsalView& rehearsal() { return *rehearsal_view_; }
    PartView& part_view() { return *part_view_; }
    QString notice_text() const;
    void find_command();
    /// Exports to a folder; asks for it when empty.
    void export_to(QString folder, bool override_errors);
    /// Waits until everything is derived, read, exported and painted; for screenshots and tests.
    void settle();
    /// For a project in memory: as if it had been opened from `path` (may be empty).
    void start_project(Project project, const QString& path, std::optional<std::uint64_t> known_hash = {});
    /// What was read while the window was being made; it must outlive the window.
    void set_ahead(const Ahead* ahead) { ahead_ = ahead; }

  protected:
    bool event(QEvent* event) override;
    void closeEvent(QCloseEvent* event) override;
    void showEvent(QShowEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    void changeEvent(QEvent* event) override;

  private:
    // main_window.cpp
    QWidget* build_workspace();
    void connect_regions();
    // pages.cpp
    void prepare_pages();
    bool file_waiting() const; ///< an opened file that is neither taken in nor given up
    void show_workspace();
    void show_side(QWidget* panel);
    Canvas* canvas() const;
    // menus.cpp
    void build_menus();
    void fill_menus();
    /// What the first picture of the window does not need: the contents of menus, the cards
    /// of the tray and of the recipe. They follow at once.
    void wake();
    void part_menu(const QPoint& at, LineId under);
    // files.cpp
    void new_project();
    void open_file_dialog(bool project);
    void open_project(const QString& path);
    void open_drawing(const QString& path);
    void take_opened(std::shared_ptr<OpenedFile> file);
    bool save();
    bool save_as();
    bool save_to(const QString& path, bool over_changes);
    void tell_changed_on_disk();
    void settle_typing();
    bool may_leave(); ///< saved, thrown away on purpose, or nothing to lose
    void close_project();
    void recover(const LeftBehind& copy);
    void show_saved();
    void show_start();
    // lines.cpp
    void send_to_action(Action action);
    void fill(const std::vector<LineSetId>& sets);
    void add_step(const QString& key);
    void choose_step(StepId step);
    /// Leads from the rehearsal to what drew it: its line, or the step whose strokes belong to no single one.
    void show_stroke(const StrokeOf& of);
    void choose_same_colour();
    void choose_inside();
    void set_chosen_aside();
    void tell_order_change(const QString& plate);
    void show_finding(const Finding& finding);
    /// What a command did and what went with it.
    void tell_done(const Done& done);

    Session session_;
    std::string recovery_folder_;
    Recovery recovery_;
    Recent recent_;
    Opener opener_;
    QFutureWatcher<std::shared_ptr<Result<ExportResult>>> exporter_;
    QString export_folder_;
    View view_ = View::part;
    bool recovery_offered_ = false;

    QStackedWidget *pages_, *bench_, *side_;
    QWidget* workspace_;
    Later<StartPage> start_;
    Header* header_;
    Tray* tray_;
    Notice* notice_;
    PartView* part_view_;
    SheetsView* sheets_view_;
    RehearsalView* rehearsal_view_;
    QWidget* rehearsal_page_;
    OpeningView* opening_view_;
    RecipePanel* recipe_;
    Later<SheetPanel> sheet_panel_;
    Later<OrderPanel> order_panel_;
    Later<OpeningPanel> opening_panel_;
    Later<LanePanel> lane_panel_;
    Later<FindingsPanel> findings_panel_;
    Later<HelpPanel> help_panel_;
    Later<JobsPanel> jobs_panel_;
    Later<GlyphPanel> glyph_panel_;
    Board* board_;
    CommandPalette* palette_ = nullptr;
    const Ahead* ahead_ = nullptr;
    bool awake_ = false;
    QLabel* saved_;
    QTimer saved_timer_;
    QDateTime saved_at_;
};

} // namespace dotlane::app
