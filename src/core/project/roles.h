// What lines of a computed source are for: the role names the line set that they go to.
#pragma once

namespace dotlane::role {

inline constexpr const char* outline = "outline"; ///< of the finished thing
inline constexpr const char* fold = "fold";
inline constexpr const char* mountain = "mountain fold";
inline constexpr const char* perforation = "perforated fold";
inline constexpr const char* border = "border";
inline constexpr const char* hole = "hole";
inline constexpr const char* window = "window";
inline constexpr const char* guide = "guide"; ///< not run
inline constexpr const char* motif = "motif";
inline constexpr const char* traced = "traced"; ///< with a number behind it when there are several levels
inline constexpr const char* letters = "letters";
inline constexpr const char* edge = "edge"; ///< of a fill
inline constexpr const char* strokes = "strokes";
inline constexpr const char* placement = "placement line"; ///< where something is laid on a base
inline constexpr const char* turning = "turning line";     ///< fabric is turned under along it
inline constexpr const char* sewing = "sewing line";
inline constexpr const char* clip = "clip"; ///< into an allowance, cut
inline constexpr const char* satin = "satin band";
inline constexpr const char* tack = "tack-down";
inline constexpr const char* grain = "grain";
inline constexpr const char* number = "number";

} // namespace dotlane::role
