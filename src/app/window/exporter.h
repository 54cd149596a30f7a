// Writes the run's files to a folder, off the window's thread.
#pragma once

#include <QFutureWatcher>

#include "app/commands/session.h"
#include "core/exports/exporting.h"

namespace dotlane::app {

class Notice;

class Exporter : public QObject {
    Q_OBJECT

  public:
    Exporter(Session& session, Notice& notice, QWidget* window);
    ~Exporter() override;
    /// Asks for the folder when it is empty. Errors are told before that, unless they are overridden.
    void export_to(QString folder, bool override_errors);
    /// To the folder that was asked for last.
    void export_again(bool override_errors) { export_to(folder_, override_errors); }
    /// Until its outcome has been told.
    bool busy() const { return busy_; }

  Q_SIGNALS:
    void blocked(); ///< errors stand in the way
    void failed(const dotlane::Error& error);

  private:
    Session& session_;
    Notice& notice_;
    QWidget* window_;
    QFutureWatcher<std::shared_ptr<Result<ExportResult>>> work_;
    QString folder_;
    bool busy_ = false;
};

} // namespace dotlane::app
