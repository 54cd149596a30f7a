#include "core/formats/svg/render.h"

#include <algorithm>

#include "core/base/child.h"
#include "core/formats/limits.h"
#include "core/formats/svg/prepare.h"

namespace dotlane {

Result<std::string> render_svg(std::string bytes, int larger_side) {
    const auto prepared = svg::prepare(std::move(bytes), ReadLimits{}.bytes);
    if (!prepared) return tl::make_unexpected(prepared.error());
    const std::string side = std::to_string(std::clamp(larger_side, 16, 4000));
    auto png =
        run_child({"rsvg-convert", "-f", "png", "-b", "white", "-a", "-w", side, "-h", side}, prepared->text);
    if (png && !png->empty()) return png;
    const std::string code = png ? "child.failed" : png.error().code;
    if (code == "child.missing")
        return fail("render.missing", say("rsvg-convert, which draws the file, is not installed (Debian "
                                          "package librsvg2-bin). Nothing has changed."));
    if (code == "child.stopped")
        return fail("render.failed",
                    say("Drawing the file takes too long or too much memory. Nothing has changed."));
    return fail("render.failed", say("The file cannot be drawn: it is damaged. Nothing has changed."));
}

} // namespace dotlane
