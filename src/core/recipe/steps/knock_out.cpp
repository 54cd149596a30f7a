#include "core/project/steps/knock_out.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/base/finding_kind.h"
#include "core/base/parallel.h"
#include "core/geometry/narrow.h"
#include "core/recipe/areas.h"
#include "core/recipe/evaluate.h"
#include "core/recipe/plies.h"
#include "core/recipe/widest.h"

namespace dotlane {
namespace {

constexpr FindingKind<Count, Mm<2>> sliver_pieces{
    "knock-out.slivers",
    Grade::caution,
    to_say("%n [piece is|pieces are] narrower than %2 mm all over: "
           "[it|they] will be lost or torn in the hands."),
    {"count", "under_mm"},
    {{{"knock-out.merge", to_say("Join them to their neighbours")}}}};
constexpr FindingKind<Mm<3>> picture_changed{
    "knock-out.changed",
    Grade::caution,
    to_say("The picture that is seen changes by %1 mm2: slivers fell away, or took a neighbour's colour."),
    {"mm2"}};
constexpr FindingKind<Mm<2>, Mm<2>> underlap_wide{
    "knock-out.underlap",
    Grade::caution,
    to_say("An underlap of %1 mm reaches below all that is hidden, so nothing of it is left out: less than "
           "%2 mm "
           "leaves some out."),
    {"underlap_mm", "under_mm"},
    {{{"knock-out.less-underlap", to_say("A narrower underlap")}}}};
constexpr FindingKind<> one_layer{
    "knock-out.one-layer",
    Grade::hint,
    to_say(
        "All lines are of one line set, so nothing hides anything: send colours to line sets of their own."),
    {}};

/// How long an edge the piece shares with an area, mm.
double shared_edge(const Region& piece, const Region& with) {
    return in_mm(length(clipped(edge_of(piece), offset(with, mm(0.01)))));
}

/// Pieces of the layers that are slivers fall away, or go to the layer with the longest shared edge.
std::vector<Box> treat_slivers(const KnockOutStep& step, std::vector<Ply>& layers, Progress& progress) {
    struct Piece {
        Region region;
        Box box;
    };
    std::vector<Box> found;
    std::vector<std::vector<Piece>> stay(layers.size());
    std::vector<std::pair<std::size_t, Piece>> slivers;
    for (std::size_t i = 0; i < layers.size(); ++i) {
        std::vector<Region> all = pieces(layers[i].kept);
        std::vector<char> wide(all.size());
        in_parallel(all.size(), point_count(layers[i].kept), [&](std::size_t k) {
            if (!progress.cancelled()) wide[k] = is_wider_than(all[k], step.under);
        });
        if (progress.cancelled()) return found;
        for (std::size_t k = 0; k < all.size(); ++k) {
            Piece piece{std::move(all[k]), {}};
            piece.box = bounds(piece.region);
            if (wide[k]) {
                stay[i].push_back(std::move(piece));
            } else {
                found.push_back(piece.box);
                slivers.emplace_back(i, std::move(piece));
            }
        }
    }
    if (slivers.empty() || step.slivers == KnockOutStep::Slivers::keep) return found;
    std::vector<std::vector<Region>> kept(layers.size());
    for (std::size_t i = 0; i < layers.size(); ++i)
        for (const Piece& piece : stay[i])
            kept[i].push_back(piece.region);
    for (const auto& [of, sliver] : slivers) {
        if (step.slivers == KnockOutStep::Slivers::drop || progress.cancelled()) break;
        const Box box = sliver.box.grown(0.02);
        std::size_t best = layers.size();
        double longest = 0;
        for (std::size_t i = 0; i < layers.size(); ++i) {
            std::vector<Region> near;
            for (const Piece& piece : stay[i])
                if (piece.box.meets(box)) near.push_back(piece.region);
            if (near.empty()) continue;
            // Its own layer first, as it changes no colour there.
            const double edge = shared_edge(sliver.region, united(near)) * (i == of ? 1.0001 : 1);
            if (edge > longest) longest = edge, best = i;
        }
        // A hair wider, so that both become one; what is above hides that.
        if (best < layers.size()) kept[best].push_back(offset(sliver.region, mm(0.002)));
    }
    for (std::size_t i = 0; i < layers.size(); ++i)
        layers[i].kept = united(kept[i]);
    return found;
}

std::size_t points_of(const std::vector<Ply>& layers) {
    std::size_t out = 0;
    for (const Ply& layer : layers)
        out += point_count(layer.whole);
    return out;
}

/// How much of the picture is another one when what is kept lies there: layers as wholes, by their foremost
/// lines.
double changed_area(const std::vector<Ply>& layers, const std::vector<std::size_t>& by_rank,
                    Progress& progress) {
    std::vector<Piled> pile;
    for (const std::size_t i : by_rank)
        pile.push_back({layers[i].kept, i});
    const std::vector<Region> seen = seen_of(pile, layers.size(), progress);
    std::vector<double> differs(layers.size());
    in_parallel(layers.size(), points_of(layers), [&](std::size_t i) {
        if (progress.cancelled()) return;
        const double lost = in_square_mm(area(subtracted(layers[i].seen, seen[i])));
        // What it gains: |T - S| is |T| - |S| + |S - T|.
        differs[i] = lost + in_square_mm(area(seen[i])) - in_square_mm(area(layers[i].seen)) + lost;
    });
    // What one layer loses another one gains, or nothing.
    return std::max(0.0, std::accumulate(differs.begin(), differs.end(), 0.0) / 2);
}

/// The same where each layer keeps no more than its whole and lies as one above the others: the wholes above
/// hide what they hid, so only what is seen of a layer and not kept of it could be missing.
double lost_area(const std::vector<Ply>& layers, Progress& progress) {
    std::vector<double> lost(layers.size());
    in_parallel(layers.size(), points_of(layers), [&](std::size_t i) {
        if (!progress.cancelled()) lost[i] = in_square_mm(area(subtracted(layers[i].seen, layers[i].kept)));
    });
    return std::accumulate(lost.begin(), lost.end(), 0.0);
}

/// Half of the widest that is hidden of any layer, and where that is: an underlap as wide leaves nothing out.
WidestPlace widest_hidden(const std::vector<Ply>& layers, Progress& progress) {
    WidestPlace out;
    for (const Ply& layer : layers)
        for (const Region& piece : pieces(subtracted(layer.whole, layer.seen))) {
            if (progress.cancelled()) return out;
            if (const WidestPlace place = widest_place(piece); place.radius > out.radius) out = place;
        }
    return out;
}

} // namespace

StepOutcome run(const KnockOutStep& step, const StepInput& in, Progress& progress) {
    Plies plies = plies_of(in.of, {}, progress);
    std::vector<Ply>& layers = plies.layers;
    if (progress.cancelled()) return {};
    if (plies.by_rank.empty()) return refused(say("There are no closed lines that could hide one another."));
    double whole = 0, kept = 0, picture = 0;
    std::vector<Region> above(layers.size()); // what is seen of layers further up
    Region so_far;
    for (auto at = plies.by_rank.rbegin(); at != plies.by_rank.rend(); ++at) {
        Ply& layer = layers[*at];
        layer.kept = layer.seen;
        if (step.mode == KnockOutStep::Mode::full) layer.kept = layer.whole;
        if (step.mode == KnockOutStep::Mode::trap && plies.by_turns) {
            above[*at] = so_far;
            so_far = united(so_far, layer.seen);
        }
        whole += in_square_mm(area(layer.whole));
        picture += in_square_mm(area(layer.seen));
    }
    if (step.mode == KnockOutStep::Mode::trap)
        in_parallel(layers.size(), points_of(layers), [&](std::size_t i) {
            if (progress.cancelled() || layers[i].seen.empty()) return;
            Region reaches = intersected(offset(layers[i].seen, step.underlap), layers[i].whole);
            // Only below those: where two layers lie on each other by turns, one of them can reach below.
            if (plies.by_turns) reaches = united(layers[i].seen, intersected(reaches, above[i]));
            layers[i].kept = std::move(reaches);
        });
    if (progress.cancelled()) return {};
    const std::vector<Box> narrow = treat_slivers(step, layers, progress);
    if (progress.cancelled()) return {};
    // Full shapes stay as they were drawn, and what is seen as it is seen, unless slivers are treated.
    const bool keeps = step.slivers == KnockOutStep::Slivers::keep,
               drawn = keeps && step.mode == KnockOutStep::Mode::full,
               seen = keeps && step.mode == KnockOutStep::Mode::knock_out;
    const double differs = drawn || seen              ? 0
                           : keeps && !plies.by_turns ? lost_area(layers, progress)
                                                      : changed_area(layers, plies.by_rank, progress);
    if (progress.cancelled()) return {};
    StepOutcome out;
    std::size_t count = 0;
    for (const Ply& layer : layers) {
        kept += in_square_mm(area(layer.kept));
        const std::vector<Region> made = pieces(layer.kept);
        count += made.size();
        auto next = copy_of(*layer.set);
        if (!drawn && layer.foremost) {
            std::erase_if(next->lines, [&](const FlatLine& line) { return !area_of(line).empty(); });
            for (const Region& piece : made)
                next->lines.push_back(line_of(piece, *layer.foremost));
        }
        out.changed.push_back(std::move(next));
    }
    const double limit = 1e-4 * std::max(1.0, picture);
    out.report.figures = {figure("layers", layers.size()),
                          figure("pieces", count),
                          figure("slivers", narrow.size()),
                          {"seen", "mm2", picture},
                          {"changed", "mm2", differs > limit ? differs : 0},
                          {"hidden", "mm2", std::max(0.0, whole - picture)}, // the most that can be saved
                          {"saved", "mm2", std::max(0.0, whole - kept)}};
    out.report.piled = kept - picture > limit;
    if (!narrow.empty() && step.slivers == KnockOutStep::Slivers::keep) {
        Box where;
        for (const Box& box : narrow)
            where.add(box);
        Finding finding = sliver_pieces({}, Count{narrow.size()}, {in_mm(step.under)});
        finding.place.box = place_of(where);
        out.report.findings.push_back(std::move(finding));
    }
    if (step.mode == KnockOutStep::Mode::trap && whole - picture > limit && whole - kept <= limit) {
        const WidestPlace place = widest_hidden(layers, progress);
        Finding finding = underlap_wide({}, {in_mm(step.underlap)}, {in_mm(place.radius)});
        Box where;
        where.add(place.at);
        finding.place.box = place_of(where.grown(in_mm(place.radius)));
        out.report.findings.push_back(std::move(finding));
    }
    if (differs > limit) out.report.findings.push_back(picture_changed({}, {differs}));
    if (layers.size() == 1) out.report.findings.push_back(one_layer({}));
    tell_open(out.report, plies.open, say("knocked out"));
    return out;
}

bool mend(KnockOutStep& step, const Finding& finding, const InkReport*) {
    if (finding.remedy.code == "knock-out.less-underlap") {
        const auto under = number_argument(finding, "under_mm");
        return under && (step.underlap = mm(std::max(0.05, std::floor(*under * 10) / 20)), true);
    }
    if (finding.remedy.code != "knock-out.merge") return false;
    step.slivers = KnockOutStep::Slivers::merge;
    return true;
}

} // namespace dotlane
