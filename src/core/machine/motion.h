// How long motion takes.
//
// Speed profile: from standstill with constant acceleration a up to the speed v, along, and down again. A run
// of length L takes L/v + v/a when L >= v^2/a (trapezoid), otherwise 2 sqrt(L/a) (triangle). Source: closed
// form of uniformly accelerated motion. A stroke is divided into runs at corners sharper than the machine's
// corner angle, where the tool comes to rest; gentler turns are taken at speed.
#pragma once

#include "core/base/units.h"
#include "core/geometry/polyline.h"
#include "core/machine/program.h"

namespace dotlane {

Duration run_time(Length run, Speed speed, Acceleration acceleration);
/// Distance covered `t` after the start of a run.
Length run_distance(Length run, Speed speed, Acceleration acceleration, Duration t);

/// Lengths of the runs of a stroke, corner to corner; their sum is its length.
std::vector<Length> runs_of(const Polyline& stroke, Angle corner);
Duration stroke_time(const Polyline& stroke, Speed speed, const Motion& motion);
Duration travel_time(Length distance, const Motion& motion);

} // namespace dotlane
