// The bench's views as stations on a line.
#pragma once

#include <QStringList>
#include <QWidget>

namespace dotlane::app {

class StationBar : public QWidget {
    Q_OBJECT

  public:
    explicit StationBar(QStringList stations, QWidget* parent = nullptr);
    void set_current(int index);
    int current() const { return current_; }

  Q_SIGNALS:
    void chosen(int index);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    QSize sizeHint() const override;

  private:
    QPointF dot(int index) const;
    int hit(QPointF at) const;
    QStringList stations_;
    int current_ = 0, hovered_ = -1;
};

} // namespace dotlane::app
