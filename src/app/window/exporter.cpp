#include "app/window/exporter.h"

#include <QDesktopServices>
#include <QUrl>
#include <QtConcurrent>

#include "app/commands/dialogs.h"
#include "app/widgets/notice.h"
#include "core/base/caught.h"
#include "present/pdf.h"
#include "present/words.h"

namespace dotlane::app {

Exporter::Exporter(Session& session, Notice& notice, QWidget* window)
    : QObject(window)
    , session_(session)
    , notice_(notice)
    , window_(window) {
    connect(&work_, &QFutureWatcherBase::finished, this, [this] {
        busy_ = false;
        const auto done = work_.result();
        if (!*done) return void(Q_EMIT failed(done->error()));
        notice_.tell(
            Notice::Kind::news,
            tr("%n file(s) exported to %1.", nullptr, static_cast<int>((*done)->files.size())).arg(folder_),
            {{tr("Open the folder"),
              [folder = folder_] { QDesktopServices::openUrl(QUrl::fromLocalFile(folder)); }}});
    });
}

Exporter::~Exporter() {
    work_.waitForFinished();
}

void Exporter::export_to(QString folder, bool override_errors) {
    const auto derived = session_.derived();
    if (!derived || session_.deriving() || busy()) return;
    if (folder.isEmpty()) {
        if (blocks_export(derived->findings) && !override_errors) return void(Q_EMIT blocked());
        const auto chosen = dialogs().folder(window_, tr("Folder for the export"), folder_);
        if (!chosen) return;
        folder = *chosen;
    }
    folder_ = folder;
    busy_ = true;
    notice_.tell(Notice::Kind::news, tr("Exporting..."));
    work_.setFuture(QtConcurrent::run([derived, folder, override_errors, &catalog = session_.catalog(),
                                       &files = session_.files()] {
        return std::make_shared<Result<ExportResult>>(caught([&] {
            return export_folder(*derived, catalog, files, folder.toStdString(),
                                 {override_errors, present::pdf_painter(),
                                  [](const Phrase& phrase) { return present::words(phrase).toStdString(); }});
        }));
    }));
}

} // namespace dotlane::app
