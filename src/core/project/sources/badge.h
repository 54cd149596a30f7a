// A round badge: what is seen, and what is cut so that it wraps around the back.
#pragma once

#include "core/project/sources/kind.h"

namespace dotlane {

struct Badge {
    enum class Size { own, small, medium, large };
    Size size = Size::medium;              ///< 25/35, 37/49 or 58/70 mm, or as `visible` and `cut` say
    Length visible = mm(37), cut = mm(49); ///< diameters, 5..500 mm
    Length safe = mm(2);                   ///< art stays this far inside the visible edge, 0..50 mm
    bool guides = true;                    ///< the visible circle, set aside as a guide
    bool operator==(const Badge&) const = default;

    static constexpr SourceRow row{.key = "badge",
                                   .name = "Badge",
                                   .about = "Visible and wrapped circles.",
                                   .wanted = SourceRow::Wanted::shapes};
    friend void fields(Badge& s, Fields& f) {
        const bool own = s.size == Badge::Size::own;
        f.one_of({"size", "seen / cut, mm", "", {4, R"("own")"}}, s.size, {"own", "25/35", "37/49", "58/70"});
        if (f.when(own)) f.length({"visible", "visible"}, s.visible, mm(5), mm(500));
        if (f.when(own))
            f.length({"cut", "cut", "Diameter that is cut; the rest wraps around"}, s.cut, mm(5), mm(500));
        f.length({"safe", "safe margin"}, s.safe, mm(0), mm(50));
        f.flag({"guides", "show the visible circle"}, s.guides);
    }
    friend Result<SourceLines> make(const Badge& spec, const MakeInput& in);
};

} // namespace dotlane
