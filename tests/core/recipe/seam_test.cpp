// Seam allowances, notches that match, and the order in which a block is sewn.
#include <cmath>
#include <numbers>

#include "core/base/text.h"
#include "core/recipe/sewing_order.h"
#include "tests/support/recipe.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

std::string polygon(const std::vector<Point>& points) {
    std::string out = "<path fill='none' stroke='#111' d='M";
    for (const Point p : points)
        out += number(p.x, 6) + "," + number(p.y, 6) + " ";
    return out + "z'/>";
}

/// Three strips side by side.
std::string strips() {
    return rect(10, 10, 30, 80) + rect(40, 10, 20, 80) + rect(60, 10, 40, 80);
}

} // namespace

TEST_CASE("an allowance lies around every piece, corners true, and pieces are moved apart") {
    Recipe r(strips());
    SeamStep step;
    step.allowance = mm(6), step.apart = mm(5);
    const StepId id = r.add(step, {r.set()});
    const auto cut = r.lines_of(r.result(id)), sewn = r.lines_of(r.of_role(id, role::sewing));
    REQUIRE(cut.size() == 3);
    REQUIRE(sewn.size() == 3);
    for (std::size_t i = 0; i < 3; ++i) {
        CHECK(cut[i].box.width() == Approx(sewn[i].box.width() + 12));
        CHECK(cut[i].box.height() == Approx(92));
        const double square = in_square_mm(area(region_of(cut[i].contours, cut[i].rule)));
        CHECK(square == Approx(cut[i].box.width() * 92)); // whole corners
        for (std::size_t k = i + 1; k < 3; ++k)
            CHECK(gap(cut[i].box, cut[k].box) >= 5 - 0.05);
    }
    // As near as they may be: some two of them are just the gap apart.
    double nearest = 1e9;
    for (std::size_t i = 0; i < 3; ++i)
        for (std::size_t k = i + 1; k < 3; ++k)
            nearest = std::min(nearest, gap(cut[i].box, cut[k].box));
    CHECK(nearest < 6);
    CHECK(r.figure(id, "seams") == 2);
    CHECK(r.figure(id, "seam_length") == Approx(160).margin(0.5));
    step.apart = mm(0);
    Recipe stays(strips());
    const StepId there = stays.add(step, {stays.set()});
    CHECK(stays.lines_of(stays.of_role(there, role::sewing))[0].box.x0 == Approx(10));
}

TEST_CASE("notches of neighbours match by their length along both seams") {
    Random random("notches");
    for (int round = 0; round < 12; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        // Two pieces with a crooked seam between them, drawn by different hands: the second from below.
        std::vector<Point> seam;
        for (int i = 0; i <= 6; ++i)
            seam.push_back({60 + random.real(-8, 8), 10 + i * 25.0});
        std::vector<Point> left = seam, right(seam.rbegin(), seam.rend());
        left.push_back({10, 160}), left.push_back({10, 10});
        right.push_back({120, 10}), right.push_back({120, 160});
        Recipe r(polygon(left) + polygon(right));
        SeamStep step;
        step.apart = mm(0), step.notches_apart = mm(random.real(20, 60));
        const StepId id = r.add(step, {r.set()});
        const double whole = in_mm(length(Polyline{seam, false}));
        // As many as the spacing goes into the seam, whose ends the tolerance of touching moves a little.
        const auto count = static_cast<std::size_t>(r.figure(id, "notches"));
        const auto goes = [&](double length) {
            return static_cast<std::size_t>(std::max(1.0, std::floor(length / in_mm(step.notches_apart))));
        };
        CHECK(count >= goes(whole - 0.3));
        CHECK(count <= goes(whole + 0.3));
        const auto slits = r.lines_of(r.of_role(id, role::clip));
        REQUIRE(slits.size() == 2 * count);
        // Where the slits' lines meet the seam, measured along it from its upper end.
        std::vector<double> along;
        for (const FlatLine& slit : slits) {
            const Polyline& line = slit.contours.front();
            // Half an allowance deep, from the edge of the cloth.
            CHECK(in_mm(length(line)) <= in_mm(step.allowance) * 0.5 + 0.06);
            // It ends half an allowance before the seam, and points at its place there.
            const bool second = distance_to(Polyline{seam, false}, line.points[0]) >
                                distance_to(Polyline{seam, false}, line.points[1]);
            const Point end = line.points[second ? 1 : 0], from = line.points[second ? 0 : 1];
            const Point inner = end + (end - from) * (in_mm(step.allowance) * 0.5 / distance(end, from));
            double passed = 0, best = 1e9, at = 0;
            for (std::size_t i = 0; i + 1 < seam.size(); ++i) {
                const Point d = seam[i + 1] - seam[i];
                const double l = length(d), t = std::clamp(dot(inner - seam[i], d) / (l * l), 0.0, 1.0);
                if (const double off = distance(inner, mix(seam[i], seam[i + 1], t)); off < best)
                    best = off, at = passed + t * l;
                passed += l;
            }
            along.push_back(at);
        }
        std::sort(along.begin(), along.end());
        for (std::size_t i = 0; i + 1 < along.size(); i += 2)
            CHECK(along[i + 1] - along[i] < 0.1); // the same place of both
        for (std::size_t i = 0; i < count; ++i)   // even: in the middle of as many stretches
            CHECK(along[2 * i] ==
                  Approx(whole * (2.0 * static_cast<double>(i) + 1) / (2.0 * static_cast<double>(count)))
                      .margin(0.2));
    }
}

TEST_CASE("a block is sewn in an order in which every seam is one straight line, where there is one") {
    // A square in a square: the middle first, then its four triangles in any order.
    const std::vector<Point> middle{{50, 10}, {90, 50}, {50, 90}, {10, 50}};
    std::string block;
    const Point corners[] = {{90, 10}, {90, 90}, {10, 90}, {10, 10}};
    for (std::size_t i = 0; i < 4; ++i) // the middle is drawn last
        block += polygon({middle[i], corners[i], middle[(i + 1) % 4]});
    Recipe r(block + polygon(middle));
    const StepId id = r.add(SeamStep{}, {r.set()});
    const auto told = [&](Recipe& of) {
        const auto& findings = of.part().findings;
        return std::any_of(findings.begin(), findings.end(),
                           [](const Finding& f) { return f.code == "seam.sections"; });
    };
    CHECK_FALSE(told(r));
    // Two triangles on opposite sides do not meet, so one of the first two pieces is the middle.
    const auto cut = r.lines_of(r.of_role(id, role::sewing));
    REQUIRE(cut.size() == 5);
    CHECK((cut[0].contours[0].points.size() == 4 || cut[1].contours[0].points.size() == 4));
    // A pinwheel around a square (each blade passes its neighbour) cannot be.
    Recipe wheel(rect(40, 40, 20, 20) + rect(20, 20, 40, 20) + rect(60, 20, 20, 40) + rect(40, 60, 40, 20) +
                 rect(20, 40, 20, 40));
    wheel.add(SeamStep{}, {wheel.set()});
    CHECK(told(wheel));
    // A four-patch can be drawn on paper only in sections: its last piece meets two sides.
    Recipe four(rect(20, 20, 30, 30) + rect(50, 20, 30, 30) + rect(20, 50, 30, 30) + rect(50, 50, 30, 30));
    four.add(SeamStep{}, {four.set()});
    CHECK(told(four));
}

TEST_CASE("orders of random log cabins are straight, checked against every piece before") {
    // Strips laid around a middle, each along the whole side of what is there: straight by construction.
    Random random("log cabins");
    for (int round = 0; round < 20; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        Box box{90, 90, 90 + random.real(5, 20), 90 + random.real(5, 20)};
        std::vector<Box> logs{box};
        const int count = random.whole(3, 14);
        for (int i = 0; i < count; ++i) {
            const double w = random.real(3, 6);
            const int side = random.whole(0, 3);
            Box log = box;
            if (side == 0) log.x1 = box.x0, log.x0 = box.x0 - w;
            if (side == 1) log.y1 = box.y0, log.y0 = box.y0 - w;
            if (side == 2) log.x0 = box.x1, log.x1 = box.x1 + w;
            if (side == 3) log.y0 = box.y1, log.y1 = box.y1 + w;
            box.add(log);
            logs.push_back(log);
        }
        for (std::size_t i = logs.size() - 1; i > 0; --i) // drawn in any order
            std::swap(logs[i], logs[static_cast<std::size_t>(random.whole(0, static_cast<int>(i)))]);
        std::string drawing;
        for (const Box& log : logs)
            drawing += rect(log.x0, log.y0, log.width(), log.height());
        Recipe r(drawing);
        SeamStep step;
        step.apart = mm(0);
        const StepId id = r.add(step, {r.set()});
        for (const Finding& f : r.part().findings)
            CHECK(f.code != "seam.sections");
        // What is sewn so far is a rectangle after every piece.
        Box sewn;
        double square = 0;
        for (const FlatLine& line : r.lines_of(r.of_role(id, role::sewing))) {
            sewn.add(line.box);
            square += line.box.width() * line.box.height();
            CHECK(sewn.width() * sewn.height() == Approx(square).epsilon(1e-3));
        }
    }
}

TEST_CASE("paper for sewing is drawn from behind, its numbers the right way round") {
    Recipe r(strips());
    SeamStep step;
    step.mirrored = true, step.apart = mm(0);
    const StepId id = r.add(step, {r.set()});
    CHECK(r.part().reports.at(id)->from_behind);
    const auto sewn = r.lines_of(r.of_role(id, role::sewing));
    // The widest strip lay on the right.
    double widest = 0, at = 0;
    for (const FlatLine& line : sewn)
        if (line.box.width() > widest) widest = line.box.width(), at = line.box.x0;
    CHECK(at == Approx(10));
}

TEST_CASE("pieces within pieces stay, and are told") {
    Recipe r(rect(10, 10, 80, 80) + rect(30, 30, 40, 40));
    r.add(SeamStep{}, {r.set()});
    const auto& findings = r.part().findings;
    CHECK(std::any_of(findings.begin(), findings.end(),
                      [](const Finding& f) { return f.code == "seam.overlap"; }));
}
