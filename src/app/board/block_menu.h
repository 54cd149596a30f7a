// What can be done with a stop or a pass on the board: asked why it is there, pinned, left out, split,
// merged.
#pragma once

#include <QFutureWatcher>
#include <QObject>

#include "app/commands/session.h"

class QMenu;

namespace dotlane::app {

class BlockMenu : public QObject {
    Q_OBJECT

  public:
    explicit BlockMenu(Session& session, QObject* parent = nullptr);
    ~BlockMenu() override;
    /// `move`: of the plan that is shown.
    void show(std::size_t move, const QPoint& global, QWidget* over);
    /// Answered by `told`, when what other orders cost is known.
    void ask_why(std::size_t move);

  Q_SIGNALS:
    void told(const QString& text);

  private:
    void add_sheet(QMenu& menu, const Plan& plan, SheetId sheet);
    void add_lane(QMenu& menu, const PassMove& pass);

    Session& session_;
    QFutureWatcher<Result<std::vector<Phrase>>> watcher_;
    std::shared_ptr<Progress> asking_;
};

} // namespace dotlane::app
