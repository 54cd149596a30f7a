// One-line text fields that commit what a hand typed, and nothing else.
#pragma once

#include <QLineEdit>

namespace dotlane::app {

/// Whether what stands in the field is being typed and must not be overwritten.
inline bool being_typed(const QLineEdit* line) {
    return line->hasFocus() && line->isModified();
}

/// Calls `take` when something was typed and is finished. Losing the focus alone is no edit: what the field
/// shows may belong to what was chosen before.
template<class Take>
void on_typed(QLineEdit* line, QObject* receiver, Take take) {
    QObject::connect(line, &QLineEdit::editingFinished, receiver, [line, take] {
        if (!line->isModified()) return;
        line->setModified(false);
        take();
    });
}

} // namespace dotlane::app
