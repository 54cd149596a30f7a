// The letter plate of a lane as a button: pressed, it offers the lanes.
#pragma once

#include <QAbstractButton>

#include <functional>

#include "core/project/project.h"

class QMenu;

namespace dotlane::app {

class PlateButton : public QAbstractButton {
    Q_OBJECT

  public:
    explicit PlateButton(QWidget* parent = nullptr);
    void set_lane(const Project& project, LaneId lane);
    /// Opens a menu of all lanes below the button; `chosen` gets the answer. "Change this lane" emits
    /// lane_opened.
    void offer_lanes(const Project& project, const std::function<void(LaneId)>& chosen);

  Q_SIGNALS:
    void lane_opened(dotlane::LaneId lane);

  protected:
    void paintEvent(QPaintEvent* event) override;
    QSize sizeHint() const override { return {34, 22}; }

  private:
    LaneId lane_;
    QString letter_;
    QColor colour_;
};

/// An entry for each lane; `words`: of its action and its name, as "To %1, %2".
void add_lanes(QMenu& menu, const Project& project, LaneId now, const QString& words,
               const std::function<void(LaneId)>& chosen);
/// A plate as an icon for menus and combo boxes.
QIcon plate_icon(const Project& project, LaneId lane);

} // namespace dotlane::app
