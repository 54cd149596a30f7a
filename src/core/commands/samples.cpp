#include "core/commands/samples.h"

#include "core/base/text.h"
#include "core/commands/lanes.h"
#include "core/commands/making.h"
#include "core/commands/sheets.h"
#include "core/project/edits.h"

namespace dotlane {
namespace {

constexpr double wide = 56, high = 40;            // mm, of a swatch
constexpr double across = 70, down = 66;          // from one to the next
constexpr double first_left = 14, first_top = 14; // on the mat
constexpr int columns = 4;

Label swatch() {
    Label out;
    out.edge = Label::Edge::rounded, out.corner = mm(5);
    out.width = mm(wide), out.height = mm(high);
    return out;
}

/// "hexagons, 5 mm": what a maker needs to draw it again.
WordsStep words(const FillKind& kind, const FillStep& fill, Length tip) {
    WordsStep out;
    out.lettering.text = std::string(kind.key) + "\n" + number(in_mm(fill.spaced(tip)), 2) + " mm, " +
                         number(in_degrees(fill.angle), 0) + " deg";
    out.lettering.font = "Roman simplex", out.lettering.size = mm(3), out.lettering.line_gap = 150;
    out.place = AlignStep{AlignStep::Across::left, AlignStep::Down::bottom, {}, mm(14)};
    return out;
}

FillStep sample_of(const FillKind& kind) {
    FillStep out;
    out.style = kind.fresh;
    out.of_tip = 300;
    out.angle = degrees(kind.open_mm > 0 ? 0 : 35);
    // Ways along the edge are no part of a pattern that is meant to be seen.
    out.ends = kind.open_mm > 0 ? FillEnds::apart : FillEnds::one_stroke;
    return out;
}

} // namespace

Result<Done> apply(const AddSamples& command, Project& project, const Catalog& catalog, FontShelf& fonts) {
    Project next = project;
    if (command.lane && !find(next, command.lane))
        return fail("edit.missing", say("There is no such lane in this project."));
    LaneId lane = command.lane;
    for (const Lane& l : next.lanes)
        if (!lane && l.action == Action::draw) lane = l.id;
    if (!lane) lane = lane_for(next, catalog, Action::draw, {}, plain_ink);
    const Tool* tool = catalog.tool(find(next, lane)->tool);
    const Length tip = tool ? tool->tip : mm(0.4);
    std::string name = "fill samples";
    for (int n = 2;
         std::any_of(next.sheets.begin(), next.sheets.end(), [&](const Sheet& s) { return s.name == name; });
         ++n)
        name = "fill samples " + std::to_string(n);
    const auto sheet = apply(AddSheet{name, {}, {}}, next, catalog);
    if (!sheet) return sheet;
    Done out;
    out.sheet = sheet->sheet, out.lane = lane;
    int at = 0;
    for (const FillKind& kind : fill_kinds()) {
        const auto made = apply(MakePart{swatch(), std::string("Sample: ") + kind.key}, next, catalog, fonts);
        if (!made) return made;
        Part& part = *find(next, made->part);
        const LineSetId outline = part.sets.front().id;
        part.sets.front().lane = lane;
        const FillStep fill = sample_of(kind);
        if (const auto ok = add_maker(next, made->part, lane, fill, {outline}, true); !ok)
            return tl::make_unexpected(ok.error());
        if (const auto ok = add_maker(next, made->part, lane, words(kind, fill, tip), {}, false); !ok)
            return tl::make_unexpected(ok.error());
        Placement placement;
        placement.part = made->part;
        placement.left = mm(first_left + across * (at % columns)),
        placement.top = mm(first_top + down * (at / columns));
        const auto placed = place(next, out.sheet, placement);
        if (!placed) return tl::make_unexpected(placed.error());
        out.parts.push_back(made->part);
        out.placements.push_back(*placed);
        ++at;
    }
    // The lane that came with the outlines is not wanted.
    for (const Lane& l : std::vector<Lane>(next.lanes))
        if (!find(project, l.id) && l.id != lane)
            if (const auto ok = apply(RemoveLane{l.id}, next); !ok) return ok;
    out.part = out.parts.front();
    out.said = say("All styles of fill lie on \"%1\", drawn in %2.", name, lane_words(next, lane));
    project = std::move(next);
    return out;
}

} // namespace dotlane
