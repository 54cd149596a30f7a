// The lane board: always there. Hovering tells, clicking goes to that moment of the rehearsal, dragging along
// the map scrubs it, dragging a block changes the order of the passes and says what follows.
#pragma once

#include <QFrame>

#include "app/board/block_menu.h"
#include "app/commands/session.h"
#include "present/board_painter.h"

class QLabel;
class QPushButton;

namespace dotlane::app {

class BoardMap : public QWidget {
    Q_OBJECT

  public:
    explicit BoardMap(Session& session, QWidget* parent = nullptr);
    /// The rehearsal's moment; shown while the rehearsal is.
    void set_now(std::optional<Duration> now);
    /// The wheel zooms about the pointer, with Shift it scrolls; over the lanes' names it scrolls the lanes.
    const present::BoardView& view() const { return view_; }
    void show_all() { set_view({}); }

  Q_SIGNALS:
    void sought(dotlane::Duration time); ///< clicked or dragged to
    void lane_pressed(dotlane::LaneId lane);
    void order_changed(const QString& lane);
    void zoomed(bool in);           ///< not all of the run is shown
    void told(const QString& text); ///< an answer to "why?"

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    QSize minimumSizeHint() const override { return {480, 130}; }

  private:
    present::BoardScene scene() const;
    void set_view(const present::BoardView& view);
    void zoom(double factor, double x_px);
    QRectF area() const;
    const Plan* plan() const;
    void drop(const present::BoardScene::Dragged& dragged);

    Session& session_;
    BlockMenu menu_;
    std::optional<Duration> now_;
    std::optional<std::size_t> hovered_, pressed_;
    std::optional<present::BoardScene::Dragged> dragged_;
    QPointF pressed_at_;
    bool scrubbing_ = false, panning_ = false, in_overview_ = false;
    present::BoardView view_;
};

/// The panel around the map: its heading and "Why this order?".
class Board : public QFrame {
    Q_OBJECT

  public:
    explicit Board(Session& session, QWidget* parent = nullptr);
    BoardMap* map() { return map_; }

  Q_SIGNALS:
    void why_wanted();
    void wishes_wanted();

  private:
    void show_summary();
    Session& session_;
    BoardMap* map_;
    QLabel* summary_;
    QPushButton* whole_;
};

} // namespace dotlane::app
