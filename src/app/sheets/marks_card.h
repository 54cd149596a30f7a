// Where the machine found the marks of a print: three pairs of numbers, and what they tell.
#pragma once

#include "app/commands/session.h"
#include "app/widgets/card.h"
#include "app/widgets/number_field.h"

namespace dotlane::app {

class MarksCard : public Card {
    Q_OBJECT

  public:
    explicit MarksCard(Session& session, QWidget* parent = nullptr);
    /// Shown when the chosen sheet is printed and has three marks at least.
    void refresh();

  private:
    std::vector<Point> printed() const;
    void commit();

    Session& session_;
    NumberField* at_[3][2];
    QLabel* said_;
    QPushButton* forget_;
    bool filling_ = false;
};

} // namespace dotlane::app
