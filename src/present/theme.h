// Colours and type of the interface, light and dark. The one place where a colour is written down.
#pragma once

#include <QColor>
#include <QFont>
#include <QString>

#include "core/project/drawing.h"

namespace dotlane::present {

struct Theme {
    bool dark = false;
    QColor ground, panel, card, ink, quiet, hairline, lamp, tide, tide_text, error, caution, hint;
    QColor paper; ///< of the bench
    QColor shade; ///< where the tool cannot reach
    QColor error_card;
    QColor tile; ///< behind a part's small picture: as light as the stock that its lines are seen on
    static const Theme& light();
    static const Theme& dark_one();
    static const Theme& current();
    static void choose(bool dark);
};

/// While it lives, what this thread paints has the light theme's colours: paper is never dark.
class OnPaper {
  public:
    OnPaper();
    ~OnPaper();
    OnPaper(const OnPaper&) = delete;
    OnPaper& operator=(const OnPaper&) = delete;
};

/// Loads the shipped fonts once; the interface is set in Cabin.
void load_fonts(const QString& data_folder);
QFont ui_font(double points, QFont::Weight weight = QFont::Normal);

QColor to_qcolor(Colour colour);
/// A lane colour that can be told from the ground it is painted on: darkened or lightened when too close.
QColor legible_on(QColor colour, QColor ground);
/// Black or white, whichever reads better on it (WCAG 2 contrast).
QColor text_on(QColor ground);
double contrast(QColor a, QColor b);

} // namespace dotlane::present
