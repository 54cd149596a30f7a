// Openings of a stencil: closed lines less the bridges that hold their islands, and the sheet around them.
#pragma once

#include "core/project/roles.h"
#include "core/project/steps/kind.h"

namespace dotlane {

struct StencilStep {
    enum class Place { shortest, balanced, along };
    enum class Sides { straight, stroke };
    enum class Webs { told, widened, thinned, spread };
    int bridges = 0;        ///< for each island, 0: by its size, 0..24
    Length width = mm(2.5); ///< of a bridge, wider than film bears, 0.1..100 mm
    Place place = Place::balanced;
    Angle direction = degrees(90); ///< of bridges that all run one way
    Sides sides = Sides::straight; ///< of a bridge: parallel, or square to the stroke that it crosses
    Length margin = mm(15);        ///< from the openings to the sheet's edge, 0: no edge is cut, 0..500 mm
    bool negative = false;         ///< what lies around the lines is open, not what lies in them
    Length least = mm(2);          ///< webs narrower than this are told, 0..50 mm
    Webs webs = Webs::told;        ///< what becomes of those that are
    int only = 0;                  ///< colour, by its line set, whose sheet it is; 0: all in one, 0..999
    Length holes;                  ///< in the sheet's margin, that all colours share, 0: none, 0..50 mm
    std::string at; ///< bridges put by hand, "x y; x y" in hundredths of the box of the lines; empty: none
    bool operator==(const StencilStep&) const = default;

    void keep_only(int layer) { only = layer; }
    const char* role() const { return role::outline; }

    static constexpr StepRow row{.key = "stencil",
                                 .name = "Stencil",
                                 .about = "Openings with bridges, so that no island falls out.",
                                 .wanted = StepRow::Wanted::stencil,
                                 .makes = true,
                                 .by_role = true,
                                 .replaces = true,
                                 .begins = true,
                                 .press = "Bridges",
                                 .layers = true};
    friend void fields(StencilStep& s, Fields& f) {
        f.whole({"bridges", "bridges", "For each island; 0: by its size"}, s.bridges, 0, 24);
        f.length({"bridge-width", "bridge width"}, s.width, mm(0.1), mm(100));
        f.one_of(
            {"place", "placed", "Where it is shortest, evenly around each island, or all in one direction"},
            s.place, {"shortest", "balanced", "along"});
        if (f.when(s.place == StencilStep::Place::along))
            f.angle({"direction", "direction", "Of the bridges; 90: upright"}, s.direction);
        f.one_of({"sides",
                  "their sides",
                  "Are parallel, or follow the stroke: they open towards the outside of a bend",
                  {11, R"("straight")"}},
                 s.sides, {"straight", "stroke"});
        f.length({"margin", "margin", "From the openings to the sheet's edge; 0: no edge is cut"}, s.margin,
                 mm(0), mm(500));
        f.flag({"negative", "negative", "What lies around the lines is open, not what lies in them"},
               s.negative);
        f.length({"least-web", "least web", "Narrower strips between openings are told"}, s.least, mm(0),
                 mm(50));
        f.one_of({"webs",
                  "narrow webs",
                  "Are told, widened by openings that shrink just there, or openings are left out, or all "
                  "move apart",
                  {11, R"("told")"}},
                 s.webs, {"told", "widened", "thinned", "spread"});
        f.whole({"only", "of colour", "Whose sheet it is, by number; 0: all in one", {11, "0"}, true}, s.only,
                0, 999);
        if (f.when(in_mm(s.margin) > 0))
            f.length({"holes",
                      "holes",
                      "In the margin, shared by the sheets of all colours; 0: none",
                      {11, "0"},
                      true},
                     s.holes, mm(0), mm(50));
        f.text({"at", "bridges at", "Places such as 20 50; 80 50 in hundredths of the box; empty: none"},
               s.at, TextKind::plain);
    }
    friend StepOutcome run(const StencilStep& step, const StepInput& in, Progress& progress);
    friend bool press_place(StencilStep& step, const StepInput& in, Point at);
    friend bool mend(StencilStep& step, const Finding& finding, const InkReport* ink);
};

} // namespace dotlane
