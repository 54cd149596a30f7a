#include "core/workflow/overlaps.h"

#include "core/base/text.h"
#include "core/geometry/tangle.h"

namespace dotlane {
namespace {

constexpr double touch = 0.05; ///< mm; edges that share a cut touch within this

/// What lies where, ready to be held against its neighbours.
struct Placed {
    const PlacedPart* part;
    std::shared_ptr<const EvaluatedPart> evaluated;
    std::string name;
    std::shared_ptr<const Footprint> footprint = {}; ///< made when something lies near
};

/// The part of `region` that both share, but for a rim within which edges touch.
Region core_of(const Region& region) {
    return offset(region, mm(-touch / 2), {Corner::mitre, 2, mm(0.01)});
}

/// How far one reaches into the other: the smaller side of the box of what they share; 0 when nothing.
struct Shared {
    double depth = 0;
    Box where;
};
Shared shared_by(const Region& a, const Region& b) {
    const Region both = core_of(intersected(a, b));
    if (both.empty()) return {};
    const Box box = bounds(both);
    return {std::min(box.width(), box.height()) + touch, box};
}
Shared shared_by(const Polylines& lines, const Region& region) {
    if (lines.empty() || region.empty()) return {};
    Shared out;
    for (const Polyline& line : clipped(lines, core_of(region)))
        if (in_mm(length(line)) > touch || line.points.size() == 1) {
            out.where.add(bounds(line));
            out.depth = std::max({out.depth, touch, std::max(out.where.width(), out.where.height())});
        }
    return out;
}

/// Outlines of a shape that was drawn once and is only looked at: too tangled ones count as their boxes.
Region region_for(const Polylines& closed, FillRule rule) {
    if (crossings(closed, false, 50'000) <= 50'000) return region_of(closed, rule);
    return region_of({Polyline{flattened(rectangle(bounds(closed))).points, true}}, FillRule::nonzero);
}

} // namespace

Footprint footprint_of(const Project& project, const EvaluatedPart& part, int piece) {
    Footprint out;
    Polylines closed_cuts, closed_marks;
    for (std::size_t r = 0; r < part.runs.size(); ++r) {
        const Lane* lane = find(project, part.runs[r].lane);
        if (!lane) continue;
        const bool cuts = parts_material(lane->action);
        for (const Polyline& line : lines_of(part, r, piece)) {
            if (part.runs[r].ink) continue; // it lies within its outline
            (cuts ? out.cuts : out.marks).push_back(line);
            if (line.closed) (cuts ? closed_cuts : closed_marks).push_back(line);
        }
    }
    out.material = region_for(closed_cuts, FillRule::evenodd);
    if (out.material.empty()) out.inked = region_for(closed_marks, FillRule::nonzero);
    return out;
}

std::shared_ptr<const Footprint> Footprints::of(const Project& project,
                                                std::shared_ptr<const EvaluatedPart> part, int piece) {
    std::map<LaneId, Action> actions;
    for (const Lane& lane : project.lanes)
        actions[lane.id] = lane.action;
    Entry& entry = entries_[part->part];
    if (entry.part != part || entry.actions != actions) entry = {part, std::move(actions), {}};
    auto& made = entry.pieces[piece];
    if (!made) made = std::make_shared<const Footprint>(footprint_of(project, *part, piece));
    return made;
}

void Footprints::keep_only(const std::map<PartId, std::shared_ptr<const EvaluatedPart>>& parts) {
    std::erase_if(entries_, [&](const auto& e) { return !parts.contains(e.first); });
}

namespace {

/// What two of them do to one another; none when they only lie side by side.
std::optional<Finding> conflict(const Placed& a, const Placed& b, const Sheet& sheet) {
    const Affine &ta = a.part->to_sheet, &tb = b.part->to_sheet;
    const auto on_sheet = [](const auto& what, const Affine& by) { return transformed(what, by); };
    const Footprint &fa = *a.footprint, &fb = *b.footprint;
    const Region ma = on_sheet(fa.material, ta), mb = on_sheet(fb.material, tb);
    Shared cut = shared_by(ma, mb);
    for (const auto& found : {shared_by(on_sheet(fa.cuts, ta), mb), shared_by(on_sheet(fb.cuts, tb), ma)})
        if (found.depth > cut.depth) cut = found;
    const auto tell = [&](const char* code, Grade grade, const std::string& what, const Shared& shared) {
        const Box& w = shared.where;
        return Finding{code,
                       grade,
                       "\"" + a.name + "\" and \"" + b.name + "\" lie on one another on " + sheet.name +
                           ": " + what + " Where they meet is " + number(w.width(), 1) + " x " +
                           number(w.height(), 1) + " mm.",
                       {{"part", a.name},
                        {"other", b.name},
                        {"width_mm", number(w.width(), 2)},
                        {"height_mm", number(w.height(), 2)}},
                       {a.part->placement.part, sheet.id, {}, {}, {w.x0, w.y0, w.x1, w.y1}},
                       {"sheet.move-free", "Move it to a free place"}};
    };
    if (cut.depth > touch) return tell("sheet.cut-through", Grade::error, "one would be cut through.", cut);
    // Nothing is cut through; but a mark may run over the other, or marks over marks.
    const Region ia = on_sheet(fa.inked, ta), ib = on_sheet(fb.inked, tb);
    Shared over = shared_by(ia, ib);
    const Polylines la = on_sheet(fa.marks, ta), lb = on_sheet(fb.marks, tb), ca = on_sheet(fa.cuts, ta),
                    cb = on_sheet(fb.cuts, tb);
    for (const auto& found : {shared_by(la, mb), shared_by(lb, ma), shared_by(la, ib), shared_by(lb, ia),
                              shared_by(ca, ib), shared_by(cb, ia)})
        if (found.depth > over.depth) over = found;
    if (over.depth > touch) {
        // A blade through what is drawn spoils it too.
        const bool blade = shared_by(ca, ib).depth > touch || shared_by(cb, ia).depth > touch;
        return blade ? tell("sheet.cut-through", Grade::error, "one would be cut through.", over)
                     : tell("sheet.overlap", Grade::caution, "one is marked where the other lies.", over);
    }
    return std::nullopt;
}

} // namespace

Findings check_overlaps(const Project& project, const Derived& derived, Footprints& footprints) {
    Findings out;
    for (const LaidSheet& laid : derived.sheets) {
        const Sheet& sheet = *find(project, laid.sheet);
        std::vector<Placed> all;
        for (const PlacedPart& p : laid.parts) {
            const auto part = derived.parts.find(p.placement.part);
            all.push_back({&p, part->second, placed_name(project, p.placement)});
        }
        for (std::size_t i = 0; i < all.size(); ++i)
            for (std::size_t k = 0; k < i; ++k) {
                const Box &a = all[i].part->box, &b = all[k].part->box;
                const double w = std::min(a.x1, b.x1) - std::max(a.x0, b.x0),
                             h = std::min(a.y1, b.y1) - std::max(a.y0, b.y0);
                if (w <= touch || h <= touch) continue;
                for (Placed* one : {&all[i], &all[k]})
                    if (!one->footprint)
                        one->footprint = footprints.of(project, one->evaluated, one->part->placement.piece);
                if (auto found = conflict(all[i], all[k], sheet)) out.push_back(std::move(*found));
            }
    }
    return out;
}

} // namespace dotlane
