#include "app/settings/language.h"

#include <QCoreApplication>
#include <QLocale>
#include <QTranslator>

#include "core/base/data_folder.h"

namespace dotlane::app {

void install_language() {
    // Compiled words lie with what is shipped, also when other data is chosen by DOTLANE_DATA.
    const QString folder = QString::fromStdString(shipped_data_folder() + "/translations");
    static QTranslator plurals, own;
    if (plurals.load("dot-lane_en", folder)) QCoreApplication::installTranslator(&plurals);
    if (QLocale().language() != QLocale::English && own.load(QLocale(), "dot-lane", "_", folder))
        QCoreApplication::installTranslator(&own);
}

} // namespace dotlane::app
