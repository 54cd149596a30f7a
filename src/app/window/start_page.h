// "What are you making?": a part from numbers or lettering, a drawing, a project, the demo, a recent project,
// or what a crash left behind.
#pragma once

#include <QWidget>

#include "app/commands/recovery.h"
#include "core/derive/workshop.h"

class QGridLayout;
class QLabel;
class QLineEdit;
class QVBoxLayout;

namespace dotlane::app {

class JobTile;
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
    void samples_wanted();
    void recent_wanted(const QString& path);
    void recovery_wanted(const dotlane::app::LeftBehind& copy);
    void recovery_refused(const dotlane::app::LeftBehind& copy);

  protected:
    bool eventFilter(QObject* object, QEvent* event) override;
    void showEvent(QShowEvent* event) override;

  private:
    static constexpr int columns = 6;
    struct Job {
        JobTile* tile;
        QLabel* caption;
        QString group, words;
    };
    void add_jobs(Workshop& workshop, QWidget* column);
    void add_job(JobTile* tile, const QString& group, const QString& words);
    /// To what fits the typed letters.
    void narrow();
    void light(int at);

    std::vector<Job> jobs_;
    std::vector<JobTile*> shown_;
    int lit_ = 0;
    QLineEdit* typed_;
    QGridLayout* tiles_;
    Notice* notice_;
    QVBoxLayout* lists_;
};

} // namespace dotlane::app
