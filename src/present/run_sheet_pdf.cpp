#include "present/run_sheet_pdf.h"

#include <QBuffer>
#include <QGuiApplication>
#include <QPageSize>
#include <QPainter>
#include <QPdfWriter>
#include <memory>

#include "core/workflow/data_folder.h"
#include "present/lane_style.h"

namespace dotlane::present {
namespace {

/// Writes down the page and on to the next; lengths in points.
class Page {
  public:
    explicit Page(QPdfWriter& writer)
        : writer_(writer)
        , painter_(&writer) {
        width_ = writer.width();
        height_ = writer.height();
    }
    void room(double h) {
        if (y_ + h <= height_) return;
        writer_.newPage();
        y_ = 0;
    }
    void text(const std::string& s, double size, QFont::Weight weight = QFont::Normal, double indent = 0,
              QColor colour = QColor("#22282c")) {
        const QFont font = ui_font(size, weight);
        painter_.setFont(font);
        const QString q = QString::fromStdString(s);
        const QRectF need =
            painter_.boundingRect(QRectF(indent, 0, width_ - indent, 10000), Qt::TextWordWrap, q);
        room(need.height());
        painter_.setPen(colour);
        painter_.drawText(QRectF(indent, y_, width_ - indent, need.height() + 2), Qt::TextWordWrap, q);
        y_ += need.height() + 2;
    }
    void gap(double h) { y_ += h; }
    void rule() {
        painter_.setPen(QPen(QColor("#d8d0c4"), 0.7));
        painter_.drawLine(QPointF(0, y_), QPointF(width_, y_));
        y_ += 6;
    }
    void row(const RunSheetRow& r) {
        room(20 + 14.0 * static_cast<double>(r.lines.size()));
        const double top = y_;
        if (r.stop) { // a box to tick
            painter_.setPen(QPen(QColor("#22282c"), 1));
            painter_.setBrush(Qt::NoBrush);
            painter_.drawRect(QRectF(1, top + 3, 9, 9));
        } else {
            painter_.setPen(Qt::NoPen);
            painter_.setBrush(to_qcolor(r.colour));
            painter_.drawRoundedRect(QRectF(0, top + 2, 11, 11), 2, 2);
        }
        painter_.setFont(ui_font(10));
        painter_.setPen(QColor("#6d6a64"));
        painter_.drawText(QRectF(0, top, width_, 16), Qt::AlignRight | Qt::AlignVCenter,
                          QString::fromStdString(r.time));
        text(r.title, 10.5, r.stop ? QFont::DemiBold : QFont::Normal, 20);
        for (const std::string& line : r.lines)
            text(line, 9.5, QFont::Normal, 32, QColor("#4a4843"));
        y_ += 5;
    }
    void list(const char* heading, const std::vector<std::string>& items) {
        if (items.empty()) return;
        gap(6);
        room(36);
        text(heading, 11, QFont::DemiBold);
        for (const std::string& item : items)
            text("\u2022 " + item, 9.5, QFont::Normal, 8);
    }
    void totals(const std::vector<std::pair<std::string, std::string>>& totals) {
        const double w = width_ / static_cast<double>(totals.size());
        for (std::size_t i = 0; i < totals.size(); ++i) {
            const QRectF cell(w * static_cast<double>(i), y_, w, 34);
            painter_.setFont(ui_font(9));
            painter_.setPen(QColor("#6d6a64"));
            painter_.drawText(cell, Qt::AlignLeft | Qt::AlignTop, QString::fromStdString(totals[i].first));
            painter_.setFont(ui_font(13, QFont::DemiBold));
            painter_.setPen(QColor("#22282c"));
            painter_.drawText(cell.adjusted(0, 13, 0, 0), Qt::AlignLeft | Qt::AlignTop,
                              QString::fromStdString(totals[i].second));
        }
        y_ += 40;
    }

  private:
    QPdfWriter& writer_;
    QPainter painter_;
    double width_ = 0, height_ = 0, y_ = 0;
};

} // namespace

Result<std::string> run_sheet_pdf(const RunSheet& sheet) {
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
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter writer(&buffer);
        writer.setResolution(72); // before any painter is opened on it: all lengths here are points
        writer.setPageSize(QPageSize(QPageSize::A4));
        writer.setPageMargins(QMarginsF(18, 16, 18, 16), QPageLayout::Millimeter);
        writer.setTitle(QString::fromStdString(sheet.title + ": run sheet"));
        writer.setCreator("Dot Lane");
        Page page(writer);
        page.text(sheet.title, 20, QFont::DemiBold);
        page.text(sheet.subtitle, 11, QFont::Normal, 0, QColor("#6d6a64"));
        page.gap(6);
        if (!sheet.overridden.empty()) page.text(sheet.overridden, 11, QFont::DemiBold, 0, QColor("#b3402e"));
        page.gap(4);
        page.totals(sheet.totals);
        page.rule();
        for (const RunSheetRow& row : sheet.rows)
            page.row(row);
        page.list("Findings that stand", sheet.findings);
        page.list("Why this order", sheet.reasons);
        page.list("Take care", sheet.cautions);
        page.list("Files", sheet.files);
    }
    if (bytes.isEmpty()) return fail("pdf.failed", "The run sheet could not be written as PDF.");
    return bytes.toStdString();
}

} // namespace dotlane::present
