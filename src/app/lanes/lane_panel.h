// One lane: its action, tool, colour, name and repeats; and all lanes to choose from.
#pragma once

#include <QComboBox>

#include "app/commands/session.h"
#include "app/widgets/card.h"
#include "app/widgets/number_field.h"
#include "app/widgets/side_panel.h"
#include "core/commands/lanes.h"

namespace dotlane::app {

class ToolCard;

class LanePanel : public SidePanel {
    Q_OBJECT

  public:
    explicit LanePanel(Session& session, QWidget* parent = nullptr);
    void show_lane(LaneId lane);
    LaneId lane() const { return lane_; }

  Q_SIGNALS:
    void done();

  private:
    void show_lanes();
    void count_lines();
    void change(const QString& text, const std::function<void(ChangeLane&)>& how);
    QWidget* editor();
    /// Where lines begin, overcut, lead-in and rest.
    QWidget* ways();
    void choose_colour();

    Session& session_;
    LaneId lane_;
    StationColumn* list_;
    Card* editor_;
    QLineEdit* name_;
    QComboBox *action_, *tool_, *fold_, *start_, *pieces_;
    QPushButton* colour_;
    NumberField *repeats_, *overcut_, *lead_in_, *dwell_;
    ToolCard* tool_card_;
    QLabel *figures_, *caution_;
};

/// Tools that can do an action, in catalog order.
std::vector<const Tool*> tools_for(const Catalog& catalog, Action action);

} // namespace dotlane::app
