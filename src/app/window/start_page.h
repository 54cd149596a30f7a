// "What are you making?": a part from numbers or lettering, a drawing, a project, the demo, a recent project,
// or what a crash left behind.
#pragma once

#include <QWidget>

#include "app/commands/recovery.h"
#include "core/workflow/workshop.h"

class QVBoxLayout;

namespace dotlane::app {

class Notice;

class StartPage : public QWidget {
    Q_OBJECT

  public:
    explicit StartPage(Workshop& workshop, QWidget* parent = nullptr);
    void show_error(const QString& text);
    void show_lists(const QStringList& recent, const std::vector<LeftBehind>& left_behind);

  Q_SIGNALS:
    void made(const QString& kind); ///< key of a SourceKind
    void drawing_wanted();
    void project_wanted();
    void demo_wanted();
    void recent_wanted(const QString& path);
    void recovery_wanted(const dotlane::app::LeftBehind& copy);
    void recovery_refused(const dotlane::app::LeftBehind& copy);

  private:
    Notice* notice_;
    QVBoxLayout* lists_;
};

} // namespace dotlane::app
