#include "core/checks/fit_checks.h"

#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/checks/findings.h"
#include "core/sheets/layout.h"
#include "core/sources/make.h"

namespace dotlane {
namespace {

Phrase angle_words(const TurnedFit& fit) {
    const double from = std::ceil(in_degrees(fit.from) * 10 - 1e-6) / 10,
                 to = std::floor(in_degrees(fit.to) * 10 + 1e-6) / 10;
    return from < to ? say("turned by %1 to %2 degrees", number(from, 1), number(to, 1))
                     : say("turned by %1 degrees", number(in_degrees(fit.best), 2));
}

bool panels_fit(const Catalog& catalog, const Machine& machine, FoldedCard card, double scale) {
    card.hinge = usual_hinge;
    const Length across = card.opens == FoldedCard::Opens::side ? card.height : card.width;
    for (const Length panel : panels_of(card)) {
        const double w = in_mm(panel + card.hinge) * scale, h = in_mm(across) * scale;
        if (sheet_fits(catalog, machine, {{0, 0}, {w, 0}, {w, h}, {0, h}}).empty()) return false;
    }
    return true;
}

} // namespace

std::vector<Point> mirrored(std::vector<Point> hull, bool mirror) {
    if (mirror)
        for (Point& p : hull)
            p.x = -p.x;
    return hull;
}

std::vector<Point> outline_hull(const EvaluatedPart& part, int piece) {
    std::vector<const Polylines*> lines;
    for (std::size_t run = 0; run < part.runs.size(); ++run)
        lines.push_back(&lines_of(part, run, piece));
    auto hull = hull_of(lines);
    if (hull.empty() && !box_of(part, piece).empty()) {
        const Box b = box_of(part, piece);
        hull = {{b.x0, b.y0}, {b.x1, b.y0}, {b.x1, b.y1}, {b.x0, b.y1}};
    }
    return hull;
}

std::vector<SheetFit> fits_of(const Project& project, const Catalog& catalog, const EvaluatedPart& part) {
    const Machine* machine = catalog.machine(project.machine);
    return machine ? sheet_fits(catalog, *machine, outline_hull(part, 0)) : std::vector<SheetFit>{};
}

Phrase fit_words(const SheetFit& fit, LengthUnit unit) {
    const Phrase size = as_is(to_text(fit.stock->width, unit) + " x " + to_text(fit.stock->height, unit));
    if (fit.turned.way == FitWay::quarter) return say("%1, turned", size);
    if (fit.turned.way == FitWay::angled) return say("%1, %2", size, angle_words(fit.turned));
    return size;
}

void check_fit(const Project& project, const Catalog& catalog, const EvaluatedPart& evaluated,
               Findings& out) {
    const Machine* machine = catalog.machine(project.machine);
    const Part* part = find(project, evaluated.part);
    if (!machine || !part || evaluated.box.empty() || catalog.stocks.empty()) return;
    std::vector<int> pieces;
    for (const Arrangement& a : evaluated.apart)
        pieces.push_back(a.number);
    if (pieces.empty()) pieces.push_back(0);
    for (const int piece : pieces) {
        const auto fits = sheet_fits(catalog, *machine, outline_hull(evaluated, piece));
        const Box box = box_of(evaluated, piece);
        const FindingPlace place{part->id, {}, {}, {}, place_of(box)};
        if (fits.empty()) {
            const Box reach = largest_reach(catalog, *machine);
            const auto* card = std::get_if<FoldedCard>(&part->source.spec);
            const bool panels =
                card && in_mm(card->hinge) <= 0 && panels_fit(catalog, *machine, *card, part->scale);
            auto told = checks::part_too_large(place, piece == 0 ? say("The part") : say("Piece %1", piece),
                                               {box.width()}, {box.height()}, word(*machine), {reach.width()},
                                               {reach.height()});
            out.push_back(with_remedies_if(panels, std::move(told)));
            return; // one is enough
        }
        const auto turned = [](const SheetFit& f) { return f.turned.way == FitWay::angled; };
        if (piece != 0 || !std::all_of(fits.begin(), fits.end(), turned)) continue;
        const SheetFit& fit = fits.front();
        out.push_back(checks::part_turn(place, {box.width()}, {box.height()}, fit_words(fit, project.unit),
                                        {in_degrees(fit.turned.from)}, {in_degrees(fit.turned.to)},
                                        {in_degrees(fit.turned.best)}));
    }
}

bool lies_turned(const Project& project, const Finding& finding) {
    const double from = number_argument(finding, "from_degrees").value_or(0),
                 to = number_argument(finding, "to_degrees").value_or(0);
    for (const Sheet& sheet : project.sheets)
        for (const Placement& p : sheet.placements) {
            if (p.part != finding.place.part) continue;
            double turn = std::fmod(in_degrees(p.mirrored ? -p.turn : p.turn), 180);
            if (turn < 0) turn += 180;
            if (turn >= from - 0.02 && turn <= to + 0.02) return true;
        }
    return false;
}

void offer_turn(Finding& outside, const std::vector<Point>& hull, const Placement& placement,
                const Box& usable) {
    if (!outside.remedy.code.empty()) return;
    const auto fit = fit_within(mirrored(hull, placement.mirrored), usable.width(), usable.height());
    if (!fit) return;
    if (fit->way == FitWay::angled)
        outside.message = say("%1 It fits %2.", outside.message, angle_words(*fit));
    outside.remedy = {"part.turn-to-fit",
                      fit->way == FitWay::straight
                          ? say("Lay it straight")
                          : say("Turn it by %1 degrees", number(in_degrees(fit->best), 1))};
}

} // namespace dotlane
