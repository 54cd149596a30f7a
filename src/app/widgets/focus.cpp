#include "app/widgets/focus.h"

#include <QApplication>
#include <QTimer>
#include <QWidget>

namespace dotlane::app {

QString take_focus(QWidget* within) {
    QWidget* now = QApplication::focusWidget();
    if (!now || !within->isAncestorOf(now)) return {};
    const QString name = now->objectName();
    now->clearFocus();
    return name;
}

void give_focus(QWidget* within, const QString& name) {
    if (name.isEmpty()) return;
    QTimer::singleShot(0, within, [within, name] {
        // Whoever has taken it meanwhile keeps it.
        if (QApplication::focusWidget() && within->isAncestorOf(QApplication::focusWidget())) return;
        for (QWidget* w : within->findChildren<QWidget*>(name))
            if (w->isVisible()) return w->setFocus();
    });
}

} // namespace dotlane::app
