#include "core/project/steps/patch.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <set>

#include "core/base/finding_kind.h"
#include "core/base/text.h"
#include "core/geometry/narrow.h"
#include "core/geometry/region_index.h"
#include "core/geometry/reshape.h"
#include "core/recipe/allowance.h"
#include "core/recipe/areas.h"
#include "core/recipe/digits.h"
#include "core/recipe/evaluate.h"
#include "core/recipe/plies.h"
#include "core/recipe/widest.h"

namespace dotlane {
namespace {

constexpr FindingKind<Count, Mm<1>, Mm<1>> too_narrow{
    "patch.narrow",
    Grade::caution,
    to_say("%n [piece is|pieces are] too narrow to turn %2 mm under from both sides: at most %3 mm would lie "
           "flat."),
    {"count", "allowance_mm", "most_mm"},
    {{{"patch.allowance", to_say("Turn less under")}, {"patch.raw", to_say("Leave edges raw")}}}};
constexpr FindingKind<Count, Mm<1>, Mm<1>, Mm<1>> narrow_limb{
    "patch.limb",
    Grade::caution,
    to_say("%n [limb is|limbs are] only %3 mm wide: what is turned %2 mm under from both sides lies doubled "
           "there. At most %4 mm would lie flat."),
    {"count", "allowance_mm", "wide_mm", "most_mm"},
    {{{"patch.allowance", to_say("Turn less under")}, {"patch.raw", to_say("Leave edges raw")}}}};
constexpr FindingKind<Count, Mm<1>> crumb{
    "patch.crumb",
    Grade::caution,
    to_say("%n [piece or limb is|pieces or limbs are] narrower than 4 mm, %2 mm at the narrowest: so little "
           "cannot be turned under."),
    {"count", "wide_mm"},
    {{{"patch.raw", to_say("Leave edges raw")}}}};
constexpr FindingKind<Count, Mm<1>> closed_hole{
    "patch.hole",
    Grade::caution,
    to_say("The allowance closes %n [hole|holes]: at most %2 mm would leave room to turn the edge under."),
    {"count", "most_mm"},
    {{{"patch.allowance", to_say("Turn less under")}, {"patch.raw", to_say("Leave edges raw")}}}};
constexpr FindingKind<Mm<1>, Mm<1>> short_underlap{
    "patch.underlap",
    Grade::caution,
    to_say("An upper piece is only %2 mm wide: an underlap of %1 mm would show on its far side, so it is cut "
           "short there."),
    {"underlap_mm", "wide_mm"},
    {{{"patch.less-underlap", to_say("Make it fit")}}}};
constexpr FindingKind<Count, Mm<1>> satin_wide{
    "patch.satin",
    Grade::caution,
    to_say("The satin band covers %n [piece|pieces] whole: at most %2 mm inside would leave some of the "
           "fabric to be seen."),
    {"count", "most_mm"},
    {{{"patch.less-satin", to_say("Make it narrower")}}}};
constexpr FindingKind<Count> together{
    "patch.together",
    Grade::caution,
    to_say("Pieces of %n fabrics lie on one another here: each is to be cut of its own cloth."),
    {"fabrics"},
    {{{"apart.fabrics", to_say("A part for each fabric")}}}};
constexpr FindingKind<> hidden_fabric{
    "patch.hidden", Grade::caution, to_say("A fabric lies wholly below others and is left out."), {}};
constexpr FindingKind<> wide_cloth{
    "patch.cloth",
    Grade::caution,
    to_say("A fabric's piece is wider than the cloth that is bought, with the grain as it is."),
    {}};

constexpr double arrow_share = 1.3, head = 2.2; ///< of the widest disc's radius; mm

/// The parts of lines that lie outside a region.
Polylines outside(const Polylines& lines, const Region& of, const Box& box) {
    if (of.empty()) return lines;
    const Region rest = subtracted(region_of(Shape{{rectangle(box.grown(10))}}), of);
    return clipped(lines, rest);
}

/// As numbers of the fabrics, each named once.
Result<std::vector<int>> order_of(const std::string& text, std::size_t count) {
    std::vector<int> out;
    for (const std::string_view word : split(text, " ,;\t\r\n")) {
        if (word.empty()) continue;
        int n = 0;
        const auto [end, error] = std::from_chars(word.data(), word.data() + word.size(), n);
        if (error != std::errc() || end != word.data() + word.size() || n < 1 ||
            static_cast<std::size_t>(n) > count || std::find(out.begin(), out.end(), n) != out.end())
            return fail(
                "patch.order",
                say("\"%1\" is no order: name each of the %2 fabrics once, the lowest first.", text, count));
        out.push_back(n);
    }
    return out;
}

/// Less is no fabric that anyone sees, cuts or sews, but an edge that was drawn along another.
constexpr Length thread = mm(0.02);

Region without_threads(const Region& seen) {
    // A little more is given back than was taken, for the points of sharp corners.
    return intersected(seen, offset(offset(seen, -thread / 2), thread * 1.5, {Corner::mitre, 1000}));
}

/// A fabric, the lowest first.
struct Cloth {
    const Ply* ply;
    Region above; ///< what is seen of those that lie on it
    Region seen, cut;
};

struct Work {
    const PatchStep& step;
    Affine face; ///< from the drawing to what is made
    Digits digits;
    StepOutcome out;
    std::vector<FlatLine> turning, clips, grain, numbers, satin, tack;
    std::size_t pieces = 0, notches = 0;
    Length closest = mm(1e9);

    explicit Work(const PatchStep& s, const StepInput& in, const Box& box)
        : step(s)
        , digits(in.inserted) {
        if (s.lines == PatchStep::Lines::pieces && s.web == PatchStep::Web::mirrored)
            face = {-1, 0, 0, 1, box.x0 + box.x1, 0};
        out.made.emplace();
    }

    void mark(const Region& piece) {
        ++pieces;
        if (!step.numbers && (!step.grain || step.lines == PatchStep::Lines::map)) return;
        const WidestPlace place = widest_place(piece);
        const double r = in_mm(place.radius);
        const bool arrow = step.grain && step.lines == PatchStep::Lines::pieces && r > 1.5;
        const Point along{std::cos(in_radians(step.direction)), -std::sin(in_radians(step.direction))};
        if (arrow) {
            const double half = std::min(r * arrow_share / 2, 40.0), tip = std::min(head, half / 2);
            const Point a = place.at - along * half, b = place.at + along * half, side{-along.y, along.x};
            // Beside the number, where there is one.
            const Point by = step.numbers ? side * (r * 0.45) : Point{};
            Polylines lines;
            for (const auto& [end, back] : {std::pair{a, 1.0}, std::pair{b, -1.0}})
                lines.push_back({{end + by + along * (back * tip) + side * (tip / 2), end + by,
                                  end + by + along * (back * tip) - side * (tip / 2)},
                                 false});
            lines.push_back({{a + by, b + by}, false});
            grain.push_back(line_along(transformed(lines, face)));
        }
        if (!step.numbers) return;
        const Point by = arrow ? Point{along.y, -along.x} * (r * 0.25) : Point{};
        // Upright on the face that is seen.
        if (auto line = digits.number(pieces, face(place.at + by), mm(std::clamp(r * 0.6, 1.2, 8.0))))
            numbers.push_back(std::move(*line));
    }

    void add(const Region& piece, const FlatLine& like) {
        FlatLine line = line_of(transformed(piece, face), like);
        line.filled = false;
        out.made->lines.push_back(std::move(line));
    }

    void cut(Cloth& cloth, Progress& progress) {
        const Region under = in_mm(step.underlap) > 0 && !cloth.above.empty()
                                 ? intersected(offset(cloth.seen, step.underlap), cloth.above)
                                 : Region{};
        cloth.cut = cloth.seen;
        if (step.edge == PatchStep::Edge::turned) {
            const double reach = step.corners == PatchStep::Corners::mitred    ? 1.0
                                 : step.corners == PatchStep::Corners::clipped ? 0.5
                                                                               : 2.5;
            const Region allowance = with_allowance(cloth.seen, step.allowance, reach);
            // The edges that another fabric lies on stay flat.
            cloth.cut = united(cloth.seen, subtracted(allowance, cloth.above));
            const Region covered = cloth.above.empty() ? Region{} : offset(cloth.above, mm(0.05));
            const Polylines turned = outside(edge_of(cloth.seen), covered, bounds(cloth.seen));
            for (const Polyline& line : transformed(turned, face))
                turning.push_back(line_along(Polylines{line}));
            if (step.clips) {
                std::optional<RegionIndex> index;
                if (!covered.empty()) index.emplace(covered);
                const CurveCuts cuts = curve_cuts(cloth.seen, step.allowance,
                                                  [&](Point p) { return !index || !index->contains(p); });
                if (progress.cancelled()) return;
                cloth.cut = subtracted(cloth.cut, cuts.notched);
                notches += cuts.notches;
                closest = std::min(closest, cuts.least);
                for (const Polyline& clip : clipped(cuts.clips, cloth.cut))
                    clips.push_back(line_along({transformed(clip, face)}));
            }
        }
        cloth.cut = united(cloth.cut, under);
    }

    /// A zigzag along a line, as wide as it is far inside.
    Polyline zigzag(const Polyline& line) const {
        const double whole = in_mm(length(line)), wide = in_mm(step.tack_in);
        const auto n = static_cast<std::size_t>(2 * std::max(2.0, std::round(whole / wide / 2)));
        Polyline at;
        at.closed = line.closed;
        double side = wide / 2;
        for (const PlaceOnLine& place : evenly_along(line, n)) {
            at.points.push_back(place.at + Point{place.along.y, -place.along.x} * side);
            side = -side;
        }
        return at;
    }

    void map(const Cloth& cloth, const FlatLine& like) {
        // An edge that an upper piece has too is drawn with that one.
        const Region drawn = cloth.above.empty() ? Region{} : offset(cloth.above, mm(0.05));
        for (const Region& piece : dotlane::pieces(cloth.seen)) {
            mark(piece);
            const Polylines edges = outside(edge_of(piece), drawn, bounds(piece));
            if (edges.empty()) continue;
            FlatLine line = line_along(edges);
            line.order = like.order;
            out.made->lines.push_back(std::move(line));
        }
        const Region& under = cloth.above; // no stitches where another fabric will lie
        const auto put = [&](std::vector<FlatLine>& to, const Region& edge) {
            for (const Polyline& line : outside(edge_of(edge), under, bounds(edge)))
                to.push_back(line_along({line}));
        };
        if (step.edge == PatchStep::Edge::raw && in_mm(step.satin) > 0) {
            const double in = in_mm(step.satin) * step.inside / 100, out_by = in_mm(step.satin) - in;
            put(satin, in > 0 ? offset(cloth.seen, mm(-in)) : cloth.seen);
            put(satin, out_by > 0 ? offset(cloth.seen, mm(out_by)) : cloth.seen);
        }
        if (step.tack == PatchStep::Tack::none) return;
        for (const Polyline& line :
             outside(edge_of(offset(cloth.seen, -step.tack_in)), under, bounds(cloth.seen)))
            tack.push_back(line_along({step.tack == PatchStep::Tack::zigzag ? zigzag(line) : line}));
    }

    void need(const Cloth& cloth) {
        const double up = in_radians(step.direction);
        // Turned so that the grain stands upright.
        const Box box = bounds(transformed(cloth.cut, Affine::rotation(up - std::acos(-1.0) / 2)));
        const double spare = 2 * in_mm(step.spare);
        const double wide = box.width() + spare, high = box.height() + spare;
        Needed needed{say("fabric"), mm(wide), mm(high), cloth.ply->set->id, {}};
        const double across = std::floor(in_mm(step.cloth) / wide + 1e-9);
        if (across >= 1) {
            const double rows = std::ceil(step.copies / across - 1e-9);
            needed.cloth = {step.cloth, mm(rows * high), step.copies};
        } else {
            Finding finding = wide_cloth({});
            finding.place.box = place_of(bounds(cloth.cut));
            out.report.findings.push_back(std::move(finding));
        }
        out.report.needs.push_back(std::move(needed));
    }
};

/// Where what is turned under may lie: edges with another fabric above stay flat, so a piece goes on below
/// it.
struct Room {
    Region region;
    Box seen; ///< what is seen of the fabric in it
};

std::vector<Room> rooms_of(const Cloth& cloth) {
    std::vector<Room> out;
    for (Region& region : pieces(cloth.above.empty() ? cloth.seen : united(cloth.seen, cloth.above))) {
        const Box seen = bounds(cloth.above.empty() ? region : intersected(region, cloth.seen));
        if (!seen.empty()) out.push_back({std::move(region), seen}); // else of others only
    }
    return out;
}

/// What cannot be sewn as it is asked for.
void judge(const PatchStep& step, const std::vector<Cloth>& cloths, const WorkSet* wanted,
           StepReport& report) {
    const bool turned = step.edge == PatchStep::Edge::turned && step.lines == PatchStep::Lines::pieces;
    const bool satin = step.edge == PatchStep::Edge::raw && step.lines == PatchStep::Lines::map;
    const double in = in_mm(step.satin) * step.inside / 100;
    constexpr double crumb_width = 4; // mm; less than half of it is not turned by hand (common practice)
    std::size_t narrow = 0, covered = 0, holes = 0, limbs = 0, crumbs = 0;
    double least = 1e9, covered_least = 1e9, hole_least = 1e9, thin = 1e9, limb_least = 1e9,
           crumb_least = 1e9;
    Box narrow_at, covered_at, hole_at, thin_at, limb_at, crumb_at;
    const auto note = [](bool bad, double width, const Box& box, std::size_t& count, double& less, Box& at) {
        if (!bad) return;
        ++count, less = std::min(less, width), at.add(box);
    };
    std::size_t thins = 0;
    for (const Cloth& cloth : cloths) {
        if (wanted && cloth.ply->set != wanted) continue; // told where it is cut
        const double allowance = in_mm(step.allowance);
        for (const Room& room : turned ? rooms_of(cloth) : std::vector<Room>()) {
            const double r = in_mm(widest_place(room.region).radius);
            const bool is_crumb = 2 * r < crumb_width;
            note(is_crumb, 2 * r, room.seen, crumbs, crumb_least, crumb_at);
            note(!is_crumb && r < allowance, r, room.seen, narrow, least, narrow_at);
            if (is_crumb || r < allowance) continue;
            for (const NarrowPlace& limb : narrow_limbs(room.region, step.allowance * 2)) {
                const double wide = in_mm(limb.width);
                if (intersected(cloth.seen, region_of(Shape{{rectangle(limb.box)}})).empty()) continue;
                note(wide < crumb_width, wide, limb.box, crumbs, crumb_least, crumb_at);
                note(wide >= crumb_width && wide < 2 * allowance, wide, limb.box, limbs, limb_least, limb_at);
            }
        }
        for (const Region& piece : pieces(cloth.seen)) {
            const double r = in_mm(widest_place(piece).radius);
            const Box box = bounds(piece);
            note(satin && r <= in, r, box, covered, covered_least, covered_at);
            // It lies on another fabric when one reaches below it.
            const bool lies_on = std::any_of(cloths.begin(), cloths.end(), [&](const Cloth& lower) {
                return &lower < &cloth && !intersected(piece, offset(lower.seen, mm(0.05))).empty();
            });
            note(lies_on && in_mm(step.underlap) > 2 * r, 2 * r, box, thins, thin, thin_at);
            if (!turned) continue;
            for (const Ring& ring : piece.rings) {
                if (&ring == &piece.rings.front()) continue;
                Polyline hole{ring, true};
                std::reverse(hole.points.begin(), hole.points.end());
                const Region open = region_of({hole}, FillRule::nonzero);
                if (open.empty() || !subtracted(open, cloth.above).empty()) {
                    const double room = open.empty() ? 0 : in_mm(widest_place(open).radius);
                    note(room <= in_mm(step.allowance), room, bounds(open), holes, hole_least, hole_at);
                }
            }
        }
    }
    const auto tell = [&](Finding finding, const Box& at) {
        finding.place.box = place_of(at);
        report.findings.push_back(std::move(finding));
    };
    if (crumbs > 0) tell(crumb({}, Count{crumbs}, {crumb_least}), crumb_at);
    if (narrow > 0) tell(too_narrow({}, Count{narrow}, {in_mm(step.allowance)}, {least}), narrow_at);
    if (limbs > 0)
        tell(narrow_limb({}, Count{limbs}, {in_mm(step.allowance)}, {limb_least}, {limb_least / 2}), limb_at);
    if (holes > 0) tell(closed_hole({}, Count{holes}, {hole_least * 0.9}), hole_at);
    if (thins > 0) tell(short_underlap({}, {in_mm(step.underlap)}, {thin}), thin_at);
    if (covered > 0) tell(satin_wide({}, Count{covered}, {covered_least * 0.8}), covered_at);
}

} // namespace

StepOutcome run(const PatchStep& step, const StepInput& in, Progress& progress) {
    if (static_cast<std::size_t>(step.only) > in.of.size())
        return refused(say_n(in.of.size(), "There [is|are] but %n [fabric|fabrics]."));
    const auto order = order_of(step.order, in.of.size());
    if (!order) return refused(order.error().message);
    const Plies plies = plies_of(in.of, *order, progress);
    if (progress.cancelled()) return {};
    if (plies.by_rank.empty()) return refused(say("There are no closed lines to make a patch of."));
    std::vector<Cloth> cloths;
    Region above;
    Box box;
    std::size_t hidden = 0;
    for (auto at = plies.by_rank.rbegin(); at != plies.by_rank.rend(); ++at) {
        const Ply& ply = plies.layers[*at];
        Region seen = above.empty() ? ply.seen : without_threads(ply.seen);
        if (seen.empty()) {
            ++hidden;
            continue;
        }
        box.add(bounds(seen));
        cloths.push_back({&ply, above, std::move(seen), {}});
        above = united(above, ply.seen);
    }
    std::reverse(cloths.begin(), cloths.end());
    Work work(step, in, box);
    double seen = 0, cut = 0;
    const WorkSet* const wanted = step.only == 0 || step.lines == PatchStep::Lines::map
                                      ? nullptr
                                      : in.of[static_cast<std::size_t>(step.only) - 1];
    for (Cloth& cloth : cloths) {
        if (progress.cancelled()) return {};
        if (wanted && cloth.ply->set != wanted) {
            work.pieces += pieces(cloth.seen).size(); // numbers are those of the map
            continue;
        }
        seen += in_square_mm(area(cloth.seen));
        if (step.lines == PatchStep::Lines::map) {
            work.map(cloth, *cloth.ply->foremost);
            continue;
        }
        work.cut(cloth, progress);
        cut += in_square_mm(area(cloth.cut));
        for (const Region& piece : pieces(cloth.cut))
            work.add(piece, *cloth.ply->foremost);
        for (const Region& piece : pieces(cloth.seen))
            work.mark(piece);
        work.need(cloth);
    }
    if (progress.cancelled()) return {};
    StepOutcome out = std::move(work.out);
    judge(step, cloths, wanted, out.report);
    const std::size_t clips = work.clips.size();
    out.also = {{role::satin, std::move(work.satin)},     {role::tack, std::move(work.tack)},
                {role::turning, std::move(work.turning)}, {role::clip, std::move(work.clips)},
                {role::grain, std::move(work.grain)},     {role::number, std::move(work.numbers)}};
    out.report.figures = {
        figure("fabrics", wanted ? 1 : cloths.size()),
        figure("pieces", step.lines == PatchStep::Lines::map ? work.pieces : out.made->lines.size()),
        {"seen", "mm2", seen}};
    if (step.lines == PatchStep::Lines::pieces) {
        out.report.figures.push_back({"cut", "mm2", cut});
        if (step.edge == PatchStep::Edge::turned && step.clips) {
            out.report.figures.push_back(figure("clips", clips));
            out.report.figures.push_back(figure("notches", work.notches));
            if (in_mm(work.closest) < 1e8)
                out.report.figures.push_back({"closest", "mm", in_mm(work.closest)});
        }
        out.report.from_behind = step.web == PatchStep::Web::mirrored;
    }
    const std::vector<const char*> asked = step.roles();
    std::erase_if(out.also, [&](const MadeLines& made) {
        return std::find(asked.begin(), asked.end(), made.role) == asked.end();
    });
    if (step.lines == PatchStep::Lines::pieces && cloths.size() > 1 && !wanted && in_mm(step.underlap) > 0) {
        out.report.piled = true;
        out.report.findings.push_back(together({}, Count{cloths.size()}));
    }
    if (hidden > 0) out.report.findings.push_back(hidden_fabric({}));
    tell_open(out.report, plies.open, say("made a patch of"));
    return out;
}

bool mend(PatchStep& step, const Finding& finding, const InkReport*) {
    const std::string& code = finding.remedy.code;
    if (code == "patch.raw") return step.edge = PatchStep::Edge::raw, true;
    if (code == "patch.allowance") {
        if (const auto most = number_argument(finding, "most_mm"))
            return step.allowance = mm(std::max(0.5, std::floor(*most * 9) / 10)), true;
    } else if (code == "patch.less-underlap") {
        if (const auto wide = number_argument(finding, "wide_mm"))
            return step.underlap = mm(std::floor(*wide * 8) / 10), true;
    } else if (code == "patch.less-satin") {
        if (const auto most = number_argument(finding, "most_mm"); most && step.inside > 0)
            return step.satin = mm(std::floor(*most * 1000 / step.inside) / 10), true;
    }
    return false;
}

} // namespace dotlane
