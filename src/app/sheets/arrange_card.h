// What is chosen on the sheet, lined up, spread, grouped: one or many.
#pragma once

#include <QComboBox>

#include "app/commands/session.h"
#include "app/widgets/card.h"
#include "core/commands/arranging.h"

namespace dotlane::app {

class ArrangeCard : public Card {
    Q_OBJECT

  public:
    explicit ArrangeCard(Session& session, QWidget* parent = nullptr);
    void refresh();

    // Also commands of the window.
    void line_up(Across across, Down down);
    void spread(Way way);
    void group();
    void ungroup();
    /// As one, about the common middle.
    void turn(Angle by);
    void mirror();
    void choose_all();

  private:
    Frame with() const;
    Placed chosen() const;

    Session& session_;
    QLabel* heading_;
    QComboBox* to_;
    QPushButton *group_, *ungroup_;
    std::vector<QWidget*> spread_; ///< shown for several
};

} // namespace dotlane::app
