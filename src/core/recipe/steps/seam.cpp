#include "core/project/steps/seam.h"

#include <cmath>

#include "core/base/finding_kind.h"
#include "core/geometry/ends.h"
#include "core/geometry/reshape.h"
#include "core/recipe/allowance.h"
#include "core/recipe/areas.h"
#include "core/recipe/digits.h"
#include "core/recipe/evaluate.h"
#include "core/recipe/sewing_order.h"
#include "core/recipe/widest.h"

namespace dotlane {
namespace {

constexpr FindingKind<> in_sections{
    "seam.sections",
    Grade::hint,
    to_say("These pieces cannot all be sewn one after another along straight seams: sew the block in "
           "sections, or set some seams in by hand."),
    {}};
constexpr FindingKind<Count> too_small{
    "seam.small",
    Grade::caution,
    to_say("%n [piece is|pieces are] narrower than the allowance: what is left when [it is|they are] sewn "
           "hardly shows."),
    {"count"}};
constexpr FindingKind<> lie_on{
    "seam.overlap",
    Grade::caution,
    to_say("Some pieces lie within others, so they cannot be moved apart from their common middle: send them "
           "to line sets of their own, or lay them apart on the sheet."),
    {}};

constexpr double touch = 0.06; ///< mm: seams of neighbours come from drawings that were rounded

struct Piece {
    Region seam, cut;
    const FlatLine* like;
    Point moved; ///< by which it is moved apart
};

/// A stretch of seam that two pieces share, along the first of them.
struct Shared {
    std::size_t a, b;
    Polyline seam;
};

std::vector<Shared> shared_seams(const std::vector<Piece>& pieces, Progress& progress) {
    std::vector<Shared> out;
    std::vector<Box> boxes;
    for (const Piece& piece : pieces)
        boxes.push_back(bounds(piece.seam).grown(touch));
    for (std::size_t a = 0; a < pieces.size() && !progress.cancelled(); ++a)
        for (std::size_t b = a + 1; b < pieces.size(); ++b) {
            if (!boxes[a].meets(boxes[b])) continue;
            const Region near =
                subtracted(offset(pieces[b].seam, mm(touch)), offset(pieces[b].seam, mm(-touch)));
            // Where a ring begins on the seam, its two ends are one.
            for (Polyline& line : joined_ends(clipped(edge_of(pieces[a].seam), near), mm(0.02)).lines)
                if (in_mm(length(line)) > 1) out.push_back({a, b, std::move(line)});
        }
    return out;
}

/// Pieces moved away from their common middle until the gap lies between what is cut of them. False when no
/// such move parts them.
bool move_apart(std::vector<Piece>& pieces, Length gap, Progress& progress) {
    if (pieces.size() < 2) return true;
    Box all;
    std::vector<Region> grown;
    std::vector<Box> boxes;
    std::vector<Point> from;
    for (const Piece& piece : pieces)
        all.add(bounds(piece.seam));
    for (const Piece& piece : pieces) {
        grown.push_back(offset(piece.cut, gap / 2, {Corner::mitre, 2}));
        boxes.push_back(bounds(grown.back()));
        from.push_back(bounds(piece.seam).centre() - all.centre());
    }
    const auto free = [&](double k) {
        for (std::size_t a = 0; a < pieces.size(); ++a)
            for (std::size_t b = a + 1; b < pieces.size(); ++b) {
                const Point by = (from[b] - from[a]) * k;
                Box moved = boxes[b];
                moved.x0 += by.x, moved.x1 += by.x, moved.y0 += by.y, moved.y1 += by.y;
                if (!boxes[a].meets(moved)) continue;
                if (progress.cancelled()) return true;
                const Region other = transformed(grown[b], Affine::translation(by));
                if (in_square_mm(area(intersected(grown[a], other))) > 0.01) return false;
            }
        return true;
    };
    double low = 0, high = 0.25;
    while (high < 16 && !free(high))
        low = high, high *= 2;
    if (high >= 16) return false;
    for (int i = 0; i < 7 && !progress.cancelled(); ++i) {
        const double middle = (low + high) / 2;
        (free(middle) ? high : low) = middle;
    }
    for (std::size_t i = 0; i < pieces.size(); ++i)
        pieces[i].moved = from[i] * high;
    return true;
}

/// Slits at the same places of a seam, into the allowances of both pieces.
struct Notches {
    std::vector<std::vector<Polyline>> of; ///< each piece
    std::size_t pairs = 0;
};

Notches notches_on(const std::vector<Shared>& seams, const std::vector<Piece>& pieces, const SeamStep& step) {
    Notches out;
    out.of.resize(pieces.size());
    const double a = in_mm(step.allowance);
    for (const Shared& s : seams) {
        const double whole = in_mm(length(s.seam));
        const auto count =
            static_cast<std::size_t>(std::max(1.0, std::floor(whole / in_mm(step.notches_apart))));
        if (whole < 2) continue;
        // In the middle of as many even stretches.
        const std::vector<PlaceOnLine> places = evenly_along({s.seam.points, false}, 2 * count);
        for (std::size_t i = 1; i < places.size(); i += 2) {
            const Point side{places[i].along.y, -places[i].along.x};
            // Outside one piece is towards the other.
            const bool right = contains(pieces[s.a].seam, places[i].at - side * 0.2) ||
                               contains(pieces[s.b].seam, places[i].at + side * 0.2);
            const Point out_of_a = right ? side : side * -1;
            for (const auto& [piece, way] : {std::pair{s.a, out_of_a}, std::pair{s.b, out_of_a * -1}}) {
                const Polyline slit{{places[i].at + way * (a + 0.05), places[i].at + way * (a * 0.5)}, false};
                for (Polyline& inside : clipped({slit}, pieces[piece].cut))
                    out.of[piece].push_back(std::move(inside));
            }
            ++out.pairs;
        }
    }
    return out;
}

} // namespace

StepOutcome run(const SeamStep& step, const StepInput& in, Progress& progress) {
    const Areas areas = areas_of(in.of);
    std::vector<Piece> all;
    for (std::size_t i = 0; i < areas.each.size(); ++i)
        for (Region& piece : pieces(areas.each[i])) {
            Region cut = with_allowance(piece, step.allowance, step.limit);
            all.push_back({std::move(piece), std::move(cut), areas.lines[i], {}});
        }
    if (all.empty()) return refused(say("There are no closed lines to sew along."));
    if (all.size() > 400) return refused(say("More than 400 pieces are not sewn at once."));
    const std::vector<Shared> seams = shared_seams(all, progress);
    if (progress.cancelled()) return {};
    SeamGraph graph;
    graph.pieces = all.size();
    for (const Shared& s : seams)
        graph.seams.push_back({s.a, s.b, s.seam});
    const SewingOrder order = sewing_order(graph, progress);
    StepOutcome out;
    const bool parted = in_mm(step.apart) <= 0 || move_apart(all, step.apart, progress);
    if (progress.cancelled()) return {};
    Box box;
    for (const Piece& piece : all) {
        Box one = bounds(piece.cut);
        box.add(one.centre() + piece.moved), box.add(Point{one.x0, one.y0} + piece.moved);
        box.add(Point{one.x1, one.y1} + piece.moved);
    }
    const Affine face = step.mirrored ? Affine{-1, 0, 0, 1, box.x0 + box.x1, 0} : Affine{};
    const Notches notches = step.notches ? notches_on(seams, all, step) : Notches{};
    const Digits digits(in.inserted);
    out.made.emplace();
    std::vector<FlatLine> sewing, clips, numbers;
    std::size_t narrow = 0;
    double shared = 0;
    for (std::size_t k = 0; k < all.size(); ++k) {
        if (progress.cancelled()) return {};
        const Piece& piece = all[order.order[k]];
        const Affine to = face * Affine::translation(piece.moved);
        FlatLine cut = line_of(transformed(piece.cut, to), *piece.like);
        cut.filled = false;
        out.made->lines.push_back(std::move(cut));
        sewing.push_back(line_of(transformed(piece.seam, to), *piece.like));
        sewing.back().filled = false;
        if (step.notches)
            for (const Polyline& slit : notches.of[order.order[k]])
                clips.push_back(line_along({transformed(slit, to)}));
        const WidestPlace place = widest_place(piece.seam);
        narrow += place.radius < step.allowance / 2;
        if (!step.numbers) continue;
        const double high = std::clamp(in_mm(place.radius) * 0.8, 1.2, 10.0);
        if (auto number = digits.number(k + 1, to(place.at), mm(high))) numbers.push_back(std::move(*number));
    }
    for (const Shared& s : seams)
        shared += in_mm(length(s.seam));
    out.also = {{role::sewing, std::move(sewing)}};
    if (step.notches) out.also.push_back({role::clip, std::move(clips)});
    if (step.numbers) out.also.push_back({role::number, std::move(numbers)});
    double cloth = 0;
    for (const Piece& piece : all)
        cloth += in_square_mm(area(piece.cut));
    out.report.figures = {figure("pieces", all.size()),
                          figure("seams", seams.size()),
                          {"seam_length", "mm", shared},
                          figure("notches", notches.pairs),
                          {"cut", "mm2", cloth}};
    out.report.from_behind = step.mirrored;
    if (narrow > 0) out.report.findings.push_back(too_small({}, Count{narrow}));
    if (!parted) out.report.findings.push_back(lie_on({}));
    if (!order.straight && all.size() > 2) out.report.findings.push_back(in_sections({}));
    tell_open(out.report, areas.open, say("given an allowance"));
    return out;
}

} // namespace dotlane
