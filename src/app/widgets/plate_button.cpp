#include "app/widgets/plate_button.h"

#include <QMenu>
#include <QPainter>

#include "present/lane_style.h"
#include "present/part_painter.h"
#include "present/words.h"

namespace dotlane::app {

QIcon plate_icon(const Project& project, LaneId id) {
    QPixmap pixmap(44, 36);
    pixmap.setDevicePixelRatio(2);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    painter.setRenderHint(QPainter::Antialiasing);
    const Lane* lane = dotlane::find(project, id);
    const present::Theme& theme = present::Theme::current();
    const QColor colour =
        lane ? present::legible_on(present::to_qcolor(lane->colour), theme.card) : theme.error;
    present::paint_plate(painter, {1, 1, 20, 16}, QString::fromStdString(plate(project, id)), colour);
    return QIcon(pixmap);
}

PlateButton::PlateButton(QWidget* parent)
    : QAbstractButton(parent) {
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::TabFocus);
    setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Fixed);
}

void PlateButton::set_lane(const Project& project, LaneId id) {
    lane_ = id;
    const Lane* lane = dotlane::find(project, id);
    const present::Theme& theme = present::Theme::current();
    letter_ = QString::fromStdString(plate(project, id));
    colour_ = lane ? present::legible_on(present::to_qcolor(lane->colour), theme.card) : theme.error;
    const QString name =
        lane ? tr("%1: %2").arg(present::action_title(lane->action), QString::fromStdString(lane->name))
             : tr("No lane");
    setToolTip(name);
    setAccessibleName(tr("Lane %1").arg(name));
    update();
}

void add_lanes(QMenu& menu, const Project& project, LaneId now, const QString& words,
               const std::function<void(LaneId)>& chosen) {
    for (const Lane& lane : project.lanes) {
        auto* action =
            menu.addAction(plate_icon(project, lane.id),
                           words.arg(present::action_title(lane.action), QString::fromStdString(lane.name)));
        action->setCheckable(now.value != 0);
        action->setChecked(lane.id == now);
        QObject::connect(action, &QAction::triggered, &menu, [chosen, id = lane.id] { chosen(id); });
    }
}

void PlateButton::offer_lanes(const Project& project, const std::function<void(LaneId)>& chosen) {
    QMenu menu(this);
    add_lanes(menu, project, lane_, tr("%1, %2"), chosen);
    if (lane_) {
        menu.addSeparator();
        connect(menu.addAction(tr("Change this lane...")), &QAction::triggered, this,
                [this] { Q_EMIT lane_opened(lane_); });
    }
    menu.exec(mapToGlobal(QPoint(0, height() + 2)));
}

void PlateButton::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    present::paint_plate(painter, QRectF(rect()).adjusted(4, 2, -4, -2), letter_, colour_);
    if (hasFocus() || underMouse()) {
        painter.setPen(QPen(present::Theme::current().lamp, 1.4));
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(QRectF(rect()).adjusted(2.5, 0.8, -2.5, -0.8), 5.5, 5.5);
    }
}

} // namespace dotlane::app
