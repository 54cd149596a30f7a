// Reads a drawing file off the GUI thread, with progress and cancel.
#pragma once

#include <QFutureWatcher>
#include <QObject>
#include <memory>

#include "core/base/files.h"
#include "core/workflow/opening.h"
#include "core/workflow/workshop.h"

namespace dotlane::app {

/// A file that has been read, with the lanes proposed for it.
struct OpenedFile {
    Opened opened;
    std::vector<Gathering> gatherings;
};

class Opener : public QObject {
    Q_OBJECT

  public:
    Opener(FileSystem& files, Workshop& workshop, QObject* parent = nullptr);
    ~Opener() override;
    /// A file that is being read is given up first.
    void open(const QString& path);
    void cancel();
    bool busy() const { return progress_ != nullptr; }

  Q_SIGNALS:
    void started(const QString& file_name);
    void progressed(double fraction);
    void opened(std::shared_ptr<dotlane::app::OpenedFile> file);
    void failed(const dotlane::Error& error);
    void finished(); ///< after opened, failed or cancel

  private:
    using Read = std::shared_ptr<Result<OpenedFile>>;
    FileSystem& files_;
    Workshop& workshop_;
    std::shared_ptr<Progress> progress_;
    QFutureWatcher<Read> watcher_;
};

} // namespace dotlane::app
