// A line set: its name, how many lines, and the plate of its lane.
#pragma once

#include "app/commands/session.h"
#include "app/widgets/card.h"
#include "app/widgets/plate_button.h"

namespace dotlane::app {

class LineSetCard : public Card {
    Q_OBJECT

  public:
    LineSetCard(Session& session, LineSetId set, QWidget* parent = nullptr);
    void refresh();
    LineSetId set() const { return set_; }

  Q_SIGNALS:
    void lane_opened(dotlane::LaneId lane);
    void fill_wanted(dotlane::LineSetId set);

  protected:
    void keyPressEvent(QKeyEvent* event) override;

  private:
    const LineSet* line_set() const;
    std::set<LineId> lines() const;
    void choose_lines();
    Session& session_;
    LineSetId set_;
    QLabel *name_, *figures_;
    PlateButton* plate_;
    QPushButton *fill_, *aside_;
    QWidget* actions_;
};

} // namespace dotlane::app
