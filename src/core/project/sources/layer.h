// A layer, mat or frame that shows an even border of another part: of a folded card, of its front.
#pragma once

#include "core/project/sources/kind.h"

namespace dotlane {

struct Layer {
    enum class Corners { mitred, round };
    PartId of;
    Length reveal = mm(4); ///< border that stays in view; negative: it stands out beyond, -200..200 mm
    Length frame;          ///< 0: whole; otherwise a mat with an opening, 0..500 mm wide
    Corners corners = Corners::mitred; ///< those that point away from the layer
    bool operator==(const Layer&) const = default;

    PartId* lender() { return &of; }
    std::vector<std::string> roles() const { return {role::outline}; }
    static Layer sample() {
        Layer out;
        out.frame = mm(6);
        return out;
    }

    static constexpr SourceRow row{.key = "layer",
                                   .name = "Layer or mat",
                                   .about = "On another part, with an even reveal.",
                                   .wanted = SourceRow::Wanted::shapes};
    friend void fields(Layer& s, Fields& f) {
        f.part({"of", "on top of"}, s.of);
        f.length({"reveal", "reveal", "The border that stays in view; negative stands out beyond"}, s.reveal,
                 mm(-200), mm(200));
        f.length({"frame", "frame", "0: a whole layer; otherwise a mat this wide around an opening"}, s.frame,
                 mm(0), mm(500));
        f.one_of({"corners", "corners"}, s.corners, {"mitred", "round"});
    }
    friend Result<SourceLines> make(const Layer& spec, const MakeInput& in);
};

} // namespace dotlane
