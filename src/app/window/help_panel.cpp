#include "app/window/help_panel.h"

#include <QGridLayout>
#include <QHBoxLayout>

#include "app/widgets/card.h"

namespace dotlane::app {
namespace {

using Rows = std::vector<std::pair<QString, QString>>;

Card* table(const QString& heading, const Rows& rows, QWidget* parent) {
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
    body()->addWidget(table(tr("Everywhere"),
                            {{tr("Ctrl+K"), tr("find a command")},
                             {tr("1, 2, 3"), tr("part, sheets, rehearsal")},
                             {tr("Ctrl+Z"), tr("undo; Ctrl+Shift+Z redoes")},
                             {tr("Wheel"), tr("zoom; middle button moves the view")},
                             {tr("Ctrl+0"), tr("fit")},
                             {tr("F8"), tr("all findings")}},
                            this));
    body()->addWidget(table(
        tr("On a part"),
        {{tr("Click, drag"), tr("choose a line, or all inside a box; Shift adds, Ctrl adds or takes away")},
         {tr("C S H D F E M R"),
          tr("send the chosen lines to cut, score, perforate (holes), draw, foil, engrave, emboss, "
             "print; again: the next lane of that action")},
         {tr("Ctrl+Alt+C"), tr("choose all of this colour")},
         {tr("Ctrl+Alt+I"), tr("choose all inside this outline")},
         {tr("Ctrl+Alt+F"), tr("fill the chosen lines")},
         {tr("Ctrl+Alt+D"), tr("copy the part")},
         {tr("Ctrl+Alt+G"), tr("glyphs of the font; there Alt+Left, Alt+Right kern the pair at the caret")}},
        this));
    body()->addWidget(table(tr("On a sheet"),
                            {{tr("Arrows"), tr("move by 1 mm; Shift 10 mm, Ctrl 0.1 mm")},
                             {tr("Ctrl+R"), tr("quarter turn")},
                             {tr("Ctrl+M"), tr("mirror")},
                             {tr("Ctrl+D"), tr("duplicate")}},
                            this));
    body()->addWidget(table(tr("In the rehearsal"),
                            {{tr("Space"), tr("play or pause")},
                             {tr("N, B"), tr("next stop, stop before")},
                             {tr("Left, Right"), tr("2 seconds; with Shift 30")}},
                            this));
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
