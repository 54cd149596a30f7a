// The order of the passes on a sheet, and the rules behind it.
//
// Usual order: print, draw, engrave, foil, emboss, score, perforate, cut; light inks before dark ones. The
// rules between lanes are data (`order_rules` in project/running.h); a maker adds own ones and says which of
// the program's do not hold. The maker may also wish for an order of all lanes; then the rules it breaks are
// told. Source of the rules: common practice of the trade.
#pragma once

#include <map>
#include <set>
#include <vector>

#include "core/base/finding.h"
#include "core/plan/work.h"

namespace dotlane {

/// Whether by this rule the one must run before the other.
bool holds(const OrderRule& rule, const LaneWork& before, const LaneWork& after);

/// Sorts into the usual order, or the wished one. Lanes the wish does not name follow the last lane of it
/// that usually comes before them.
void sort_lanes(std::vector<LaneWork>& lanes, const std::vector<LaneId>& wished);

/// Which of the lanes of a job must run before which, and an order that keeps to that: the usual one as far
/// as it does. A maker's own rules go before the program's, which do not hold where they would go round in a
/// circle with them. Where all lanes have a wished order, that is it.
class Precedence {
  public:
    /// `lanes`: each lane of the job once.
    Precedence(std::vector<LaneWork> lanes, const PlanOptions& options);
    bool before(LaneId a, LaneId b) const { return before_.contains({a, b}); }
    /// From 0, in running order.
    int rank(LaneId lane) const { return rank_.at(lane); }

  private:
    std::set<std::pair<LaneId, LaneId>> before_;
    std::map<LaneId, int> rank_;
};

/// Why the lanes of a sheet, in this order, run as they do.
std::vector<Reason> order_reasons(const std::vector<LaneWork>& lanes, const PlanWishes& wishes = {});

/// What a lane breaks by running where it does.
struct BrokenRule {
    LaneId late;
    Finding finding;
};
/// Of each pair of lanes that breaks one: "order.after-cut", "order.dark-first" and "order.own", each with
/// the remedy "order.usual".
std::vector<BrokenRule> broken_rules(const std::vector<LaneWork>& lanes, const PlanWishes& wishes = {});

/// What this order risks: the findings alone.
Findings order_risks(const std::vector<LaneWork>& lanes, const PlanWishes& wishes = {});

/// A pen or foil of one kind is another tool in another colour: "rust pen 0.4".
Phrase tool_label(const LaneWork& work);

} // namespace dotlane
