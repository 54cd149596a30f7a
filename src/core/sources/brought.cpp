// Lines that steps bring: words, and what they take of another part.
#include "core/sources/make.h"
#include "core/sources/parts.h"

namespace dotlane {

Result<SourceLines> make(const WordsStep& step, const MakeInput& in) {
    return make_lines(step.lettering, in.fonts, in.borrowed, in.progress);
}

Result<SourceLines> make(const PartStep& step, const MakeInput& in) {
    const Borrowed* borrowed = in.borrowed;
    const bool some = borrowed && step.take == PartStep::Take::lines && !borrowed->open.empty();
    if (const auto ok = sources::needs(borrowed, to_say("lines")); !ok && !some)
        return tl::make_unexpected(ok.error());
    sources::Lines lines;
    const Affine size = Affine::scaling(step.percent / 100, step.percent / 100);
    if (step.take == PartStep::Take::outline)
        for (const Region& piece : pieces(borrowed->outline))
            lines.add(role::outline, sources::shape_of(transformed(piece, size)));
    else {
        for (const Region& area : borrowed->areas)
            lines.add(role::outline, sources::shape_of(transformed(area, size)));
        for (const Polyline& line : transformed(borrowed->open, size)) {
            Contour c{line.points.front(), {}, false};
            for (std::size_t i = 1; i < line.points.size(); ++i)
                c.line_to(line.points[i]);
            lines.add(role::outline, Shape{{c}});
        }
    }
    return lines.take();
}

} // namespace dotlane
