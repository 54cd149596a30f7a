#include "core/commands/placing.h"
#include "core/checks/project_checks.h"

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
            out.taken.push_back(placed_box(p, extent_of(*part, p.piece)));
    return out;
}

} // namespace

PlacementSpot free_spot(const Project& project, const Catalog& catalog, const Derived* derived, SheetId sheet,
                        const PlaceWish& wish) {
    PlacementSpot spot;
    Placement& p = spot.placement;
    p.part = wish.part, p.piece = wish.piece, p.mirrored = wish.mirrored;
    p.turn = wish.turn.value_or(Angle{});
    const EvaluatedPart* part = derived ? derived->part(wish.part) : nullptr;
    const auto room = part ? room_of(project, catalog, *derived, sheet) : std::nullopt;
    if (!room) return spot;
    const Extent extent = extent_of(*part, wish.piece);
    const auto put = [&](Point corner) { p = with_box_at(p, extent, mm(corner.x), mm(corner.y)); };
    const double gap = in_mm(wish.copies.gap);
    const std::vector<Angle> turns = wish.turn ? std::vector{*wish.turn} : std::vector{Angle{}, degrees(90)};
    for (const Angle turn : turns) {
        p.turn = turn;
        const Box box = placed_box(p, extent);
        const double w = wish.copies.columns * (box.width() + gap) - gap,
                     h = wish.copies.rows * (box.height() + gap) - gap;
        if (const auto corner = corner_for(w, h, room->usable, room->taken, in_mm(wish.gap))) {
            put(*corner);
            spot.fits = true;
            return spot;
        }
    }
    p.turn = turns.front();
    put({room->usable.x0, room->usable.y0});
    return spot;
}

Result<std::vector<PlacementId>> place_free(Project& project, const Catalog& catalog, const Derived& derived,
                                            SheetId first, const PlaceWish& wish) {
    const EvaluatedPart* part = derived.part(wish.part);
    const Sheet* sheet = find(project, first);
    if (!part || !sheet) return fail("place.missing", say("There is no such part or sheet."));
    const Sheet like{{}, sheet->name, sheet->stock, sheet->mat, {}};
    std::vector<SheetId> sheets{first};
    bool behind = false;
    for (const Sheet& other : project.sheets) {
        if (behind && other.stock == like.stock && other.mat == like.mat) sheets.push_back(other.id);
        behind |= other.id == first;
    }
    SheetId on = first;
    PlacementSpot spot;
    for (const SheetId id : sheets)
        if (!spot.fits) spot = free_spot(project, catalog, &derived, on = id, wish);
    if (!spot.fits) {
        const std::string further = like.name + " (" + std::to_string(sheets.size() + 1) + ")";
        on = add_sheet(project, further, like.stock, like.mat);
        spot = free_spot(project, catalog, &derived, on, wish);
        if (!spot.fits) { // larger than any such sheet
            (void)remove_sheet(project, on);
            spot = free_spot(project, catalog, &derived, on = first, wish);
        }
    }
    const auto places = grid(spot.placement, extent_of(*part, wish.piece), wish.copies);
    if (!places) return tl::make_unexpected(places.error());
    return place_all(project, on, *places);
}

Result<std::vector<PlacementId>> place_all(Project& project, SheetId sheet,
                                           const std::vector<Placement>& places) {
    std::vector<PlacementId> out;
    for (const Placement& p : places) {
        const auto placed = place(project, sheet, p);
        if (!placed) return tl::make_unexpected(placed.error());
        out.push_back(*placed);
    }
    return out;
}

void settle_placements(Project& project, Workshop& workshop) {
    const auto by_box = [](const Placement& p) { return p.by_box; };
    if (std::none_of(project.sheets.begin(), project.sheets.end(), [&](const Sheet& sheet) {
            return std::any_of(sheet.placements.begin(), sheet.placements.end(), by_box);
        }))
        return;
    const auto derived = workshop.derive(std::make_shared<Project>(project));
    for (Sheet& sheet : project.sheets)
        for (Placement& p : sheet.placements) {
            const EvaluatedPart* part = derived->part(p.part);
            if (!p.by_box || !part || !is_there(*part, p.piece)) continue;
            p.by_box = false;
            p = with_box_at(p, extent_of(*part, p.piece), p.left, p.top);
        }
}

std::vector<Lying> lying(const Project& project, const Derived& derived,
                         const std::vector<PlacementId>& ids) {
    std::vector<Lying> out;
    for (const PlacementId id : ids) {
        const Placement* p = find_placement(project, id);
        const EvaluatedPart* part = p ? derived.part(p->part) : nullptr;
        if (!part || !is_there(*part, p->piece)) continue;
        const Extent extent = extent_of(*part, p->piece);
        out.push_back({*p, extent, placed_box(*p, extent)});
    }
    return out;
}

namespace {} // namespace

Result<std::vector<PlacementId>> place_pieces(Project& project, const Catalog& catalog,
                                              const Derived& derived, SheetId sheet, PartId part,
                                              std::vector<int> pieces, Length gap) {
    const EvaluatedPart* evaluated = derived.part(part);
    if (!evaluated) return fail("place.missing", say("There is no such part or sheet."));
    const auto longest = [&](int piece) {
        const Box box = box_of(*evaluated, piece);
        return std::max(box.width(), box.height());
    };
    std::stable_sort(pieces.begin(), pieces.end(), [&](int a, int b) { return longest(a) > longest(b); });
    std::vector<PlacementId> out;
    for (const int piece : pieces) {
        const auto placed = place_free(project, catalog, derived, sheet, {part, piece, {}, false, gap, {}});
        if (!placed) return placed;
        out.insert(out.end(), placed->begin(), placed->end());
    }
    return out;
}

Result<std::vector<PlacementId>> place_copies(Project& project, const Catalog& catalog,
                                              const Derived& derived, SheetId sheet,
                                              const std::vector<Lying>& of, Length gap) {
    const auto room = room_of(project, catalog, derived, sheet);
    if (!room) return fail("place.missing", say("There is no such sheet."));
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
        return fail("remedy.none", say("The part lies on no sheet as a whole."));
    return place_pieces(project, catalog, derived, first, part, missing_pieces(project, *evaluated))
        .map([](const auto&) {});
}

} // namespace dotlane
