// A motif repeated over a sheet.
#pragma once

#include "core/project/sources/kind.h"

namespace dotlane {

struct RepeatPattern {
    enum class Motif { star, disc, square, diamond, hexagon, heart, drop, part };
    enum class Rows { straight, brick, hexagonal };
    Motif motif = Motif::star;
    Length size = mm(14); ///< across, 1..1000 mm
    Length gap = mm(4);   ///< between neighbours, 0..500 mm
    Rows rows = Rows::straight;
    Length width = mm(292), height = mm(292); ///< of the sheet, 5..5000 mm
    Length margin = mm(6);                    ///< 0..500 mm
    int wanted =
        0; ///< 0: as many as fit at this size; otherwise the size is solved so that so many fit across
    int points = 5;     ///< of the star, 3..24
    PartId of;          ///< the part that is the motif
    bool frame = false; ///< the sheet's outline too
    bool operator==(const RepeatPattern&) const = default;

    PartId* lender() { return motif == Motif::part ? &of : nullptr; }
    std::vector<std::string> roles() const {
        if (motif != Motif::part) return {};
        return frame ? std::vector<std::string>{role::outline, role::motif}
                     : std::vector<std::string>{role::motif};
    }
    static RepeatPattern sample() {
        RepeatPattern out;
        out.width = mm(84), out.height = mm(52), out.rows = Rows::brick;
        return out;
    }

    static constexpr SourceRow row{.key = "repeat-pattern",
                                   .name = "Repeat pattern",
                                   .about = "A motif in rows over a sheet, counted.",
                                   .wanted = SourceRow::Wanted::patterns};
    friend void fields(RepeatPattern& s, Fields& f) {
        f.one_of({"motif", "motif"}, s.motif,
                 {"star", "disc", "square", "diamond", "hexagon", "heart", "drop", "part"});
        if (f.when(s.motif == RepeatPattern::Motif::part)) f.part({"of", "motif from", "", {4, "0"}}, s.of);
        if (f.when(s.wanted == 0)) f.length({"size", "size"}, s.size, mm(1), mm(1000));
        f.length({"gap", "gap"}, s.gap, mm(0), mm(500));
        f.one_of({"rows", "rows"}, s.rows, {"straight", "brick", "hexagonal"});
        f.length({"width", "sheet width"}, s.width, mm(5), mm(5000));
        f.length({"height", "sheet height"}, s.height, mm(5), mm(5000));
        f.length({"margin", "margin"}, s.margin, mm(0), mm(500));
        f.whole({"wanted", "wanted across", "0: as many as fit; otherwise the size is solved"}, s.wanted, 0,
                1000);
        if (f.when(s.motif == RepeatPattern::Motif::star)) f.whole({"points", "points"}, s.points, 3, 24);
        f.flag({"frame", "outline of the sheet too"}, s.frame);
    }
    friend Result<SourceLines> make(const RepeatPattern& spec, const MakeInput& in);
};

} // namespace dotlane
