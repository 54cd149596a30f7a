// A layer, mat or frame around or on another part.
#include "core/sources/parts.h"

namespace dotlane {

Result<SourceLines> make(const Layer& layer, const MakeInput& in) {
    using namespace sources;
    const Borrowed* of = in.borrowed;
    if (const auto ok = needs(of, to_say("outline")); !ok) return tl::make_unexpected(ok.error());
    const OffsetOptions options{layer.corners == Layer::Corners::mitred ? Corner::mitre : Corner::round, 4,
                                mm(0.005)};
    const Region outer = offset(of->face, layer.reveal * -1, options);
    if (outer.empty()) return fail("source.layer", say("The reveal leaves nothing of the layer."));
    Region inner;
    if (in_mm(layer.frame) > 0) {
        inner = offset(outer, layer.frame * -1, options);
        if (inner.empty()) return fail("source.layer", say("The frame leaves no room for an opening."));
    }
    const Box box = bounds(outer);
    const Affine home = Affine::translation({-box.x0, -box.y0});
    Lines lines;
    for (const Region& piece : pieces(subtracted(outer, inner)))
        lines.add(role::outline, shape_of(transformed(piece, home)));
    lines.figure("width", "mm", box.width());
    lines.figure("height", "mm", box.height());
    if (!inner.empty()) {
        lines.figure("opening_width", "mm", bounds(inner).width());
        lines.figure("opening_height", "mm", bounds(inner).height());
    }
    return lines.take();
}

} // namespace dotlane
