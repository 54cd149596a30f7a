// What must hold of every step whatever its lines are: identities of areas and lengths, on random shapes. The
// identities are facts of plane geometry; no figure is taken from the program itself.
#include <numbers>

#include "core/base/text.h"
#include "core/commands/making.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

std::string path_of(const Ring& ring) {
    std::string d;
    for (const Point p : ring)
        d += (d.empty() ? "M" : " L") + number(p.x, 6) + "," + number(p.y, 6);
    return "<path d='" + d + " Z' fill='none' stroke='#111'/>";
}

/// One to three stars that may overlap, each in a line set of its own.
struct Stars {
    Bench b;
    std::vector<LineSetId> sets;

    explicit Stars(Random& random, int count)
        : b(bench(elements(random, count), 300, 300)) {
        for (const LineId line : b.lines())
            sets.push_back(must(gather(b.project, b.part, {line}, "star")));
    }
    static std::string elements(Random& random, int count) {
        std::string out;
        for (int i = 0; i < count; ++i)
            out += path_of(random_ring(random, random.whole(5, 30), 15, 40,
                                       {random.real(100, 160), random.real(100, 160)}));
        return out;
    }
    StepId add(StepWhat what, std::vector<LineSetId> of = {}, std::vector<LineSetId> by = {}) {
        return must(append_step(b.project, catalog(), b.part, std::move(what), std::move(of), std::move(by)));
    }
    const EvaluatedPart& part() {
        derived_ = b.derive();
        return *derived_->part(b.part);
    }
    LineSetId result(StepId step) { return find(*find(b.project, b.part), step)->result; }
    Region region(LineSetId set) {
        std::vector<Region> all;
        for (const FlatLine& line : part().lines)
            if (line.set == set) all.push_back(region_of(line.contours, line.rule, line.filled));
        return united(all);
    }
    double square(LineSetId set) { return area_of(region(set)); }
    Polylines lines(LineSetId set) {
        Polylines out;
        for (const FlatLine& line : part().lines)
            if (line.set == set) out.insert(out.end(), line.contours.begin(), line.contours.end());
        return out;
    }

  private:
    std::shared_ptr<const Derived> derived_;
};

/// How much two areas differ, mm2.
double difference(const Region& a, const Region& b) {
    return area_of(subtracted(a, b)) + area_of(subtracted(b, a));
}

/// Each vertex of a region may move by the grid: its perimeter times a few steps of 1/100,000 mm.
double slack(const Region& region) {
    return in_mm(perimeter(region)) * 5e-5 + 1e-4;
}

} // namespace

TEST_CASE("mirroring twice, four quarter turns and half of double give back what was") {
    Random random("identities: motions");
    INFO("seed " << random.seed());
    for (int round = 0; round < 12; ++round) {
        Stars s(random, 2);
        const Region before = s.region(s.sets[0]);
        const auto way = random.coin() ? MirrorStep::Way::left_right : MirrorStep::Way::top_bottom;
        s.add(MirrorStep{way}, {s.sets[0]});
        const Region once = s.region(s.sets[0]);
        CHECK(area_of(once) == Approx(area_of(before)).epsilon(1e-6));
        CHECK(bounds(once).width() == Approx(bounds(before).width()));
        s.add(MirrorStep{way}, {s.sets[0]});
        CHECK(difference(s.region(s.sets[0]), before) < slack(before));
        for (int i = 0; i < 4; ++i)
            s.add(TurnStep{degrees(90)}, {s.sets[0]});
        CHECK(difference(s.region(s.sets[0]), before) < slack(before));
        ResizeStep by;
        by.by = ResizeStep::By::percent, by.percent = 200;
        s.add(by, {s.sets[0]});
        CHECK(s.square(s.sets[0]) == Approx(4 * area_of(before)).epsilon(1e-6));
        by.percent = 50;
        s.add(by, {s.sets[0]});
        CHECK(difference(s.region(s.sets[0]), before) < slack(before));
    }
}

TEST_CASE("what is cut away and what is kept of a shape make the shape again") {
    Random random("identities: cut out");
    INFO("seed " << random.seed());
    for (int round = 0; round < 20; ++round) {
        Stars s(random, 2);
        const Region a = s.region(s.sets[0]), b = s.region(s.sets[1]);
        const StepId cut = s.add(CutOutStep{}, {s.sets[0]}, {s.sets[1]});
        const Region rest = s.region(s.sets[0]);
        Step overlap = *find(*find(s.b.project, s.b.part), cut);
        std::get<CutOutStep>(overlap.what).keep = CutOutStep::Keep::overlap;
        must(change_step(s.b.project, s.b.part, overlap));
        const Region common = s.region(s.sets[0]);
        CHECK(area_of(rest) + area_of(common) == Approx(area_of(a)).margin(slack(a)));
        CHECK(area_of(intersected(rest, common)) < slack(a));
        CHECK(difference(united(rest, common), a) < 2 * slack(a));
        CHECK(area_of(subtracted(common, b)) < slack(b));     // what they share lies in both
        CHECK(difference(s.region(s.sets[1]), b) < slack(b)); // the other stays as it was
        // |A| + |B| = |A or B| + |A and B|
        CHECK(area_of(united(a, b)) + area_of(common) ==
              Approx(area_of(a) + area_of(b)).margin(2 * slack(a)));
    }
}

TEST_CASE("joining once is joining twice, and loses nothing") {
    Random random("identities: join");
    INFO("seed " << random.seed());
    for (int round = 0; round < 15; ++round) {
        Stars s(random, 3);
        std::vector<Region> each;
        for (const LineSetId set : s.sets)
            each.push_back(s.region(set));
        const Region whole = united(each);
        s.add(JoinStep{}, s.sets);
        const auto all = [&] {
            std::vector<Region> now;
            for (const LineSetId set : s.sets)
                now.push_back(s.region(set));
            return united(now);
        };
        const Region joined = all();
        CHECK(difference(joined, whole) < slack(whole));
        s.add(JoinStep{}, s.sets);
        CHECK(difference(all(), joined) < slack(joined));
    }
}

TEST_CASE("holes are filled once and for all, and nothing outside them changes") {
    Random random("identities: holes");
    INFO("seed " << random.seed());
    for (int round = 0; round < 15; ++round) {
        // A ring: one star out of a disc around it.
        Bench b = bench(
            "<path fill-rule='evenodd' d='M150,100 a50,50 0 1 0 0.01,0 z " +
                [&] {
                    std::string d;
                    for (const Point p : random_ring(random, random.whole(3, 12), 5, 30, {150, 150}))
                        d += (d.empty() ? "M" : " L") + number(p.x, 6) + "," + number(p.y, 6);
                    return d + " Z";
                }() +
                "' fill='#111'/>",
            300, 300);
        const LineSetId set = find(b.project, b.part)->sets.front().id;
        const auto region = [&] {
            std::vector<Region> all;
            const auto d = b.derive();
            for (const FlatLine& line : d->part(b.part)->lines)
                if (line.set == set) all.push_back(region_of(line.contours, line.rule, line.filled));
            return united(all);
        };
        const Region ring = region();
        REQUIRE(hole_count(ring) == 1);
        must(append_step(b.project, catalog(), b.part, FillHolesStep{}, {set}));
        const Region filled = region();
        CHECK(hole_count(filled) == 0);
        CHECK(area_of(subtracted(ring, filled)) < slack(ring));
        CHECK(area_of(filled) == Approx(std::numbers::pi * 2500).epsilon(1e-3)); // chords within 0.01 mm
        must(append_step(b.project, catalog(), b.part, FillHolesStep{}, {set}));
        CHECK(difference(region(), filled) < slack(filled));
    }
}

TEST_CASE("outlines: as far away as they say, each within the next, and in and out again within the shape") {
    Random random("identities: outline");
    INFO("seed " << random.seed());
    for (int round = 0; round < 8; ++round) {
        Stars s(random, 1);
        const Region shape = s.region(s.sets[0]);
        OutlineStep by;
        const double d = random.real(0.5, 6);
        by.distance = mm(d), by.outer_only = false;
        const LineSetId near = s.result(s.add(by, s.sets));
        const Region grown = s.region(near);
        CHECK(area_of(subtracted(shape, grown)) < slack(shape));
        // No vertex is nearer to the shape than d, or farther (round corners: chords within 0.005 mm).
        for (const Ring& ring : grown.rings)
            for (const Point p : ring) {
                double least = 1e9;
                for (const Ring& edge : shape.rings)
                    for (std::size_t i = 0; i < edge.size(); ++i)
                        least = std::min(least, distance_to_segment(p, edge[i], edge[(i + 1) % edge.size()]));
                CHECK(least == Approx(d).margin(0.006));
            }
        by.distance = mm(d + 2);
        CHECK(area_of(subtracted(grown, s.region(s.result(s.add(by, s.sets))))) < slack(grown));
        // Shrunk and grown again it lies in the shape (an opening); grown and shrunk again around it (a
        // closing).
        by.distance = mm(-d);
        const LineSetId inner = s.result(s.add(by, s.sets));
        by.distance = mm(d);
        if (!s.region(inner).empty()) {
            const Region opened = s.region(s.result(s.add(by, {inner})));
            CHECK(area_of(subtracted(opened, shape)) < in_mm(perimeter(opened)) * 0.006);
        }
        by.distance = mm(-d);
        const Region closed = s.region(s.result(s.add(by, {near})));
        CHECK(area_of(subtracted(shape, closed)) < in_mm(perimeter(shape)) * 0.011); // both ways by 0.005 mm
    }
}

TEST_CASE("copies have as many times the area and length, dashes the share that is drawn") {
    Random random("identities: copies and dashes");
    INFO("seed " << random.seed());
    for (int round = 0; round < 5; ++round) {
        Stars s(random, 1);
        const double one = s.square(s.sets[0]), edge = in_mm(length(s.lines(s.sets[0])));
        CopiesStep copies;
        copies.columns = random.whole(1, 5), copies.rows = random.whole(1, 4);
        s.add(copies, s.sets);
        const int n = copies.columns * copies.rows;
        CHECK(s.square(s.sets[0]) == Approx(n * one).epsilon(1e-5));
        CHECK(in_mm(length(s.lines(s.sets[0]))) == Approx(n * edge).epsilon(1e-6));
        DashStep dash;
        dash.dash = mm(random.real(1, 5)), dash.gap = mm(random.real(0.5, 3));
        s.add(dash, s.sets);
        const Polylines dashes = s.lines(s.sets[0]);
        // Around a closed line there are as many gaps as dashes; the gap is stretched so that it comes out
        // even.
        const double drawn = in_mm(length(dashes));
        CHECK(drawn == Approx(in_mm(dash.dash) * static_cast<double>(dashes.size())).epsilon(1e-6));
        const double gap = (n * edge - drawn) / static_cast<double>(dashes.size());
        const double period = in_mm(dash.dash) + in_mm(dash.gap);
        CHECK(std::abs(gap - in_mm(dash.gap)) <=
              period * period / edge + 1e-6); // less than one dash is shared out
    }
}

TEST_CASE("cleaning twice is cleaning once, and what is as it should be stays") {
    Random random("identities: clean");
    INFO("seed " << random.seed());
    for (int round = 0; round < 12; ++round) {
        Stars s(random, 2);
        CleanStep none;
        none.least_size = none.least_width = none.simplify = none.close = {}, none.doubled = false;
        const Region before = s.region(s.sets[0]);
        s.add(none, s.sets);
        CHECK(difference(s.region(s.sets[0]), before) < slack(before));
        CleanStep clean;
        clean.least_width = mm(random.real(0, 3)), clean.simplify = mm(random.real(0, 0.5));
        s.add(clean, s.sets);
        const Region once = s.region(s.sets[0]);
        // Necks are opened away: what is left lies in what was (corners come back within the flatness of
        // arcs, and a point that is dropped moves the line by as much as it says).
        CHECK(area_of(subtracted(once, before)) < in_mm(perimeter(before)) * (in_mm(clean.simplify) + 0.02));
        s.add(clean, s.sets);
        CHECK(difference(s.region(s.sets[0]), once) <
              in_mm(perimeter(before)) * (in_mm(clean.simplify) + 0.02) + 1e-3);
    }
}
