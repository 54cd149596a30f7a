// Findings as cards, one below the other; built anew only when they change.
#pragma once

#include "app/commands/session.h"
#include "app/widgets/side_panel.h"

namespace dotlane::app {

class FindingList : public StationColumn {
    Q_OBJECT

  public:
    explicit FindingList(Session& session, QWidget* parent = nullptr);
    enum class Whose { of_one, named };
    /// `none` is said when there are none; may be empty.
    void show_findings(const Findings& findings, const QString& none = {}, Whose whose = Whose::of_one);

  Q_SIGNALS:
    void chosen(const dotlane::Finding& finding);

  private:
    Session& session_;
    std::optional<Findings> shown_;
    std::vector<std::string> owners_; ///< where they are named
};

} // namespace dotlane::app
