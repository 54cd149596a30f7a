// The handle by which a card is dragged to another place in its column; with the keyboard, Up and Down.
#pragma once

#include <QWidget>

namespace dotlane::app {

class Grip : public QWidget {
    Q_OBJECT

  public:
    explicit Grip(QWidget* parent = nullptr);
    QSize sizeHint() const override { return {12, 20}; }

  Q_SIGNALS:
    void dragged(const QPoint& global);
    void dropped(const QPoint& global);
    void given_up();
    void moved_by(int places); ///< -1 up, 1 down

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    QPoint from_;
    bool held_ = false, dragging_ = false;
};

} // namespace dotlane::app
