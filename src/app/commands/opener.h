// Reads a drawing file off the GUI thread, with progress and cancel.
#pragma once

#include <QFutureWatcher>
#include <QObject>
#include <memory>

#include "core/base/files.h"
#include "core/workflow/opening.h"

namespace dotlane::app {

class Opener : public QObject {
    Q_OBJECT

  public:
    Opener(FileSystem& files, FontShelf& fonts, QObject* parent = nullptr);
    ~Opener() override;
    /// A file that is being read is given up first.
    void open(const QString& path);
    void cancel();
    bool busy() const { return progress_ != nullptr; }

  Q_SIGNALS:
    void started(const QString& file_name);
    void progressed(double fraction);
    void opened(std::shared_ptr<dotlane::Opened> opened, const QString& path);
    void failed(const dotlane::Error& error);
    void finished(); ///< after opened, failed or cancel

  private:
    using Read = std::shared_ptr<Result<Opened>>;
    FileSystem& files_;
    FontShelf& fonts_;
    std::shared_ptr<Progress> progress_;
    QFutureWatcher<Read> watcher_;
    QString path_;
};

} // namespace dotlane::app
