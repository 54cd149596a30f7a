// The sheets as they will be loaded: a strip of all sheets along the top, the chosen one on its mat below.
// Parts are dragged, turned by the handle above them, and nudged with the arrow keys; several are chosen with
// Ctrl or a band, and what is grouped is moved together.
#pragma once

#include <map>
#include <optional>
#include <set>

#include "app/bench/canvas.h"
#include "app/bench/thumbnail.h"
#include "app/commands/session.h"

namespace dotlane::app {

class SheetsView : public Canvas {
    Q_OBJECT

  public:
    explicit SheetsView(Session& session, QWidget* parent = nullptr);

  protected:
    Box world() const override;
    Painting content() const override;
    std::size_t weight() const override;
    void paint_overlay(QPainter& painter) override;
    bool has_rulers() const override { return false; }
    QMarginsF rim() const override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    /// What a press there meets: by its outline, not its box.
    const PlacedPart* under(QPointF at) const;
    enum class Drag { none, move, turn };
    const LaidSheet* laid() const;
    /// The chosen part when it is the only one.
    const PlacedPart* chosen_part() const;
    std::vector<const PlacedPart*> chosen_parts() const;
    std::set<PlacementId> chosen() const;
    Extent extent_of_part(const Placement& placement) const;
    void choose_with(const std::vector<PlacementId>& hit, Qt::KeyboardModifiers modifiers);
    QPointF turn_handle(const QRectF& area) const;
    QRectF strip_cell(std::size_t index) const;
    std::optional<std::size_t> strip_hit(QPointF at) const;
    void paint_strip(QPainter& painter);
    void paint_chosen(QPainter& painter) const;
    void paint_numbers(QPainter& painter, const QRectF& area, const Box& box, Angle turn) const;
    void begin_drag(Drag drag);
    std::vector<Placement> dragged(QPointF to, Qt::KeyboardModifiers modifiers) const;
    Placement turned(QPointF to, Qt::KeyboardModifiers modifiers) const;
    void shift(Length right, Length down, const QString& merge = {});
    void nudge(double dx, double dy);

    Session& session_;
    SheetId shown_;
    std::map<SheetId, std::unique_ptr<Thumbnail>> thumbnails_; ///< of the strip
    Drag drag_ = Drag::none;
    QPointF drag_from_, drag_to_;
    bool pressed_ = false; ///< on a part: moving the pointer drags it
    std::optional<QPointF> band_from_;
    std::vector<Placement> before_, preview_;
};

} // namespace dotlane::app
