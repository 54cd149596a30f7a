// For checks that paint: a QGuiApplication without a screen.
#include <QGuiApplication>

#include "core/base/aside.h"
#include "tests/support/surroundings.h"

int run_tests(int argc, char** argv); // support/catch.cpp

int main(int argc, char** argv) {
    const dotlane::AwaitsAside last;
    dotlane::test::set_surroundings(dotlane::test::Country::plain);
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QGuiApplication application(argc, argv);
    return run_tests(argc, argv);
}
