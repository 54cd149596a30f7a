// The tests' QApplication, with the program's own style and words.
#include <QApplication>
#include <QSettings>

#include "app/settings/language.h"

#include "core/base/aside.h"

int run_tests(int argc, char** argv); // support/catch.cpp

int main(int argc, char** argv) {
    const dotlane::AwaitsAside last;
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    QApplication::setApplicationName("dot-lane-tests");
    QApplication::setOrganizationName("dot-lane");
    QSettings::setDefaultFormat(QSettings::IniFormat);
    dotlane::app::install_language();
    return run_tests(argc, argv);
}
