// Cells with one glyph each; only those in view are drawn.
#pragma once

#include <QAbstractScrollArea>
#include <QPainterPath>
#include <unordered_map>

#include "core/lettering/outliner.h"

namespace dotlane::app {

class GlyphGrid : public QAbstractScrollArea {
    Q_OBJECT

  public:
    explicit GlyphGrid(QWidget* parent = nullptr);
    void show_glyphs(FontShelf& fonts, const FontRequest& font, std::vector<GlyphInfo> glyphs);
    const std::vector<GlyphInfo>& glyphs() const { return glyphs_; }
    /// Index into `glyphs()`; -1: none.
    int current() const { return current_; }
    void set_current(int index);
    QSize sizeHint() const override;

  Q_SIGNALS:
    void current_changed();
    void inserted(const dotlane::GlyphInfo& glyph); ///< a double click, or the Enter key

  protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool viewportEvent(QEvent* event) override;

  private:
    int columns() const;
    int at(QPoint point) const;
    QRect cell(int index) const; ///< in the viewport
    const QPainterPath& picture(std::uint32_t glyph);
    void fit_bar();

    FontShelf* fonts_ = nullptr;
    FontRequest font_;
    std::vector<GlyphInfo> glyphs_;
    std::unordered_map<std::uint32_t, QPainterPath> pictures_;
    int current_ = -1;
};

/// How a glyph is called: the character with its code, or its name in the font.
QString glyph_title(const GlyphInfo& glyph);
/// What stands for it in a text.
QString glyph_text(const GlyphInfo& glyph);

} // namespace dotlane::app
