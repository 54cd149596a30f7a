// dot-lane-shots VIEW OUT.png [WxH]: a picture of a view of the window. It is not installed.
#include <QApplication>
#include <QIcon>
#include <QSettings>
#include <cstdio>

#include "app/settings/language.h"
#include "app/window/style.h"
#include "core/base/aside.h"
#include "core/base/data_folder.h"
#include "core/base/heap.h"
#include "shots/views.h"

using namespace dotlane;

int main(int argc, char** argv) {
    keep_freed_memory();
    const AwaitsAside last;
    auto catalog = load_catalog(disk(), data_folder() + "/catalog", user_catalog_folder());
    if (!catalog) {
        std::fprintf(stderr, "dot-lane-shots: %s\n", to_text(catalog.error()).c_str());
        return 2;
    }
    Workshop workshop(std::move(*catalog));
    QApplication application(argc, argv);
    QApplication::setApplicationName("dot-lane-shots"); // its settings are not the user's
    QApplication::setOrganizationName("dot-lane");
    QSettings::setDefaultFormat(QSettings::IniFormat);
    app::install_language();
    const QStringList words = QApplication::arguments();
    return shots::take_shot(workshop, words.value(1), words.value(2), words.value(3, "1280x800"));
}
