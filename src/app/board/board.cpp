#include "app/board/board.h"

#include <QHBoxLayout>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <QTimer>
#include <QWheelEvent>
#include <cmath>

#include "app/widgets/card.h"
#include "core/commands/project.h"
#include "present/words.h"

namespace dotlane::app {

BoardMap::BoardMap(Session& session, QWidget* parent)
    : QWidget(parent)
    , session_(session)
    , menu_(session) {
    connect(&menu_, &BlockMenu::told, this, &BoardMap::told);
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Lane board: passes and stops over time"));
    connect(&session_, &Session::derivedChanged, this, [this] {
        hovered_.reset();
        dragged_.reset();
        pressed_.reset();
        update();
    });
}

void BoardMap::set_now(std::optional<Duration> now) {
    now_ = now;
    if (now && view_.zoom > 1 && session_.derived() && !scrubbing_)
        set_view(present::BoardLayout(scene(), area()).showing(view_, *now));
    update();
}

void BoardMap::set_view(const present::BoardView& view) {
    if (view == view_) return;
    view_ = view;
    Q_EMIT zoomed(view_.zoom > 1);
    update();
}

void BoardMap::zoom(double factor, double x_px) {
    if (session_.derived()) set_view(present::BoardLayout(scene(), area()).zoomed(view_, factor, x_px));
}

void BoardMap::wheelEvent(QWheelEvent* event) {
    const auto derived = session_.derived();
    if (!derived) return;
    const present::BoardLayout layout(scene(), area());
    const QPoint turn = event->angleDelta();
    const double notches = turn.y() / 120.0;
    if (event->position().x() < layout.plot.left())
        set_view(layout.scrolled(view_, 0, -notches * layout.pitch));
    else if (event->modifiers() & Qt::ShiftModifier || turn.x() != 0)
        set_view(layout.scrolled(view_, -(turn.x() != 0 ? turn.x() / 120.0 : notches) * 60, 0));
    else
        zoom(std::pow(1.25, notches), event->position().x());
    event->accept();
}

QRectF BoardMap::area() const {
    return QRectF(rect()).adjusted(14, 0, -14, -2);
}

present::BoardScene BoardMap::scene() const {
    return {session_.derived().get(), &session_.catalog(), now_, hovered_, dragged_, {}, true, view_};
}

const Plan* BoardMap::plan() const {
    const auto derived = session_.derived();
    return derived && derived->plan ? &*derived->plan : nullptr;
}

void BoardMap::paintEvent(QPaintEvent*) {
    if (!session_.derived()) return;
    QPainter painter(this);
    const auto derived = session_.derived(); // kept alive while it is painted
    present::paint_board(painter, scene(), area());
}

void BoardMap::mousePressEvent(QMouseEvent* event) {
    if (!session_.derived()) return;
    const auto derived = session_.derived();
    const present::BoardLayout layout(scene(), area());
    pressed_at_ = event->position();
    panning_ = event->button() == Qt::MiddleButton;
    if (event->button() != Qt::LeftButton) return;
    if (layout.overview.adjusted(0, -4, 0, 4).contains(event->position())) {
        in_overview_ = true;
        const double middle = layout.x(layout.overview_time(event->position().x()));
        return set_view(layout.scrolled(view_, middle - layout.plot.center().x(), 0));
    }
    if (const auto lane = layout.head_hit(event->position())) {
        Q_EMIT lane_pressed(*lane);
        return;
    }
    if (!plan()) return;
    pressed_ = layout.hit(*plan(), event->position());
    if (!pressed_ && layout.plot.adjusted(-4, -30, 4, 18).contains(event->position())) {
        scrubbing_ = true;
        Q_EMIT sought(layout.time(event->position().x()));
    }
}

void BoardMap::mouseMoveEvent(QMouseEvent* event) {
    const auto derived = session_.derived();
    if (!plan()) return;
    const present::BoardLayout layout(scene(), area());
    if (in_overview_) {
        const double middle = layout.x(layout.overview_time(event->position().x()));
        return set_view(layout.scrolled(view_, middle - layout.plot.center().x(), 0));
    }
    if (panning_) {
        const QPointF by = pressed_at_ - event->position();
        pressed_at_ = event->position();
        return set_view(layout.scrolled(view_, by.x(), by.y()));
    }
    if (scrubbing_) {
        Q_EMIT sought(layout.time(event->position().x()));
        return;
    }
    const bool on_pass = pressed_ && std::holds_alternative<PassMove>(plan()->program.moves[*pressed_]);
    if (on_pass && event->buttons() & Qt::LeftButton) {
        const double shift = event->position().x() - pressed_at_.x();
        if (!dragged_ && std::abs(shift) < 6) return;
        hovered_.reset();
        dragged_ = {*pressed_, shift, std::nullopt};
        for (std::size_t m = 0; m < plan()->program.moves.size(); ++m)
            if (std::holds_alternative<PassMove>(plan()->program.moves[m]) &&
                event->position().x() < layout.block(*plan(), m).center().x()) {
                dragged_->before = m;
                break;
            }
        return update();
    }
    const auto over = layout.hit(*plan(), event->position());
    const bool head = layout.head_hit(event->position()).has_value();
    setCursor(head ? Qt::PointingHandCursor : over ? Qt::OpenHandCursor : Qt::ArrowCursor);
    if (over != hovered_) {
        hovered_ = over;
        update();
    }
}

void BoardMap::mouseReleaseEvent(QMouseEvent* event) {
    scrubbing_ = panning_ = in_overview_ = false;
    const auto derived = session_.derived();
    const auto pressed = std::exchange(pressed_, std::nullopt);
    const auto dragged = std::exchange(dragged_, std::nullopt);
    if (event->button() != Qt::LeftButton || !plan()) return;
    if (dragged)
        drop(*dragged);
    else if (pressed)
        Q_EMIT sought(plan()->timeline.spans()[*pressed].start);
    update();
}

/// The order of lanes that follows from putting one pass before another, on whichever sheet it was dragged.
void BoardMap::drop(const present::BoardScene::Dragged& dragged) {
    const Program& program = plan()->program;
    const auto& moved = std::get<PassMove>(program.moves[dragged.move]);
    std::vector<LaneId> now, next;
    for (const Move& move : program.moves)
        if (const auto* pass = std::get_if<PassMove>(&move);
            pass && std::find(now.begin(), now.end(), pass->lane) == now.end())
            now.push_back(pass->lane);
    const LaneId before = dragged.before ? std::get<PassMove>(program.moves[*dragged.before]).lane : LaneId{};
    if (before == moved.lane) return;
    for (const LaneId lane : now) {
        if (lane == before) next.push_back(moved.lane);
        if (lane != moved.lane) next.push_back(lane);
    }
    if (!before) next.push_back(moved.lane);
    if (next == now) return;
    session_.run(tr("Change the order of passes"), in_order(next));
    Q_EMIT order_changed(QString::fromStdString(moved.plate));
}

void BoardMap::leaveEvent(QEvent*) {
    hovered_.reset();
    update();
}

/// The keyboard's way along the map: from move to move, Enter goes there.
void BoardMap::keyPressEvent(QKeyEvent* event) {
    const auto derived = session_.derived();
    const Plan* p = plan();
    if (p && (event->key() == Qt::Key_Plus || event->key() == Qt::Key_Minus)) {
        const present::BoardLayout layout(scene(), area());
        const bool in_view = hovered_ && layout.group_of(*hovered_) == nullptr;
        return zoom(event->key() == Qt::Key_Plus ? 1.5 : 1 / 1.5,
                    in_view ? layout.x(p->timeline.spans()[*hovered_].start) : layout.plot.center().x());
    }
    if (event->key() == Qt::Key_Home) return show_all();
    const bool left = event->key() == Qt::Key_Left, right = event->key() == Qt::Key_Right;
    if (!p || p->program.moves.empty() || !(left || right || event->key() == Qt::Key_Return))
        return QWidget::keyPressEvent(event);
    const std::size_t last = p->program.moves.size() - 1;
    if (!hovered_)
        hovered_ = 0;
    else if (right)
        hovered_ = std::min(*hovered_ + 1, last);
    else if (left)
        hovered_ = *hovered_ > 0 ? *hovered_ - 1 : 0;
    else
        Q_EMIT sought(p->timeline.spans()[*hovered_].start);
    set_view(present::BoardLayout(scene(), area()).showing(view_, p->timeline.spans()[*hovered_].start));
    update();
}

/// At the pointer, or at the block that the keyboard has come to.
void BoardMap::contextMenuEvent(QContextMenuEvent* event) {
    const auto derived = session_.derived();
    if (!plan()) return;
    const present::BoardLayout layout(scene(), area());
    if (event->reason() == QContextMenuEvent::Mouse) {
        if (const auto move = layout.hit(*plan(), QPointF(event->pos())))
            menu_.show(*move, event->globalPos(), this);
    } else if (hovered_) {
        const QPointF at(layout.x(plan()->timeline.spans()[*hovered_].start), layout.plot.center().y());
        menu_.show(*hovered_, mapToGlobal(at.toPoint()), this);
    }
}

Board::Board(Session& session, QWidget* parent)
    : QFrame(parent)
    , session_(session)
    , map_(new BoardMap(session, this))
    , summary_(label({}, TextRole::quiet, this)) {
    setObjectName("panel");
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(0, 8, 0, 4);
    rows->setSpacing(0);
    auto* head = new QHBoxLayout;
    head->setContentsMargins(14, 0, 14, 0);
    head->setSpacing(12);
    head->addWidget(label(tr("Board"), TextRole::heading, this));
    head->addWidget(summary_, 1);
    auto* looking = link_button(tr("Shorter ways are looked for: leave it so"), this);
    looking->setObjectName("stop-improving");
    looking->hide();
    head->addWidget(looking);
    connect(looking, &QPushButton::clicked, &session_, &Session::stop_improving);
    // A short search is over before it could be read.
    connect(&session_, &Session::improvingChanged, this, [this, looking] {
        if (!session_.improving()) return looking->hide();
        QTimer::singleShot(1000, looking, [this, looking] { looking->setVisible(session_.improving()); });
    });
    whole_ = link_button(tr("Show the whole run"), this);
    whole_->setObjectName("whole-run");
    whole_->hide();
    head->addWidget(whole_);
    connect(whole_, &QPushButton::clicked, map_, &BoardMap::show_all);
    connect(map_, &BoardMap::zoomed, whole_, &QPushButton::setVisible);
    auto* why = link_button(tr("Why this order?"), this);
    why->setObjectName("why");
    head->addWidget(why);
    auto* wishes = link_button(tr("What runs, and when"), this);
    wishes->setObjectName("wishes");
    head->addWidget(wishes);
    rows->addLayout(head);
    rows->addWidget(map_, 1);
    connect(why, &QPushButton::clicked, this, &Board::why_wanted);
    connect(wishes, &QPushButton::clicked, this, &Board::wishes_wanted);
    connect(&session_, &Session::derivedChanged, this, &Board::show_summary);
}

namespace {
std::size_t left_out(const Derived& derived) {
    const NotThisRun& out = derived.left_out;
    return out.parts.size() + out.sheets.size() + out.lanes.size();
}
} // namespace

void Board::show_summary() {
    const auto derived = session_.derived();
    const Machine* machine = session_.catalog().machine(session_.project().machine);
    QString text = machine ? present::words(word(*machine)) : QString();
    if (derived && derived->plan) {
        QStringList stocks;
        std::set<SheetId> sheets; // what is only printed is a sheet too
        const auto add = [&](const ProgramSheet& s) {
            sheets.insert(s.sheet);
            if (const QString stock = present::words(s.stock); !stocks.contains(stock)) stocks << stock;
        };
        for (const ProgramSheet& s : derived->plan->program.sheets)
            add(s);
        for (const PrintSheet& p : derived->plan->program.prints)
            add(p.sheet);
        text +=
            tr(", %n sheet(s) of %1", nullptr, static_cast<int>(sheets.size())).arg(stocks.join(tr(" and ")));
    }
    if (const std::size_t out = derived ? left_out(*derived) : 0; out > 0)
        text += tr(", this run only: %n thing(s) left out", nullptr, static_cast<int>(out));
    summary_->setText(text);
}

} // namespace dotlane::app
