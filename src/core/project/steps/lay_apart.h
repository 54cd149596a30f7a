// On the sheet the pieces may lie one by one instead of in their arrangement; some keep together.
#pragma once

#include "core/project/pieces_text.h"
#include "core/project/steps/kind.h"

namespace dotlane {

struct ApartStep {
    std::string together; ///< arrangements of pieces that stay, "1-3; 5, 6"
    bool whole = true;    ///< what was drawn as one line stays one piece: an i and its dot
    bool operator==(const ApartStep&) const = default;

    /// A piece joins the arrangement that was made last, or leaves the one that it is in.
    void press(int piece) {
        auto groups = piece_groups(together).value_or(std::vector<std::set<int>>{});
        std::size_t left = 0;
        for (auto& group : groups)
            left += group.erase(piece);
        if (left == 0) {
            if (groups.empty()) groups.emplace_back();
            groups.back().insert(piece);
        }
        together = group_text(groups);
    }

    static constexpr StepRow row{.key = "lay-apart",
                                 .name = "Lay apart",
                                 .about =
                                     "Pieces may lie one by one on the sheet; chosen ones keep together.",
                                 .wanted = StepRow::Wanted::place,
                                 .counts_pieces = true};
    friend void fields(ApartStep& s, Fields& f) {
        f.text({"together", "keep together", "Pieces that keep their arrangement, such as 1-3; 5, 6"},
               s.together, TextKind::plain);
        f.flag({"whole", "letters whole", "What was drawn as one line stays one piece: an i and its dot"},
               s.whole);
    }
    friend StepOutcome run(const ApartStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
