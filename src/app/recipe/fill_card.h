// A fill: its numbers edited in place, its figures, its lane, on or off.
#pragma once

#include <QCheckBox>

#include "app/commands/session.h"
#include "app/widgets/card.h"
#include "app/widgets/number_field.h"
#include "app/widgets/plate_button.h"

namespace dotlane::app {

class FillCard : public Card {
    Q_OBJECT

  public:
    FillCard(Session& session, StepId step, QWidget* parent = nullptr);
    void refresh();
    StepId step() const { return step_; }

  Q_SIGNALS:
    void lane_opened(dotlane::LaneId lane);

  private:
    const Step* current() const;
    void edit(const QString& text, const std::function<void(Step&, FillStep&)>& how,
              const QString& merge = {});
    void build_fields();

    Session& session_;
    StepId step_;
    QCheckBox *on_, *joined_, *alternate_;
    PlateButton* plate_;
    NumberField *spacing_, *angle_, *inset_;
    QLabel* figures_;
};

} // namespace dotlane::app
