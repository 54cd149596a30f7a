#include "app/window/help_panel.h"

#include <QGridLayout>
#include <QHBoxLayout>

#include "app/widgets/card.h"
#include "app/window/actions.h"

namespace dotlane::app {
namespace {

using KeyRows = std::vector<std::pair<QString, QString>>;

Card* table(const QString& heading, const KeyRows& rows, QWidget* parent) {
    auto* card = new Card(parent);
    card->rows()->addWidget(label(heading, TextRole::heading, card));
    auto* grid = new QGridLayout;
    grid->setColumnStretch(1, 1);
    grid->setHorizontalSpacing(12);
    grid->setVerticalSpacing(4);
    int row = 0;
    for (const auto& [left, right] : rows) {
        auto* a = label(left, TextRole::body, card);
        auto* b = label(right, TextRole::quiet, card);
        b->setWordWrap(true);
        grid->addWidget(a, row, 0, Qt::AlignTop);
        grid->addWidget(b, row++, 1);
    }
    card->rows()->addLayout(grid);
    return card;
}

} // namespace

HelpPanel::HelpPanel(QWidget* parent)
    : SidePanel(tr("Keys and words"), parent) {
    auto* back = pill(tr("Done"), this);
    head()->addWidget(back);
    connect(back, &QPushButton::clicked, this, &HelpPanel::done);
}

void HelpPanel::show_keys(const Actions& actions) {
    if (std::exchange(shown_, true)) return; // they stay the same while the program runs
    std::map<MenuName, KeyRows> keyed;
    for (const Actions::One& one : actions.all()) {
        QStringList keys;
        for (const QKeySequence& key : one.entry.keys)
            keys << key.toString(QKeySequence::NativeText);
        if (!one.entry.letter.isEmpty()) keys << one.entry.letter;
        if (!keys.isEmpty())
            keyed[one.entry.menu].push_back(
                {keys.join(", "), QString(one.entry.words).remove('&').remove("...")});
    }
    body()->addWidget(table(
        tr("On the bench"),
        {{tr("Wheel"), tr("zoom; the middle button moves the view")},
         {tr("Click, drag"), tr("choose a line, or all inside a box; Shift adds, Ctrl adds or takes away")},
         {tr("Arrows"), tr("move what is chosen on a sheet by 1 mm; Shift 10 mm, Ctrl 0.1 mm")}},
        this));
    for (const auto& [menu, rows] : keyed)
        body()->addWidget(table(QString(title(menu)).remove('&'), rows, this));
    body()->addWidget(table(tr("In the rehearsal"),
                            {{tr("Space"), tr("play or pause")},
                             {tr("N, B"), tr("next stop, stop before")},
                             {tr("Left, Right"), tr("2 seconds; with Shift 30")}},
                            this));
    body()->addWidget(
        table(tr("At the glyphs"), {{tr("Alt+Left, Alt+Right"), tr("kern the pair at the caret")}}, this));
    body()->addWidget(table(tr("Words"),
                            {{tr("lane"), tr("one tool doing one action; every line runs in exactly one")},
                             {tr("pass"), tr("one tool over one sheet, without a hand touching anything")},
                             {tr("stop"), tr("a moment at which hands are needed")},
                             {tr("board"), tr("passes and stops over time")},
                             {tr("finding"), tr("something the checks noticed, with its remedy")}},
                            this));
    body()->addStretch(1);
}

} // namespace dotlane::app
