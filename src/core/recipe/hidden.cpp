#include "core/recipe/hidden.h"

#include <algorithm>

#include "core/base/parallel.h"

namespace dotlane {
namespace {

/// Neighbours in the pile of the same layer, united: they need not be taken off one another.
struct Run {
    std::size_t layer = 0;
    std::vector<Region> pieces; ///< apart from one another
    std::vector<Box> boxes;
    Box box;
};

std::vector<Run> runs_of(const std::vector<Piled>& pile, Progress& progress) {
    std::vector<Run> out;
    std::vector<std::vector<Region>> same;
    std::size_t points = 0;
    for (const Piled& p : pile) {
        if (out.empty() || out.back().layer != p.layer) {
            out.push_back({p.layer, {}, {}, {}});
            same.emplace_back();
        }
        same.back().push_back(p.area);
        points += point_count(p.area);
    }
    in_parallel(out.size(), points, [&](std::size_t r) {
        if (progress.cancelled()) return;
        Run& run = out[r];
        run.pieces = pieces(united(same[r]));
        for (const Region& piece : run.pieces) {
            run.boxes.push_back(bounds(piece));
            run.box.add(run.boxes.back());
        }
    });
    return out;
}

using Seen = std::vector<std::vector<Region>>; ///< of each layer, in parts

/// Of few runs, the whole of each is taken off by what lies above: one difference and one union a run.
Seen seen_run_by_run(const std::vector<Run>& runs, std::size_t layers, Progress& progress) {
    std::vector<Region> whole(runs.size()), above(runs.size()), seen(runs.size());
    std::size_t points = 0;
    for (std::size_t r = runs.size(); r-- > 0 && !progress.cancelled();) {
        for (const Region& piece : runs[r].pieces)
            whole[r].rings.insert(whole[r].rings.end(), piece.rings.begin(), piece.rings.end());
        points += point_count(whole[r]);
        if (r > 0) above[r - 1] = united(above[r], whole[r]);
    }
    in_parallel(runs.size(), points, [&](std::size_t r) {
        if (progress.cancelled()) return;
        seen[r] = above[r].empty() ? std::move(whole[r]) : subtracted(whole[r], above[r]);
        above[r] = {};
    });
    Seen of(layers);
    for (std::size_t r = runs.size(); r-- > 0;)
        if (!seen[r].empty()) of[runs[r].layer].push_back(std::move(seen[r]));
    return of;
}

/// Of many runs each piece looks at those above it alone.
Seen seen_locally(const std::vector<Run>& runs, std::size_t layers, Progress& progress) {
    struct Job {
        std::size_t run, piece;
    };
    std::vector<Job> jobs;
    std::size_t points = 0;
    for (std::size_t r = 0; r < runs.size(); ++r)
        for (std::size_t k = 0; k < runs[r].pieces.size(); ++k) {
            jobs.push_back({r, k});
            points += point_count(runs[r].pieces[k]);
        }
    std::vector<Region> seen(jobs.size());
    in_parallel(jobs.size(), points, [&](std::size_t i) {
        if (progress.cancelled()) return;
        const Run& run = runs[jobs[i].run];
        const Region& piece = run.pieces[jobs[i].piece];
        const Box& box = run.boxes[jobs[i].piece];
        std::vector<Region> above;
        for (std::size_t r = jobs[i].run + 1; r < runs.size(); ++r) {
            if (!runs[r].box.meets(box)) continue;
            for (std::size_t k = 0; k < runs[r].pieces.size(); ++k)
                if (runs[r].boxes[k].meets(box)) above.push_back(runs[r].pieces[k]);
        }
        seen[i] = above.empty() ? piece : subtracted(piece, united(above));
    });
    Seen of(layers);
    for (std::size_t i = 0; i < jobs.size(); ++i)
        if (!seen[i].empty()) of[runs[jobs[i].run].layer].push_back(std::move(seen[i]));
    return of;
}

} // namespace

std::vector<Region> seen_of(const std::vector<Piled>& pile, std::size_t layers, Progress& progress) {
    constexpr std::size_t few = 200;
    const std::vector<Run> runs = runs_of(pile, progress);
    const Seen of =
        runs.size() <= few ? seen_run_by_run(runs, layers, progress) : seen_locally(runs, layers, progress);
    std::vector<Region> out(layers);
    std::size_t points = 0;
    for (const Piled& p : pile)
        points += point_count(p.area);
    in_parallel(layers, points, [&](std::size_t i) {
        if (!progress.cancelled()) out[i] = of[i].size() == 1 ? of[i].front() : united(of[i]);
    });
    return out;
}

} // namespace dotlane
