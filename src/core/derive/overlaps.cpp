#include "core/derive/overlaps.h"

#include "core/base/text.h"
#include "core/derive/findings.h"

namespace dotlane {
namespace {

constexpr double touch = 0.05; ///< mm; edges that share a cut touch within this

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

/// What two of them do to one another; none when they only lie side by side.
std::optional<Finding> conflict(const PlacedPart& a, const PlacedPart& b, SheetId id,
                                const std::string& sheet) {
    const Affine &ta = a.to_sheet, &tb = b.to_sheet;
    const auto on_sheet = [](const auto& what, const Affine& by) { return transformed(what, by); };
    const Footprint::Ground &fa = a.footprint->ground(), &fb = b.footprint->ground();
    const Region ma = on_sheet(fa.material, ta), mb = on_sheet(fb.material, tb);
    Shared cut = shared_by(ma, mb);
    for (const auto& found : {shared_by(on_sheet(fa.cuts, ta), mb), shared_by(on_sheet(fb.cuts, tb), ma)})
        if (found.depth > cut.depth) cut = found;
    const auto tell = [&](const sheet_findings::Conflict& kind, const Shared& shared) {
        const Box& w = shared.where;
        return kind({a.placement.part, id, {}, {}, {w.x0, w.y0, w.x1, w.y1}}, a.name, b.name, {w.width()},
                    {w.height()}, sheet);
    };
    if (cut.depth > touch) return tell(sheet_findings::cut_through, cut);
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
        return tell(blade ? sheet_findings::cut_through : sheet_findings::overlap, over);
    }
    return std::nullopt;
}

} // namespace

Findings check_overlaps(const LaidSheet& laid, const std::string& sheet) {
    Findings out;
    for (std::size_t i = 0; i < laid.parts.size(); ++i)
        for (std::size_t k = 0; k < i; ++k) {
            const Box &a = laid.parts[i].box, &b = laid.parts[k].box;
            const double w = std::min(a.x1, b.x1) - std::max(a.x0, b.x0),
                         h = std::min(a.y1, b.y1) - std::max(a.y0, b.y0);
            if (w <= touch || h <= touch) continue;
            if (auto found = conflict(laid.parts[i], laid.parts[k], laid.sheet, sheet))
                out.push_back(std::move(*found));
        }
    return out;
}

} // namespace dotlane
