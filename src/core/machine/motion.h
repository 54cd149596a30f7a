// How long motion takes.
//
// Along a line the tool keeps to its speed v, speeds up and slows down by at most the acceleration a, and
// passes each corner no faster than on the circle that touches both of its sides, uses at most half of
// each and leaves the corner by no more than the machine allows (`Motion::deviation`): on a circle of radius
// r the speed is at most sqrt(a r). So curves made of short sides are taken as fast as the curves
// themselves, however finely they are divided, and a corner between long sides nearly stops the tool. Looked
// ahead over the whole line: speeds are such that every later corner can be slowed down for.
//
// Sources: closed form of uniformly accelerated motion, v^2 = u^2 + 2 a s; centripetal acceleration v^2 / r.
// That corners are rounded by an allowed deviation is common practice of motion control. Acceleration along
// the line and across it are each bounded, not their sum.
#pragma once

#include "core/base/units.h"
#include "core/geometry/polyline.h"
#include "core/machine/program.h"

namespace dotlane {

/// From rest to rest: L/v + v/a when L >= v^2/a (a trapezoid of speed over time), otherwise 2 sqrt(L/a).
Duration run_time(Length run, Speed speed, Acceleration acceleration);
/// Distance covered `t` after the start of a run.
Length run_distance(Length run, Speed speed, Acceleration acceleration, Duration t);

/// The speed at which the tool may pass from one direction to another between sides so long; 0 for a turn
/// back.
Speed corner_speed(Point before, Point after, const Motion& motion);

/// The run of one stroke, from rest to rest.
class StrokeMotion {
  public:
    StrokeMotion(const Polyline& stroke, Speed speed, const Motion& motion);
    Duration time() const { return time_; }
    /// Distance along the stroke `t` after its start; clamped.
    Length at(Duration t) const;

  private:
    struct Side {
        double length = 0, v = 0; ///< mm; mm/s at its beginning
    };
    double end_speed(std::size_t side) const { return side + 1 < sides_.size() ? sides_[side + 1].v : 0; }
    double peak(std::size_t side) const;
    double time_of(std::size_t side) const;

    std::vector<Side> sides_;
    double speed_, acceleration_; ///< mm/s, mm/s2
    Duration time_;
};

Duration stroke_time(const Polyline& stroke, Speed speed, const Motion& motion);
Duration travel_time(Length distance, const Motion& motion);

} // namespace dotlane
