#include "core/recipe/hatch_link.h"

#include <algorithm>

#include "core/base/sets.h"

namespace dotlane {
namespace {

/// One end of one run; `index` is 2 run + (1 for the tail).
struct End {
    std::uint32_t index;
    double along;
};

struct Join {
    double way;
    std::uint32_t from, to; ///< ends; the way leads ahead along the ring from `from` to `to`
    std::uint32_t ring;
};

std::vector<Join> candidates(const std::vector<FillRun>& runs,
                             const std::vector<std::vector<double>>& lengths, double reach) {
    std::vector<std::vector<End>> ends(lengths.size());
    for (std::uint32_t r = 0; r < runs.size(); ++r) {
        ends[runs[r].head.ring].push_back({2 * r, runs[r].head.along_mm});
        ends[runs[r].tail.ring].push_back({2 * r + 1, runs[r].tail.along_mm});
    }
    std::vector<Join> out;
    for (std::uint32_t ring = 0; ring < ends.size(); ++ring) {
        auto& list = ends[ring];
        std::sort(list.begin(), list.end(), [](const End& a, const End& b) { return a.along < b.along; });
        const double round = lengths[ring].back();
        // A few ends ahead are enough: the nearest are linked first, and each end only once.
        const std::size_t look =
            std::min<std::size_t>(6, list.size() - std::min<std::size_t>(1, list.size()));
        for (std::size_t i = 0; i < list.size(); ++i)
            for (std::size_t k = 1; k <= look; ++k) {
                const End &a = list[i], &b = list[(i + k) % list.size()];
                const double way = b.along >= a.along ? b.along - a.along : b.along - a.along + round;
                if (a.index / 2 != b.index / 2 && way <= reach) out.push_back({way, a.index, b.index, ring});
            }
    }
    std::stable_sort(out.begin(), out.end(), [](const Join& a, const Join& b) { return a.way < b.way; });
    return out;
}

/// The ring's points strictly between two places, going ahead.
std::vector<Point> way_along(const Ring& ring, const std::vector<double>& lengths, double from, double to) {
    std::vector<Point> out;
    const std::size_t n = ring.size();
    const auto begin = static_cast<std::size_t>(std::upper_bound(lengths.begin(), lengths.end() - 1, from) -
                                                lengths.begin());
    const double round = lengths.back(), span = to >= from ? to - from : to - from + round;
    for (std::size_t k = 0; k < n; ++k) {
        const std::size_t i = (begin + k) % n;
        const double ahead = lengths[i] >= from ? lengths[i] - from : lengths[i] - from + round;
        if (ahead >= span) break;
        if (ahead > 0) out.push_back(ring[i]);
    }
    return out;
}

} // namespace

std::vector<std::vector<double>> ring_lengths(const std::vector<Ring>& rings) {
    std::vector<std::vector<double>> out;
    out.reserve(rings.size());
    for (const Ring& ring : rings) {
        std::vector<double> at{0};
        at.reserve(ring.size() + 1);
        for (std::size_t i = 0; i < ring.size(); ++i)
            at.push_back(at.back() + distance(ring[i], ring[(i + 1) % ring.size()]));
        out.push_back(std::move(at));
    }
    return out;
}

std::vector<FillRun> linked(std::vector<FillRun> runs, const std::vector<Ring>& rings,
                            const std::vector<std::vector<double>>& lengths, double reach_mm) {
    constexpr std::uint32_t none = ~0U;
    struct Joined {
        std::uint32_t other = none;
        const Join* by = nullptr;
    };
    std::vector<Joined> at(runs.size() * 2);
    Sets groups(runs.size());
    const auto links = candidates(runs, lengths, reach_mm);
    for (const Join& link : links) {
        if (at[link.from].other != none || at[link.to].other != none ||
            !groups.unite(link.from / 2, link.to / 2))
            continue;
        at[link.from] = {link.to, &link};
        at[link.to] = {link.from, &link};
    }
    std::vector<FillRun> out;
    std::vector<char> done(runs.size(), 0);
    for (std::uint32_t start = 0; start < runs.size(); ++start) {
        // A chain is taken up at an end that is not linked; there is one, because links make no circles.
        if (done[start] || (at[2 * start].other != none && at[2 * start + 1].other != none)) continue;
        std::uint32_t enter = at[2 * start].other == none ? 2 * start : 2 * start + 1;
        FillRun chain;
        chain.head = enter % 2 == 0 ? runs[start].head : runs[start].tail;
        while (true) {
            FillRun& run = runs[enter / 2];
            done[enter / 2] = 1;
            if (enter % 2 == 1) std::reverse(run.points.begin(), run.points.end());
            chain.points.insert(chain.points.end(), run.points.begin(), run.points.end());
            const std::uint32_t leave = enter ^ 1U;
            chain.tail = leave % 2 == 0 ? run.head : run.tail;
            if (at[leave].other == none) break;
            const Join& link = *at[leave].by;
            const auto along = [&](std::uint32_t end) {
                return end % 2 == 0 ? runs[end / 2].head.along_mm : runs[end / 2].tail.along_mm;
            };
            auto way = way_along(rings[link.ring], lengths[link.ring], along(link.from), along(link.to));
            if (leave != link.from) std::reverse(way.begin(), way.end());
            chain.points.insert(chain.points.end(), way.begin(), way.end());
            enter = at[leave].other;
        }
        out.push_back(std::move(chain));
    }
    return out;
}

} // namespace dotlane
