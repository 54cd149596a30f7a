#include "core/commands/placing.h"

#include <algorithm>

#include "core/checks/project_checks.h"
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

using Ids = Result<std::vector<PlacementId>>;

Ids place_all(Project& project, SheetId sheet, const std::vector<Placement>& places) {
    std::vector<PlacementId> out;
    for (const Placement& p : places) {
        const auto placed = place(project, sheet, p);
        if (!placed) return tl::make_unexpected(placed.error());
        out.push_back(*placed);
    }
    return out;
}

Error no_place() {
    return {"place.missing", say("There is no such part or sheet."), {}};
}

/// On this sheet, on others like it that come after it, or on a further one.
Ids place_free(Project& project, const Catalog& catalog, const Derived& derived, SheetId first,
               const PlaceWish& wish) {
    const Sheet& sheet = *find(project, first);
    const Sheet like{{}, sheet.name, sheet.stock, sheet.mat, {}};
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
    const auto places = grid(spot.placement, extent_of(*derived.part(wish.part), wish.piece), wish.copies);
    if (!places) return tl::make_unexpected(places.error());
    return place_all(project, on, *places);
}

Ids place_there(Project& project, const EvaluatedPart& part, const PlacePart& command) {
    const PlaceWish& wish = command.wish;
    const Extent extent = extent_of(part, wish.piece);
    const Placement p{{}, wish.part, {}, {}, wish.turn.value_or(Angle{}), wish.mirrored, wish.piece};
    const auto places =
        grid(with_box_at(p, extent, command.left.value_or(Length{}), command.top.value_or(Length{})), extent,
             wish.copies);
    return places ? place_all(project, command.sheet, *places) : tl::make_unexpected(places.error());
}

Done done(const Project& project, PartId part, SheetId asked, std::vector<PlacementId> ids) {
    const std::string& name = find(project, part)->name;
    Done out;
    out.part = part, out.sheet = asked;
    if (!ids.empty()) (void)find_placement(project, ids.front(), &out.sheet);
    out.said = ids.empty() ? say("No piece of \"%1\" is missing.", name)
                           : say_n(ids.size(), "%n [part|parts] placed: \"%1\".", name);
    out.placements = std::move(ids);
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

Result<Point> free_corner(const Project& project, const Catalog& catalog, const Derived& derived,
                          SheetId sheet, double width, double height, Length gap) {
    const auto room = room_of(project, catalog, derived, sheet);
    if (!room) return tl::make_unexpected(no_place());
    return corner_for(width, height, room->usable, room->taken, in_mm(gap))
        .value_or(Point{room->usable.x0, room->usable.y0});
}

Result<Done> apply(const PlacePart& command, Project& project, const Catalog& catalog,
                   const Derived& derived) {
    const PlaceWish& wish = command.wish;
    const EvaluatedPart* part = derived.part(wish.part);
    if (!part || !find(project, wish.part) || !find(project, command.sheet))
        return tl::make_unexpected(no_place());
    const bool said = command.left || command.top;
    if (!said && wish.piece == 0 && !part->apart.empty() && wish.copies.columns * wish.copies.rows == 1)
        return apply(PlacePieces{command.sheet, wish.part, {}, true, wish.gap}, project, catalog, derived);
    if (!is_there(*part, wish.piece))
        return fail("place.piece",
                    say("\"%1\" has no piece %2 that lies apart. The step \"lay-apart\" makes them.",
                        find(project, wish.part)->name, wish.piece));
    Project next = project;
    const Ids ids =
        said ? place_there(next, *part, command) : place_free(next, catalog, derived, command.sheet, wish);
    if (!ids) return tl::make_unexpected(ids.error());
    project = std::move(next);
    return done(project, wish.part, command.sheet, *ids);
}

Result<Done> apply(const PlacePieces& command, Project& project, const Catalog& catalog,
                   const Derived& derived) {
    const EvaluatedPart* part = derived.part(command.part);
    if (!part || !find(project, command.part) || !find(project, command.sheet))
        return tl::make_unexpected(no_place());
    if (part->apart.empty())
        return fail("place.piece", say("Its pieces lie as one. Add the step \"lay-apart\" first."));
    std::vector<int> pieces = command.pieces.empty() ? missing_pieces(project, *part) : command.pieces;
    if (pieces.empty() && command.again)
        for (const Arrangement& a : part->apart)
            pieces.push_back(a.number);
    for (const int piece : pieces)
        if (!arrangement(*part, piece))
            return fail("place.piece", say("\"%1\" has no piece %2 that lies apart.",
                                           find(project, command.part)->name, piece));
    const auto longest = [&](int piece) {
        const Box box = box_of(*part, piece);
        return std::max(box.width(), box.height());
    };
    std::stable_sort(pieces.begin(), pieces.end(), [&](int a, int b) { return longest(a) > longest(b); });
    Project next = project;
    std::vector<PlacementId> out;
    for (const int piece : pieces) {
        const Ids placed = place_free(next, catalog, derived, command.sheet,
                                      {command.part, piece, {}, false, command.gap, {}});
        if (!placed) return tl::make_unexpected(placed.error());
        out.insert(out.end(), placed->begin(), placed->end());
    }
    project = std::move(next);
    return done(project, command.part, command.sheet, std::move(out));
}

Result<Done> apply(const LayOutPieces& command, Project& project, const Catalog& catalog,
                   const Derived& derived) {
    Project next = project;
    SheetId first;
    for (Sheet& sheet : next.sheets) {
        const auto whole = [&](const Placement& p) { return p.part == command.part && p.piece == 0; };
        if (std::erase_if(sheet.placements, whole) > 0 && !first) first = sheet.id;
    }
    const EvaluatedPart* part = derived.part(command.part);
    if (!first || !part || part->apart.empty())
        return fail("remedy.none", say("The part lies on no sheet as a whole."));
    auto placed = apply(PlacePieces{first, command.part}, next, catalog, derived);
    if (placed) project = std::move(next);
    return placed;
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

} // namespace dotlane
