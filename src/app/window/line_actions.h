// What is done with chosen lines: to a lane, filled, worked on by a step, set aside; more of them chosen.
#pragma once

#include <QObject>

#include "app/commands/session.h"
#include "core/commands/steps.h"

class QWidget;

namespace dotlane::app {

class Actions;

class LineActions : public QObject {
    Q_OBJECT

  public:
    LineActions(Session& session, QWidget* window);
    void choose_all();
    void choose_same_colour();
    void choose_inside();
    void send_to_action(Action action);
    /// None: the chosen lines, or all that can be filled when none is chosen.
    void fill(const std::vector<LineSetId>& sets);
    /// The chosen lines are what a step works on; for one that works with others, the chosen ones are the
    /// others.
    void add_step(const QString& key);
    void set_chosen_aside();
    /// The menu of the bench.
    void offer(const Actions& actions, const QPoint& at, LineId under);

  Q_SIGNALS:
    void step_made(dotlane::StepId step);

  private:
    void add(const AddStep& command);
    std::vector<LineId> chosen() const;
    Session& session_;
    QWidget* window_;
};

} // namespace dotlane::app
