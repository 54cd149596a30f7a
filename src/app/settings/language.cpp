#include "app/settings/language.h"

#include <QCoreApplication>
#include <QLocale>
#include <QTranslator>

#include "core/base/files.h"
#include "core/workflow/data_folder.h"
#include "dotlane_config.h"

namespace dotlane::app {

void install_language() {
    const std::string installed = data_folder() + "/translations/dot-lane_en.qm";
    const QString folder = disk().exists(installed) ? QString::fromStdString(data_folder() + "/translations")
                                                    : QStringLiteral(DOTLANE_BUILT_TRANSLATIONS);
    static QTranslator plurals, own;
    if (plurals.load("dot-lane_en", folder)) QCoreApplication::installTranslator(&plurals);
    if (QLocale().language() != QLocale::English && own.load(QLocale(), "dot-lane", "_", folder))
        QCoreApplication::installTranslator(&own);
}

} // namespace dotlane::app
