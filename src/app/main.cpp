#include <QApplication>
#include <QCommandLineParser>
#include <QIcon>
#include <QSettings>
#include <cstdio>

#include "app/settings/language.h"
#include "app/window/ahead.h"
#include "app/window/main_window.h"
#include "app/window/project_files.h"
#include "app/window/style.h"
#include "core/base/aside.h"
#include "core/base/data_folder.h"
#include "core/base/heap.h"
#include "dotlane_config.h"

using namespace dotlane;

int main(int argc, char** argv) {
    keep_freed_memory();
    const AwaitsAside last;
    report_full_files();
    auto catalog = load_catalog(disk(), data_folder() + "/catalog", user_catalog_folder());
    if (!catalog) {
        std::fprintf(stderr, "dot-lane: %s\n", to_text(catalog.error()).c_str());
        return 2;
    }
    Workshop workshop(std::move(*catalog));
    const auto ahead = app::Ahead::of_arguments(workshop, argc, argv);
    QApplication application(argc, argv);
    QApplication::setApplicationName("dot-lane");
    QApplication::setOrganizationName("dot-lane");
    QApplication::setApplicationVersion(DOTLANE_VERSION);
    QSettings::setDefaultFormat(QSettings::IniFormat);
    QCommandLineParser parser;
    parser.setApplicationDescription("Plans what a craft cutter cuts, scores, draws, foils and engraves.");
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addPositionalArgument("file", "A project (.dotlane) or a drawing (.svg, .dxf, .hpgl).", "[file]");
    const QCommandLineOption demo("demo", "Open the demo project.");
    parser.addOption(demo);
    parser.process(application);

    app::install_language();
    QApplication::setWindowIcon(QIcon(QString::fromStdString(data_folder() + "/icons/dot-lane.svg")));
    app::apply_theme(QSettings().value("dark", false).toBool());
    app::MainWindow window(workshop, disk(), state_folder());
    app::apply_sheet();
    if (ahead) window.files().set_ahead(&*ahead);
    if (parser.isSet(demo))
        window.files().open_demo();
    else if (!parser.positionalArguments().isEmpty())
        window.files().open_path(parser.positionalArguments().front());
    window.show();
    return QApplication::exec();
}
