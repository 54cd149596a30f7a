// A strip with a repeating edge.
#pragma once

#include "core/project/sources/kind.h"

namespace dotlane {

struct EdgeStrip {
    enum class Edge { scallop, wave, zigzag, deckle };
    enum class Ask { count, pitch };
    Edge edge = Edge::scallop;
    Length length = mm(240), height = mm(30); ///< 5..5000 mm, 1..1000 mm
    Length depth = mm(6);                     ///< of the edge, 0.2..200 mm
    Ask ask = Ask::pitch;
    int count = 16;        ///< repeats, 1..1000
    Length pitch = mm(15); ///< wished; the nearest that makes every repeat whole is taken, 0.5..1000 mm
    bool both_sides = false;
    int seed = 1; ///< of the deckle, 1..9999
    bool operator==(const EdgeStrip&) const = default;

    static EdgeStrip sample() {
        EdgeStrip out;
        out.length = mm(75), out.height = mm(24), out.depth = mm(8);
        return out;
    }

    static constexpr SourceRow row{.key = "edge-strip",
                                   .name = "Edge strip",
                                   .about = "Scallops, waves or zigzag along a length.",
                                   .wanted = SourceRow::Wanted::patterns};
    friend void fields(EdgeStrip& s, Fields& f) {
        f.one_of({"edge", "edge"}, s.edge, {"scallop", "wave", "zigzag", "deckle"});
        f.length({"length", "length"}, s.length, mm(5), mm(5000));
        f.length({"height", "height"}, s.height, mm(1), mm(1000));
        f.length({"depth", "depth", "Of the edge"}, s.depth, mm(0.2), mm(200));
        f.one_of({"ask", "repeats by"}, s.ask, {"count", "pitch"});
        if (f.when(s.ask == EdgeStrip::Ask::count)) f.whole({"count", "repeats"}, s.count, 1, 1000);
        if (f.when(s.ask == EdgeStrip::Ask::pitch))
            f.length({"pitch", "pitch", "Wished; the nearest that makes every repeat whole is taken"},
                     s.pitch, mm(0.5), mm(1000));
        if (f.when(s.edge == EdgeStrip::Edge::deckle)) f.whole({"seed", "another one"}, s.seed, 1, 9999);
        f.flag({"both-sides", "both long sides"}, s.both_sides);
    }
    friend Result<SourceLines> make(const EdgeStrip& spec, const MakeInput& in);
};

} // namespace dotlane
