// Strays: a dot or a scrap of line that a file left far off its art. It makes the part as large as its
// distance.
#pragma once

#include <optional>
#include <string_view>
#include <vector>

#include "core/base/finding.h"
#include "core/project/drawing.h"

namespace dotlane {

struct Strays {
    std::vector<std::vector<std::size_t>> clusters; ///< of line indices; lines that lie near each other
    std::vector<Box> boxes;                         ///< of the clusters, mm
    Box art;                                        ///< of everything else, mm
    double farthest_mm = 0;                         ///< free way from the art to the stray farthest from it
    bool empty() const { return clusters.empty(); }
};

/// Lines nearer to each other than a reach are one cluster; that with the greatest length is the art. Another
/// cluster is a stray when each of its lines is at most a quarter as large and they have together at most a
/// twentieth of the art's length. The reach begins at a quarter of the drawing's larger side and is halved
/// twice at most, and not below half the art's larger side. The rule knows no millimetres, so it holds before
/// the scale is settled; its numbers are judgement.
Strays strays_of(const Drawing& drawing);

enum class StrayChoice { keep, near, drop };
/// "keep", "near" or "drop"; remedies have "stray." before it.
std::optional<StrayChoice> stray_choice(std::string_view word);
inline constexpr double stray_gap_mm = 5; ///< from the art, of strays that were brought near it
/// The drawing with its strays treated so.
Drawing without_strays(const Drawing& drawing, StrayChoice choice);

/// "open.stray", of a part at this scale. Remedies: "stray.drop", "stray.near", "stray.keep". None without
/// strays.
std::optional<Finding> stray_finding(const Drawing& drawing, double scale = 1);
} // namespace dotlane
