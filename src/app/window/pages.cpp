// The pages of the window that are made when they are first shown.
#include <QStackedWidget>

#include "app/bench/rehearsal_view.h"
#include "app/bench/sheets_view.h"
#include "app/jobs/jobs_panel.h"
#include "app/lanes/lane_panel.h"
#include "app/lettering/glyph_panel.h"
#include "app/opening/opening_panel.h"
#include "app/run/order_panel.h"
#include "app/sheets/sheet_panel.h"
#include "app/window/findings_panel.h"
#include "app/window/help_panel.h"
#include "app/window/main_window.h"
#include "app/window/start_page.h"

namespace dotlane::app {

void MainWindow::prepare_pages() {
    const auto back = [this] { show_view(view_); };
    const auto aside = [this](auto* panel) {
        side_->addWidget(panel);
        return panel;
    };
    start_.by([this] {
        auto* page = new StartPage(session_.workshop(), pages_);
        connect(page, &StartPage::made, this, &MainWindow::make);
        connect(page, &StartPage::drawing_wanted, this, [this] { open_file_dialog(false); });
        connect(page, &StartPage::project_wanted, this, [this] { open_file_dialog(true); });
        connect(page, &StartPage::demo_wanted, this, &MainWindow::open_demo);
        connect(page, &StartPage::recent_wanted, this, &MainWindow::open_project);
        connect(page, &StartPage::recovery_wanted, this, &MainWindow::recover);
        connect(page, &StartPage::recovery_refused, this, [this](const LeftBehind& copy) {
            Recovery::forget(session_.files(), copy);
            show_start();
        });
        pages_->addWidget(page);
        return page;
    });
    sheet_panel_.by([this, aside] {
        auto* panel = aside(new SheetPanel(session_, side_));
        connect(panel, &SheetPanel::place_wanted, this, [this](const PlaceBox& b) {
            sheets_view_->show_area({b.x0, b.y0, b.x1, b.y1});
        });
        return panel;
    });
    order_panel_.by([this, aside] {
        auto* panel = aside(new OrderPanel(session_, side_));
        connect(panel, &OrderPanel::sought, this, [this](Duration t) {
            show_view(View::rehearsal);
            rehearsal_view_->seek(t);
        });
        return panel;
    });
    opening_panel_.by([this, aside] {
        auto* panel = aside(new OpeningPanel(session_, side_));
        connect(panel, &OpeningPanel::scaled, this, [this](const Opened& opened, double factor) {
            opening_view_->show_drawing(opened, factor, session_.project().unit);
        });
        connect(panel, &OpeningPanel::picture_scaled, this,
                [this](const OpenedPicture& opened, Length width) {
                    opening_view_->show_picture(opened, width, session_.project().unit);
                });
        connect(panel, &OpeningPanel::picture_taken, this, [this](const OpenedPicture& opened) {
            make_from(opened.picture, QString::fromStdString(opened.name));
        });
        connect(panel, &OpeningPanel::as_picture_wanted, &opener_, &Opener::open_as_picture);
        connect(panel, &OpeningPanel::taken, this, [this] { show_view(View::part); });
        connect(panel, &OpeningPanel::given_up, this, [this] {
            if (session_.project().parts.empty() && session_.path().isEmpty() && !session_.modified())
                close_project();
            else
                show_view(View::part);
        });
        return panel;
    });
    lane_panel_.by([this, aside, back] {
        auto* panel = aside(new LanePanel(session_, side_));
        connect(panel, &LanePanel::done, this, back);
        return panel;
    });
    findings_panel_.by([this, aside, back] {
        auto* panel = aside(new FindingsPanel(session_, side_));
        connect(panel, &FindingsPanel::done, this, back);
        connect(panel, &FindingsPanel::overridden, this, [this] { export_to(export_folder_, true); });
        connect(panel, &FindingsPanel::finding_chosen, this, &MainWindow::show_finding);
        return panel;
    });
    help_panel_.by([this, aside, back] {
        auto* panel = aside(new HelpPanel(side_));
        connect(panel, &HelpPanel::done, this, back);
        return panel;
    });
    jobs_panel_.by([this, aside, back] {
        auto* panel = aside(new JobsPanel(session_.workshop(), side_));
        connect(panel, &JobsPanel::done, this, back);
        connect(panel, &JobsPanel::made, this, &MainWindow::make);
        connect(panel, &JobsPanel::drawing_wanted, this, [this, back] {
            back();
            open_file_dialog(false);
        });
        return panel;
    });
    glyph_panel_.by([this, aside, back] {
        auto* panel = aside(new GlyphPanel(session_, side_));
        connect(panel, &GlyphPanel::done, this, back);
        return panel;
    });
}

void MainWindow::show_glyphs() {
    if (file_waiting()) return show_view(view_); // which says why not
    show_view(View::part);
    show_side(glyph_panel_);
}

bool MainWindow::file_waiting() const {
    return opening_panel_.made() && opening_panel_.made()->waiting();
}

void MainWindow::showEvent(QShowEvent* event) {
    // Unless something was opened before the window came up.
    if (!session_.is_open() && !opener_.busy() && !start_.made()) show_start();
    QMainWindow::showEvent(event);
}

} // namespace dotlane::app
