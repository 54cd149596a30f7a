#include "core/workflow/placing.h"

#include <algorithm>
#include <map>

#include "core/project/edits.h"

namespace dotlane {
namespace {

bool free_at(const Box& box, const Box& usable, const std::vector<Box>& taken, double gap) {
    constexpr double slack = 1e-6;
    if (!usable.grown(slack).contains(box)) return false;
    return std::none_of(taken.begin(), taken.end(), [&](const Box& other) {
        const Box grown = other.grown(gap - slack);
        return box.x0 < grown.x1 && box.x1 > grown.x0 && box.y0 < grown.y1 && box.y1 > grown.y0;
    });
}

/// Corners beside and below what lies there are enough: a box that can be pushed up and left ends at one.
std::optional<Point> corner_for(double w, double h, const Box& usable, const std::vector<Box>& taken,
                                double gap) {
    std::vector<double> xs{usable.x0}, ys{usable.y0};
    for (const Box& b : taken)
        xs.push_back(b.x1 + gap), ys.push_back(b.y1 + gap);
    for (auto* list : {&xs, &ys}) {
        std::sort(list->begin(), list->end());
        list->erase(std::unique(list->begin(), list->end()), list->end());
    }
    for (const double y : ys)
        for (const double x : xs)
            if (free_at({x, y, x + w, y + h}, usable, taken, gap)) return Point{x, y};
    return std::nullopt;
}

/// What the tool reaches of a sheet, and what lies there already.
struct Room {
    Box usable;
    std::vector<Box> taken;
};

std::optional<Room> room_of(const Project& project, const Catalog& catalog, const Derived& derived,
                            SheetId id) {
    const Sheet* sheet = find(project, id);
    const Mat* mat = sheet ? catalog.mat(sheet->mat) : nullptr;
    const Stock* stock = sheet ? catalog.stock(sheet->stock) : nullptr;
    if (!mat || !stock) return std::nullopt;
    Room out{usable_area(*mat, *stock), {}};
    for (const Placement& p : sheet->placements)
        if (const EvaluatedPart* part = derived.part(p.part); part && is_there(*part, p.piece))
            out.taken.push_back(placed_box(p, box_of(*part, p.piece)));
    return out;
}

} // namespace

PlacementSpot free_spot(const Project& project, const Catalog& catalog, const Derived* derived, SheetId sheet,
                        PartId part_id, std::optional<Angle> turn, Length gap, int piece) {
    PlacementSpot spot;
    spot.turn = turn.value_or(Angle{});
    const EvaluatedPart* part = derived ? derived->part(part_id) : nullptr;
    const auto room = part ? room_of(project, catalog, *derived, sheet) : std::nullopt;
    if (!room) return spot;
    spot.left = mm(room->usable.x0), spot.top = mm(room->usable.y0);
    const std::vector<Angle> turns = turn ? std::vector{*turn} : std::vector{Angle{}, degrees(90)};
    for (const Angle t : turns) {
        const Box box = placed_box({{}, part_id, {}, {}, t, false}, box_of(*part, piece));
        const auto corner = corner_for(box.width(), box.height(), room->usable, room->taken, in_mm(gap));
        if (corner) return {mm(corner->x), mm(corner->y), t, true};
    }
    return spot;
}

std::vector<Lying> lying(const Project& project, const Derived& derived,
                         const std::vector<PlacementId>& ids) {
    std::vector<Lying> out;
    for (const PlacementId id : ids) {
        const Placement* p = find_placement(project, id);
        const EvaluatedPart* part = p ? derived.part(p->part) : nullptr;
        if (!part || !is_there(*part, p->piece)) continue;
        const Box box = box_of(*part, p->piece);
        out.push_back({*p, box, placed_box(*p, box)});
    }
    return out;
}

namespace {

/// By arrangement; 0: whole.
std::map<int, int> placed_of(const Project& project, PartId part) {
    std::map<int, int> out;
    for (const Sheet& sheet : project.sheets)
        for (const Placement& p : sheet.placements)
            if (p.part == part) ++out[p.piece];
    return out;
}

} // namespace

int placed_copies(const Project& project, const EvaluatedPart& part) {
    auto placed = placed_of(project, part.part);
    int rarest = part.apart.empty() ? 0 : placed[part.apart.front().number];
    for (const Arrangement& a : part.apart)
        rarest = std::min(rarest, placed[a.number]);
    return placed[0] + rarest;
}

std::vector<int> missing_pieces(const Project& project, const EvaluatedPart& part) {
    const Part* wanted = find(project, part.part);
    auto placed = placed_of(project, part.part);
    std::vector<int> out;
    if (wanted)
        for (const Arrangement& a : part.apart)
            out.insert(out.end(),
                       static_cast<std::size_t>(std::max(0, wanted->quantity - placed[0] - placed[a.number])),
                       a.number);
    return out;
}

Result<std::vector<PlacementId>> place_pieces(Project& project, const Catalog& catalog,
                                              const Derived& derived, SheetId sheet, PartId part,
                                              std::vector<int> pieces, Length gap) {
    const EvaluatedPart* evaluated = derived.part(part);
    const Sheet* first = find(project, sheet);
    if (!evaluated || !first) return fail("place.missing", "There is no such part or sheet.");
    const auto longest = [&](int piece) {
        const Box box = box_of(*evaluated, piece);
        return std::max(box.width(), box.height());
    };
    std::stable_sort(pieces.begin(), pieces.end(), [&](int a, int b) { return longest(a) > longest(b); });
    const Sheet like{{}, first->name, first->stock, first->mat, {}};
    std::vector<SheetId> sheets{sheet};
    std::vector<PlacementId> out;
    for (const int piece : pieces) {
        PlacementSpot spot;
        std::size_t on = 0;
        for (; on < sheets.size() && !spot.fits; on += spot.fits ? 0 : 1)
            spot = free_spot(project, catalog, &derived, sheets[on], part, {}, gap, piece);
        if (!spot.fits) {
            const SheetId fresh = add_sheet(
                project, like.name + " (" + std::to_string(sheets.size() + 1) + ")", like.stock, like.mat);
            spot = free_spot(project, catalog, &derived, fresh, part, {}, gap, piece);
            if (spot.fits) {
                on = sheets.size();
                sheets.push_back(fresh);
            } else { // larger than any such sheet: the checks say so where it lies
                (void)remove_sheet(project, fresh);
                on = 0;
            }
        }
        Placement p{{}, part, spot.left, spot.top, spot.turn, false, piece};
        const auto placed = place(project, sheets[on], p);
        if (!placed) return tl::make_unexpected(placed.error());
        out.push_back(*placed);
    }
    return out;
}

Result<std::vector<PlacementId>> place_copies(Project& project, const Catalog& catalog,
                                              const Derived& derived, SheetId sheet,
                                              const std::vector<Lying>& of, Length gap) {
    const auto room = room_of(project, catalog, derived, sheet);
    if (!room) return fail("place.missing", "There is no such sheet.");
    const Box all = box_of(of);
    const Point at = corner_for(all.width(), all.height(), room->usable, room->taken, in_mm(gap))
                         .value_or(Point{room->usable.x0, room->usable.y0});
    int next = 1;
    for (const Placement& p : find(project, sheet)->placements)
        next = std::max(next, p.group + 1);
    std::map<int, int> groups{{0, 0}};
    std::vector<PlacementId> out;
    for (const Lying& one : of) {
        Placement p = one.placement;
        if (const auto [it, fresh] = groups.try_emplace(p.group, next); fresh) ++next;
        p.group = groups.at(p.group);
        p.left += mm(at.x - all.x0), p.top += mm(at.y - all.y0);
        const auto placed = place(project, sheet, p);
        if (!placed) return tl::make_unexpected(placed.error());
        out.push_back(*placed);
    }
    return out;
}

Result<void> lay_out_pieces(Project& project, const Catalog& catalog, const Derived& derived, PartId part) {
    SheetId first;
    for (Sheet& sheet : project.sheets) {
        const auto whole = [&](const Placement& p) { return p.part == part && p.piece == 0; };
        if (std::erase_if(sheet.placements, whole) > 0 && !first) first = sheet.id;
    }
    const EvaluatedPart* evaluated = derived.part(part);
    if (!first || !evaluated || evaluated->apart.empty())
        return fail("remedy.none", "The part lies on no sheet as a whole.");
    return place_pieces(project, catalog, derived, first, part, missing_pieces(project, *evaluated))
        .map([](const auto&) {});
}

} // namespace dotlane
