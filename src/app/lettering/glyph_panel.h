// The glyph table of a part's font: every glyph, what may stand for it, and the font's switches.
#pragma once

#include "app/commands/session.h"
#include "app/widgets/side_panel.h"

class QGridLayout;
class QLineEdit;
class QPlainTextEdit;

namespace dotlane::app {

class Card;
class GlyphGrid;

class GlyphPanel : public SidePanel {
    Q_OBJECT

  public:
    explicit GlyphPanel(Session& session, QWidget* parent = nullptr);

  Q_SIGNALS:
    void done();

  private:
    const Lettering* lettering() const;
    bool eventFilter(QObject* watched, QEvent* event) override;
    void kern(double by);
    void follow();
    void show_font();
    void search();
    void show_current();
    void insert(const GlyphInfo& glyph);
    void change(const QString& name, const std::function<void(Lettering&)>& edit, const QString& merge = {});

    Session& session_;
    FontShelf& fonts_;
    QLabel* font_;
    QPlainTextEdit* text_;
    QLineEdit* search_;
    GlyphGrid *grid_, *others_;
    QLabel *title_, *others_title_;
    QPushButton* insert_;
    Card* switches_;
    QGridLayout* switch_rows_;
    FontRequest shown_;
    std::vector<GlyphInfo> all_;
};

} // namespace dotlane::app
