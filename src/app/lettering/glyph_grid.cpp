#include "app/lettering/glyph_grid.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <QToolTip>

#include "core/lettering/marks.h"
#include "present/lane_style.h"
#include "present/theme.h"

namespace dotlane::app {
namespace {

constexpr int cell_width = 44, cell_height = 46;
constexpr double em = 25; ///< px

bool printable(char32_t c) {
    return c > 0x20 && c != 0x7f && !(c >= 0x80 && c < 0xa1) && c != 0xad && QChar::isPrint(c) &&
           QChar::category(c) != QChar::Other_PrivateUse && QChar::category(c) != QChar::Mark_NonSpacing;
}

} // namespace

QString glyph_title(const GlyphInfo& glyph) {
    const QString name = QString::fromStdString(glyph.name);
    if (glyph.code == 0) return GlyphGrid::tr("%1, without a character").arg(name);
    const QString code = QString("U+%1").arg(glyph.code, 4, 16, QLatin1Char('0')).toUpper();
    const char32_t c = glyph.code;
    return printable(c) ? QString("%1   %2, %3").arg(QString::fromUcs4(&c, 1), name, code)
                        : QString("%1, %2").arg(name, code);
}

QString glyph_text(const GlyphInfo& glyph) {
    const char32_t c = glyph.code;
    return printable(c) ? QString::fromUcs4(&c, 1) : QString::fromStdString(glyph_mark(glyph.name));
}

GlyphGrid::GlyphGrid(QWidget* parent)
    : QAbstractScrollArea(parent) {
    setFocusPolicy(Qt::StrongFocus);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFrameShape(QFrame::StyledPanel);
    setAccessibleName(tr("Glyphs"));
}

void GlyphGrid::show_glyphs(FontShelf& fonts, const FontRequest& font, std::vector<GlyphInfo> glyphs) {
    if (fonts_ != &fonts || !(font_ == font)) pictures_.clear();
    fonts_ = &fonts;
    font_ = font;
    glyphs_ = std::move(glyphs);
    current_ = -1;
    verticalScrollBar()->setValue(0);
    fit_bar();
    viewport()->update();
    Q_EMIT current_changed();
}

void GlyphGrid::set_current(int index) {
    if (index < -1 || index >= static_cast<int>(glyphs_.size()) || index == current_) return;
    current_ = index;
    if (index >= 0) {
        const QRect r = cell(index);
        if (r.top() < 0) verticalScrollBar()->setValue(verticalScrollBar()->value() + r.top());
        if (r.bottom() > viewport()->height())
            verticalScrollBar()->setValue(verticalScrollBar()->value() + r.bottom() - viewport()->height());
    }
    viewport()->update();
    Q_EMIT current_changed();
}

QSize GlyphGrid::sizeHint() const {
    return {6 * cell_width, 6 * cell_height};
}

int GlyphGrid::columns() const {
    return std::max(1, viewport()->width() / cell_width);
}

QRect GlyphGrid::cell(int index) const {
    const int n = columns(), wide = viewport()->width() / n;
    return {index % n * wide, index / n * cell_height - verticalScrollBar()->value(), wide, cell_height};
}

int GlyphGrid::at(QPoint point) const {
    const int n = columns(), wide = viewport()->width() / n;
    if (point.x() < 0 || point.x() >= n * wide) return -1;
    const int index = (point.y() + verticalScrollBar()->value()) / cell_height * n + point.x() / wide;
    return index >= 0 && index < static_cast<int>(glyphs_.size()) ? index : -1;
}

void GlyphGrid::fit_bar() {
    const int rows = (static_cast<int>(glyphs_.size()) + columns() - 1) / columns();
    verticalScrollBar()->setRange(0, std::max(0, rows * cell_height - viewport()->height()));
    verticalScrollBar()->setPageStep(viewport()->height());
    verticalScrollBar()->setSingleStep(cell_height);
}

const QPainterPath& GlyphGrid::picture(std::uint32_t glyph) {
    const auto [it, fresh] = pictures_.try_emplace(glyph);
    if (!fresh) return it->second;
    it->second.setFillRule(Qt::WindingFill);
    const auto outline = fonts_->glyph(font_, mm(em), glyph);
    if (!outline) return it->second;
    present::View view;
    view.scale = 1;
    for (const Polyline& line : flattened(outline->shape, mm(0.05)))
        it->second.addPath(present::path_of(line, view));
    return it->second;
}

void GlyphGrid::paintEvent(QPaintEvent*) {
    const present::Theme& theme = present::Theme::current();
    QPainter painter(viewport());
    painter.setRenderHint(QPainter::Antialiasing);
    painter.fillRect(viewport()->rect(), theme.card);
    if (glyphs_.empty()) {
        painter.setPen(theme.quiet);
        painter.drawText(viewport()->rect(), Qt::AlignCenter, tr("Nothing of this name."));
        return;
    }
    const int n = columns(), first = verticalScrollBar()->value() / cell_height * n;
    for (int i = std::max(0, first); i < static_cast<int>(glyphs_.size()); ++i) {
        const QRect r = cell(i);
        if (r.top() > viewport()->height()) break;
        if (i == current_) {
            painter.setPen(QPen(theme.lamp, 1.5));
            painter.setBrush(theme.panel);
            painter.drawRoundedRect(QRectF(r).adjusted(1.5, 1.5, -1.5, -1.5), 5, 5);
        }
        const QPainterPath& path = picture(glyphs_[static_cast<std::size_t>(i)].index);
        const QRectF box = path.boundingRect();
        // Large ones are made to fit their cell.
        const double k = std::min({1.0, (r.width() - 8) / std::max(box.width(), 1.0),
                                   (r.height() - 8) / std::max(box.height(), 1.0)});
        painter.save();
        const double base = r.top() + r.height() * 0.66;
        // On one baseline, but for what would leave the cell.
        const double y =
            std::max(std::min(base, r.bottom() - 4 - box.bottom() * k), r.top() + 4 - box.top() * k);
        painter.translate(r.center().x() + 0.5 - box.center().x() * k, y);
        painter.scale(k, k);
        painter.fillPath(path, theme.ink);
        painter.restore();
    }
}

void GlyphGrid::resizeEvent(QResizeEvent* event) {
    QAbstractScrollArea::resizeEvent(event);
    fit_bar();
}

void GlyphGrid::mousePressEvent(QMouseEvent* event) {
    if (event->button() == Qt::LeftButton) set_current(at(event->pos()));
}

void GlyphGrid::mouseDoubleClickEvent(QMouseEvent* event) {
    const int index = at(event->pos());
    if (index >= 0) Q_EMIT inserted(glyphs_[static_cast<std::size_t>(index)]);
}

void GlyphGrid::keyPressEvent(QKeyEvent* event) {
    const int last = static_cast<int>(glyphs_.size()) - 1;
    const auto go = [&](int by) {
        set_current(std::clamp(std::max(current_, 0) + by, 0, std::max(last, 0)));
    };
    switch (event->key()) {
    case Qt::Key_Left:
        return go(-1);
    case Qt::Key_Right:
        return go(current_ < 0 ? 0 : 1);
    case Qt::Key_Up:
        return go(-columns());
    case Qt::Key_Down:
        return go(current_ < 0 ? 0 : columns());
    case Qt::Key_Return:
    case Qt::Key_Enter:
        if (current_ >= 0) Q_EMIT inserted(glyphs_[static_cast<std::size_t>(current_)]);
        return;
    default:
        QAbstractScrollArea::keyPressEvent(event);
    }
}

bool GlyphGrid::viewportEvent(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        const int index = at(help->pos());
        if (index >= 0)
            QToolTip::showText(help->globalPos(), glyph_title(glyphs_[static_cast<std::size_t>(index)]));
        else
            QToolTip::hideText();
        return true;
    }
    return QAbstractScrollArea::viewportEvent(event);
}

} // namespace dotlane::app
