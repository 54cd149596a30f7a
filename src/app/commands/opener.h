// Reads a drawing file off the GUI thread, with progress and cancel.
#pragma once

#include <QFutureWatcher>
#include <QObject>
#include <memory>

#include "core/base/files.h"
#include "core/derive/workshop.h"
#include "core/opening/opening.h"

namespace dotlane::app {

/// A file that has been read: a drawing with the lanes proposed for it, or a picture.
struct OpenedFile {
    Opened opened;
    std::vector<Gathering> gatherings;
    std::optional<OpenedPicture> picture;
};

class Opener : public QObject {
    Q_OBJECT

  public:
    Opener(FileSystem& files, Workshop& workshop, QObject* parent = nullptr);
    ~Opener() override;
    /// A file that is being read is given up first. `large`: however large it is; the maker was asked.
    void open(const QString& path, bool large = false);
    /// The file that was opened last once more, as a picture of what a renderer shows of it.
    void open_as_picture();
    void cancel();
    bool busy() const { return progress_ != nullptr; }

  Q_SIGNALS:
    void started(const QString& file_name);
    void progressed(double fraction);
    void opened(std::shared_ptr<dotlane::app::OpenedFile> file);
    void failed(const dotlane::Error& error);
    /// It is larger than what is read without asking.
    void large(const dotlane::Error& error, const QString& path);
    void finished(); ///< after opened, failed or cancel

  private:
    enum class How { usual, large, as_picture };
    void start(const QString& path, How how);
    using Read = std::shared_ptr<Result<OpenedFile>>;
    FileSystem& files_;
    Workshop& workshop_;
    std::shared_ptr<Progress> progress_;
    QString path_;
    bool asked_ = false;
    QFutureWatcher<Read> watcher_;
};

} // namespace dotlane::app
