// The rehearsal's controls: play, stops, speed, travel; and where in time it is.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QPushButton>

#include "app/bench/rehearsal_view.h"

namespace dotlane::app {

class TransportBar : public QWidget {
    Q_OBJECT

  public:
    explicit TransportBar(RehearsalView& view, QWidget* parent = nullptr);

  private:
    void show_state();
    RehearsalView& view_;
    QPushButton* play_;
    QLabel* clock_;
    QComboBox* speed_;
};

} // namespace dotlane::app
