// The parts of the project as cards.
#pragma once

#include <QFrame>

#include "app/commands/session.h"

class QScrollArea;
class QVBoxLayout;

namespace dotlane::app {

class PartCard;

class Tray : public QFrame {
    Q_OBJECT

  public:
    explicit Tray(Session& session, QWidget* parent = nullptr);
    /// Makes the cards now; until then there are none, so that the drawing on the bench does not wait for
    /// them.
    void wake();

  Q_SIGNALS:
    void new_part_wanted();

  protected:
    void keyPressEvent(QKeyEvent* event) override;

  private:
    void show_parts();
    void follow_choice();
    Session& session_;
    bool awake_ = false;
    QVBoxLayout* cards_;
    std::vector<PartCard*> shown_;
    QScrollArea* scroll_;
    PartId followed_; ///< the part that was last brought into view
};

} // namespace dotlane::app
