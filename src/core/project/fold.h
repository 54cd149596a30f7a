// Which way a scored line is folded.
#pragma once

namespace dotlane {

/// Towards the scored side or away from it. For the eye and the hands; the machine scores both alike.
enum class Fold { valley, mountain };

} // namespace dotlane
