// The few questions that must be answered before anything else goes on. Behind a seam, so that tests answer
// them without a window.
#pragma once

#include <QString>
#include <optional>

class QWidget;

namespace dotlane::app {

class Dialogs {
  public:
    enum class Unsaved { save, discard, cancel };
    virtual ~Dialogs() = default;
    virtual std::optional<QString> file_to_open(QWidget* parent, const QString& title, const QString& filter);
    virtual std::optional<QString> file_to_save(QWidget* parent, const QString& title, const QString& name);
    virtual std::optional<QString> folder(QWidget* parent, const QString& title, const QString& start);
    virtual Unsaved unsaved(QWidget* parent, const QString& project);
    enum class ChangedOnDisk { take_theirs, keep_mine, other_name, cancel };
    /// Somebody else has written to the file that is to be saved.
    virtual ChangedOnDisk changed_on_disk(QWidget* parent, const QString& path);
    /// True when the maker presses `yes`.
    virtual bool confirm(QWidget* parent, const QString& title, const QString& text, const QString& yes);
};

Dialogs& dialogs();
/// Null restores the real ones.
void set_dialogs(Dialogs* stand_in);

} // namespace dotlane::app
