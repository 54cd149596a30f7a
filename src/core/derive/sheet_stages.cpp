#include "core/derive/sheet_stages.h"

#include <algorithm>

#include "core/checks/fit_checks.h"
#include "core/derive/findings.h"
#include "core/derive/overlaps.h"
#include "core/derive/printing.h"

namespace dotlane {
namespace {

/// Where it lies; nothing when it is not there any more.
std::optional<PlacedPart> laid(const Placement& p, const LayoutOf::Lying& lying) {
    if (!lying.footprint->there()) return {};
    const Extent& extent = lying.footprint->extent();
    PlacedPart out{p, placement_transform(p, extent), placed_box(p, extent), {}, lying.name, lying.footprint};
    out.outline = out.box;
    if (std::abs(std::remainder(in_degrees(p.turn), 90)) > 1e-9) {
        out.outline = {};
        for (const Point corner : lying.footprint->hull())
            out.outline.add(out.to_sheet(corner));
    }
    return out;
}

} // namespace

LayoutOf::Value LayoutOf::make(const Key& key, const Value*, const Fixed& fixed, Progress&) {
    Value out;
    const Sheet& sheet = key.sheet;
    out.laid.sheet = sheet.id;
    const Mat* mat = fixed.catalog.mat(sheet.mat);
    const Stock* stock = fixed.catalog.stock(sheet.stock);
    if (!mat || !stock) {
        out.known = false;
        out.findings.push_back((mat ? sheet_findings::no_stock
                                    : sheet_findings::no_mat)({{}, sheet.id, {}, {}, {}}, sheet.name));
        return out;
    }
    out.laid.usable = usable_area(*mat, *stock);
    out.laid.stock = stock_area(*mat, *stock);
    out.laid.mat_width = mat->width, out.laid.mat_height = mat->height;
    std::vector<Box> boxes;
    std::vector<Phrase> names;
    for (std::size_t i = 0; i < sheet.placements.size(); ++i) {
        const Placement& p = sheet.placements[i];
        const Phrase& name = key.lying[i].name;
        auto placed = laid(p, key.lying[i]);
        boxes.push_back(placed ? placed->outline : Box{});
        names.push_back(name);
        if (placed)
            out.laid.parts.push_back(std::move(*placed));
        else
            out.findings.push_back(
                sheet_findings::no_piece({p.part, sheet.id, {}, {}, {}}, name, sheet.name));
    }
    const Machine* machine = fixed.catalog.machine(key.machine);
    if (!machine) return out;
    auto outside = check_layout(sheet, *machine, *mat, *stock, boxes, names);
    for (Finding& f : outside)
        if (f.code == "sheet.outside")
            for (const PlacedPart& p : out.laid.parts)
                if (p.placement.part == f.place.part && place_of(p.outline) == f.place.box)
                    offer_turn(f, p.footprint->hull(), p.placement, out.laid.usable);
    out.findings.insert(out.findings.end(), outside.begin(), outside.end());
    return out;
}

Findings OverlapsOf::make(const Key& key, const Value*, const Fixed&, Progress&) {
    return check_overlaps(key.layout->laid, key.sheet);
}

LaneLines LinesOf::make(const Key& key, const Value*, const Fixed&, Progress&) {
    LaneLines out;
    std::uint32_t blocks = 0;
    for (const Placed& placed : key.placed) {
        const EvaluatedPart& part = placed.footprint->part();
        const Arrangement* piece = arrangement(part, placed.piece);
        for (std::size_t r = 0; r < part.runs.size(); ++r) {
            const RunSet& run = part.runs[r];
            if (run.lane != key.lane) continue;
            // Of its strokes: an edge in a lane of its own is a line like any other.
            const bool kept =
                run.ink && std::find(placed.kept.begin(), placed.kept.end(), run.step) != placed.kept.end();
            const std::uint32_t block = kept ? ++blocks : 0;
            const Polylines& lines = lines_of(part, r, placed.piece);
            auto of = run.of.begin();
            std::size_t begin = 0; // of the line
            for (std::size_t l = 0; l < lines.size(); ++l) {
                const std::size_t contour = piece ? piece->which[r][l] : l; // they stand in order
                for (; of != run.of.end() && contour >= of->end; ++of)
                    begin = of->end;
                out.lines.push_back(transformed(lines[l], placed.to_sheet));
                out.block.push_back(block);
                out.of.push_back({part.part, placed.placement, run.set, run.step,
                                  of == run.of.end() ? LineId{} : of->id,
                                  static_cast<std::uint32_t>(contour - begin)});
            }
        }
    }
    if (blocks == 0) out.block.clear();
    return out;
}

RouteResult RouteOf::make(const Key& key, const Value*, const Fixed&, Progress& progress) {
    return route_lines(*key.lines, key.options, key.start, progress);
}

RoutedPass PassOf::make(const Key& key, const Value*, const Fixed&, Progress&) {
    return route_pass(*key.lines, *key.route, key.rest, key.path, key.repeats);
}

PrintOf::Value PrintOf::make(const Key& key, const Value*, const Fixed& fixed, Progress&) {
    const auto print = print_sheet(fixed.catalog, key.scope, key.layout->laid, key.sheet);
    if (!print) return {};
    return {std::make_shared<const PrintSheet>(*print), check_print(*print)};
}

Result<Plan> PlanOf::make(const Key& key, const Value*, const Fixed& fixed, Progress& progress) {
    const Machine* machine = fixed.catalog.machine(key.machine);
    if (!machine)
        return fail("plan.no-machine",
                    say("The machine \"%1\" is not in the catalog. Choose another.", key.machine));
    auto plan = make_plan(key.project, *machine, key.sheets, key.options, progress);
    if (plan) plan->program.parts = key.parts;
    return plan;
}

} // namespace dotlane
