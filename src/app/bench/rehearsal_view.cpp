#include "app/bench/rehearsal_view.h"

#include <QKeyEvent>
#include <QPainter>

#include "app/widgets/plate_button.h"
#include "present/board_painter.h"
#include "present/print_pdf.h"
#include "present/printed_painter.h"
#include "present/sheet_painter.h"
#include "present/words.h"

namespace dotlane::app {

RehearsalView::RehearsalView(Session& session, QWidget* parent)
    : Canvas(parent)
    , session_(session) {
    setAccessibleName(tr("Bench: the rehearsal"));
    timer_.setInterval(16);
    connect(&timer_, &QTimer::timeout, this, &RehearsalView::tick);
    connect(&session_, &Session::derivedChanged, this, [this] {
        time_ = std::min(time_, total());
        refresh();
        Q_EMIT moved();
    });
}

const Plan* RehearsalView::plan() const {
    const auto derived = session_.derived();
    return derived && derived->plan ? &*derived->plan : nullptr;
}

Duration RehearsalView::total() const {
    return plan() ? plan()->timeline.total() : Duration{};
}

const Rehearsal* RehearsalView::rehearsal() const {
    const Plan* p = plan();
    if (rehearsed_ != session_.derived() || !p) {
        rehearsed_ = session_.derived();
        rehearsal_ = p ? std::make_unique<Rehearsal>(p->program, p->timeline) : nullptr;
    }
    if (rehearsal_) rehearsal_->to(time_);
    return rehearsal_.get();
}

MachineState RehearsalView::state() const {
    const Plan* p = plan();
    const Rehearsal* run = rehearsal();
    MachineState state = run ? run->machine() : MachineState{};
    // After the last sheet is out the mat still shows what was made on it.
    if (p && !state.sheet && !p->program.sheets.empty()) state.sheet = p->program.sheets.back().sheet;
    return state;
}

void RehearsalView::seek(Duration time) {
    time_ = std::clamp(time, Duration{}, total());
    const SheetId sheet = state().sheet;
    if (std::exchange(shown_, sheet) != sheet) refresh();
    update();
    Q_EMIT moved();
}

void RehearsalView::play() {
    if (!plan()) return;
    if (time_ >= total()) seek({});
    since_.start();
    timer_.start();
    Q_EMIT moved();
}

void RehearsalView::pause() {
    timer_.stop();
    Q_EMIT moved();
}

void RehearsalView::tick() {
    const Duration step = seconds(static_cast<double>(since_.restart()) / 1000 * speed_);
    seek(time_ + step);
    if (time_ >= total()) pause();
}

void RehearsalView::next_stop() {
    const Plan* p = plan();
    if (!p) return;
    for (std::size_t m = 0; m < p->program.moves.size(); ++m)
        if (std::holds_alternative<StopMove>(p->program.moves[m]) &&
            p->timeline.spans()[m].start > time_ + seconds(1e-6))
            return seek(p->timeline.spans()[m].start);
    seek(total());
}

void RehearsalView::previous_stop() {
    const Plan* p = plan();
    if (!p) return;
    for (std::size_t m = p->program.moves.size(); m-- > 0;)
        if (std::holds_alternative<StopMove>(p->program.moves[m]) &&
            p->timeline.spans()[m].start < time_ - seconds(1e-6))
            return seek(p->timeline.spans()[m].start);
    seek({});
}

void RehearsalView::show_travel(bool shown) {
    travel_shown_ = shown;
    update();
}

Box RehearsalView::world() const {
    const auto derived = session_.derived();
    const LaidSheet* sheet = derived ? derived->sheet(state().sheet) : nullptr;
    return sheet ? present::mat_box(*sheet) : Box{};
}

Canvas::Painting RehearsalView::content() const {
    const auto derived = session_.derived();
    const SheetId sheet = state().sheet;
    if (!derived || !derived->sheet(sheet)) return [](auto&, auto&, auto&) {};
    return [derived, sheet, &catalog = session_.catalog()](QPainter& painter, const present::View& view,
                                                           const QRectF& visible) {
        present::SheetScene scene{derived->project.get(), &catalog, derived.get(), sheet};
        scene.parts = false;
        present::paint_sheet(painter, scene, view, visible);
        if (!derived->plan) return;
        for (const PrintSheet& print : derived->plan->program.prints) {
            if (print.sheet.sheet != sheet) continue; // it was printed before it came into the machine
            for (const PrintPicture& picture : print.pictures)
                present::paint_picture(painter, picture, view);
            painter.save();
            painter.setRenderHint(QPainter::Antialiasing);
            painter.translate(view.shift);
            painter.scale(view.scale, view.scale);
            present::paint_print(painter, print);
            painter.restore();
        }
    };
}

bool RehearsalView::ink_up_to(const MachineState& state, qint64 budget_ms) {
    const Program& program = plan()->program;
    const QSize size = this->size() * devicePixelRatioF();
    const bool earlier =
        state.move < layers_.move || (state.move == layers_.move && state.strokes_done < layers_.stroke);
    const bool other = layers_.of != session_.derived() || layers_.sheet != state.sheet ||
                       layers_.ink.size() != size || layers_.view.scale != view().scale ||
                       layers_.view.shift != view().shift;
    if (earlier || other) {
        layers_ = {QImage(size, QImage::Format_ARGB32_Premultiplied),
                   QImage(size, QImage::Format_ARGB32_Premultiplied),
                   view(),
                   session_.derived(),
                   state.sheet,
                   0,
                   0};
        for (QImage* image : {&layers_.ink, &layers_.travel}) {
            image->setDevicePixelRatio(devicePixelRatioF());
            image->fill(Qt::transparent);
        }
    }
    QElapsedTimer timer;
    timer.start();
    QPainter ink(&layers_.ink), travel(&layers_.travel);
    while (layers_.move < state.move || layers_.stroke < state.strokes_done) {
        const auto* pass = std::get_if<PassMove>(&program.moves[layers_.move]);
        const std::size_t due = layers_.move < state.move ? (pass ? runs(*pass) : 0) : state.strokes_done;
        if (pass && pass->sheet == state.sheet && layers_.stroke < due) {
            const std::size_t to = std::min(due, layers_.stroke + 64);
            present::paint_strokes(ink, *pass, layers_.stroke, to, view());
            if (layers_.move == state.move)
                present::paint_travel(travel, program, *pass, layers_.stroke, to, view());
            layers_.stroke = to;
            if (timer.elapsed() >= budget_ms) return false;
            continue;
        }
        if (layers_.move == state.move) break;
        ++layers_.move;
        layers_.stroke = 0;
        travel.end();
        layers_.travel.fill(Qt::transparent);
        travel.begin(&layers_.travel);
    }
    return true;
}

void RehearsalView::paint_overlay(QPainter& painter) {
    const Plan* p = plan();
    const present::Theme& theme = present::Theme::current();
    if (!p) {
        painter.setFont(present::ui_font(11));
        painter.setPen(theme.quiet);
        const auto derived = session_.derived();
        painter.drawText(
            rect().adjusted(40, 0, -40, 0), Qt::AlignCenter | Qt::TextWordWrap,
            derived && derived->no_plan.code != "plan.nothing"
                ? present::words(derived->no_plan)
                : tr("Nothing to rehearse yet: give the lines lanes and put the part on a sheet."));
        return;
    }
    const MachineState now = state();
    if (!ink_up_to(now, playing() ? 12 : 25)) QTimer::singleShot(0, this, qOverload<>(&QWidget::update));
    if (travel_shown_) painter.drawImage(QPointF(), layers_.travel);
    painter.drawImage(QPointF(), layers_.ink);
    paint_doing(painter);
    QRectF mat = rect();
    for (const ProgramSheet& s : p->program.sheets)
        if (s.sheet == now.sheet) mat = view().map(Box{0, 0, in_mm(s.mat_width), in_mm(s.mat_height)});
    if (const auto* stop = std::get_if<StopMove>(&p->program.moves[now.move]))
        paint_stop(painter, *stop);
    else
        present::paint_carriage(painter, {p, time_, travel_shown_}, now, view(), mat);
}

void RehearsalView::paint_doing(QPainter& painter) const {
    painter.setFont(present::ui_font(9));
    painter.setPen(present::Theme::current().quiet);
    painter.drawText(QRectF(16, height() - 24, width() - 32, 20), Qt::AlignLeft | Qt::AlignVCenter, doing());
}

void RehearsalView::paint_stop(QPainter& painter, const StopMove& stop) const {
    const present::Theme& theme = present::Theme::current();
    QStringList lines;
    for (const HandStep& step : stop.steps)
        lines << present::words(step.text);
    const QFont bold = present::ui_font(13, QFont::DemiBold), plain = present::ui_font(11);
    const QFontMetricsF metrics(plain);
    const QString heading = tr("Stop %1: your hands are needed").arg(stop.number);
    double w = QFontMetricsF(bold).horizontalAdvance(heading);
    for (const QString& l : lines)
        w = std::max(w, metrics.horizontalAdvance(l));
    w = std::min(w + 44, width() - 40.0);
    QList<QRectF> rows;
    double h = 46;
    for (const QString& l : lines) {
        const double row = metrics.boundingRect(QRectF(0, 0, w - 60, 1000), Qt::TextWordWrap, l).height() + 6;
        rows << QRectF(0, h, 0, row);
        h += row;
    }
    QRectF box(0, 0, w, h + 12);
    box.moveCenter(rect().center());
    QColor ground = theme.card;
    ground.setAlpha(242);
    painter.setPen(QPen(theme.hairline, 1));
    painter.setBrush(ground);
    painter.drawRoundedRect(box, 10, 10);
    painter.setFont(bold);
    painter.setPen(theme.ink);
    painter.drawText(box.adjusted(22, 14, -16, 0), Qt::AlignLeft | Qt::AlignTop, heading);
    painter.setFont(plain);
    for (int i = 0; i < lines.size(); ++i) {
        const bool care = stop.steps[static_cast<std::size_t>(i)].kind == HandStep::Kind::care;
        const double y = box.top() + rows[i].top();
        painter.setPen(QPen(care ? theme.error : theme.ink, 2));
        painter.setBrush(theme.card);
        painter.drawEllipse(QPointF(box.left() + 28, y + 9), 4, 4);
        painter.setPen(care ? theme.error : theme.ink);
        painter.drawText(QRectF(box.left() + 42, y, w - 60, rows[i].height()),
                         Qt::AlignLeft | Qt::TextWordWrap, lines[i]);
    }
}

void RehearsalView::finish_painting() {
    Canvas::finish_painting();
    if (plan())
        while (!ink_up_to(state(), 1000)) {
        }
    update();
}

QString RehearsalView::doing() const {
    const Plan* p = plan();
    if (!p || p->program.moves.empty()) return {};
    const MachineState now = state();
    if (const auto* stop = std::get_if<StopMove>(&p->program.moves[now.move]))
        return time_ >= total() ? tr("Done") : tr("Stop %1").arg(stop->number);
    const auto& pass = std::get<PassMove>(p->program.moves[now.move]);
    const std::size_t run = p->timeline.entries()[now.entry].stroke;
    const QString whose =
        run < runs(pass) ? present::words(spoken(p->program, stroke_of(pass, run).of)) : QString();
    return tr("%1 with the %2: stroke %3 of %4%5")
        .arg(present::action_title(pass.action), present::words(pass.tool))
        .arg(std::min(now.strokes_done + 1, runs(pass)))
        .arg(runs(pass))
        .arg(whose.isEmpty() ? whose : ", " + whose);
}

void RehearsalView::mouseReleaseEvent(QMouseEvent* event) {
    Canvas::mouseReleaseEvent(event);
    if (!plan() || panning() || event->button() != Qt::LeftButton) return;
    constexpr double reach_px = 5;
    if (const Stroke* stroke =
            stroke_at(plan()->program, state(), view().unmap(event->position()), mm(reach_px / view().scale)))
        Q_EMIT stroke_pressed(stroke->of);
}

void RehearsalView::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
    case Qt::Key_Space:
        if (!event->isAutoRepeat()) toggle();
        return;
    case Qt::Key_Left:
        return seek(time_ - seconds(event->modifiers() & Qt::ShiftModifier ? 30 : 2));
    case Qt::Key_Right:
        return seek(time_ + seconds(event->modifiers() & Qt::ShiftModifier ? 30 : 2));
    case Qt::Key_Home:
        return seek({});
    case Qt::Key_End:
        return seek(total());
    case Qt::Key_N:
        return next_stop();
    case Qt::Key_B:
        return previous_stop();
    default:
        Canvas::keyPressEvent(event);
    }
}

} // namespace dotlane::app
