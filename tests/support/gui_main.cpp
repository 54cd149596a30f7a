// The tests' QApplication, with the program's own style and words.
#include <QApplication>
#include <QSettings>

#include "app/settings/language.h"

#include "core/base/aside.h"
#include "tests/support/surroundings.h"

int run_tests(int argc, char** argv); // support/catch.cpp

/// Qt and fontconfig keep what they loaded until the process ends.
extern "C" const char* __asan_default_options() {
    return "detect_leaks=0";
}

int main(int argc, char** argv) {
    const dotlane::AwaitsAside last;
    dotlane::test::set_surroundings(dotlane::test::Country::plain);
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    QApplication::setApplicationName("dot-lane-tests");
    QApplication::setOrganizationName("dot-lane");
    QSettings::setDefaultFormat(QSettings::IniFormat);
    dotlane::app::install_language();
    return run_tests(argc, argv);
}
