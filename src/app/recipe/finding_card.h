// One finding with the button that applies its remedy.
#pragma once

#include "app/commands/session.h"
#include "app/widgets/card.h"

class QHBoxLayout;

namespace dotlane::app {

class FindingCard : public Card {
    Q_OBJECT

  public:
    FindingCard(Session& session, const Finding& finding, QWidget* parent = nullptr);
    const Finding& finding() const { return finding_; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    void add_remedy(Session& session, const Remedy& remedy, const QString& name, QHBoxLayout& row);
    Finding finding_;
};

} // namespace dotlane::app
