// One finding with the button that applies its remedy.
#pragma once

#include <functional>

#include <QPushButton>

#include "app/commands/session.h"
#include "app/widgets/card.h"

class QHBoxLayout;

namespace dotlane::app {

class FindingCard : public Card {
    Q_OBJECT

  public:
    /// What a remedy's button does, with the finding whose first remedy is the one that was pressed.
    using Mend = std::function<void(const Finding&)>;
    /// Remedies change the session's project.
    FindingCard(Session& session, const Finding& finding, QWidget* parent = nullptr);
    FindingCard(const Finding& finding, const Mend& mend, QWidget* parent = nullptr);
    const Finding& finding() const { return finding_; }
    /// Above its words; of a list of those of many parts.
    void name_owner(const std::string& owner);

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    void add_picture(Session& session, QHBoxLayout& row);
    QPushButton* add_remedy(const Mend& mend, const Remedy& remedy, const QString& name);
    Finding finding_;
    QHBoxLayout* words_; ///< the text, and a picture of the place
};

} // namespace dotlane::app
