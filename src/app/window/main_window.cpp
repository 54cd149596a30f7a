#include "app/window/main_window.h"

#include <QCloseEvent>
#include <QElapsedTimer>
#include <QLabel>
#include <QMenuBar>
#include <QMimeData>
#include <QStackedWidget>
#include <QThread>
#include <QThreadPool>
#include <QUndoStack>

#include "app/widgets/notice.h"
#include "app/window/actions.h"
#include "app/window/exporter.h"
#include "app/window/line_actions.h"
#include "app/window/part_actions.h"
#include "app/window/project_files.h"
#include "app/window/start_page.h"
#include "present/words.h"

namespace dotlane::app {

MainWindow::MainWindow(Workshop& workshop, FileSystem& files, const std::string& state_folder,
                       std::chrono::milliseconds copy_delay, QWidget* parent)
    : QMainWindow(parent)
    , session_(workshop, files)
    , pages_(new QStackedWidget(this))
    , work_(new WorkPage(session_, pages_))
    , files_(new ProjectFiles(session_, work_->notice(), state_folder, copy_delay, this))
    , exporter_(new Exporter(session_, work_->notice(), this))
    , lines_(new LineActions(session_, this))
    , parts_(new PartActions(session_, files, this)) {
    setObjectName("dot-lane");
    setAcceptDrops(true);
    resize(1280, 800);
    pages_->setObjectName("ground");
    pages_->addWidget(work_);
    setCentralWidget(pages_);
    build_menu_bar();
    prepare_start();
    connect_files();
    connect_work();
    show_saved();
}

MainWindow::~MainWindow() {
    settle_typing();
    session_.history().disconnect(this); // it tells of its end, when the session is half gone
}

void MainWindow::connect_files() {
    connect(files_, &ProjectFiles::started, this, [this] {
        work_->show_view(WorkPage::View::part);
        show_saved();
        if (!start_.made()) files_->offer_recovery(); // the start page would have shown it
    });
    connect(files_, &ProjectFiles::closed, this, &MainWindow::show_start);
    connect(files_, &ProjectFiles::reading, this, [this] { pages_->setCurrentWidget(work_); });
    connect(files_, &ProjectFiles::asked, this, [this] { pages_->setCurrentWidget(work_); });
    connect(files_, &ProjectFiles::idle, this, [this] {
        if (!session_.is_open()) show_start();
    });
    connect(files_, &ProjectFiles::saved, this, &MainWindow::show_saved);
    connect(files_, &ProjectFiles::failed, this, &MainWindow::tell_error);
    connect(files_, &ProjectFiles::opened, this, [this](const std::shared_ptr<OpenedFile>& file) {
        work_->notice().clear();
        // A picture that says how large it is needs no questions: all its numbers can be changed afterwards.
        if (file->picture && !file->picture->asks_scale) {
            work_->forget_opened(); // it takes the place of the one at hand
            files_->open_empty({});
            files_->offer_recovery();
            return parts_->make_from(file->picture->picture, QString::fromStdString(file->picture->name));
        }
        files_->open_empty(QString::fromStdString(file->picture ? file->picture->name : file->opened.name));
        files_->offer_recovery();
        work_->show_opened(file);
    });
    connect(exporter_, &Exporter::failed, this, &MainWindow::tell_error);
    connect(exporter_, &Exporter::blocked, this, [this] { work_->show_findings(true); });
    connect(&session_, &Session::failed, this, &MainWindow::tell_error);
    connect(&session_, &Session::fileChanged, this, &MainWindow::show_saved);
    connect(&session_, &Session::projectChanged, this, &MainWindow::show_saved);
}

void MainWindow::connect_work() {
    const auto make = [this](const QString& kind) {
        files_->open_empty({});
        files_->offer_recovery();
        parts_->make(kind);
    };
    connect(work_, &WorkPage::shown, this, [this] { pages_->setCurrentWidget(work_); });
    connect(work_, &WorkPage::export_wanted, this, [this] { exporter_->export_to({}, false); });
    connect(work_, &WorkPage::override_accepted, this, [this] { exporter_->export_again(true); });
    connect(work_, &WorkPage::make_wanted, this, make);
    connect(work_, &WorkPage::samples_wanted, this, [this] {
        files_->open_empty({});
        files_->offer_recovery();
        parts_->add_samples();
        work_->show_view(WorkPage::View::sheets);
    });
    connect(work_, &WorkPage::drawing_wanted, files_, &ProjectFiles::ask_to_open_drawing);
    connect(work_, &WorkPage::layers_wanted, parts_, &PartActions::add_layers);
    connect(work_, &WorkPage::step_wanted, lines_, &LineActions::add_step);
    connect(work_, &WorkPage::fill_wanted, lines_, &LineActions::fill);
    connect(work_, &WorkPage::lane_letter, lines_, &LineActions::send_to_action);
    connect(work_, &WorkPage::menu_wanted, this,
            [this](const QPoint& at, LineId under) { lines_->offer(*actions_, at, under); });
    connect(work_, &WorkPage::picture_taken, this, [this](const OpenedPicture& opened) {
        parts_->make_from(opened.picture, QString::fromStdString(opened.name));
    });
    connect(work_, &WorkPage::as_picture_wanted, &files_->opener(), &Opener::open_as_picture);
    connect(work_, &WorkPage::emptied, files_, &ProjectFiles::close_project);
    connect(lines_, &LineActions::step_made, work_, &WorkPage::choose_step);
    connect(parts_, &PartActions::done, work_, &WorkPage::tell_done);
    connect(parts_, &PartActions::made, this, [this] { work_->show_view(WorkPage::View::part); });
}

void MainWindow::prepare_start() {
    start_.by([this] {
        auto* page = new StartPage(session_.workshop(), pages_);
        connect(page, &StartPage::made, work_, &WorkPage::make_wanted);
        connect(page, &StartPage::drawing_wanted, files_, &ProjectFiles::ask_to_open_drawing);
        connect(page, &StartPage::project_wanted, files_, &ProjectFiles::ask_to_open_project);
        connect(page, &StartPage::samples_wanted, work_, &WorkPage::samples_wanted);
        connect(page, &StartPage::demo_wanted, files_, &ProjectFiles::open_demo);
        connect(page, &StartPage::recent_wanted, files_, &ProjectFiles::open_path);
        connect(page, &StartPage::recovery_wanted, files_, &ProjectFiles::recover);
        connect(page, &StartPage::recovery_refused, this, [this](const LeftBehind& copy) {
            files_->forget(copy);
            show_start();
        });
        pages_->addWidget(page);
        return page;
    });
}

/// The names of the menus only: what is in them comes with `wake`.
void MainWindow::build_menu_bar() {
    for (int i = 0; i < menu_count; ++i)
        menuBar()->addAction(title(static_cast<MenuName>(i)));
    saved_ = new QLabel(menuBar());
    saved_->setProperty("role", "quiet");
    saved_->setContentsMargins(0, 0, 16, 0);
    saved_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    menuBar()->setCornerWidget(saved_);
    saved_timer_.setInterval(30000);
    connect(&saved_timer_, &QTimer::timeout, this, &MainWindow::show_saved);
    saved_timer_.start();
}

void MainWindow::tell_error(const Error& error) {
    work_->notice().tell(Notice::Kind::error, present::words(error));
    if (!session_.is_open()) start_->show_error(present::words(error));
}

void MainWindow::show_start() {
    start_->show_lists(files_->recent(), files_->left_behind());
    pages_->setCurrentWidget(start_);
}

void MainWindow::show_jobs() {
    if (session_.is_open())
        work_->show_jobs();
    else
        show_start();
}

void MainWindow::show_saved() {
    setWindowTitle(session_.is_open()
                       ? tr("%1[*] - Dot Lane").arg(QString::fromStdString(session_.project().name))
                       : tr("Dot Lane"));
    setWindowModified(session_.modified());
    const QString text = files_->state_words();
    saved_->setText(text);
    // A menu bar lays its corner out only when the corner changes.
    saved_->setFixedSize(text.isEmpty() ? 0 : saved_->fontMetrics().horizontalAdvance(text) + 26, 22);
    menuBar()->setCornerWidget(saved_);
    saved_->show();
}

QString MainWindow::notice_text() const {
    const Notice& notice = work_->notice();
    return notice.isVisible() ? notice.text() : QString();
}

bool MainWindow::event(QEvent* event) {
    const bool done = QMainWindow::event(event);
    if (!awake_ && event->type() == QEvent::UpdateRequest) {
        // A part that is nearly there is painted before all that follows; one that takes long is not waited
        // for.
        constexpr int nearly_ms = 150;
        const bool coming = session_.is_open() && !session_.project().parts.empty() && !session_.drawn();
        QTimer::singleShot(coming ? nearly_ms : 0, this, &MainWindow::wake);
    }
    return done;
}

void MainWindow::wake() {
    if (std::exchange(awake_, true)) return;
    session_.set_painted();
    fill_menus();
    work_->wake();
}

void MainWindow::settle() {
    wake();
    QElapsedTimer timer;
    timer.start();
    const auto busy = [this] { return session_.deriving() || files_->busy() || exporter_->busy(); };
    do {
        QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
        QThread::msleep(1); // the work is done by other threads, which want the processor
    } while ((busy() || timer.elapsed() < 60) && timer.elapsed() < 60000);
    work_->finish_painting();
    QThreadPool::globalInstance()->waitForDone(); // small pictures
    // What a round of events asks for comes in the next, layouts from a card up to its window: on a machine
    // that stood still the rounds above were too few.
    constexpr int rounds = 12;
    for (int round = 0; round < rounds; ++round)
        QCoreApplication::processEvents();
}

void MainWindow::settle_plan() {
    do
        settle();
    while (session_.improving());
}

/// What is being typed is taken now, while there is a project to take it.
void MainWindow::settle_typing() {
    if (QWidget* field = focusWidget()) field->clearFocus();
}

void MainWindow::closeEvent(QCloseEvent* event) {
    settle_typing();
    if (!files_->may_leave()) return event->ignore();
    files_->left();
    event->accept();
}

void MainWindow::showEvent(QShowEvent* event) {
    // Unless something was opened before the window came up.
    if (!session_.is_open() && !files_->busy() && !start_.made()) show_start();
    QMainWindow::showEvent(event);
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls() && event->mimeData()->urls().size() == 1) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    const QString path = event->mimeData()->urls().value(0).toLocalFile();
    if (!path.isEmpty()) files_->open_path(path);
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
