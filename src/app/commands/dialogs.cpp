#include "app/commands/dialogs.h"

#include <QFileDialog>
#include <QMessageBox>
#include <QPushButton>

namespace dotlane::app {
namespace {

Dialogs real;
Dialogs* current = &real;

std::optional<QString> given(const QString& path) {
    return path.isEmpty() ? std::nullopt : std::optional(path);
}

} // namespace

Dialogs& dialogs() {
    return *current;
}
void set_dialogs(Dialogs* stand_in) {
    current = stand_in ? stand_in : &real;
}

std::optional<QString> Dialogs::file_to_open(QWidget* parent, const QString& title, const QString& filter) {
    return given(QFileDialog::getOpenFileName(parent, title, {}, filter));
}

std::optional<QString> Dialogs::file_to_save(QWidget* parent, const QString& title, const QString& name) {
    QFileDialog dialog(parent, title, {}, QObject::tr("Dot Lane projects (*.dotlane)"));
    dialog.setAcceptMode(QFileDialog::AcceptSave);
    dialog.setDefaultSuffix("dotlane");
    dialog.selectFile(name);
    if (dialog.exec() != QDialog::Accepted || dialog.selectedFiles().isEmpty()) return std::nullopt;
    return dialog.selectedFiles().front();
}

std::optional<QString> Dialogs::folder(QWidget* parent, const QString& title, const QString& start) {
    return given(QFileDialog::getExistingDirectory(parent, title, start));
}

Dialogs::Unsaved Dialogs::unsaved(QWidget* parent, const QString& project) {
    QMessageBox box(QMessageBox::NoIcon, QObject::tr("Save changes?"),
                    QObject::tr("\"%1\" has changes that are not saved.").arg(project),
                    QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, parent);
    box.setDefaultButton(QMessageBox::Save);
    switch (box.exec()) {
    case QMessageBox::Save:
        return Unsaved::save;
    case QMessageBox::Discard:
        return Unsaved::discard;
    default:
        return Unsaved::cancel;
    }
}

Dialogs::ChangedOnDisk Dialogs::changed_on_disk(QWidget* parent, const QString& path) {
    QMessageBox box(
        QMessageBox::NoIcon, QObject::tr("Changed on disk"),
        QObject::tr("Another program has written to %1 since it was opened here. Saving now would "
                    "replace what it wrote.")
            .arg(path),
        QMessageBox::Cancel, parent);
    auto* other = box.addButton(QObject::tr("Save under another name"), QMessageBox::ActionRole);
    auto* theirs = box.addButton(QObject::tr("Take in what is on disk"), QMessageBox::ActionRole);
    auto* mine = box.addButton(QObject::tr("Keep mine"), QMessageBox::DestructiveRole);
    box.setDefaultButton(other);
    box.exec();
    if (box.clickedButton() == other) return ChangedOnDisk::other_name;
    if (box.clickedButton() == theirs) return ChangedOnDisk::take_theirs;
    return box.clickedButton() == mine ? ChangedOnDisk::keep_mine : ChangedOnDisk::cancel;
}

bool Dialogs::confirm(QWidget* parent, const QString& title, const QString& text, const QString& yes) {
    QMessageBox box(QMessageBox::NoIcon, title, text, QMessageBox::Cancel, parent);
    auto* go = box.addButton(yes, QMessageBox::AcceptRole);
    box.setDefaultButton(QMessageBox::Cancel);
    box.exec();
    return box.clickedButton() == go;
}

} // namespace dotlane::app
