// The rehearsal: the program played on the simulated cutter at true proportions. Ink is kept in a layer that
// only grows while time runs forward, so playing costs what is new, not what is there already.
#pragma once

#include <QElapsedTimer>
#include <QTimer>

#include "app/bench/canvas.h"
#include "app/commands/session.h"
#include "core/run/rehearsal.h"

namespace dotlane::app {

class RehearsalView : public Canvas {
    Q_OBJECT

  public:
    explicit RehearsalView(Session& session, QWidget* parent = nullptr);

    Duration time() const { return time_; }
    Duration total() const;
    bool playing() const { return timer_.isActive(); }
    double speed() const { return speed_; }
    void seek(Duration time);
    void play();
    void pause();
    void toggle() { playing() ? pause() : play(); }
    /// To the start of the next stop (or the end); to the one before.
    void next_stop();
    void previous_stop();
    /// Times life.
    void set_speed(double speed) { speed_ = speed; }
    void show_travel(bool shown);
    MachineState state() const;
    /// Waits for the ink as well.
    void finish_painting();
    /// What goes on, in one line: "Draw with the rust pen 0.4: stroke 12 of 142, heron of Invitation, copy
    /// 2".
    QString doing() const;

  Q_SIGNALS:
    void moved(); ///< time, or playing or not
    void stroke_pressed(const StrokeOf& of);

  protected:
    Box world() const override;
    Painting content() const override;
    std::size_t weight() const override { return 0; } // the mat alone
    void paint_overlay(QPainter& painter) override;
    bool has_rulers() const override { return false; }
    QMarginsF rim() const override { return {34, 50, 34, 40}; }
    void keyPressEvent(QKeyEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;

  private:
    const Plan* plan() const;
    /// The run at time_; null without a plan.
    const Rehearsal* rehearsal() const;
    void tick();
    /// Brings the layers nearer to `state`, for at most `budget_ms`; true when they are there.
    bool ink_up_to(const MachineState& state, qint64 budget_ms);
    void paint_doing(QPainter& painter) const;
    void paint_stop(QPainter& painter, const StopMove& stop) const;

    Session& session_;
    QTimer timer_;
    QElapsedTimer since_;
    Duration time_;
    double speed_ = 20;
    bool travel_shown_ = true;
    SheetId shown_;
    mutable std::shared_ptr<const Derived> rehearsed_; ///< whose plan the rehearsal runs
    mutable std::unique_ptr<Rehearsal> rehearsal_;

    struct Layers {
        QImage ink, travel;
        present::View view;
        std::shared_ptr<const Derived> of;
        SheetId sheet;
        std::size_t move = 0, stroke = 0; ///< the next one to be inked
    } layers_;
};

} // namespace dotlane::app
