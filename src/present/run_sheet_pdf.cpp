#include "present/run_sheet_pdf.h"

#include <QPainter>
#include <QPdfWriter>
#include <set>

#include "present/board_painter.h"
#include "present/pdf.h"
#include "present/sheet_painter.h"
#include "present/words.h"

namespace dotlane::present {
namespace {

/// Writes down the page and on to the next; lengths in points.
class Page {
  public:
    Page(QPdfWriter& writer, const Derived& derived, const Catalog& catalog)
        : writer_(writer)
        , derived_(derived)
        , catalog_(catalog)
        , painter_(&writer) {
        width_ = writer.width();
        height_ = writer.height();
    }
    void room(double h) {
        if (y_ + h <= height_) return;
        writer_.newPage();
        y_ = 0;
    }
    void text(const Phrase& said, double size, QFont::Weight weight = QFont::Normal, double indent = 0,
              QColor colour = QColor("#22282c")) {
        const QFont font = ui_font(size, weight);
        painter_.setFont(font);
        const QString q = words(said);
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
    /// A line with a box before it.
    void tick(const Phrase& line) {
        room(20);
        tick_box();
        text(line, 10.5, QFont::DemiBold, 20);
        gap(4);
    }
    void board() {
        constexpr double h = 128, shown_wide = 900; // painted as large as on a screen, then made to fit
        room(h);
        painter_.save();
        painter_.translate(0, y_);
        const double k = width_ / shown_wide;
        painter_.scale(k, k);
        paint_board(painter_, {&derived_, &catalog_, {}, {}, {}, {}, false}, {0, 0, shown_wide, h / k});
        painter_.restore();
        y_ += h + 6;
    }
    void steps(const RunSheet& sheet) {
        std::set<SheetId> shown;
        for (const RunSheetRow& r : sheet.rows) {
            row(r);
            for (const RunSheetPicture& picture : sheet.pictures)
                if (r.sheet && picture.sheet == r.sheet && shown.insert(r.sheet).second)
                    sheet_picture(picture);
        }
        for (const RunSheetPicture& picture : sheet.pictures)
            if (!shown.contains(picture.sheet)) sheet_picture(picture);
    }
    void row(const RunSheetRow& r) {
        room(20 + 14.0 * static_cast<double>(r.lines.size()));
        const double top = y_;
        if (r.stop) {
            tick_box();
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
        for (const RunSheetLine& line : r.lines)
            if (line.care)
                text(say("! %1", line.text), 9.5, QFont::DemiBold, 32, QColor("#9c3020"));
            else
                text(line.text, 9.5, QFont::Normal, 32, QColor("#4a4843"));
        if (!r.lies.empty()) text(r.lies, 9, QFont::Normal, 32, QColor("#6d6a64"));
        y_ += 5;
    }
    /// The sheet on its mat to the left, what its numbers mean to the right.
    void sheet_picture(const RunSheetPicture& picture) {
        constexpr double side = 130, left = 32;
        const Box mat{0, 0, in_mm(picture.mat_width), in_mm(picture.mat_height)};
        const double k = side / std::max(mat.width(), 1.0), h = std::min(k * mat.height(), 1.6 * side);
        room(h + 16);
        const double top = y_ + 4;
        const QRectF area(left, top, side, h);
        const View view = View::fitting(mat, area);
        painter_.save();
        paint_sheet(painter_, {derived_.project.get(), &catalog_, &derived_, picture.sheet, true, {}}, view,
                    area);
        for (const RunSheetPart& part : picture.parts)
            number(part, view);
        painter_.restore();
        const double beside = left + side + 14;
        y_ = top;
        text(picture.title, 10, QFont::DemiBold, beside);
        for (const Phrase& note : picture.notes)
            text(note, 9, QFont::Normal, beside, QColor("#4a4843"));
        gap(3);
        for (const RunSheetPart& part : picture.parts)
            text(say("%1  %2", part.number, part.name), 9, QFont::Normal, beside, QColor("#4a4843"));
        y_ = std::max(y_, top + h) + 12;
    }
    void list(const Phrase& heading, const std::vector<Phrase>& items) {
        if (items.empty()) return;
        gap(6);
        room(36);
        text(heading, 11, QFont::DemiBold);
        for (const Phrase& item : items)
            text(say("\u2022 %1", item), 9.5, QFont::Normal, 8);
    }
    void totals(const std::vector<std::pair<Phrase, std::string>>& totals) {
        const double w = width_ / static_cast<double>(totals.size());
        for (std::size_t i = 0; i < totals.size(); ++i) {
            const QRectF cell(w * static_cast<double>(i), y_, w, 34);
            painter_.setFont(ui_font(9));
            painter_.setPen(QColor("#6d6a64"));
            painter_.drawText(cell, Qt::AlignLeft | Qt::AlignTop, words(totals[i].first));
            painter_.setFont(ui_font(13, QFont::DemiBold));
            painter_.setPen(QColor("#22282c"));
            painter_.drawText(cell.adjusted(0, 13, 0, 0), Qt::AlignLeft | Qt::AlignTop,
                              QString::fromStdString(totals[i].second));
        }
        y_ += 40;
    }

  private:
    void tick_box() {
        painter_.setPen(QPen(QColor("#22282c"), 1));
        painter_.setBrush(Qt::NoBrush);
        painter_.drawRect(QRectF(1, y_ + 3, 9, 9));
    }
    void number(const RunSheetPart& part, const View& view) {
        const QString text = QString::number(part.number);
        const QFont font = ui_font(8, QFont::DemiBold);
        const double r = std::max(6.0, QFontMetricsF(font).horizontalAdvance(text) / 2 + 3);
        const QPointF middle = view.map(part.box.centre());
        painter_.setPen(QPen(QColor("#22282c"), 0.8));
        painter_.setBrush(QColor("#fffdf9"));
        painter_.drawRoundedRect(QRectF(middle.x() - r, middle.y() - 6, 2 * r, 12), 6, 6);
        painter_.setFont(font);
        painter_.drawText(QRectF(middle.x() - r, middle.y() - 6, 2 * r, 12), Qt::AlignCenter, text);
    }

    QPdfWriter& writer_;
    const Derived& derived_;
    const Catalog& catalog_;
    QPainter painter_;
    double width_ = 0, height_ = 0, y_ = 0;
};

} // namespace

Result<std::string> run_sheet_pdf(const RunSheet& sheet, const Derived& derived, const Catalog& catalog) {
    const QString title = Words::tr("%1: run sheet").arg(QString::fromStdString(sheet.title));
    constexpr int points = 72;
    return pdf_bytes(QPageSize(QPageSize::A4), {18, 16, 18, 16}, title, points, [&](QPdfWriter& writer) {
        Page page(writer, derived, catalog);
        page.text(as_is(sheet.title), 20, QFont::DemiBold);
        page.text(sheet.subtitle, 11, QFont::Normal, 0, QColor("#6d6a64"));
        page.gap(6);
        if (!sheet.overridden.empty()) page.text(sheet.overridden, 11, QFont::DemiBold, 0, QColor("#b3402e"));
        page.gap(4);
        page.totals(sheet.totals);
        page.text(say("Lines: %1", sheet.lines), 9.5, QFont::Normal, 0, QColor("#6d6a64"));
        page.gap(4);
        page.board();
        for (const Phrase& line : sheet.before)
            page.tick(line);
        page.rule();
        page.steps(sheet);
        page.list(say("Findings that stand"), sheet.findings);
        page.list(say("Take care"), sheet.cautions);
        page.list(say("Why this order"), sheet.reasons);
        std::vector<Phrase> files;
        for (const std::string& file : sheet.files)
            files.push_back(as_is(file));
        page.list(say("Files"), files);
    });
}

} // namespace dotlane::present
