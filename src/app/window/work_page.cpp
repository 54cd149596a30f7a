#include "app/window/work_page.h"

#include <QSplitter>
#include <QStackedWidget>

#include "app/bench/part_view.h"
#include "app/bench/sheets_view.h"
#include "app/bench/transport_bar.h"
#include "app/board/board.h"
#include "app/lanes/lane_panel.h"
#include "app/opening/opening_panel.h"
#include "app/recipe/recipe_panel.h"
#include "app/run/order_panel.h"
#include "app/sheets/sheet_panel.h"
#include "app/tray/tray.h"
#include "app/widgets/notice.h"
#include "app/window/header.h"

namespace dotlane::app {

WorkPage::WorkPage(Session& session, QWidget* parent)
    : QWidget(parent)
    , session_(session)
    , bench_(new QStackedWidget(this))
    , side_(new QStackedWidget(this))
    , header_(new Header(session, this))
    , tray_(new Tray(session, this))
    , notice_(new Notice(this))
    , part_view_(new PartView(session, this))
    , sheets_view_(new SheetsView(session, this))
    , rehearsal_view_(new RehearsalView(session, this))
    , rehearsal_page_(new QFrame(this))
    , opening_view_(new OpeningView(this))
    , recipe_(new RecipePanel(session, this))
    , board_(new Board(session, this)) {
    arrange_regions();
    prepare_panels();
    prepare_opening();
    connect_regions();
}

void WorkPage::arrange_regions() {
    notice_->setObjectName("notice");
    rehearsal_page_->setObjectName("panel");
    auto* rehearsal_rows = new QVBoxLayout(rehearsal_page_);
    rehearsal_rows->setContentsMargins(0, 0, 0, 0);
    rehearsal_rows->setSpacing(0);
    rehearsal_rows->addWidget(rehearsal_view_, 1);
    for (QWidget* w : {static_cast<QWidget*>(part_view_), static_cast<QWidget*>(sheets_view_),
                       rehearsal_page_, static_cast<QWidget*>(opening_view_)})
        bench_->addWidget(w);
    side_->addWidget(recipe_);

    auto* middle = new QWidget(this);
    // The notice lies on the bench: it comes and goes without moving what is drawn.
    auto* middle_rows = new QGridLayout(middle);
    middle_rows->setContentsMargins(0, 0, 0, 0);
    middle_rows->setSpacing(6);
    auto* above = new QVBoxLayout;
    above->setContentsMargins(36, 34, 16, 0); // clear of the rulers
    above->addWidget(notice_);
    above->addStretch(1);
    middle_rows->addWidget(bench_, 0, 0);
    middle_rows->addLayout(above, 0, 0);
    notice_->raise();

    auto* across = new QSplitter(Qt::Horizontal, this);
    across->setHandleWidth(8);
    across->addWidget(tray_);
    across->addWidget(middle);
    across->addWidget(side_);
    across->setStretchFactor(1, 1);
    across->setSizes({208, 750, 306});
    across->setChildrenCollapsible(false);
    tray_->setMinimumWidth(172);
    side_->setMinimumWidth(284);
    auto* down = new QSplitter(Qt::Vertical, this);
    down->setHandleWidth(8);
    down->addWidget(across);
    down->addWidget(board_);
    down->setStretchFactor(0, 1);
    down->setSizes({510, 204});
    down->setChildrenCollapsible(false);

    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(8, 0, 8, 8);
    rows->setSpacing(2);
    rows->addWidget(header_);
    rows->addWidget(down, 1);
}

void WorkPage::show_side(QWidget* panel) {
    side_->setCurrentWidget(panel);
    Q_EMIT shown();
}

void WorkPage::show_view(View view) {
    if (file_waiting()) { // the file at hand is settled first
        return notice_->tell(Notice::Kind::news, tr("A file is being opened: take it in or cancel first."));
    }
    view_ = view;
    header_->stations()->set_current(static_cast<int>(view));
    if (view != View::rehearsal) rehearsal_view_->pause();
    switch (view) {
    case View::part:
        bench_->setCurrentWidget(part_view_);
        show_side(recipe_);
        break;
    case View::sheets:
        bench_->setCurrentWidget(sheets_view_);
        show_side(sheet_panel_);
        break;
    case View::rehearsal:
        bench_->setCurrentWidget(rehearsal_page_);
        show_side(order_panel_);
        rehearsal_view_->seek(rehearsal_view_->time());
        break;
    }
    board_->map()->set_now(view == View::rehearsal ? std::optional(rehearsal_view_->time()) : std::nullopt);
    canvas()->setFocus();
}

Canvas* WorkPage::canvas() const {
    if (bench_->currentWidget() == opening_view_) return opening_view_;
    if (view_ == View::sheets) return sheets_view_;
    if (view_ == View::rehearsal) return rehearsal_view_;
    return part_view_;
}

void WorkPage::show_opened(std::shared_ptr<OpenedFile> file) {
    opening_panel_->show_file(std::move(file));
    bench_->setCurrentWidget(opening_view_);
    show_side(opening_panel_);
}

bool WorkPage::file_waiting() const {
    return opening_panel_.made() && opening_panel_.made()->waiting();
}

void WorkPage::forget_opened() {
    if (file_waiting()) opening_panel_->forget();
}

void WorkPage::wake() {
    rehearsal_page_->layout()->addWidget(new TransportBar(*rehearsal_view_, rehearsal_page_));
    tray_->wake();
    recipe_->wake();
}

void WorkPage::finish_painting() {
    if (bench_->currentWidget() == rehearsal_page_)
        rehearsal_view_->finish_painting();
    else
        canvas()->finish_painting();
}

} // namespace dotlane::app
