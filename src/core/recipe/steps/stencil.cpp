#include "core/project/steps/stencil.h"

#include <numeric>

#include "core/base/finding_kind.h"
#include "core/base/parallel.h"
#include "core/base/text.h"
#include "core/recipe/areas.h"
#include "core/recipe/bridges.h"
#include "core/recipe/evaluate.h"
#include "core/recipe/plies.h"
#include "core/recipe/surface.h"
#include "core/recipe/webs.h"

namespace dotlane {
namespace {

constexpr RemedyKind narrower{"stencil.narrower", to_say("Narrower bridges")};
constexpr FindingKind<Count> island_loose{
    "stencil.loose",
    Grade::error,
    to_say("%n [island hangs|islands hang] on nothing: no bridge leads from [it|them] to the sheet."),
    {"count"}};
constexpr FindingKind<Count> opening_closed{
    "stencil.closed",
    Grade::error,
    to_say("%n [opening is|openings are] closed by bridges that are wider than [it is|they are]."),
    {"count"},
    {{narrower}}};
constexpr FindingKind<Count, Mm<2>> bridge_narrow{
    "stencil.narrow-bridge",
    Grade::caution,
    to_say("%n [bridge is|bridges are] narrower than %2 mm in places: what they lead to is."),
    {"count", "width_mm"},
    {{narrower}}};
constexpr FindingKind<Count, Mm<2>, Mm<2>> webs_narrow{
    "stencil.web",
    Grade::caution,
    to_say("%n [strip|strips] between openings [is|are] narrower than %2 mm, the narrowest %3 mm: "
           "[it|they] may tear."),
    {"count", "least_mm", "narrowest_mm"},
    {{{"stencil.widen", to_say("Shrink the openings just there")},
      {"stencil.spread", to_say("Move all apart")},
      {"stencil.thin", to_say("Leave some out")}}}};
constexpr FindingKind<Mm<1>, Mm<1>> margin_small{
    "stencil.margin",
    Grade::caution,
    to_say("Holes of %1 mm want a margin of %2 mm: they were left out."),
    {"holes_mm", "margin_mm"},
    {{{"stencil.margin", to_say("A wider margin")}}}};
constexpr FindingKind<Name> bridges_unread{
    "stencil.places", Grade::error, to_say("\"%1\" is no list of places such as 20 50; 80 50."), {"text"}};
constexpr FindingKind<Count> open_together{
    "stencil.together",
    Grade::caution,
    to_say(
        "%n colours are open together: where they touch or lie on one another no edge is left between them."),
    {"colours"},
    {{{"apart.colours", to_say("A sheet for each colour")}}}};
constexpr FindingKind<Count> outlines_nested{"stencil.nested",
                                             Grade::hint,
                                             to_say("%n [outline lies|outlines lie] within others: what [it "
                                                    "bounds|they bound] is an island, or an opening "
                                                    "in one."),
                                             {"count"}};
constexpr FindingKind<Count> not_one{
    "stencil.not-one", Grade::error, to_say("The sheet falls into %n [piece|pieces]."), {"pieces"}};

PlaceBox around_all(const std::vector<Box>& boxes) {
    Box out;
    for (const Box& box : boxes)
        out.add(box);
    return place_of(out);
}

BridgeWishes wishes_of(const StencilStep& step, const std::vector<Point>& shares, const Box& box) {
    BridgeWishes out{step.bridges, step.width, step.place, step.direction, step.sides, {}};
    for (const Point share : shares)
        out.by_hand.push_back(place_of(share, box));
    return out;
}

/// A strip of the least width on both sides of a hole.
double margin_for(const StencilStep& step) {
    return in_mm(step.holes) + 2 * in_mm(step.least);
}

/// In three corners of the margin, so that a sheet that is laid turned shows it.
Polylines holes_in(const StencilStep& step, const Box& sheet) {
    const double size = in_mm(step.holes), in = in_mm(step.margin) / 2;
    if (size <= 0 || in_mm(step.margin) < margin_for(step) - 1e-6) return {};
    Polylines out;
    for (const Point p : {Point{sheet.x0 + in, sheet.y0 + in}, Point{sheet.x1 - in, sheet.y0 + in},
                          Point{sheet.x0 + in, sheet.y1 - in}})
        out.push_back(flattened(ellipse(p, size / 2, size / 2), mm(0.005)));
    return out;
}

/// Whether less is seen of the colours together than of each: somewhere an edge between two of them is lost.
/// `all`: what they are together.
bool run_together(const std::vector<const WorkSet*>& of, const Region& all, Progress& progress) {
    std::vector<double> areas(of.size());
    std::vector<std::size_t> counts(of.size());
    in_parallel(of.size(), 40 * point_count(all), [&](std::size_t i) {
        if (progress.cancelled()) return;
        const Region colour = united(nested(areas_of({of[i]}), progress).each);
        areas[i] = in_square_mm(area(colour)), counts[i] = pieces(colour).size();
    });
    return pieces(all).size() < std::accumulate(counts.begin(), counts.end(), std::size_t{0}) ||
           in_square_mm(area(all)) < std::accumulate(areas.begin(), areas.end(), 0.0) * 0.999;
}

} // namespace

StepOutcome run(const StencilStep& step, const StepInput& in, Progress& progress) {
    const Areas all = areas_of(in.of);
    if (all.each.empty()) return refused(say("There are no closed lines to make openings of."));
    if (static_cast<std::size_t>(step.only) > in.of.size())
        return refused(say_n(in.of.size(), "There [is|are] but %n [colour|colours]."));
    const Areas areas = step.only == 0 ? all : areas_of({in.of[static_cast<std::size_t>(step.only) - 1]});
    if (areas.each.empty()) return refused(say("There are no closed lines of this colour."));
    const auto shares = places_in(step.at);
    const Nested drawn = nested(areas, progress);
    if (progress.cancelled()) return {};
    Region open = united(drawn.each);
    Box box = bounds(united(all.each)); // the sheets of all colours are alike
    const bool blurred = step.only == 0 && in.of.size() > 1 && run_together(in.of, open, progress);
    if (progress.cancelled()) return {};
    if (step.webs == StencilStep::Webs::spread) {
        const Point middle = box.centre();
        double share = 0; // of the colour that needs most
        const auto needs = [&](const std::vector<Region>& each) {
            if (each.empty()) return;
            share = std::max(share, spread_share(united(each), middle, step.least, progress).value_or(0));
        };
        if (step.only == 0) needs(drawn.each);
        for (const WorkSet* set : in.of)
            if (step.only > 0) needs(nested(areas_of({set}), progress).each);
        if (progress.cancelled()) return {};
        open = spread_by(open, middle, share);
        box = bounds(spread_by(united(all.each), middle, share));
    }
    // The frame of a negative one is as wide as the margin, of what is open there half.
    const double margin = in_mm(step.margin);
    if (step.negative)
        open = subtracted(region_of(Shape{{rectangle(box.grown(std::max(3.0, margin / 2)))}}), open);
    const Box sheet = step.negative ? bounds(open).grown(std::max(3.0, margin / 2)) : box.grown(margin);
    const Box edges = margin > 0 ? sheet : Box();
    if (step.webs == StencilStep::Webs::widened) open = widened(open, edges, step.least, progress);
    if (step.webs == StencilStep::Webs::thinned) open = thinned_out(open, edges, step.least, progress);
    if (progress.cancelled()) return {};
    if (open.empty()) return refused(say("Nothing is left of the openings between strips of this width."));
    const Bridged made = bridged(open, wishes_of(step, shares.value_or(std::vector<Point>()), box), progress);
    if (progress.cancelled()) return {};
    StepOutcome out;
    out.made.emplace();
    const std::vector<Region> openings = pieces(made.openings);
    for (const Region& opening : openings)
        out.made->lines.push_back(line_of(opening, {}));
    const bool edged = margin > 0;
    const Polylines holes = edged ? holes_in(step, sheet) : Polylines();
    for (const Polyline& hole : holes)
        out.made->lines.push_back(line_along({hole}));
    if (edged) {
        out.made->lines.push_back(line_of(region_of(Shape{{rectangle(sheet)}}), {}));
        out.report.needs.push_back({say("film"), mm(sheet.width()), mm(sheet.height()), {}, {}, true});
    }
    const auto narrow_ones = webs(made.openings, edged ? sheet : Box(), step.least, progress);
    if (progress.cancelled()) return {};

    for (const Bridge& bridge : made.bridges)
        out.report.put.push_back({bridge.a, bridge.b, bridge.width, bridge.by_hand, false});
    auto& told = out.report.findings;
    const auto tell = [&](Finding finding, const std::vector<Box>& where) {
        finding.place.box = around_all(where);
        told.push_back(std::move(finding));
    };
    if (blurred) told.push_back(open_together({}, Count{in.of.size()}));
    if (!shares) told.push_back(bridges_unread({}, as_is(step.at)));
    if (!made.loose.empty()) tell(island_loose({}, Count{made.loose.size()}), made.loose);
    if (!made.closed.empty()) tell(opening_closed({}, Count{made.closed.size()}), made.closed);
    if (!made.narrow.empty())
        tell(bridge_narrow({}, Count{made.narrow.size()}, {in_mm(step.width)}), made.narrow);
    if (made.pieces_of_sheet > 1 && made.loose.empty())
        told.push_back(not_one({}, Count{made.pieces_of_sheet}));
    std::vector<Box> thin;
    constexpr Length flattened_by = mm(0.02); // 0.01 mm on both sides: bridges as wide as that are
    for (const Web& web : narrow_ones)
        if (web.width < step.least - flattened_by) {
            thin.emplace_back();
            thin.back().add(web.a), thin.back().add(web.b);
            out.report.put.push_back({web.a, web.b, mm(0.3), false, true});
        }
    if (!thin.empty())
        tell(with_remedies_if(step.webs == StencilStep::Webs::told,
                              webs_narrow({}, Count{thin.size()}, {in_mm(step.least)},
                                          {in_mm(narrow_ones.front().width)})),
             thin);
    if (edged && in_mm(step.holes) > 0 && holes.empty())
        told.push_back(margin_small({}, {in_mm(step.holes)}, {margin_for(step)}));
    if (drawn.inner > 0) told.push_back(outlines_nested({}, Count{drawn.inner}));
    tell_open(out.report, areas.open, say("made an opening"));

    double narrowest = narrow_ones.empty() ? 0 : in_mm(narrow_ones.front().width);
    if (!made.bridges.empty() && (narrowest == 0 || narrowest > in_mm(step.width)))
        narrowest = in_mm(step.width);
    out.report.figures = {
        figure("islands", made.islands),    figure("bridges", made.bridges.size()),
        figure("pieces", openings.size()),  figure("sheet_pieces", made.pieces_of_sheet),
        {"narrowest_web", "mm", narrowest}, {"open", "mm2", in_square_mm(area(made.openings))}};
    if (step.only > 0) { // what lies hindmost is painted first
        const std::vector<std::size_t> ranks = layer_ranks(in.of);
        const auto at = std::find(ranks.begin(), ranks.end(), static_cast<std::size_t>(step.only) - 1);
        out.report.figures.push_back(figure("coat", static_cast<std::size_t>(at - ranks.begin()) + 1));
        out.report.figures.push_back(figure("colours", ranks.size()));
    }
    return out;
}

bool press_place(StencilStep& step, const StepInput& in, Point at) {
    Box box;
    for (const Region& one : areas_of(in.of).each)
        box.add(bounds(one));
    if (box.empty()) return false;
    auto places = places_in(step.at).value_or(std::vector<Point>());
    const double reach = std::max(2.0, 1.5 * in_mm(step.width));
    if (std::erase_if(places, [&](Point share) { return distance(place_of(share, box), at) < reach; }) == 0)
        places.push_back(share_of(at, box));
    step.at = places_text(places);
    return true;
}

bool mend(StencilStep& step, const Finding& finding, const InkReport*) {
    using Webs = StencilStep::Webs;
    if (finding.remedy.code == "stencil.widen") return step.webs = Webs::widened, true;
    if (finding.remedy.code == "stencil.spread") return step.webs = Webs::spread, true;
    if (finding.remedy.code == "stencil.thin") return step.webs = Webs::thinned, true;
    if (finding.remedy.code == "stencil.margin") return step.margin = mm(margin_for(step)), true;
    if (finding.remedy.code != "stencil.narrower") return false;
    step.width = std::max(mm(0.1), step.width * 0.7);
    return true;
}

} // namespace dotlane
