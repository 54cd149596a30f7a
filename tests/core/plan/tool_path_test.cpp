#include "core/plan/tool_path.h"

#include <numbers>

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

Stroke stroke_from(Polyline line) {
    Stroke out;
    static_cast<Polyline&>(out) = std::move(line);
    return out;
}

double off_line(const Polyline& line, Point p) {
    return distance_to(line, p);
}

/// The tip of a knife that hangs a trail behind its axis and is dragged along: at each moment it can only go
/// towards the axis (a tractrix). Lifted, it keeps its heading.
class Knife {
  public:
    explicit Knife(double trail)
        : trail_(trail) {}
    std::vector<Point> cut(const Polyline& axis) {
        std::vector<Point> tip;
        Point at = axis.points.front();
        tip.push_back(at - heading_ * trail_);
        for (std::size_t i = 1; i < axis.points.size(); ++i) {
            const Point to = axis.points[i];
            const int steps = std::max(1, static_cast<int>(distance(axis.points[i - 1], to) / 0.002));
            for (int k = 1; k <= steps; ++k) {
                at = mix(axis.points[i - 1], to, static_cast<double>(k) / steps);
                const Point pull = at - tip.back();
                heading_ = pull * (1 / length(pull));
                tip.push_back(at - heading_ * trail_);
            }
        }
        return tip;
    }

  private:
    double trail_;
    Point heading_{1, 0};
};

} // namespace

TEST_CASE("the tip of a drag knife cuts the line, corners and all, when it is dragged along the axis's way") {
    Random random("drag knife");
    for (int round = 0; round < 30; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        const double trail = random.real(0.1, 0.6);
        std::vector<Stroke> strokes;
        std::vector<Polyline> wanted;
        for (int n = 0; n < 4; ++n) {
            Polyline line;
            switch (random.whole(0, 2)) {
            case 0:
                line = ring(random_ring(random, random.whole(3, 12), 5, 20, {40, 40}));
                break;
            case 1:
                line = ring(regular(random.whole(3, 90), random.real(4, 20), {20, 30}));
                break;
            default:
                for (int k = 0; k < 6; ++k)
                    line.points.push_back({random.real(0, 60), random.real(0, 60)});
            }
            wanted.push_back(line);
            strokes.push_back(stroke_from(std::move(line)));
        }
        const int repeats = random.whole(1, 2);
        as_carriage(strokes, {{}, mm(trail), {}}, repeats);
        Knife knife(trail);
        for (std::size_t s = 0; repeats > 1 && s < strokes.size(); ++s)
            (void)knife.cut(strokes[s]); // the first time it begins as it came; from then on as it ended
        for (std::size_t s = 0; s < strokes.size(); ++s) {
            CHECK_FALSE(strokes[s].closed);
            const std::vector<Point> tip = knife.cut(strokes[s]);
            // Bends of up to 3 degrees are left to the knife: there it is off by less than trail x sin(3),
            // and the swings go in steps of 12 degrees: trail x (1 - cos 6).
            double off = 0;
            for (const Point p : tip)
                off = std::max(off, off_line(wanted[s], p));
            CHECK(off < trail * (std::sin(3 * std::numbers::pi / 180) + 1 - std::cos(0.105)) + 0.004);
            const Polyline cut{tip, false};
            for (const Point corner : wanted[s].points)
                CHECK(off_line(cut, corner) < trail * 0.06 + 0.004);
        }
    }
}

TEST_CASE("a tip that touches beside its axis: the offset is taken off the path") {
    std::vector<Stroke> strokes{stroke_from(ring({{10, 10}, {20, 10}, {20, 20}})),
                                stroke_from(line({{1, 2}, {3, 4}}))};
    const auto before = strokes;
    as_carriage(strokes, {{1.2, -0.5}, {}, {}});
    for (std::size_t s = 0; s < strokes.size(); ++s)
        for (std::size_t p = 0; p < strokes[s].points.size(); ++p) {
            CHECK(strokes[s].points[p].x == Approx(before[s].points[p].x - 1.2));
            CHECK(strokes[s].points[p].y == Approx(before[s].points[p].y + 0.5));
        }
    CHECK(strokes[0].closed); // nothing else changes
}

TEST_CASE("overcut and lead-in lengthen the way, and leave no line") {
    Random random("overcut");
    for (int round = 0; round < 40; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        const Polyline closed = ring(random_ring(random, random.whole(3, 20), 4, 20)),
                       open = line({{0, 0}, {random.real(1, 9), 3}, {12, random.real(-9, 9)}});
        const double over = random.real(0.1, 10), in = random.real(0.1, 0.9);
        std::vector<Stroke> strokes{stroke_from(closed), stroke_from(open)};
        LineRun run;
        run.overcut = mm(over), run.lead_in = mm(in);
        as_carriage(strokes, {{}, {}, run});
        CHECK_FALSE(strokes[0].closed);
        CHECK(in_mm(length(static_cast<const Polyline&>(strokes[0]))) ==
              Approx(in_mm(length(closed)) + over + 2 * in));
        CHECK(in_mm(length(static_cast<const Polyline&>(strokes[1]))) ==
              Approx(in_mm(length(open)) + 2 * in));
        for (const Point p : strokes[0].points)
            CHECK(off_line(closed, p) < 1e-9);
        for (const Point p : strokes[1].points)
            CHECK(off_line(open, p) < 1e-9);
        CHECK(strokes[1].points.front() == open.points.front());
        CHECK(strokes[1].points.back() == open.points.back());
    }
    // A lead-in longer than the line: forth, back, and forth.
    std::vector<Stroke> strokes{stroke_from(line({{0, 0}, {1, 0}})), stroke_from(line({{5, 5}}))};
    LineRun run;
    run.lead_in = mm(20);
    as_carriage(strokes, {{}, {}, run});
    CHECK(in_mm(length(static_cast<const Polyline&>(strokes[0]))) == Approx(3));
    CHECK(strokes[1].points.size() == 1); // a dot is one
}

TEST_CASE("closed lines begin where it was wished, and their shape stays") {
    Random random("beginnings");
    for (int round = 0; round < 40; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        const Polylines lines{ring(random_ring(random, random.whole(3, 25), 4, 20)), line({{0, 0}, {5, 5}}),
                              ring({{0, 0}, {30, 0}, {30, 10}, {0, 10}})};
        for (const LineStart start : all_line_starts) {
            const Beginnings found = beginnings(lines, start);
            REQUIRE(found.lines.size() == lines.size());
            for (std::size_t i = 0; i < lines.size(); ++i) {
                CHECK(in_mm(length(found.lines[i])) == Approx(in_mm(length(lines[i]))));
                for (const Point p : lines[i].points)
                    CHECK(std::find(found.lines[i].points.begin(), found.lines[i].points.end(), p) !=
                          found.lines[i].points.end());
            }
            if (start == LineStart::anywhere) {
                CHECK(found.starts.empty());
                continue;
            }
            CHECK(found.starts[1].empty()); // an open one has two ends
            const RouteResult routed = route(found.lines, {{0, 0}}, no_progress(), found.starts);
            for (const RoutedLine& r : routed.order) {
                const Polyline& shape = found.lines[r.line];
                if (!shape.closed) continue;
                CHECK(std::find(found.starts[r.line].begin(), found.starts[r.line].end(), r.start) !=
                      found.starts[r.line].end());
                const Point begin = shape.points[r.start];
                const Box box = bounds(shape);
                if (start == LineStart::top) CHECK(begin.y == Approx(box.y0));
                if (start == LineStart::bottom) CHECK(begin.y == Approx(box.y1));
                if (start == LineStart::left) CHECK(begin.x == Approx(box.x0));
                if (start == LineStart::right) CHECK(begin.x == Approx(box.x1));
            }
        }
    }
    // Of a rectangle the middles of its long sides are off its corners, and of its topmost side the middle.
    const Polylines box{ring({{0, 0}, {30, 0}, {30, 10}, {0, 10}})};
    const Beginnings off = beginnings(box, LineStart::off_corners);
    REQUIRE(off.starts[0].size() == 2);
    CHECK(off.lines[0].points[off.starts[0][0]] == Point{15, 0});
    CHECK(off.lines[0].points[off.starts[0][1]] == Point{15, 10});
    const Beginnings top = beginnings(box, LineStart::top);
    CHECK(top.lines[0].points[top.starts[0][0]] == Point{15, 0});
    const Beginnings left = beginnings(box, LineStart::left); // its side runs over the end of the list
    CHECK(left.lines[0].points[left.starts[0][0]] == Point{0, 5});
    // A circle has no corners.
    CHECK(beginnings({ring(regular(60, 10))}, LineStart::off_corners).starts[0].empty());
}
