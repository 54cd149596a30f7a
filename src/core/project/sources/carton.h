// Boxes, sleeves and envelopes of one sheet; sizes are those of what goes inside.
#pragma once

#include "core/project/fold.h"
#include "core/project/sources/kind.h"

namespace dotlane {

struct Carton {
    enum class Kind { tuck_box, sleeve, envelope };
    Kind kind = Kind::sleeve;
    Length width = mm(70), depth = mm(70), height = mm(120); ///< 3..2000 mm; an envelope has no depth
    Length thickness = mm(0.3);                              ///< of the stock, 0..5 mm
    Length tab = mm(12);                                     ///< glue tab, 2..200 mm
    bool windows = true;                                     ///< of a sleeve: one in each panel
    Length frame = mm(12);                                   ///< around a window, 1..500 mm
    Fold folds = Fold::valley;                               ///< as seen from the side that is scored
    Length ease = mm(2); ///< play of an envelope's content each way, 0..50 mm
    bool operator==(const Carton&) const = default;

    static constexpr SourceRow row{.key = "carton",
                                   .name = "Box or envelope",
                                   .about = "Boxes, sleeves, envelopes; stock allowed for.",
                                   .wanted = SourceRow::Wanted::folded};
    friend void fields(Carton& s, Fields& f) {
        const bool envelope = s.kind == Carton::Kind::envelope, sleeve = s.kind == Carton::Kind::sleeve;
        f.one_of({"kind", "kind"}, s.kind, {"tuck-box", "sleeve", "envelope"});
        f.length({"width", "width", "Of what goes inside"}, s.width, mm(3), mm(2000));
        if (f.when(!envelope)) f.length({"depth", "depth"}, s.depth, mm(3), mm(2000));
        f.length({"height", "height"}, s.height, mm(3), mm(2000));
        if (f.when(!envelope))
            f.length({"thickness", "stock thickness", "Panels are made larger by it"}, s.thickness, mm(0),
                     mm(5));
        f.length({"tab", "glue tab"}, s.tab, mm(2), mm(200));
        if (f.when(sleeve)) f.flag({"windows", "a window in each panel"}, s.windows);
        if (f.when(sleeve && s.windows))
            f.length({"frame", "frame", "Left around each window"}, s.frame, mm(1), mm(500));
        f.one_of({"folds", "folds are", "", {4, R"("valley")"}}, s.folds, {"valley", "mountain"});
        if (f.when(envelope))
            f.length({"ease", "play", "More than the card measures, each way"}, s.ease, mm(0), mm(50));
    }
    friend Result<SourceLines> make(const Carton& spec, const MakeInput& in);
};

} // namespace dotlane
