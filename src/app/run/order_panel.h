// The run from first stop to last: what the hands do, what the machine does, and why in this order.
#pragma once

#include "app/commands/session.h"
#include "app/widgets/card.h"
#include "app/widgets/side_panel.h"

namespace dotlane::app {

class OrderPanel : public SidePanel {
    Q_OBJECT

  public:
    explicit OrderPanel(Session& session, QWidget* parent = nullptr);
    /// Marks the move that is under way.
    void set_now(std::optional<Duration> now);
    void show_reasons();

  Q_SIGNALS:
    void sought(dotlane::Duration time);

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    bool shown_once_ = false;
    void show_plan();
    void scroll_soon(QWidget* to, int margin);
    Card* move_card(const Plan& plan, std::size_t move);
    Session& session_;
    StationColumn* moves_;
    StationColumn* reasons_;
    std::vector<Card*> cards_;
    std::optional<std::size_t> now_;
    std::shared_ptr<const Derived> shown_;
};

} // namespace dotlane::app
