// What is known of a lane's tool: where its tip touches, and what it is set to for the stocks of the project.
// Kept in the maker's own catalog, for all projects.
#pragma once

#include "app/commands/session.h"
#include "app/widgets/card.h"

namespace dotlane::app {

class ToolCard : public Card {
    Q_OBJECT

  public:
    explicit ToolCard(Session& session, QWidget* parent = nullptr);
    void show_lane(LaneId lane);

  private:
    QWidget* setting_of(const Tool& tool, const Stock& stock, const Machine& machine);
    QWidget* offset_of(const Tool& tool);

    Session& session_;
    LaneId lane_;
    QWidget* column_ = nullptr;
};

} // namespace dotlane::app
