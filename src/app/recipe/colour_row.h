// Which colours of a drawing count as one: told while the slider is moved, changed when it is let go.
#pragma once

#include <QSlider>

#include "app/commands/session.h"
#include "core/commands/colours.h"

class QLabel;

namespace dotlane::app {

class ColourRow : public QWidget {
    Q_OBJECT

  public:
    explicit ColourRow(Session& session, QWidget* parent = nullptr);
    /// Shown for a drawing of at least two colours.
    void refresh();

  private:
    class Chips;
    void show_within(int tenths);

    Session& session_;
    QSlider* slider_;
    Chips* chips_;
    QLabel* said_;
};

} // namespace dotlane::app
