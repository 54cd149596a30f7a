#include "app/lettering/glyph_panel.h"

#include <QCheckBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QPlainTextEdit>

#include "app/lettering/glyph_grid.h"
#include "app/widgets/card.h"
#include "core/commands/making.h"
#include "core/lettering/marks.h"

namespace dotlane::app {
GlyphPanel::GlyphPanel(Session& session, QWidget* parent)
    : SidePanel(tr("Glyphs"), parent)
    , session_(session)
    , fonts_(session.workshop().fonts())
    , font_(label({}, TextRole::quiet, this))
    , text_(new QPlainTextEdit(this))
    , search_(new QLineEdit(this))
    , grid_(new GlyphGrid(this))
    , others_(new GlyphGrid(this))
    , title_(label({}, TextRole::quiet, this))
    , others_title_(label(tr("may stand for it"), TextRole::quiet, this))
    , insert_(pill(tr("Insert"), this))
    , switches_(new Card(this))
    , switch_rows_(new QGridLayout) {
    auto* back = pill(tr("Done"), this);
    back->setObjectName("glyphs-done");
    head()->addWidget(back);
    font_->setWordWrap(true);
    text_->setObjectName("glyph-text");
    text_->setAccessibleName(tr("Text"));
    text_->setTabChangesFocus(true);
    text_->setFixedHeight(text_->fontMetrics().lineSpacing() * 2 + 14);
    search_->setObjectName("glyph-search");
    search_->setPlaceholderText(tr("a, U+00E9 or a part of a name"));
    search_->setClearButtonEnabled(true);
    grid_->setObjectName("glyph-grid");
    grid_->setFixedHeight(144);
    others_->setObjectName("glyph-others");
    others_->setFixedHeight(50);
    insert_->setObjectName("glyph-insert");
    title_->setWordWrap(true);
    body()->addWidget(font_);
    body()->addWidget(captioned(tr("text; glyphs go in at the caret"), text_, this));
    body()->addWidget(captioned(tr("find"), search_, this));
    body()->addWidget(grid_);
    auto* chosen = new QHBoxLayout;
    chosen->addWidget(title_, 1);
    chosen->addWidget(insert_);
    body()->addLayout(chosen);
    body()->addWidget(others_title_);
    body()->addWidget(others_);
    switches_->rows()->addWidget(label(tr("Switches of the font"), TextRole::heading, switches_));
    switch_rows_->setVerticalSpacing(3);
    switches_->rows()->addLayout(switch_rows_);
    body()->addWidget(switches_);
    body()->addStretch(1);
    text_->installEventFilter(this);
    text_->setToolTip(tr("Alt+Left and Alt+Right move what follows the caret, with Shift by more"));
    connect(back, &QPushButton::clicked, this, &GlyphPanel::done);
    connect(text_, &QPlainTextEdit::textChanged, this, [this] {
        change(
            tr("Text"), [this](Lettering& l) { l.text = text_->toPlainText().toStdString(); }, "text");
    });
    connect(search_, &QLineEdit::textChanged, this, &GlyphPanel::search);
    connect(grid_, &GlyphGrid::current_changed, this, &GlyphPanel::show_current);
    connect(grid_, &GlyphGrid::inserted, this, &GlyphPanel::insert);
    connect(others_, &GlyphGrid::inserted, this, &GlyphPanel::insert);
    connect(insert_, &QPushButton::clicked, this, [this] {
        const GlyphGrid* from = others_->current() >= 0 ? others_ : grid_;
        if (from->current() >= 0) insert(from->glyphs()[static_cast<std::size_t>(from->current())]);
    });
    connect(&session_, &Session::projectChanged, this, [this](const Changes& what) {
        if (what.part(session_.choice().part)) follow();
    });
    connect(&session_, &Session::choiceChanged, this, &GlyphPanel::follow);
    follow();
}

const Lettering* GlyphPanel::lettering() const {
    const Part* part = session_.part();
    const auto* spec = part ? std::get_if<Lettering>(&part->source.spec) : nullptr;
    return spec && spec->kind == Lettering::Kind::outlines ? spec : nullptr;
}

/// The text and the font may have been changed elsewhere, or another part chosen.
void GlyphPanel::follow() {
    const Lettering* spec = lettering();
    setEnabled(spec);
    if (!spec) {
        font_->setText(tr("Choose a part with outline lettering: the glyphs of its font stand here."));
        return;
    }
    if (const QString text = QString::fromStdString(spec->text); text != text_->toPlainText()) {
        const QSignalBlocker quiet(text_);
        text_->setPlainText(text);
        text_->moveCursor(QTextCursor::End);
    }
    const FontRequest font{spec->font, spec->italic, spec->weight, spec->features};
    if (all_.empty() || !(font == shown_)) {
        const bool same = !all_.empty() && font.family == shown_.family && font.italic == shown_.italic &&
                          font.weight == shown_.weight;
        shown_ = font;
        if (!same) show_font();
    }
    for (auto* tick : switches_->findChildren<QCheckBox*>()) {
        const QSignalBlocker quiet(tick);
        tick->setChecked(feature_on(spec->features, tick->property("tag").toString().toStdString(),
                                    tick->property("on").toBool()));
    }
}

void GlyphPanel::show_font() {
    all_ = fonts_.glyphs(shown_);
    const auto typed =
        std::count_if(all_.begin(), all_.end(), [](const GlyphInfo& g) { return g.code != 0; });
    font_->setText(tr("%1: %2 glyphs, %3 of them without a character")
                       .arg(QString::fromStdString(shown_.family))
                       .arg(all_.size())
                       .arg(static_cast<qlonglong>(all_.size()) - typed));
    qDeleteAll(switches_->findChildren<QCheckBox*>());
    int n = 0;
    for (const FontFeature& feature : fonts_.features(shown_)) {
        auto* tick = new QCheckBox(QString::fromStdString(feature.name), switches_);
        tick->setObjectName("feature-" + QString::fromStdString(feature.tag));
        tick->setToolTip(QString::fromStdString(feature.tag));
        tick->setProperty("tag", QString::fromStdString(feature.tag));
        tick->setProperty("on", feature.on);
        switch_rows_->addWidget(tick, n++, 0);
        connect(tick, &QCheckBox::toggled, this, [this, feature](bool on) {
            change(tr("Switch of the font"),
                   [&](Lettering& l) { l.features = with_feature(l.features, feature.tag, on, feature.on); });
        });
    }
    switches_->setVisible(n > 0);
    search();
}

void GlyphPanel::search() {
    const QStringList words = search_->text().split(QLatin1Char(' '), Qt::SkipEmptyParts);
    std::vector<GlyphInfo> some;
    for (const GlyphInfo& glyph : all_)
        if (std::all_of(words.begin(), words.end(),
                        [&](const QString& w) { return glyph_matches(glyph, w.toStdString()); }))
            some.push_back(glyph);
    grid_->show_glyphs(fonts_, shown_, std::move(some));
}

void GlyphPanel::show_current() {
    const int i = grid_->current();
    insert_->setEnabled(i >= 0);
    std::vector<GlyphInfo> others;
    if (i >= 0) {
        const GlyphInfo& glyph = grid_->glyphs()[static_cast<std::size_t>(i)];
        title_->setText(glyph_title(glyph));
        for (const std::uint32_t index : fonts_.alternates(shown_, glyph.index))
            for (const GlyphInfo& other : all_)
                if (other.index == index) others.push_back(other);
    } else {
        title_->setText(tr("%1 shown").arg(grid_->glyphs().size()));
    }
    others_title_->setVisible(!others.empty());
    others_->setVisible(!others.empty());
    others_->show_glyphs(fonts_, shown_, std::move(others));
}

bool GlyphPanel::eventFilter(QObject* watched, QEvent* event) {
    if (watched == text_ &&
        (event->type() == QEvent::KeyPress || event->type() == QEvent::ShortcutOverride)) {
        const auto* key = static_cast<QKeyEvent*>(event);
        const bool left = key->key() == Qt::Key_Left, right = key->key() == Qt::Key_Right;
        if ((left || right) && key->modifiers() & Qt::AltModifier) {
            if (event->type() == QEvent::KeyPress)
                kern((left ? -1 : 1) * (key->modifiers() & Qt::ShiftModifier ? 5 : 0.5));
            event->accept();
            return true;
        }
    }
    return SidePanel::eventFilter(watched, event);
}

/// The pair at the caret.
void GlyphPanel::kern(double by) {
    const QString before = text_->toPlainText();
    const int caret = text_->textCursor().position();
    const Kerned now =
        kerned(before.toStdString(), static_cast<std::size_t>(before.left(caret).toUtf8().size()), by);
    text_->setPlainText(QString::fromStdString(now.text));
    QTextCursor at = text_->textCursor();
    at.setPosition(
        static_cast<int>(QString::fromUtf8(now.text.data(), static_cast<qsizetype>(now.caret)).size()));
    text_->setTextCursor(at);
}

void GlyphPanel::insert(const GlyphInfo& glyph) {
    text_->insertPlainText(glyph_text(glyph));
}

void GlyphPanel::change(const QString& name, const std::function<void(Lettering&)>& edit,
                        const QString& merge) {
    const Lettering* now = lettering();
    if (!now) return;
    Lettering next = *now;
    edit(next);
    const PartId id = session_.choice().part;
    session_.run(name, ChangeSource{id, next}, merge.isEmpty() ? merge : merge + QString::number(id.value));
}

} // namespace dotlane::app
