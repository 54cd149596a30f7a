// Fabric appliqué: pieces to be cut, one fabric a line set, or the map by which they are laid on the base.
#pragma once

#include "core/project/roles.h"
#include "core/project/steps/kind.h"

namespace dotlane {

struct PatchStep {
    enum class Lines { pieces, map };
    enum class Edge { raw, turned };
    enum class Corners { mitred, folded, clipped };
    enum class Web { mirrored, top };
    enum class Tack { none, straight, zigzag };
    Lines lines = Lines::pieces;
    Edge edge = Edge::raw;
    Length allowance = mm(6); ///< that is turned under, 0.5..100 mm
    Corners corners = Corners::mitred;
    bool clips = true;       ///< into hollow curves of what is turned under; and notches out of full ones
    Length underlap = mm(5); ///< of lower fabrics below upper ones, 0..100 mm
    int only = 0;            ///< fabric, by its line set, that pieces are made of; 0: all, 0..999
    std::string order;       ///< of the fabrics as they are drawn, the lowest first: "2 1 3"; empty: as drawn
    Web web = Web::mirrored;
    Length satin = mm(3.5); ///< width of the stitched band over a raw edge, 0: none, 0..50 mm
    double inside = 60;     ///< how much of it lies on the patch, %, 0..100
    Tack tack = Tack::straight;
    Length tack_in = mm(1.5);      ///< from the edge, 0.1..50 mm
    bool grain = true;             ///< an arrow along the grain on each piece
    Angle direction = degrees(90); ///< of the grain; 90: upright
    bool numbers = true;           ///< on pieces and map
    Length spare = mm(10);         ///< around a piece of fabric, to hold it by, 0..200 mm
    Length cloth = mm(1100);       ///< width of what is bought, 50..5000 mm
    int copies = 1;                ///< to be bought for, 1..9999
    bool operator==(const PatchStep&) const = default;

    void keep_only(int layer) { only = layer; }
    const char* role() const { return lines == Lines::pieces ? role::outline : role::placement; }
    std::vector<const char*> roles() const {
        std::vector<const char*> out;
        if (lines == Lines::map) {
            if (edge == Edge::raw && in_mm(satin) > 0) out.push_back(role::satin);
            if (tack != Tack::none) out.push_back(role::tack);
        } else {
            if (edge == Edge::turned) out.push_back(role::turning);
            if (edge == Edge::turned && clips) out.push_back(role::clip);
            if (grain) out.push_back(role::grain);
        }
        if (numbers) out.push_back(role::number);
        return out;
    }

    static constexpr StepRow row{.key = "patch",
                                 .name = "Fabric patch",
                                 .about =
                                     "Pieces of fabric with their allowances, or the map to lay them by.",
                                 .wanted = StepRow::Wanted::fabric,
                                 .makes = true,
                                 .numbers = true,
                                 .by_role = true,
                                 .replaces = true,
                                 .begins = true,
                                 .layers = true};
    friend void fields(PatchStep& s, Fields& f) {
        const bool map = s.lines == PatchStep::Lines::map, raw = s.edge == PatchStep::Edge::raw;
        f.one_of({"lines", "lines of the", "Pieces are cut of fabric; the map is drawn on the base"}, s.lines,
                 {"pieces", "map"});
        if (f.when(!map))
            f.whole({"only", "of fabric", "Whose pieces are made, by number; 0: of all", {}, true}, s.only, 0,
                    999);
        f.one_of({"edge", "edge", "Raw: cut on the line; turned: an allowance is folded under"}, s.edge,
                 {"raw", "turned"});
        if (f.when(!raw && !map)) {
            f.length({"allowance", "allowance", "That is folded under"}, s.allowance, mm(0.5), mm(100));
            f.one_of({"corners", "corners",
                      "Cut across so that the folds meet, left whole to be folded in, or cut close"},
                     s.corners, {"mitred", "folded", "clipped"});
            f.flag({"clips", "clips and notches", "So that curves lie flat when they are turned"}, s.clips);
        }
        f.length({"underlap", "underlap", "Of lower fabrics below upper ones"}, s.underlap, mm(0), mm(100));
        f.text(
            {"order", "lowest first", "Fabrics by their numbers, such as 2 1 3; empty: as drawn", {}, true},
            s.order, TextKind::plain);
        if (f.when(!map))
            f.one_of({"web", "template",
                      "Mirrored for fusible web, whose paper is cut from the back; not for the top"},
                     s.web, {"mirrored", "top"});
        if (f.when(map && raw)) {
            f.length({"satin", "satin band", "Width of the stitches over the edge; 0: none"}, s.satin, mm(0),
                     mm(50));
            if (f.when(in_mm(s.satin) > 0)) f.percent({"inside", "of it inside %"}, s.inside, 0, 100);
        }
        if (f.when(map)) {
            f.one_of({"tack", "tack-down"}, s.tack, {"none", "straight", "zigzag"});
            if (f.when(s.tack != PatchStep::Tack::none))
                f.length({"tack-in", "inside by"}, s.tack_in, mm(0.1), mm(50));
        }
        if (f.when(!map)) {
            f.flag({"grain", "grain arrows"}, s.grain);
            f.angle({"direction", "grain runs", "90: upright"}, s.direction);
        }
        f.flag({"numbers", "numbers"}, s.numbers);
        if (f.when(!map)) {
            f.length({"spare", "spare", "Fabric around a piece, to hold it by"}, s.spare, mm(0), mm(200));
            f.length({"cloth", "cloth width", "Of what is bought"}, s.cloth, mm(50), mm(5000));
            f.whole({"copies", "bought for", "Copies"}, s.copies, 1, 9999);
        }
    }
    friend Result<SourceLines> make(const PatchStep& step, const MakeInput& in);
    friend StepOutcome run(const PatchStep& step, const StepInput& in, Progress& progress);
    friend bool mend(PatchStep& step, const Finding& finding, const InkReport* ink);
};

} // namespace dotlane
