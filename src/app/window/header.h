// The line above the bench: what is open, the views, the findings, the one main action.
#pragma once

#include "app/commands/session.h"
#include "app/window/station_bar.h"

class QLabel;
class QPushButton;

namespace dotlane::app {

/// How many findings of each grade there are, as shapes and numbers.
class FindingsPill : public QWidget {
    Q_OBJECT

  public:
    explicit FindingsPill(QWidget* parent = nullptr);
    void set_counts(int errors, int cautions, int hints);

  Q_SIGNALS:
    void pressed();

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    QSize sizeHint() const override;

  private:
    int errors_ = 0, cautions_ = 0, hints_ = 0;
};

class Header : public QWidget {
    Q_OBJECT

  public:
    explicit Header(Session& session, QWidget* parent = nullptr);
    StationBar* stations() { return stations_; }

  Q_SIGNALS:
    void findings_wanted();
    void export_wanted();

  private:
    void show_state();
    Session& session_;
    QLabel *title_, *of_;
    StationBar* stations_;
    FindingsPill* findings_;
    QPushButton* export_;
};

} // namespace dotlane::app
