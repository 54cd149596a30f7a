// The chosen part at true proportions: choosing lines, sending them to lanes.
#pragma once

#include <memory>

#include "app/bench/canvas.h"
#include "app/commands/session.h"
#include "core/recipe/fill_advice.h"

namespace dotlane::app {

class PartView : public Canvas {
    Q_OBJECT

  public:
    explicit PartView(Session& session, QWidget* parent = nullptr);
    /// The step whose result is lit while the pointer rests on its card.
    void light(StepId step);
    /// Presses choose which pieces this fill is given to, until Escape, or until it is called again; none: as
    /// usual.
    void choose_pieces_of(StepId fill);
    StepId choosing_pieces() const { return pressing_; }
    /// How often each place is inked, instead of the lines.
    void show_heat(bool on);
    bool shows_heat() const { return heat_; }

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
    /// Of the fill whose pieces are being chosen: worked out once for each project.
    const FillPlaces& fill_places() const;
    void paint_fill_places(QPainter& painter) const;
    bool press_fill(QPointF at);
    bool toggle_piece(QPointF at);
    std::optional<LineId> under(QPointF at) const;
    void choose_with(const std::vector<LineId>& lines, Qt::KeyboardModifiers modifiers);
    /// One line at the foot, so many pixels up, on a plate: what lies below may be dark.
    void paint_words(QPainter& painter, const QString& words, int up, const QFont& font,
                     const QColor& ink) const;
    void paint_fill_callout(QPainter& painter, const EvaluatedPart& part, const Step& step,
                            const Box& filled) const;
    /// The fill whose heat is shown: the chosen one, else the first of the part; null: none.
    const RunSet* heated(const EvaluatedPart& part) const;
    Painting heat_content() const;
    void paint_heat_key(QPainter& painter) const;

    Session& session_;
    PartId shown_;
    StepId lit_;
    std::optional<QPointF> band_from_;
    QPointF band_to_;
    /// What the callout says, worked out once for each project and step.
    struct {
        std::shared_ptr<const Derived> of;
        StepId step;
        QStringList lines;
    } mutable callout_;
    void paint_put(QPainter& painter) const;
    QString press_hint() const;
    StepId pressing_;
    mutable std::shared_ptr<const Derived> places_of_;
    mutable FillPlaces places_;
    bool heat_ = false;
    struct HeatPicture;
    std::shared_ptr<HeatPicture> heat_picture_; ///< of the fill that was last shown
};

/// What stands on a fill's card and in its callout: "198 lines, 39 strokes, 38 lifts, 1.20 m, 2 min".
QStringList fill_figures(const InkReport& report, const Project& project, const Catalog& catalog,
                         const EvaluatedPart& part, StepId step);

} // namespace dotlane::app
