// Makes a surface of closed lines out of strokes: the style decides how they run, the rest is the same for
// all.
#pragma once

#include <algorithm>

#include "core/project/actions.h"
#include "core/project/fills.h"
#include "core/project/roles.h"
#include "core/project/steps/kind.h"
#include "core/project/tone.h"

namespace dotlane {

struct FillStep {
    enum class Order { as_drawn, by_piece, top_down };
    /// Which areas overlapping lines bound together: each by its own rule, or all by one.
    enum class Rule { own, even_odd, nonzero };
    /// What lies inside the lines; only what lies inside an outline that holds it; or what is left of that
    /// outline.
    enum class Surface { inside, within, between };

    FillStyle style;
    std::optional<Length>
        spacing;        ///< between neighbouring lines, 0.05..50 mm; empty: `of_tip`, or the style's own
    double of_tip = 85; ///< spacing as a share of the tip, hundredths, 10..1000
    Angle angle = degrees(35);   ///< of the lines, any
    std::optional<Length> inset; ///< from the edge, 0..100 mm; empty: half the tip of the lane's tool
    FillEnds ends = FillEnds::joined;
    FillPhase phase = FillPhase::centre;
    Length least;            ///< shorter pieces of lines are left out, 0..100 mm
    bool boundary = false;   ///< the inset edge is run too
    bool edge_apart = false; ///< that edge goes to a lane of its own
    int repeats = 1;         ///< each stroke is run so often in place, to and fro, 1..20
    Order order = Order::as_drawn;
    Length clear; ///< kept free around other lines of the part, 0..50 mm
    Rule rule = Rule::own;
    Surface surface = Surface::inside;
    std::string only; ///< places in pieces that are filled, "x y; x y" in hundredths of the box; empty: all
    bool centre_lines = false; ///< what is too narrow is run along its centre line
    FillTone tone;             ///< of styles that can be lighter and darker
    bool operator==(const FillStep&) const = default;

    /// Foil and engraving lose thin strokes otherwise; lines of pens are outlined more often than not.
    void suit(Action action) {
        centre_lines = dotlane::row(action).thin_lines;
        if (dotlane::row(action).keeps_off) of_tip = 100;
    }
    std::vector<const char*> roles() const {
        return boundary && edge_apart ? std::vector{role::edge} : std::vector<const char*>();
    }
    /// What says how dark it is from place to place; null for styles that are the same everywhere.
    FillTone* tones() { return kind_of(style).toned ? &tone : nullptr; }
    /// Whether it is lighter and darker from place to place.
    bool toned() const { return kind_of(style).toned && tone.wished(); }
    /// Whether it needs to know of lines that it does not work on.
    bool looks_around() const { return phase == FillPhase::corner || in_mm(clear) > 0; }

    /// Of a pattern that is meant to be seen (`open`), or of a style that makes areas solid.
    static FillEnds usual_ends(bool open) { return open ? FillEnds::apart : FillEnds::joined; }

    /// Lines overlap by 15 %: within the 10 to 20 % that is common practice for a solid look.
    static constexpr double solid = 85;
    /// Between lines with this tip, within the range of `spacing`.
    Length spaced(Length tip) const {
        const double open = kind_of(style).open_mm;
        const Length own = open > 0 ? mm(open) : tip * (of_tip / 100);
        return spacing.value_or(std::clamp(own, mm(0.05), mm(50)));
    }

    static constexpr StepRow row{.key = "fill",
                                 .name = "Fill",
                                 .about = "A surface of closed lines, made out of strokes.",
                                 .wanted = StepRow::Wanted::fill,
                                 .makes = true,
                                 .second = StepRow::Second::spared,
                                 .inks = true};
    friend void fields(FillStep& s, Fields& f) {
        const FillKind& before = kind_of(s.style);
        choose(s.style, f);
        const bool open = kind_of(s.style).open_mm > 0;
        if (kind_of(s.style).key != before.key) s.angle = degrees(open ? 0 : 35);
        // What makes an area solid is no pattern to be seen, and the other way round. A way along the edge is
        // hidden in a solid area; beside a pattern it is a line that nobody asked for.
        if (open != (before.open_mm > 0)) {
            s.spacing.reset();
            if (s.ends == usual_ends(!open)) s.ends = usual_ends(open);
        }
        f.maybe_length(
            {"spacing", "spacing", "Between neighbouring lines", {}, false, open ? nullptr : "of-tip"},
            s.spacing, mm(0.05), mm(50), open ? "by style" : "by tip");
        if (f.when(!open && !s.spacing))
            f.percent({"of-tip", "share of tip", "Spacing, as a share of the tip's width", {8, "85"}, true},
                      s.of_tip, 10, 1000);
        f.angle({"angle", "angle", "Of the lines"}, s.angle);
        f.maybe_length({"inset", "inset", "From the edge"}, s.inset, mm(0), mm(100), "half tip");
        if (f.when(!s.toned()))
            f.one_of({"ends", "ends",
                      "A lift after each line, a way along the edge to the next, or one stroke a piece"},
                     s.ends, {"apart", "joined", "one-stroke"});
        f.one_of({"phase",
                  "anchored to",
                  "The part's corner, the middle of all, or that of each piece",
                  {8, R"("centre")"}},
                 s.phase, {"corner", "centre", "piece"});
        fields(s.style, f);
        if (f.when(kind_of(s.style).toned)) fields(s.tone, f);
        f.length({"least", "shortest line", "Shorter pieces are left out", {8, "0"}, true}, s.least, mm(0),
                 mm(100));
        f.flag({"boundary", "run the edge too", "The edge that the lines end at", {8, "false"}, true},
               s.boundary);
        if (f.when(s.boundary))
            f.flag({"edge-apart",
                    "edge in its own lane",
                    "Another pen, or a blade that goes around",
                    {10, "false"},
                    true},
                   s.edge_apart);
        f.whole({"repeats", "times", "Each stroke is run so often in place", {8, "1"}, true}, s.repeats, 1,
                20);
        f.one_of({"order", "order", "As drawn: what takes the least travel", {8, R"("as-drawn")"}, true},
                 s.order, {"as-drawn", "by-piece", "top-down"});
        f.length({"clear", "clear of others", "Kept free around other lines of the part", {8, "0"}, true},
                 s.clear, mm(0), mm(50));
        f.one_of({"rule",
                  "overlaps",
                  "Each line by its own rule, every other layer, or all of them",
                  {8, R"("own")"},
                  true},
                 s.rule, {"own", "even-odd", "nonzero"});
        f.one_of(
            {"surface",
             "surface",
             "All that lines bound, what lies within an outline, or what lies between that and the outline",
             {8, R"("inside")"},
             true},
            s.surface, {"inside", "within", "between"});
        f.text({"only",
                "only pieces at",
                "Places such as 20 50; 80 50 in hundredths of the box; empty: all",
                {8, R"("")"},
                true},
               s.only, TextKind::plain);
        f.flag({"centre-lines",
                "thin as one line",
                "What is too narrow for the tip is run along its centre line",
                {8, "false"},
                true},
               s.centre_lines);
    }
    friend StepOutcome run(const FillStep& step, const StepInput& in, Progress& progress);
    friend bool mend(FillStep& step, const Finding& finding, const InkReport* ink);
};

} // namespace dotlane
