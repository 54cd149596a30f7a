// The order of the passes on a sheet, and the rules behind it.
//
// Usual order: print, draw, engrave, foil, emboss, score, perforate, cut; light inks before dark ones. The
// maker may wish for another; then the rules it breaks are told. Source of the rules: common practice of the
// trade.
#pragma once

#include <vector>

#include "core/base/finding.h"
#include "core/plan/work.h"

namespace dotlane {

/// Sorts into the usual order, or the wished one. Lanes the wish does not name follow the last lane of it
/// that usually comes before them.
void sort_lanes(std::vector<LaneWork>& lanes, const std::vector<LaneId>& wished);

/// Whether on every sheet `a` must run before `b`: marking before parting, perforating before cutting, paler
/// inks before darker ones. Everything else may run in any order.
bool must_precede(const LaneWork& a, const LaneWork& b);

/// Why the lanes of a sheet, in this order, run as they do.
std::vector<Reason> order_reasons(const std::vector<LaneWork>& lanes);

/// What this order risks: one caution for each broken rule and pair of lanes, "order.after-cut" and
/// "order.dark-first", each with the remedy "order.usual".
Findings order_risks(const std::vector<LaneWork>& lanes);

/// A pen or foil of one kind is another tool in another colour: "rust pen 0.4".
Phrase tool_label(const LaneWork& work);

} // namespace dotlane
