// Pieces, numbered from left to right: those named are dropped.
#pragma once

#include "core/project/pieces_text.h"
#include "core/project/steps/kind.h"

namespace dotlane {

struct PiecesStep {
    std::string drop; ///< "2, 5-7"
    bool operator==(const PiecesStep&) const = default;

    /// Drops a piece, or keeps it again.
    void press(int piece) {
        const auto now = piece_numbers(drop);
        std::set<int> dropped;
        if (now) dropped.insert(now->begin(), now->end());
        if (dropped.erase(piece) == 0) dropped.insert(piece);
        drop = piece_text(dropped);
    }

    static constexpr StepRow row{.key = "pieces",
                                 .name = "Pieces",
                                 .about = "Drops pieces by their number.",
                                 .wanted = StepRow::Wanted::join,
                                 .counts_pieces = true};
    friend void fields(PiecesStep& s, Fields& f) {
        f.text({"drop", "drop pieces", "Numbers from left to right, such as 2, 5-7"}, s.drop,
               TextKind::plain);
    }
    friend StepOutcome run(const PiecesStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
