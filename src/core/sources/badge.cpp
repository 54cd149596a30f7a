// The circles of a badge.
#include "core/sources/parts.h"

namespace dotlane {

// Usual sizes of button machines (common practice).
BadgeCircles circles_of(const Badge& badge) {
    switch (badge.size) {
    case Badge::Size::small:
        return {mm(25), mm(35)};
    case Badge::Size::medium:
        return {mm(37), mm(49)};
    case Badge::Size::large:
        return {mm(58), mm(70)};
    case Badge::Size::own:
        break;
    }
    return {badge.visible, badge.cut};
}

Result<SourceLines> make(const Badge& badge, const MakeInput&) {
    using namespace sources;
    const BadgeCircles circles = circles_of(badge);
    if (circles.cut <= circles.visible)
        return fail("source.badge",
                    say("A badge is cut larger than what is seen of it: the rest wraps around."));
    const double r = in_mm(circles.cut) / 2, seen = in_mm(circles.visible) / 2;
    Lines lines;
    lines.add(role::outline, ellipse({r, r}, r, r));
    if (badge.guides) lines.add(role::guide, ellipse({r, r}, seen, seen));
    lines.figure("visible", "mm", 2 * seen);
    lines.figure("cut", "mm", 2 * r);
    lines.figure("wrap", "mm", r - seen);
    return lines.take();
}

} // namespace dotlane
