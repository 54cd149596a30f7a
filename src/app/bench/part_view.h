// The chosen part at true proportions: choosing lines, sending them to lanes.
#pragma once

#include "app/bench/canvas.h"
#include "app/commands/session.h"

namespace dotlane::app {

class PartView : public Canvas {
    Q_OBJECT

  public:
    explicit PartView(Session& session, QWidget* parent = nullptr);
    /// The step whose result is lit while the pointer rests on its card.
    void light(StepId step);

  Q_SIGNALS:
    void lane_letter(dotlane::Action action);
    void menu_wanted(const QPoint& global, dotlane::LineId under);

  protected:
    Box world() const override;
    Painting content() const override;
    std::size_t weight() const override;
    void paint_overlay(QPainter& painter) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    /// The pieces step whose card is chosen, and what it did; its pieces are numbered on the bench.
    const Step* pieces_step() const;
    const StepReport* pieces_report() const;
    void paint_pieces(QPainter& painter) const;
    bool toggle_piece(QPointF at);
    std::optional<LineId> under(QPointF at) const;
    void choose_with(const std::vector<LineId>& lines, Qt::KeyboardModifiers modifiers);
    void paint_fill_callout(QPainter& painter, const InkReport& report, const Step& step,
                            const Box& filled) const;

    Session& session_;
    PartId shown_;
    StepId lit_;
    std::optional<QPointF> band_from_;
    QPointF band_to_;
};

/// What stands behind a fill's card and callout: "198 rows, 39 strokes, 38 lifts, 1.20 m".
QStringList fill_figures(const InkReport& report);

} // namespace dotlane::app
