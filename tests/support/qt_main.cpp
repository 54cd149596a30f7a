// For checks that paint: a QGuiApplication without a screen.
#include <QGuiApplication>

int run_tests(int argc, char** argv); // support/catch.cpp

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QGuiApplication application(argc, argv);
    return run_tests(argc, argv);
}
