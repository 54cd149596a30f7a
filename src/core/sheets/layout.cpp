#include "core/sheets/layout.h"

#include <cmath>

#include "core/base/finding_kind.h"
#include "core/base/text.h"
#include "core/geometry/path.h"

namespace dotlane {
namespace {

constexpr FindingKind<Name, Name> mat_not_taken{
    "sheet.mat", Grade::error, to_say("The %1 does not take the %2."), {"machine", "mat"}};
constexpr FindingKind<Name, Mm<2>, Name, Mm<2>> too_thick{
    "sheet.thick",
    Grade::error,
    to_say("%1 is %2 mm thick; the %3 takes up to %4 mm."),
    {"stock", "thickness_mm", "machine", "most_mm"}};
/// The sheet, by how much on which side.
constexpr FindingKind<Name, Name, Name> runs_out{"sheet.outside",
                                                 Grade::error,
                                                 to_say("\"%1\" runs out of the usable area of %2: %3."),
                                                 {"part", nullptr, nullptr},
                                                 {{{"sheet.bring-in", to_say("Bring it in")}}}};

Affine turned(const Placement& p) {
    const Affine turn = Affine::rotation(in_radians(p.turn));
    return p.mirrored ? turn * Affine::scaling(-1, 1) : turn;
}

Box box_under(const Affine& by, const Box& box) {
    return bounds(transformed(rectangle(box), by));
}

} // namespace

Affine placement_transform(const Placement& placement, const Extent& extent) {
    const Affine turn = turned(placement);
    const Box box = box_under(turn, placement.by_box ? extent.box : extent.anchor);
    return Affine::translation({in_mm(placement.left) - box.x0, in_mm(placement.top) - box.y0}) * turn;
}

Box placed_box(const Placement& placement, const Extent& extent) {
    return box_under(placement_transform(placement, extent), extent.box);
}

Placement with_box_at(Placement placement, const Extent& extent, Length left, Length top) {
    const Box box = placed_box(placement, extent);
    placement.left += left - mm(box.x0), placement.top += top - mm(box.y0);
    return placement;
}

Placement turned_about_middle(const Placement& placement, const Extent& extent, Angle turn) {
    const Point middle = placed_box(placement, extent).centre();
    Placement out = placement;
    out.turn = turn;
    const Box box = placed_box(out, extent);
    out.left += mm(middle.x - box.centre().x);
    out.top += mm(middle.y - box.centre().y);
    return out;
}

Result<std::vector<Placement>> grid(const Placement& first, const Extent& extent,
                                    const GridOptions& options) {
    if (options.columns < 1 || options.columns > 200 || options.rows < 1 || options.rows > 200 ||
        in_mm(options.gap) < 0)
        return fail("place.range", say("Copies need 1 to 200 columns and rows and a gap of zero or more."));
    const Box box = placed_box(first, extent);
    std::vector<Placement> out;
    for (int row = 0; row < options.rows; ++row)
        for (int column = 0; column < options.columns; ++column) {
            Placement p = first;
            p.left += mm(column * (box.width() + in_mm(options.gap)));
            p.top += mm(row * (box.height() + in_mm(options.gap)));
            out.push_back(p);
        }
    return out;
}

Box stock_area(const Mat& mat, const Stock& stock) {
    const double w = in_mm(stock.width), h = in_mm(stock.height);
    // Full-size stock covers the mat; smaller stock is laid against the usable area's top-left corner.
    const double x = w >= in_mm(mat.width) - 0.5 ? 0 : mat.usable.x0;
    const double y = h >= in_mm(mat.height) - 0.5 ? 0 : mat.usable.y0;
    return {x, y, x + w, y + h};
}

Box usable_area(const Mat& mat, const Stock& stock) {
    const Box s = stock_area(mat, stock), u = mat.usable;
    return {std::max(s.x0, u.x0), std::max(s.y0, u.y0), std::min(s.x1, u.x1), std::min(s.y1, u.y1)};
}

Findings check_layout(const Sheet& sheet, const Machine& machine, const Mat& mat, const Stock& stock,
                      const std::vector<Box>& boxes, const std::vector<Phrase>& names) {
    Findings out;
    const auto at = [&](const Box& b, PartId part) {
        return FindingPlace{part, sheet.id, {}, {}, {b.x0, b.y0, b.x1, b.y1}};
    };
    if (std::find(machine.mats.begin(), machine.mats.end(), mat.id) == machine.mats.end())
        out.push_back(mat_not_taken({{}, sheet.id, {}, {}, {}}, word(machine), word(mat)));
    if (stock.thickness > machine.max_thickness)
        out.push_back(too_thick({{}, sheet.id, {}, {}, {}}, word(stock), {in_mm(stock.thickness)},
                                word(machine), {in_mm(machine.max_thickness)}));
    const Box u = usable_area(mat, stock);
    constexpr double slack = 1e-6; // less than any machine can tell; keeps exact fits legal
    for (std::size_t i = 0; i < boxes.size(); ++i) {
        const Box& b = boxes[i];
        if (b.empty()) continue;
        const struct {
            double over;
            const char* side;
        } sides[] = {{u.x0 - b.x0, to_say("left")},
                     {b.x1 - u.x1, to_say("right")},
                     {u.y0 - b.y0, to_say("top")},
                     {b.y1 - u.y1, to_say("bottom")}};
        Phrase words;
        std::vector<std::pair<std::string, std::string>> sides_out;
        for (const auto& s : sides) {
            if (s.over <= slack) continue;
            const Phrase next = say("%1 mm on the %2", number(s.over, 2), as_word(core_words, s.side));
            words = words.empty() ? next : say("%1 and %2", words, next);
            sides_out.emplace_back(std::string(s.side) + "_mm", number(s.over, 3));
        }
        if (!words.empty()) {
            const bool fits = b.width() <= u.width() + slack && b.height() <= u.height() + slack;
            Finding told = runs_out(at(b, sheet.placements[i].part), names[i], sheet.name, words);
            told.args.insert(told.args.end(), sides_out.begin(), sides_out.end());
            out.push_back(with_remedies_if(fits, std::move(told)));
        }
    }
    return out;
}

} // namespace dotlane
