// The tests' QApplication, with the program's own style and words.
#define CATCH_CONFIG_RUNNER
#include <QApplication>
#include <QSettings>
#include <catch2/catch.hpp>

#include "app/settings/language.h"

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    QApplication::setApplicationName("dot-lane-tests");
    QApplication::setOrganizationName("dot-lane");
    QSettings::setDefaultFormat(QSettings::IniFormat);
    dotlane::app::install_language();
    return Catch::Session().run(argc, argv);
}
