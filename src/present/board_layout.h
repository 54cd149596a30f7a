// Where everything stands on the lane board; shared by painting and hit testing.
#pragma once

#include <QPointF>
#include <QRectF>
#include <optional>

#include "core/derive/derived.h"

namespace dotlane::present {

/// What is shown of the board: how much of the run, from when, and how far the lanes are scrolled.
struct BoardView {
    double zoom = 1; ///< 1: the whole run
    Duration from;   ///< at the left end
    double down = 0; ///< px that the lanes are scrolled up
    bool operator==(const BoardView&) const = default;
};

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
    BoardView view = {};
};

class BoardLayout {
  public:
    BoardLayout(const BoardScene& scene, const QRectF& area);
    struct Track {
        LaneId lane;
        double y = 0;
    };
    /// A sheet, from the stop that loads it to the one that loads the next.
    struct OfSheet {
        int number = 0;                 ///< 1 the first of the project; they run in the plan's order
        std::size_t begin = 0, end = 0; ///< moves
        Duration start, stop;
    };
    /// Sheets that follow one another and are run alike: the same stock, the same lanes in the same order.
    /// Where they are too narrow to be told apart they are shown as one.
    struct Group {
        std::size_t first = 0, last = 0; ///< of `sheets`
    };

    QRectF area, plot; ///< all; the time area
    QRectF overview;   ///< a strip with the whole run; empty while the whole run is shown
    std::vector<Track> tracks;
    std::vector<OfSheet> sheets;
    std::vector<Group> groups; ///< of those that are shown as one
    double pitch = 0;          ///< px from track to track
    double seconds_shown = 1, seconds_all = 1, seconds_from = 0;
    double total_left = 0; ///< where the totals begin

    double x(Duration t) const {
        return plot.left() + plot.width() * (in_seconds(t) - seconds_from) / seconds_shown;
    }
    Duration time(double x_px) const;
    /// Of the overview.
    double overview_x(Duration t) const;
    Duration overview_time(double x_px) const;
    std::optional<double> track_y(LaneId lane) const;
    QRectF block(const Plan& plan, std::size_t move) const; ///< of a pass
    QPointF stop(const Plan& plan, std::size_t move) const; ///< centre of a stop's dot
    std::optional<std::size_t> hit(const Plan& plan, QPointF at) const;
    /// The lane whose plate and name stand at a place.
    std::optional<LaneId> head_hit(QPointF at) const;
    /// The group that a move is shown in; null when it is shown by itself.
    const Group* group_of(std::size_t move) const;
    QRectF band(const Group& group) const;

    /// The view zoomed by a factor about a place, kept within the run.
    BoardView zoomed(const BoardView& view, double factor, double x_px) const;
    /// Scrolled by so many px.
    BoardView scrolled(const BoardView& view, double right, double down) const;
    /// The view moved as little as needed to show a moment.
    BoardView showing(const BoardView& view, Duration t) const;
    static constexpr double most_zoom = 400;
    static constexpr double heads = 150, totals_width = 176; ///< px: the lanes' names, the totals
};

} // namespace dotlane::present
