// The parts of the project as cards.
#pragma once

#include <QFrame>

#include "app/commands/session.h"

class QVBoxLayout;

namespace dotlane::app {

class PartCard;

class Tray : public QFrame {
    Q_OBJECT

  public:
    explicit Tray(Session& session, QWidget* parent = nullptr);

  Q_SIGNALS:
    void new_part_wanted();

  protected:
    void keyPressEvent(QKeyEvent* event) override;

  private:
    void show_parts();
    Session& session_;
    QVBoxLayout* cards_;
    std::vector<PartCard*> shown_;
};

} // namespace dotlane::app
