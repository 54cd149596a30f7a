#include "present/pdf.h"

#include <QBuffer>
#include <QGuiApplication>
#include <QPdfWriter>
#include <memory>

#include "core/base/data_folder.h"
#include "present/print_pdf.h"
#include "present/run_sheet_pdf.h"
#include "present/theme.h"

namespace dotlane::present {

Result<std::string> pdf_bytes(const QPageSize& page, const QMarginsF& margins_mm, const QString& title,
                              int dots_per_inch, const std::function<void(QPdfWriter&)>& paint) {
    std::unique_ptr<QGuiApplication> own;
    static int argc = 1;
    static char name[] = "dot-lane-cli";
    static char* argv[] = {name, nullptr};
    if (!QCoreApplication::instance()) {
        qputenv("QT_QPA_PLATFORM", "offscreen");
        // What Qt has to say about a session that has no desktop is nobody's concern on a command line.
        const auto handler =
            qInstallMessageHandler([](QtMsgType, const QMessageLogContext&, const QString&) {});
        own = std::make_unique<QGuiApplication>(argc, argv);
        qInstallMessageHandler(handler);
    }
    load_fonts(QString::fromStdString(data_folder()));
    const OnPaper colours;
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter writer(&buffer);
        writer.setResolution(dots_per_inch); // before any painter is opened on it
        writer.setPageSize(page);
        writer.setPageMargins(margins_mm, QPageLayout::Millimeter);
        writer.setTitle(title);
        writer.setCreator("Dot Lane");
        paint(writer);
    }
    if (bytes.isEmpty())
        return fail("pdf.failed", say("\"%1\" could not be written as PDF.", title.toStdString()));
    return bytes.toStdString();
}

PdfPainter pdf_painter() {
    return {run_sheet_pdf, print_pdf};
}

} // namespace dotlane::present
