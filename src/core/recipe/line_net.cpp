#include "core/recipe/line_net.h"

#include <algorithm>
#include <iterator>
#include <numeric>

namespace dotlane {

std::uint32_t LineNet::ring_of(std::uint32_t end) const {
    return static_cast<std::uint32_t>(std::upper_bound(ring_start.begin(), ring_start.end(), end) -
                                      ring_start.begin() - 1);
}

void LineNet::walk_line(std::uint32_t end, std::vector<Point>& points) const {
    const std::uint32_t other = mate[end], bend = bend_of.empty() ? straight : bend_of[end];
    if (bend != straight) {
        const Ring& between = bends[bend];
        if (end < other)
            points.insert(points.end(), between.begin(), between.end());
        else
            points.insert(points.end(), between.rbegin(), between.rend());
    }
    points.push_back(ends[other].at);
}

void LineNet::walk_edge(std::uint32_t of, std::uint32_t from, std::uint32_t to, bool ahead,
                        std::vector<Point>& points) const {
    const Ring& ring = rings[of];
    const auto n = static_cast<std::uint32_t>(ring.size());
    const std::uint32_t a = ends[from].edge, b = ends[to].edge;
    // Two ends on one edge normally have nothing between them, except when the way leads all round.
    const bool round = a == b && (ahead ? from >= to : from <= to);
    if (a == b && !round) return;
    if (ahead)
        for (std::uint32_t i = (a + 1) % n;; i = (i + 1) % n) {
            points.push_back(ring[i]);
            if (i == b) break;
        }
    else
        for (std::uint32_t i = a;; i = (i + n - 1) % n) {
            points.push_back(ring[i]);
            if (i == (b + 1) % n) break;
        }
}

std::vector<double> LineNet::ways() const {
    std::vector<double> out(ends.size());
    for (std::size_t r = 0; r + 1 < ring_start.size(); ++r) {
        const Ring& ring = rings[r];
        const auto n = static_cast<std::uint32_t>(ring.size());
        for (std::uint32_t i = ring_start[r]; i < ring_start[r + 1]; ++i) {
            const std::uint32_t to = i + 1 == ring_start[r + 1] ? ring_start[r] : i + 1;
            const std::uint32_t a = ends[i].edge, b = ends[to].edge;
            if (a == b && i < to) {
                out[i] = distance(ends[i].at, ends[to].at);
                continue;
            }
            double way = distance(ends[i].at, ring[(a + 1) % n]);
            for (std::uint32_t k = (a + 1) % n; k != b; k = (k + 1) % n)
                way += distance(ring[k], ring[(k + 1) % n]);
            out[i] = way + distance(ring[b], ends[to].at);
        }
    }
    return out;
}

Polylines apart(LineNet net, bool alternate) {
    Polylines out;
    out.reserve(net.order.size() + net.loose.size());
    for (std::size_t i = 0; i < net.order.size();) {
        const std::uint32_t row = net.ends[net.order[i]].row;
        std::size_t end = i;
        while (end < net.order.size() && net.ends[net.order[end]].row == row)
            ++end;
        const bool backwards = alternate && row % 2 == 1;
        for (std::size_t k = i; k < end; ++k) {
            const std::uint32_t first = net.order[backwards ? end - 1 - (k - i) : k];
            const std::uint32_t from = backwards ? net.mate[first] : first;
            const std::uint32_t bend = net.bend_of.empty() ? LineNet::straight : net.bend_of[from];
            const std::uint32_t to = net.mate[from];
            Polyline line;
            if (bend == LineNet::straight) {
                line.points = {net.ends[from].at, net.ends[to].at};
            } else {
                line.points = std::move(net.bends[bend]);
                if (from > to) std::reverse(line.points.begin(), line.points.end());
                line.points.insert(line.points.begin(), net.ends[from].at);
                line.points.push_back(net.ends[to].at);
            }
            out.push_back(std::move(line));
        }
        i = end;
    }
    std::move(net.loose.begin(), net.loose.end(), std::back_inserter(out));
    return out;
}

NetMaker::NetMaker(std::vector<Ring> rings) {
    net_.rings = std::move(rings);
}

void NetMaker::add(const Place& from, const Place& to, std::uint32_t row, Ring bends) {
    std::uint32_t bend = LineNet::straight;
    if (!bends.empty()) {
        bend = static_cast<std::uint32_t>(net_.bends.size());
        net_.bends.push_back(std::move(bends));
    }
    for (const Place& place : {from, to})
        raw_.push_back({place, distance(net_.rings[place.ring][place.edge], place.at), row, bend});
}

LineNet NetMaker::done() {
    // Counted by ring and edge, then in order along each edge: few ends lie on one.
    std::vector<std::uint32_t> edge_start(net_.rings.size() + 1, 0);
    for (std::size_t r = 0; r < net_.rings.size(); ++r)
        edge_start[r + 1] = edge_start[r] + static_cast<std::uint32_t>(net_.rings[r].size());
    std::vector<std::uint32_t> start(edge_start.back() + 1, 0);
    const auto edge = [&](const Raw& r) { return edge_start[r.place.ring] + r.place.edge; };
    for (const Raw& r : raw_)
        ++start[edge(r) + 1];
    std::partial_sum(start.begin(), start.end(), start.begin());
    std::vector<std::uint32_t> sorted(raw_.size());
    auto at = start;
    for (std::uint32_t i = 0; i < raw_.size(); ++i)
        sorted[at[edge(raw_[i])]++] = i;
    for (std::size_t e = 0; e + 1 < start.size(); ++e)
        if (start[e + 1] - start[e] > 1)
            std::stable_sort(sorted.begin() + start[e], sorted.begin() + start[e + 1],
                             [&](std::uint32_t a, std::uint32_t b) { return raw_[a].along < raw_[b].along; });
    std::vector<std::uint32_t> end_of(raw_.size());
    net_.ends.reserve(raw_.size());
    for (std::uint32_t k = 0; k < sorted.size(); ++k) {
        const Raw& r = raw_[sorted[k]];
        end_of[sorted[k]] = k;
        net_.ends.push_back({r.place.at, r.place.edge, r.row});
    }
    for (std::size_t r = 0; r < net_.rings.size(); ++r)
        net_.ring_start.push_back(start[edge_start[r + 1]]);
    net_.mate.resize(raw_.size());
    const bool bent = !net_.bends.empty();
    if (bent) net_.bend_of.assign(raw_.size(), LineNet::straight);
    for (std::uint32_t i = 0; i < raw_.size(); i += 2) {
        const std::uint32_t a = end_of[i], b = end_of[i + 1];
        net_.mate[a] = b, net_.mate[b] = a;
        net_.order.push_back(a);
        if (!bent || raw_[i].bend == LineNet::straight) continue;
        net_.bend_of[a] = net_.bend_of[b] = raw_[i].bend;
        if (a > b) std::reverse(net_.bends[raw_[i].bend].begin(), net_.bends[raw_[i].bend].end());
    }
    raw_.clear();
    return std::move(net_);
}

} // namespace dotlane
