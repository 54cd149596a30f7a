#include "core/project/steps/knock_out.h"

#include <algorithm>
#include <cmath>

#include "core/base/finding_kind.h"
#include "core/recipe/areas.h"
#include "core/recipe/evaluate.h"
#include "core/recipe/hidden.h"

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
    to_say("The picture that is seen changes by %1 mm2: slivers that fell away leave what is below bare."),
    {"mm2"}};
constexpr FindingKind<> one_layer{
    "knock-out.one-layer",
    Grade::hint,
    to_say(
        "All lines are of one line set, so nothing hides anything: send colours to line sets of their own."),
    {}};

/// A line set: its closed lines in the order in which they lie.
struct Ply {
    const WorkSet* set;
    Region whole, seen, kept;
};

/// Narrower than that all over.
bool is_sliver(const Region& piece, Length under) {
    return offset(piece, -under / 2).empty();
}

/// How long an edge the piece shares with an area, mm.
double shared_edge(const Region& piece, const Region& with) {
    Polylines edge;
    for (const Ring& ring : piece.rings)
        edge.push_back({ring, true});
    return in_mm(length(clipped(edge, offset(with, mm(0.01)))));
}

/// Pieces of the layers that are slivers fall away, or go to the layer with the longest shared edge.
std::vector<Box> treat_slivers(const KnockOutStep& step, std::vector<Ply>& layers, Progress& progress) {
    std::vector<Box> found;
    struct Sliver {
        std::size_t layer;
        Region piece;
    };
    std::vector<Sliver> all;
    for (std::size_t i = 0; i < layers.size(); ++i) {
        std::vector<Region> stay;
        for (Region& piece : pieces(layers[i].kept)) {
            if (progress.cancelled()) return found;
            if (!is_sliver(piece, step.under)) {
                stay.push_back(std::move(piece));
                continue;
            }
            found.push_back(bounds(piece));
            all.push_back({i, piece});
            if (step.slivers == KnockOutStep::Slivers::keep) stay.push_back(std::move(piece));
        }
        if (step.slivers != KnockOutStep::Slivers::keep) layers[i].kept = united(stay);
    }
    if (step.slivers != KnockOutStep::Slivers::merge) return found;
    for (const Sliver& sliver : all) {
        const Box box = bounds(sliver.piece).grown(0.02);
        std::size_t best = layers.size();
        double longest = 0;
        for (std::size_t i = 0; i < layers.size(); ++i) {
            if (layers[i].kept.empty() || !bounds(layers[i].kept).meets(box)) continue;
            std::vector<Region> near;
            for (Region& piece : pieces(layers[i].kept))
                if (bounds(piece).meets(box)) near.push_back(std::move(piece));
            if (near.empty()) continue;
            const double edge = shared_edge(sliver.piece, united(near));
            // Its own layer first, as it changes no colour there.
            const double better = edge * (i == sliver.layer ? 1.0001 : 1);
            if (better > longest) longest = better, best = i;
        }
        if (best < layers.size()) {
            // A hair wider, so that both become one; what is above hides that.
            layers[best].kept = united(layers[best].kept, offset(sliver.piece, mm(0.002)));
        }
    }
    return found;
}

} // namespace

StepOutcome run(const KnockOutStep& step, const StepInput& in, Progress& progress) {
    std::vector<Ply> layers;
    struct Line {
        const FlatLine* line;
        std::size_t layer;
    };
    std::vector<Line> lines;
    int open = 0;
    for (const WorkSet* set : in.of) {
        layers.push_back({set, {}, {}, {}});
        for (const FlatLine& line : set->lines)
            lines.push_back({&line, layers.size() - 1});
    }
    std::stable_sort(lines.begin(), lines.end(),
                     [](const Line& a, const Line& b) { return a.line->order < b.line->order; });
    std::vector<Piled> pile;
    std::vector<std::vector<Region>> of(layers.size());
    for (const Line& l : lines) {
        Region region = area_of(*l.line);
        if (region.empty()) {
            ++open;
            continue;
        }
        of[l.layer].push_back(region);
        pile.push_back({std::move(region), l.layer});
    }
    if (pile.empty()) return refused(say("There are no closed lines that could hide one another."));
    const std::vector<Region> seen = seen_of(pile, layers.size(), progress);
    if (progress.cancelled()) return {};
    double whole = 0, kept = 0, picture = 0;
    for (std::size_t i = 0; i < layers.size(); ++i) {
        Ply& layer = layers[i];
        layer.whole = united(of[i]), layer.seen = seen[i], layer.kept = seen[i];
        if (step.mode == KnockOutStep::Mode::full) layer.kept = layer.whole;
        if (step.mode == KnockOutStep::Mode::trap)
            layer.kept = intersected(offset(layer.seen, step.underlap), layer.whole);
        whole += in_square_mm(area(layer.whole));
        picture += in_square_mm(area(layer.seen));
    }
    const std::vector<Box> narrow = treat_slivers(step, layers, progress);
    if (progress.cancelled()) return {};
    StepOutcome out;
    std::size_t count = 0;
    std::vector<Piled> after;
    for (std::size_t i = 0; i < layers.size(); ++i) {
        const Ply& layer = layers[i];
        kept += in_square_mm(area(layer.kept));
        auto next = copy_of(*layer.set);
        if (step.mode != KnockOutStep::Mode::full || step.slivers != KnockOutStep::Slivers::keep) {
            const FlatLine* like = nullptr;
            std::erase_if(next->lines, [&](const FlatLine& line) { return !area_of(line).empty(); });
            for (const FlatLine& line : layer.set->lines)
                if (!area_of(line).empty()) like = &line; // the foremost stands for them
            for (const Region& piece : pieces(layer.kept)) {
                next->lines.push_back(line_of(piece, *like));
                ++count;
            }
        } else {
            count += pieces(layer.kept).size();
        }
        out.changed.push_back(std::move(next));
    }
    // The proof: what is kept covers all that was seen, of each layer, and nothing that was not covered.
    // Where a trapped layer reaches further it lies below what is seen there, as it did before.
    std::vector<Region> all_seen, all_kept;
    double differs = 0;
    for (const Ply& layer : layers) {
        all_seen.push_back(layer.seen), all_kept.push_back(layer.kept);
        if (step.slivers != KnockOutStep::Slivers::merge)
            differs += in_square_mm(area(subtracted(layer.seen, layer.kept)));
    }
    const Region before = united(all_seen), now = united(all_kept);
    differs += in_square_mm(area(subtracted(before, now))) + in_square_mm(area(subtracted(now, before)));
    const double limit = 1e-4 * std::max(1.0, picture);
    out.report.figures = {figure("layers", layers.size()),
                          figure("pieces", count),
                          figure("slivers", narrow.size()),
                          {"seen", "mm2", picture},
                          {"changed", "mm2", differs > limit ? differs : 0},
                          {"saved", "mm2", std::max(0.0, whole - kept)}};
    if (!narrow.empty()) {
        Box where;
        for (const Box& box : narrow)
            where.add(box);
        Finding finding = sliver_pieces({}, Count{narrow.size()}, {in_mm(step.under)});
        finding.place.box = place_of(where);
        if (step.slivers == KnockOutStep::Slivers::keep) out.report.findings.push_back(std::move(finding));
    }
    if (differs > limit) out.report.findings.push_back(picture_changed({}, {differs}));
    if (layers.size() == 1) out.report.findings.push_back(one_layer({}));
    tell_open(out.report, open, say("knocked out"));
    return out;
}

bool mend(KnockOutStep& step, const Finding& finding, const InkReport*) {
    if (finding.remedy.code != "knock-out.merge") return false;
    step.slivers = KnockOutStep::Slivers::merge;
    return true;
}

} // namespace dotlane
