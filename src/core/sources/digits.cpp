// Digits in strokes, for steps that number what they make.
#include "core/sources/make.h"
#include "core/sources/parts.h"

namespace dotlane {
namespace {

Result<SourceLines> make_digits(const MakeInput& in) {
    static constexpr const char* digits[] = {"0", "1", "2", "3", "4", "5", "6", "7", "8", "9"};
    sources::Lines out;
    for (const char* digit : digits) {
        Lettering lettering;
        lettering.text = digit, lettering.kind = Lettering::Kind::strokes, lettering.font = "Roman simplex";
        const auto made = make_lines(lettering, in.fonts, nullptr, in.progress);
        if (!made) return tl::make_unexpected(made.error());
        Shape shape;
        for (const DrawnLine& line : made->drawing->lines)
            shape.contours.insert(shape.contours.end(), line.shape.contours.begin(),
                                  line.shape.contours.end());
        out.add(digit, std::move(shape));
    }
    return out.take();
}

} // namespace

Result<SourceLines> make(const PatchStep&, const MakeInput& in) {
    return make_digits(in);
}

Result<SourceLines> make(const SeamStep&, const MakeInput& in) {
    return make_digits(in);
}

} // namespace dotlane
