#include "core/commands/arranging.h"

#include <algorithm>
#include <map>

#include "core/base/text.h"
#include "core/commands/placing.h"
#include "core/project/edits.h"

namespace dotlane {
namespace {

struct Found {
    SheetId sheet;
    std::vector<PlacementId> ids; ///< with what is grouped with them
};

Result<Found> found(const Project& project, const std::vector<PlacementId>& placed) {
    Found out;
    for (const PlacementId id : placed) {
        SheetId on;
        if (!find_placement(project, id, &on))
            return fail("place.missing", say("There is no placed part %1.", id.value));
        if (out.sheet && on != out.sheet) return fail("place.sheets", say("They lie on several sheets."));
        out.sheet = on;
    }
    if (!out.sheet) return fail("place.missing", say("Nothing that lies on a sheet was chosen."));
    out.ids = with_groups(*find(project, out.sheet), placed);
    return out;
}

struct There {
    SheetId sheet;
    std::vector<Lying> all;
};

Result<There> there(const Project& project, const Derived& derived, const std::vector<PlacementId>& placed) {
    const auto at = found(project, placed);
    if (!at) return tl::make_unexpected(at.error());
    There out{at->sheet, lying(project, derived, at->ids)};
    if (out.all.empty())
        return fail("place.piece", say("It is no longer there: its recipe makes other pieces now."));
    return out;
}

/// "petal, piece 2" for one, else "3 placed parts".
Phrase named(const Project& project, const std::vector<PlacementId>& ids) {
    if (ids.size() == 1) return say("\"%1\"", placed_name(project, *find_placement(project, ids.front())));
    return say_n(ids.size(), "%n placed [part|parts]");
}

/// `said`: what was done to them, "mirrored".
Done done(const Project& project, SheetId sheet, std::vector<PlacementId> ids, const Phrase& said) {
    Done out{say("%1 on %2: %3.", named(project, ids), find(project, sheet)->name, said)};
    out.sheet = sheet;
    out.part = find_placement(project, ids.front())->part;
    out.placements = std::move(ids);
    return out;
}

Result<Done> moved(Project& project, SheetId sheet, const std::vector<Placement>& to, const Phrase& said) {
    if (const auto ok = change_placements(project, to); !ok) return tl::make_unexpected(ok.error());
    std::vector<PlacementId> ids;
    for (const Placement& p : to)
        ids.push_back(p.id);
    return done(project, sheet, std::move(ids), said);
}

std::vector<Placement> shifted(const std::vector<Lying>& all, Length right, Length down) {
    std::vector<Placement> out;
    for (const Lying& one : all) {
        out.push_back(one.placement);
        out.back().left += right, out.back().top += down;
    }
    return out;
}

Result<Box> frame_of(const Project& project, const Catalog& catalog, const Derived& derived, const There& of,
                     Frame with, PlacementId lead) {
    if (with == Frame::others) return box_of(of.all);
    if (with == Frame::lead) {
        const auto one = lying(project, derived, {lead});
        return one.empty() ? fail("place.missing", say("There is no placed part %1.", lead.value))
                           : Result<Box>(one.front().box);
    }
    const Sheet& sheet = *find(project, of.sheet);
    const Mat* mat = catalog.mat(sheet.mat);
    const Stock* stock = catalog.stock(sheet.stock);
    if (!mat || !stock)
        return fail("place.missing", say("The stock or the mat of %1 is not in the catalog.", sheet.name));
    return with == Frame::stock ? stock_area(*mat, *stock) : usable_area(*mat, *stock);
}

Phrase words(Frame with) {
    switch (with) {
    case Frame::reach:
        return say("what the tool reaches");
    case Frame::stock:
        return say("the sheet of stock");
    case Frame::others:
        return say("one another");
    case Frame::lead:
        break;
    }
    return say("the one chosen last");
}

Phrase words(Across across, Down down) {
    const Phrase a = across == Across::left     ? say("left")
                     : across == Across::middle ? say("in the middle across")
                                                : say("right");
    const Phrase d = down == Down::top      ? say("at the top")
                     : down == Down::middle ? say("in the middle down")
                                            : say("at the bottom");
    if (down == Down::leave) return a;
    return across == Across::leave ? d : say("%1, %2", a, d);
}

} // namespace

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

Result<Done> apply(const ShiftPlaced& command, Project& project) {
    const auto at = found(project, command.placed);
    if (!at) return tl::make_unexpected(at.error());
    std::vector<Placement> to;
    for (const PlacementId id : at->ids) {
        to.push_back(*find_placement(project, id));
        to.back().left += command.right, to.back().top += command.down;
    }
    const std::string right = number(in_mm(command.right), 3), down = number(in_mm(command.down), 3);
    return moved(project, at->sheet, to,
                 down == "0"    ? say("moved by %1 mm to the right", right)
                 : right == "0" ? say("moved by %1 mm down", down)
                                : say("moved by %1 mm to the right and %2 mm down", right, down));
}

Result<Done> apply(const TurnPlaced& command, Project& project, const Catalog&, const Derived& derived) {
    const auto at = there(project, derived, command.placed);
    if (!at) return tl::make_unexpected(at.error());
    return moved(project, at->sheet, turned(at->all, command.by),
                 say("turned by %1 degrees", number(in_degrees(command.by), 3)));
}

Result<Done> apply(const MirrorPlaced& command, Project& project, const Catalog&, const Derived& derived) {
    const auto at = there(project, derived, command.placed);
    if (!at) return tl::make_unexpected(at.error());
    return moved(project, at->sheet, mirrored(at->all), say("mirrored"));
}

Result<Done> apply(const LineUp& command, Project& project, const Catalog& catalog, const Derived& derived) {
    const auto at = there(project, derived, command.placed);
    if (!at) return tl::make_unexpected(at.error());
    const auto frame = frame_of(project, catalog, derived, *at, command.with, command.lead);
    if (!frame) return tl::make_unexpected(frame.error());
    return moved(project, at->sheet, aligned(at->all, *frame, command.across, command.down),
                 say("lined up %1 with %2", words(command.across, command.down), words(command.with)));
}

Result<Done> apply(const Spread& command, Project& project, const Catalog& catalog, const Derived& derived) {
    const auto at = there(project, derived, command.placed);
    if (!at) return tl::make_unexpected(at.error());
    std::optional<Box> over;
    if (command.with == Frame::reach || command.with == Frame::stock) {
        const auto frame = frame_of(project, catalog, derived, *at, command.with, {});
        if (!frame) return tl::make_unexpected(frame.error());
        over = *frame;
    }
    const auto to = distributed(at->all, command.way, over);
    if (!to) return tl::make_unexpected(to.error());
    return moved(project, at->sheet, *to,
                 command.way == Way::across ? say("spread across") : say("spread down"));
}

Result<Done> apply(const GroupPlaced& command, Project& project) {
    if (const auto ok = group_placements(project, command.placed); !ok)
        return tl::make_unexpected(ok.error());
    const auto at = found(project, command.placed);
    return done(project, at->sheet, at->ids, say("grouped"));
}

Result<Done> apply(const UngroupPlaced& command, Project& project) {
    const auto at = found(project, command.placed);
    if (!at) return tl::make_unexpected(at.error());
    if (const auto ok = ungroup_placements(project, command.placed); !ok)
        return tl::make_unexpected(ok.error());
    return done(project, at->sheet, at->ids, say("each by itself again"));
}

Result<Done> apply(const CopyPlaced& command, Project& project, const Catalog& catalog,
                   const Derived& derived) {
    const auto at = there(project, derived, command.placed);
    if (!at) return tl::make_unexpected(at.error());
    const Box all = box_of(at->all);
    const auto corner =
        free_corner(project, catalog, derived, at->sheet, all.width(), all.height(), command.gap);
    if (!corner) return tl::make_unexpected(corner.error());
    int next = 1;
    for (const Placement& p : find(project, at->sheet)->placements)
        next = std::max(next, p.group + 1);
    std::map<int, int> groups{{0, 0}};
    Project changed = project;
    std::vector<PlacementId> out;
    for (Placement p : shifted(at->all, mm(corner->x - all.x0), mm(corner->y - all.y0))) {
        if (const auto [it, fresh] = groups.try_emplace(p.group, next); fresh) ++next;
        p.group = groups.at(p.group);
        const auto placed = place(changed, at->sheet, p);
        if (!placed) return tl::make_unexpected(placed.error());
        out.push_back(*placed);
    }
    project = std::move(changed);
    return done(project, at->sheet, std::move(out), say("copied"));
}

Result<Done> apply(const TakeOff& command, Project& project) {
    const auto at = found(project, command.placed);
    if (!at) return tl::make_unexpected(at.error());
    Done out{say("%1 taken off %2.", named(project, command.placed), find(project, at->sheet)->name),
             find_placement(project, command.placed.front())->part, at->sheet};
    for (const PlacementId id : command.placed)
        (void)remove_placement(project, id);
    out.placements = command.placed;
    return out;
}

Result<Done> apply(const ChangePlaced& command, Project& project, const Catalog&, const Derived& derived) {
    auto at = there(project, derived, {command.placed});
    if (!at) return tl::make_unexpected(at.error());
    std::vector<Lying>& all = at->all;
    const auto take = [&](const std::vector<Placement>& to) {
        for (std::size_t i = 0; i < all.size(); ++i)
            all[i].placement = to[i], all[i].box = placed_box(to[i], all[i].extent);
    };
    const auto lead = std::find_if(all.begin(), all.end(),
                                   [&](const Lying& l) { return l.placement.id == command.placed; });
    if (lead == all.end())
        return fail("place.piece", say("It is no longer there: its recipe makes other pieces now."));
    if (command.turn) {
        if (all.size() == 1) // the very number that was given
            take({turned_about_middle(lead->placement, lead->extent, *command.turn)});
        else
            take(turned(all, *command.turn - lead->placement.turn));
    }
    if (command.mirrored && *command.mirrored != lead->placement.mirrored) take(mirrored(all));
    if (command.left || command.top) {
        const Placement to =
            with_box_at(lead->placement, lead->extent, command.left.value_or(mm(lead->box.x0)),
                        command.top.value_or(mm(lead->box.y0)));
        take(shifted(all, to.left - lead->placement.left, to.top - lead->placement.top));
    }
    return moved(project, at->sheet, shifted(all, {}, {}), say("placed anew"));
}

Result<Done> apply(const CopyInGrid& command, Project& project, const Catalog&, const Derived& derived) {
    SheetId on;
    if (!find_placement(project, command.placed, &on))
        return fail("place.missing", say("There is no placed part %1.", command.placed.value));
    const auto one = lying(project, derived, {command.placed});
    if (one.empty())
        return fail("place.piece", say("It is no longer there: its recipe makes other pieces now."));
    auto places = grid(one.front().placement, one.front().extent, command.grid);
    if (!places) return tl::make_unexpected(places.error());
    places->erase(places->begin()); // it is there already
    Project next = project;
    std::vector<PlacementId> ids;
    for (const Placement& p : *places) {
        const auto placed = place(next, on, p);
        if (!placed) return tl::make_unexpected(placed.error());
        ids.push_back(*placed);
    }
    project = std::move(next);
    ids.insert(ids.begin(), command.placed);
    return done(project, on, std::move(ids), say("in a grid"));
}

} // namespace dotlane
