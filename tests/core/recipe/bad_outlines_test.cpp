// Outlines that nobody meant: they cross themselves, lie on one another, nearly touch, are open, tiny or
// larger than any sheet. Every step of fabric, stencils, layers and folds says what is wrong, or does its
// work; none hangs, and nothing is lost.
#include <cmath>

#include "tests/support/recipe.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

std::string path(const std::string& d) {
    return "<path fill='none' stroke='#111' d='" + d + "'/>";
}

const std::vector<std::pair<const char*, std::string>>& outlines() {
    static const std::vector<std::pair<const char*, std::string>> all = {
        {"crosses itself", path("M10,10 L60,60 L60,10 L10,60 z")},
        {"no area", path("M10,10 L60,10 L110,10 z")},
        {"doubled", rect(10, 10, 40, 40) + rect(10, 10, 40, 40) + rect(10, 10, 40, 40)},
        {"nearly touch", rect(10, 10, 40, 40) + rect(50.001, 10, 40, 40)},
        {"one within another by a hair", rect(10, 10, 40, 40) + rect(10.001, 10.001, 39.998, 39.998)},
        {"open", path("M10,10 L60,10 L60,60")},
        {"a point", path("M10,10 L10,10")},
        {"tiny", rect(10, 10, 0.01, 0.01)},
        {"absurdly large", rect(0, 0, 9000, 9000) + rect(4000, 4000, 500, 500)},
        {"a needle", path("M10,10 L150,10.2 L10,10.4 z")},
        {"teeth",
         [] {
             std::string d = "M10,100";
             for (int i = 0; i < 400; ++i)
                 d += " L" + std::to_string(10 + i * 0.4) + "," + std::to_string(i % 2 == 0 ? 20 : 90);
             return path(d + " L180,100 z");
         }()},
    };
    return all;
}

std::vector<StepWhat> steps() {
    PatchStep turned, map, wide;
    turned.edge = PatchStep::Edge::turned;
    map.lines = PatchStep::Lines::map, map.tack = PatchStep::Tack::zigzag;
    wide.edge = PatchStep::Edge::turned, wide.allowance = mm(100), wide.underlap = mm(100);
    SeamStep seam, far;
    far.allowance = mm(100), far.limit = 20;
    StencilStep stencil, bridged, spread, thinned;
    stencil.webs = StencilStep::Webs::widened, stencil.holes = mm(4);
    spread.webs = StencilStep::Webs::spread, thinned.webs = StencilStep::Webs::thinned;
    bridged.width = mm(100), bridged.bridges = 24;
    PointsStep along, over;
    over.over = PointsStep::Over::areas;
    HingeStep hinge;
    PopUpStep box, beak;
    beak.form = PopUpStep::Form::v;
    ReliefStep relief;
    relief.edges = true;
    WeedStep weed;
    weed.small = mm(3);
    PrintStep print;
    return {turned,        map,
            wide,          seam,
            far,           stencil,
            bridged,       spread,
            thinned,       along,
            over,          hinge,
            box,           beak,
            relief,        weed,
            print,         KnockOutStep{},
            BackingStep{}, RegistrationStep{}};
}

} // namespace

TEST_CASE("steps of fabric, stencils, layers and folds bear every outline") {
    std::size_t worked = 0, refused = 0;
    for (const auto& [what, elements] : outlines())
        for (const StepWhat& step : steps()) {
            INFO(what << ", " << kind_of(step).key);
            Recipe r(elements);
            const std::size_t before = find(r.b.project, r.b.part)->source.drawing->lines.size();
            const StepId id = r.add(step, {r.set()});
            const EvaluatedPart& part = r.part();
            const StepReport& report = *part.reports.at(id);
            (report.refused.empty() ? worked : refused) += 1;
            if (!report.refused.empty()) // it is told, at its step
                CHECK(std::any_of(part.findings.begin(), part.findings.end(),
                                  [&](const Finding& f) { return f.place.step == id; }));
            for (const FlatLine& line : part.lines)
                for (const Polyline& contour : line.contours)
                    for (const Point p : contour.points)
                        REQUIRE(
                            (std::abs(p.x) < 2e4 && std::abs(p.y) < 2e4)); // finite, and on Clipper's grid
            for (const Figure& figure : report.figures)
                CHECK(std::isfinite(figure.value));
            for (const Finding& finding : report.findings)
                CHECK_FALSE(finding.message.english().empty());
            // The drawing is what it was.
            CHECK(find(r.b.project, r.b.part)->source.drawing->lines.size() == before);
        }
    CHECK(worked > 80);
    CHECK(refused > 40);
}
