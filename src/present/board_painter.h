// Paints the lane board: a track for each lane, time running right, a block for each pass, a white-centred
// dot for each stop, a bar where the sheet changes, and the totals.
#pragma once

#include <QPainter>
#include <optional>

#include "core/derive/workshop.h"
#include "present/lane_style.h"

namespace dotlane::present {

struct BoardScene {
    const Derived* derived = nullptr;
    const Catalog* catalog = nullptr;
    std::optional<Duration> now;        ///< rehearsal time
    std::optional<std::size_t> hovered; ///< a move of the program
    struct Dragged {
        std::size_t move;                  ///< a pass
        double shift_px;                   ///< how far it is from its place
        std::optional<std::size_t> before; ///< the pass it would run before; empty: as the last
    };
    std::optional<Dragged> dragged;
    LaneId lit;         ///< a lane whose track is lit
    bool totals = true; ///< times, stops and cost beside it
};

/// Where everything stands; shared by painting and hit testing.
class BoardLayout {
  public:
    BoardLayout(const BoardScene& scene, const QRectF& area);
    struct Track {
        LaneId lane;
        double y = 0;
    };
    QRectF plot; ///< the time area
    std::vector<Track> tracks;
    double seconds_shown = 1;
    double x(Duration t) const { return plot.left() + plot.width() * in_seconds(t) / seconds_shown; }
    Duration time(double x_px) const;
    std::optional<double> track_y(LaneId lane) const;
    QRectF block(const Plan& plan, std::size_t move) const; ///< of a pass
    QPointF stop(const Plan& plan, std::size_t move) const; ///< centre of a stop's dot
    std::optional<std::size_t> hit(const Plan& plan, QPointF at) const;
    /// The lane whose plate and name stand at a place.
    std::optional<LaneId> head_hit(QPointF at) const;
    QRectF area;
    double total_left = 0; ///< where the totals begin
};

void paint_board(QPainter& painter, const BoardScene& scene, const QRectF& area);
struct CalloutLine {
    QString text;
    bool care = false; ///< what can hurt at this stop
};
/// The text of a move's callout: heading and lines.
std::pair<QString, QList<CalloutLine>> callout(const Plan& plan, std::size_t move);

} // namespace dotlane::present
