// A job of sheets that are alike, each with three lanes, so that tools change.
#pragma once

#include "tests/support/support.h"

namespace dotlane::test {

inline Bench sheets_alike(int count) {
    Bench b = bench("<rect x='2' y='2' width='80' height='50' fill='none' stroke='#22282c'/>"
                    "<path d='M40,2 v50' fill='none' stroke='#5a6996' stroke-dasharray='4 2'/>"
                    "<path d='M50,10 q10,10 20,0' fill='none' stroke='#a8462d'/>");
    for (int n = 2; n <= count; ++n) {
        Sheet more = b.project.sheets.front();
        more.id = fresh_id<SheetId>(b.project), more.name = "sheet " + std::to_string(n);
        for (Placement& p : more.placements)
            p.id = fresh_id<PlacementId>(b.project);
        b.project.sheets.push_back(std::move(more));
    }
    return b;
}

inline const Machine& machine_of(const Bench& b) {
    return *b.workshop->catalog().machine(b.project.machine);
}

} // namespace dotlane::test
