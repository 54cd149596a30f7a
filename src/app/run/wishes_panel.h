// What runs, and when: the other ways to order the job beside this one, rules, places of sheets, and what
// this run leaves out.
#pragma once

#include <QFutureWatcher>

#include "app/commands/session.h"
#include "app/widgets/card.h"
#include "app/widgets/side_panel.h"
#include "core/plan/plan.h"

class QCheckBox;

namespace dotlane::app {

class WishesPanel : public SidePanel {
    Q_OBJECT

  public:
    explicit WishesPanel(Session& session, QWidget* parent = nullptr);
    ~WishesPanel() override { watcher_.waitForFinished(); }

  Q_SIGNALS:
    void done();

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    /// That is laid beside the plan.
    enum class Other { sheets, tools, usual };

    void show_all();
    void show_rules(Card* card);
    void show_mats(Card* card);
    void show_ticks(Card* card);
    void show_table();
    void plan_other();
    PlanOptions options_of(Other other) const;
    void wish(const QString& text, PlanWishes wishes);
    template<class Id>
    QCheckBox* run_tick(const QString& text, std::set<Id> NotThisRun::*set, Id id, QWidget* parent);
    QWidget* sheet_row(const Sheet& sheet, int count, QWidget* parent);

    Session& session_;
    QWidget* column_ = nullptr;
    QWidget* table_ = nullptr;
    Card* compare_ = nullptr;
    Other other_ = Other::tools;
    bool stale_ = true;                     ///< the project has changed since it was shown
    std::shared_ptr<const Derived> beside_; ///< whose plan the other one is laid beside
    NotThisRun shown_out_;                  ///< as the ticks show it
    Other asked_ = Other::tools;            ///< that is planned, or was
    Result<Plan> planned_ = tl::make_unexpected(Error{});
    QFutureWatcher<Result<Plan>> watcher_;
};

} // namespace dotlane::app
