#include "core/commands/samples.h"

#include <algorithm>

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

constexpr double large = 12, small = 6; // mm, the arms of a cross from end to end
DrawnLine arm(const char* name, Point from, Point to) {
    DrawnLine line;
    line.name = name;
    Contour contour;
    contour.start = from;
    contour.line_to(to);
    line.shape.contours = {contour};
    return line;
}

/// A large cross and a small one about the same middle.
Source crosses() {
    Drawing drawing;
    drawing.page_width = drawing.page_height = mm(large);
    const double m = large / 2, s = small / 2;
    drawing.lines = {arm("large, across", {0, m}, {large, m}), arm("large, down", {m, 0}, {m, large}),
                     arm("small, across", {m - s, m}, {m + s, m}),
                     arm("small, down", {m, m - s}, {m, m + s})};
    Source out;
    out.drawing = std::make_shared<const Drawing>(std::move(drawing));
    return out;
}

WordsStep below(const std::string& name) {
    WordsStep out;
    out.lettering.text = name;
    out.lettering.font = "Roman simplex", out.lettering.size = mm(3);
    out.place = AlignStep{AlignStep::Across::middle, AlignStep::Down::bottom, {}, mm(7)};
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
    const std::string name = unused_name(next.sheets, "fill samples");
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

Result<Done> apply(const AddCrosses&, Project& project, const Catalog& catalog) {
    Project next = project;
    std::vector<const Lane*> tools; // the first lane of each, what draws first
    for (const Action action : all_actions)
        for (const Lane& lane : project.lanes)
            if (lane.action == action && row(action).run && catalog.tool(lane.tool) &&
                std::none_of(tools.begin(), tools.end(),
                             [&](const Lane* known) { return known->tool == lane.tool; }))
                tools.push_back(&lane);
    if (tools.size() < 2)
        return fail("crosses.few",
                    say("Crosses compare the tools of the lanes: there must be lanes of two at least."));
    const LaneId reference = tools.front()->id;
    const auto sheet = apply(AddSheet{unused_name(next.sheets, "tool crosses"), {}, {}}, next, catalog);
    if (!sheet) return sheet;
    Done out;
    out.sheet = sheet->sheet, out.lane = reference;
    for (std::size_t n = 1; n < tools.size(); ++n) {
        const Tool& tool = *catalog.tool(tools[n]->tool);
        const PartId id = add_part(next, "Cross: " + tool.name, crosses());
        std::vector<LineId> lines;
        for (const DrawnLine& line : find(next, id)->source.drawing->lines)
            lines.push_back(line.id);
        for (const auto& [lane, first] : {std::pair{reference, 0}, std::pair{tools[n]->id, 2}})
            if (const auto ok = assign(next, id, {lines.begin() + first, lines.begin() + first + 2}, lane);
                !ok)
                return tl::make_unexpected(ok.error());
        if (const auto ok = add_maker(next, id, reference, below(tool.name), {}, false); !ok)
            return tl::make_unexpected(ok.error());
        Placement placement;
        placement.part = id;
        const int at = static_cast<int>(n) - 1;
        placement.left = mm(20 + 44 * (at % 5)), placement.top = mm(20 + 34 * (at / 5));
        const auto placed = place(next, out.sheet, placement);
        if (!placed) return tl::make_unexpected(placed.error());
        out.parts.push_back(id);
        out.placements.push_back(*placed);
    }
    out.part = out.parts.front();
    out.said = say(
        "Crosses of all tools lie on \"%1\": the %2 runs the large ones. How far to the right and down the "
        "middle of a small one lies is what its tip touches beside.",
        find(next, out.sheet)->name, word(*catalog.tool(tools.front()->tool)));
    project = std::move(next);
    return out;
}

} // namespace dotlane
