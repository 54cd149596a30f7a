// Header, tray, bench, side panel and board of an open project, and the ways from one to another. What is
// done to the project or its file is asked for by signals.
#pragma once

#include <QWidget>

#include "app/commands/opener.h"
#include "app/commands/session.h"
#include "app/widgets/later.h"

class QGridLayout;
class QStackedWidget;

namespace dotlane::app {

class Actions;
class Board;
class Canvas;
class FindingsPanel;
class GlyphPanel;
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
class Tray;
class WishesPanel;

class WorkPage : public QWidget {
    Q_OBJECT

  public:
    enum class View { part, sheets, rehearsal };

    explicit WorkPage(Session& session, QWidget* parent = nullptr);

    void show_view(View view);
    View view() const { return view_; }
    void show_lanes(LaneId lane);
    void show_findings(bool ask_override = false);
    void show_why();
    /// What runs, and when.
    void show_wishes();
    void show_help(const Actions& actions);
    void show_jobs();
    void show_steps();
    void show_glyphs();
    void show_finding(const Finding& finding);
    /// A file that was read and waits for its size and lanes.
    void show_opened(std::shared_ptr<OpenedFile> file);
    /// Whether one is neither taken in nor given up.
    bool file_waiting() const;
    /// Another takes its place.
    void forget_opened();
    void choose_step(StepId step);
    /// Says what a command did and what went with it.
    void tell_done(const Done& done);

    Notice& notice() { return *notice_; }
    Canvas* canvas() const;
    PartView& part_view() { return *part_view_; }
    RehearsalView& rehearsal() { return *rehearsal_view_; }
    SheetPanel& sheet_panel() { return *sheet_panel_; }
    /// What the first picture of the window does not need: the cards of the tray and of the recipe.
    void wake();
    void finish_painting();

  Q_SIGNALS:
    void shown(); ///< a view or a panel: the work page is to be seen
    void export_wanted();
    void override_accepted();
    void samples_wanted();
    void make_wanted(const QString& kind); ///< a new part of this kind of source
    void drawing_wanted();
    void layers_wanted(int count, dotlane::Length reveal);
    void step_wanted(const QString& kind);
    void fill_wanted(std::vector<dotlane::LineSetId> sets);
    void lane_letter(dotlane::Action action);
    void menu_wanted(const QPoint& global, dotlane::LineId under);
    void picture_taken(const dotlane::OpenedPicture& opened);
    void as_picture_wanted();
    void emptied(); ///< a file was given up, and nothing else is in the project

  private:
    void arrange_regions();
    void connect_regions();
    void prepare_panels();
    void prepare_opening();
    void show_side(QWidget* panel);
    void back() { show_view(view_); }
    /// Leads from the rehearsal to what drew it: its line, or the step whose strokes belong to no single one.
    void show_stroke(const StrokeOf& of);
    void tell_order_change(const QString& plate);

    Session& session_;
    View view_ = View::part;
    QStackedWidget *bench_, *side_;
    Header* header_;
    Tray* tray_;
    Notice* notice_;
    PartView* part_view_;
    SheetsView* sheets_view_;
    RehearsalView* rehearsal_view_;
    QWidget* rehearsal_page_;
    OpeningView* opening_view_;
    RecipePanel* recipe_;
    Board* board_;
    Later<SheetPanel> sheet_panel_;
    Later<OrderPanel> order_panel_;
    Later<WishesPanel> wishes_panel_;
    Later<OpeningPanel> opening_panel_;
    Later<LanePanel> lane_panel_;
    Later<FindingsPanel> findings_panel_;
    Later<HelpPanel> help_panel_;
    Later<JobsPanel> jobs_panel_;
    Later<GlyphPanel> glyph_panel_;
};

} // namespace dotlane::app
