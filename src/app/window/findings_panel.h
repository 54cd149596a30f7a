// All findings of the project; and, when errors stand in the way of an export, the way past them.
#pragma once

#include "app/commands/session.h"
#include "app/recipe/finding_list.h"
#include "app/widgets/card.h"
#include "app/widgets/side_panel.h"

namespace dotlane::app {

class FindingsPanel : public SidePanel {
    Q_OBJECT

  public:
    explicit FindingsPanel(Session& session, QWidget* parent = nullptr);
    /// Offers to export in spite of the errors.
    void ask_override(bool asked);

  Q_SIGNALS:
    void done();
    void overridden();
    void finding_chosen(const dotlane::Finding& finding);

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    void show_findings();
    Session& session_;
    Card* override_;
    FindingList* list_;
};

} // namespace dotlane::app
