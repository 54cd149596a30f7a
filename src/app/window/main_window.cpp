#include "app/window/main_window.h"

#include <QDesktopServices>
#include <QDragEnterEvent>
#include <QMimeData>
#include <QSplitter>
#include <QStackedWidget>
#include <QThreadPool>
#include <QTimer>

#include "app/bench/part_view.h"
#include "app/bench/sheets_view.h"
#include "app/bench/transport_bar.h"
#include "app/board/board.h"
#include "app/jobs/jobs_panel.h"
#include "app/lanes/lane_panel.h"
#include "app/opening/opening_panel.h"
#include "app/recipe/recipe_panel.h"
#include "app/run/order_panel.h"
#include "app/sheets/sheet_panel.h"
#include "app/tray/tray.h"
#include "app/widgets/notice.h"
#include "app/window/findings_panel.h"
#include "app/window/header.h"
#include "app/window/help_panel.h"
#include "app/window/palette.h"
#include "app/window/start_page.h"
#include "present/words.h"

namespace dotlane::app {

MainWindow::MainWindow(Workshop& workshop, FileSystem& files, const std::string& state_folder,
                       std::chrono::milliseconds copy_delay, QWidget* parent)
    : QMainWindow(parent)
    , session_(workshop, files)
    , recovery_folder_(state_folder + "/recovery")
    , recovery_(session_, files, recovery_folder_, copy_delay)
    , recent_(files, state_folder)
    , opener_(files, workshop)
    , pages_(new QStackedWidget(this)) {
    setObjectName("dot-lane");
    setAcceptDrops(true);
    resize(1280, 800);
    pages_->setObjectName("ground");
    workspace_ = build_workspace();
    pages_->addWidget(workspace_);
    setCentralWidget(pages_);
    build_menus();
    prepare_pages();
    connect_regions();
    show_saved();
}

MainWindow::~MainWindow() {
    settle_typing();
    exporter_.waitForFinished();
}

QWidget* MainWindow::build_workspace() {
    auto* page = new QWidget(pages_);
    header_ = new Header(session_, page);
    tray_ = new Tray(session_, page);
    notice_ = new Notice(page);
    notice_->setObjectName("notice");
    part_view_ = new PartView(session_, page);
    sheets_view_ = new SheetsView(session_, page);
    rehearsal_view_ = new RehearsalView(session_, page);
    opening_view_ = new OpeningView(page);
    recipe_ = new RecipePanel(session_, page);
    board_ = new Board(session_, page);

    rehearsal_page_ = new QFrame(page);
    rehearsal_page_->setObjectName("panel");
    auto* rehearsal_rows = new QVBoxLayout(rehearsal_page_);
    rehearsal_rows->setContentsMargins(0, 0, 0, 0);
    rehearsal_rows->setSpacing(0);
    rehearsal_rows->addWidget(rehearsal_view_, 1);

    bench_ = new QStackedWidget(page);
    for (QWidget* w : {static_cast<QWidget*>(part_view_), static_cast<QWidget*>(sheets_view_),
                       rehearsal_page_, static_cast<QWidget*>(opening_view_)})
        bench_->addWidget(w);
    side_ = new QStackedWidget(page);
    side_->addWidget(recipe_);

    auto* middle = new QWidget(page);
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

    auto* across = new QSplitter(Qt::Horizontal, page);
    across->setHandleWidth(8);
    across->addWidget(tray_);
    across->addWidget(middle);
    across->addWidget(side_);
    across->setStretchFactor(1, 1);
    across->setSizes({208, 750, 306});
    across->setChildrenCollapsible(false);
    tray_->setMinimumWidth(172);
    side_->setMinimumWidth(284);
    auto* down = new QSplitter(Qt::Vertical, page);
    down->setHandleWidth(8);
    down->addWidget(across);
    down->addWidget(board_);
    down->setStretchFactor(0, 1);
    down->setSizes({510, 204});
    down->setChildrenCollapsible(false);

    auto* rows = new QVBoxLayout(page);
    rows->setContentsMargins(8, 0, 8, 8);
    rows->setSpacing(2);
    rows->addWidget(header_);
    rows->addWidget(down, 1);
    return page;
}

void MainWindow::connect_regions() {
    connect(header_->stations(), &StationBar::chosen, this,
            [this](int i) { show_view(static_cast<View>(i)); });
    connect(header_, &Header::findings_wanted, this, [this] {
        if (side_->currentWidget() == findings_panel_.made())
            show_view(view_);
        else
            show_findings();
    });
    connect(header_, &Header::export_wanted, this, [this] { export_to({}, false); });
    connect(tray_, &Tray::new_part_wanted, this, &MainWindow::show_jobs);
    connect(recipe_, &RecipePanel::lane_opened, this, &MainWindow::show_lanes);
    connect(recipe_, &RecipePanel::step_hovered, part_view_, &PartView::light);
    connect(recipe_, &RecipePanel::glyphs_wanted, this, &MainWindow::show_glyphs);
    connect(recipe_, &RecipePanel::layers_wanted, this, &MainWindow::add_layers);
    connect(recipe_, &RecipePanel::fill_wanted, this, &MainWindow::fill);
    connect(recipe_, &RecipePanel::step_wanted, this, &MainWindow::add_step);
    connect(recipe_, &RecipePanel::place_wanted, this, [this](const PlaceBox& b) {
        show_view(View::part);
        part_view_->show_area({b.x0, b.y0, b.x1, b.y1});
    });
    connect(part_view_, &PartView::lane_letter, this, &MainWindow::send_to_action);
    connect(part_view_, &PartView::menu_wanted, this, &MainWindow::part_menu);
    connect(board_->map(), &BoardMap::sought, this, [this](Duration t) {
        show_view(View::rehearsal);
        rehearsal_view_->seek(t);
    });
    connect(board_->map(), &BoardMap::lane_pressed, this, &MainWindow::show_lanes);
    connect(board_->map(), &BoardMap::order_changed, this, &MainWindow::tell_order_change);
    connect(board_, &Board::why_wanted, this, &MainWindow::show_why);
    connect(rehearsal_view_, &RehearsalView::stroke_pressed, this, &MainWindow::show_stroke);
    connect(rehearsal_view_, &RehearsalView::moved, this, [this] {
        const bool shown = view_ == View::rehearsal;
        board_->map()->set_now(shown ? std::optional(rehearsal_view_->time()) : std::nullopt);
        if (shown) order_panel_->set_now(rehearsal_view_->time());
    });

    connect(&opener_, &Opener::started, this, [this](const QString& name) {
        notice_->work(tr("Opening %1").arg(name), 0, [this] { opener_.cancel(); });
        show_workspace();
    });
    connect(&opener_, &Opener::progressed, this, [this](double f) {
        if (opener_.busy()) notice_->set_progress(f);
    });
    connect(&opener_, &Opener::finished, this, [this] {
        if (notice_->working()) notice_->clear();
        if (!session_.is_open()) show_start();
    });
    const auto tell_error = [this](const Error& error) {
        notice_->tell(Notice::Kind::error, present::words(error));
        if (!session_.is_open()) start_->show_error(present::words(error));
    };
    connect(&opener_, &Opener::failed, this, tell_error);
    connect(&session_, &Session::failed, this, tell_error);
    connect(&opener_, &Opener::opened, this, &MainWindow::take_opened);
    connect(&opener_, &Opener::large, this, [this](const Error& error, const QString& path) {
        if (!session_.is_open()) show_workspace(); // the question stands above the bench
        notice_->tell(Notice::Kind::error, present::words(error),
                      {{tr("Open it all the same"), [this, path] { opener_.open(path, true); }}});
    });
    connect(&exporter_, &QFutureWatcherBase::finished, this, [this, tell_error] {
        const auto done = exporter_.result();
        if (!*done) return tell_error(done->error());
        notice_->tell(Notice::Kind::news,
                      tr("%n file(s) exported to %1.", nullptr, static_cast<int>((*done)->files.size()))
                          .arg(export_folder_),
                      {{tr("Open the folder"), [folder = export_folder_] {
                            QDesktopServices::openUrl(QUrl::fromLocalFile(folder));
                        }}});
    });
    connect(&recovery_, &Recovery::failed, this, tell_error);
    connect(&session_.file(), &DiskFile::changed, this, &MainWindow::tell_changed_on_disk);
    connect(&session_, &Session::fileChanged, this, &MainWindow::show_saved);
    connect(&session_, &Session::projectChanged, this, &MainWindow::show_saved);
}

void MainWindow::show_workspace() {
    pages_->setCurrentWidget(workspace_);
}

void MainWindow::show_side(QWidget* panel) {
    show_workspace();
    side_->setCurrentWidget(panel);
}

void MainWindow::show_view(View view) {
    if (file_waiting()) { // the file at hand is settled first
        return notice_->tell(Notice::Kind::news, tr("A file is being opened: take it in or cancel first."));
    }
    view_ = view;
    show_workspace();
    header_->stations()->set_current(static_cast<int>(view));
    if (view != View::rehearsal) rehearsal_view_->pause();
    switch (view) {
    case View::part:
        bench_->setCurrentWidget(part_view_);
        side_->setCurrentWidget(recipe_);
        break;
    case View::sheets:
        bench_->setCurrentWidget(sheets_view_);
        side_->setCurrentWidget(sheet_panel_);
        break;
    case View::rehearsal:
        bench_->setCurrentWidget(rehearsal_page_);
        side_->setCurrentWidget(order_panel_);
        rehearsal_view_->seek(rehearsal_view_->time());
        break;
    }
    board_->map()->set_now(view == View::rehearsal ? std::optional(rehearsal_view_->time()) : std::nullopt);
    canvas()->setFocus();
}

Canvas* MainWindow::canvas() const {
    if (bench_->currentWidget() == opening_view_) return opening_view_;
    if (view_ == View::sheets) return sheets_view_;
    if (view_ == View::rehearsal) return rehearsal_view_;
    return part_view_;
}

void MainWindow::show_lanes(LaneId lane) {
    if (file_waiting()) return;
    lane_panel_->show_lane(lane);
    show_side(lane_panel_);
}

void MainWindow::show_findings() {
    findings_panel_->ask_override(false);
    show_side(findings_panel_);
}

void MainWindow::show_why() {
    show_side(order_panel_);
    order_panel_->show_reasons();
}

QString MainWindow::notice_text() const {
    return notice_->isVisible() ? notice_->text() : QString();
}

void MainWindow::find_command() {
    palette_->open();
}

bool MainWindow::event(QEvent* event) {
    const bool done = QMainWindow::event(event);
    if (!awake_ && event->type() == QEvent::UpdateRequest) QTimer::singleShot(0, this, &MainWindow::wake);
    return done;
}

void MainWindow::wake() {
    if (std::exchange(awake_, true)) return;
    session_.set_painted();
    fill_menus();
    palette_ = new CommandPalette(menuBar(), this);
    rehearsal_page_->layout()->addWidget(new TransportBar(*rehearsal_view_, rehearsal_page_));
    tray_->wake();
    recipe_->wake();
}

void MainWindow::settle() {
    wake();
    QElapsedTimer timer;
    timer.start();
    const auto busy = [this] { return session_.deriving() || opener_.busy() || exporter_.isRunning(); };
    do
        QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
    while ((busy() || timer.elapsed() < 60) && timer.elapsed() < 60000);
    if (bench_->currentWidget() == rehearsal_page_)
        rehearsal_view_->finish_painting();
    else
        canvas()->finish_painting();
    QThreadPool::globalInstance()->waitForDone(); // thumbnails
    QCoreApplication::processEvents();
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls() && event->mimeData()->urls().size() == 1) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    const QString path = event->mimeData()->urls().value(0).toLocalFile();
    if (!path.isEmpty()) open_path(path);
}

void MainWindow::changeEvent(QEvent* event) {
    // The theme is a set of colours that custom-painted widgets read while painting.
    if (event->type() == QEvent::StyleChange || event->type() == QEvent::PaletteChange)
        for (QWidget* w : findChildren<QWidget*>())
            w->update();
    // Another window may have ended meanwhile and left work behind.
    if (event->type() == QEvent::ActivationChange && awake_ && isActiveWindow() && start_.made() &&
        pages_->currentWidget() == start_)
        show_start();
    QMainWindow::changeEvent(event);
}

} // namespace dotlane::app
