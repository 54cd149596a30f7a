// What lies on sheets: moved, turned, mirrored, copied, taken off, by commands. That window and command line
// give the same is in tests/gui/same_test.cpp; lining up and spreading are in
// tests/core/sheets/arrange_test.cpp.
#include "core/commands/arranging.h"

#include "core/project/edits.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// A crooked shape on a sheet, some of it placed at random.
struct Lot {
    explicit Lot(Random& random, int n)
        : b(bench("<path d='M0 0H37V11L20 29H4Z' fill='none' stroke='#111'/>", 100, 100, false)) {
        for (int i = 0; i < n; ++i)
            ids.push_back(must(place(b.project, b.sheet,
                                     {{},
                                      b.part,
                                      mm(random.real(10, 200)),
                                      mm(random.real(10, 200)),
                                      degrees(random.real(-180, 180)),
                                      random.coin()})));
    }
    std::vector<Lying> lie(const std::vector<PlacementId>& of) const {
        return lying(b.project, *b.derive(), of);
    }
    /// Corners of the shape where they lie, in its own order.
    Polylines lines(PlacementId id) const {
        const auto d = b.derive();
        const Lying one = lie({id}).front();
        return transformed(d->part(b.part)->lines.front().contours,
                           placement_transform(one.placement, one.extent));
    }
    template<class Command>
    Result<Done> give(const Command& command) {
        if constexpr (requires { apply(command, b.project); })
            return apply(command, b.project);
        else
            return apply(command, b.project, catalog(), *b.derive());
    }
    Bench b;
    std::vector<PlacementId> ids;
};

/// The same points, one by one.
void check_moved(const Polylines& was, const Polylines& is, const Affine& by) {
    REQUIRE(was.size() == is.size());
    for (std::size_t i = 0; i < was.size(); ++i)
        for (std::size_t j = 0; j < was[i].points.size(); ++j)
            CHECK(distance(by(was[i].points[j]), is[i].points[j]) < 1e-9);
}

} // namespace

TEST_CASE(
    "what lies on a sheet moves, turns and mirrors as one, whatever its turn: rigidly, by plane geometry") {
    Random random("arranging");
    INFO("seed " << random.seed());
    for (int round = 0; round < 5; ++round) {
        Lot lot(random, 4);
        must(group_placements(lot.b.project, {lot.ids[0], lot.ids[1]}));
        // The group goes along when one of it is named; the last stays.
        const std::vector<PlacementId> named{lot.ids[0], lot.ids[2]},
            moved{lot.ids[0], lot.ids[1], lot.ids[2]};
        std::map<PlacementId, Polylines> was;
        const auto compare = [&](const Result<Done>& done, const Affine& by) {
            REQUIRE(done);
            CHECK(done->placements == moved);
            for (const PlacementId id : moved)
                check_moved(was[id], lot.lines(id), by);
            check_moved(was[lot.ids[3]], lot.lines(lot.ids[3]), Affine{});
        };
        const auto keep = [&] {
            for (const PlacementId id : lot.ids)
                was[id] = lot.lines(id);
            return box_of(lot.lie(moved)).centre();
        };
        (void)keep();
        const double right = random.real(-30, 30), down = random.real(-30, 30);
        compare(lot.give(ShiftPlaced{{named}, mm(right), mm(down)}), Affine::translation({right, down}));
        Point c = keep();
        const Angle turn = degrees(random.real(-200, 200));
        compare(lot.give(TurnPlaced{{named}, turn}), Affine::translation(c) *
                                                         Affine::rotation(in_radians(turn)) *
                                                         Affine::translation(Point{} - c));
        c = keep();
        compare(lot.give(MirrorPlaced{{named}}),
                Affine::translation(c) * Affine::scaling(-1, 1) * Affine::translation(Point{} - c));
    }
}

TEST_CASE("one that lies there is placed by numbers: its box, its turn about its middle, mirrored as seen") {
    Random random("one placed");
    INFO("seed " << random.seed());
    for (int round = 0; round < 10; ++round) {
        Lot lot(random, 1);
        const PlacementId id = lot.ids.front();
        const Box before = lot.lie({id}).front().box;
        const double left = random.real(0, 100);
        must(lot.give(ChangePlaced{id, mm(left)}));
        Box now = lot.lie({id}).front().box;
        CHECK(now.x0 == Approx(left));
        CHECK(now.y0 == Approx(before.y0));
        const double turn = random.real(-180, 180);
        must(lot.give(ChangePlaced{id, {}, {}, degrees(turn)}));
        CHECK(in_degrees(lot.lie({id}).front().placement.turn) == Approx(turn));
        CHECK(distance(lot.lie({id}).front().box.centre(), now.centre()) < 1e-9);
        const Polylines was = lot.lines(id);
        const Point c = lot.lie({id}).front().box.centre();
        const bool mirrored = lot.lie({id}).front().placement.mirrored;
        must(lot.give(ChangePlaced{id, {}, {}, {}, mirrored})); // it is already
        check_moved(was, lot.lines(id), Affine{});
        must(lot.give(ChangePlaced{id, {}, {}, {}, !mirrored}));
        check_moved(was, lot.lines(id),
                    Affine::translation(c) * Affine::scaling(-1, 1) * Affine::translation(Point{} - c));
    }
}

TEST_CASE(
    "a grid has as many as it says, the first is the one that lies there, and what is taken off is gone") {
    Random random("grid of one");
    INFO("seed " << random.seed());
    Lot lot(random, 2);
    const int columns = random.whole(1, 5), rows = random.whole(2, 4);
    const Box first = lot.lie({lot.ids[0]}).front().box;
    const Done made = must(lot.give(CopyInGrid{lot.ids[0], {columns, rows, mm(3)}}));
    REQUIRE(made.placements.size() == static_cast<std::size_t>(columns * rows));
    CHECK(made.placements.front() == lot.ids[0]);
    Box all;
    for (const Lying& one : lot.lie(made.placements))
        all.add(one.box);
    CHECK(all.width() == Approx(columns * (first.width() + 3) - 3));
    CHECK(all.height() == Approx(rows * (first.height() + 3) - 3));
    CHECK(all.x0 == Approx(first.x0));
    must(lot.give(TakeOff{{made.placements}}));
    CHECK(find(lot.b.project, lot.b.sheet)->placements.size() == 1);
    CHECK(find_placement(lot.b.project, lot.ids[1]));
}

TEST_CASE("arranging what is not there changes nothing and says so") {
    Random random("not there");
    Lot lot(random, 2);
    const Project before = lot.b.project;
    const auto code = [](const Result<Done>& done) { return done ? std::string() : done.error().code; };
    const PlacementId none{9999};
    CHECK(code(lot.give(ShiftPlaced{{{lot.ids[0], none}}, mm(1), mm(1)})) == "place.missing");
    CHECK(code(lot.give(ShiftPlaced{})) == "place.missing");
    CHECK(code(lot.give(TakeOff{{{none}}})) == "place.missing");
    CHECK(code(lot.give(LineUp{{lot.ids}, Frame::lead, none, Across::left})) == "place.missing");
    CHECK(code(lot.give(ChangePlaced{none, mm(1)})) == "place.missing");
    CHECK(code(lot.give(ChangePlaced{lot.ids[0], mm(2e6)})) == "place.range");
    CHECK(code(lot.give(CopyInGrid{lot.ids[0], {0, 3}})) == "place.range");
    CHECK(code(lot.give(GroupPlaced{{{lot.ids[0]}}})) == "place.group");
    CHECK(code(lot.give(Spread{{lot.ids}})) == "arrange.few");
    CHECK(lot.b.project == before);
    const SheetId other = add_sheet(lot.b.project, "other", "", "");
    const PlacementId there = must(place(lot.b.project, other, {{}, lot.b.part, mm(5), mm(5)}));
    CHECK(code(lot.give(MirrorPlaced{{{lot.ids[0], there}}})) == "place.sheets");
    CHECK(code(lot.give(LineUp{{{there}}, Frame::stock, {}, Across::left})) == "place.missing");
    // The recipe makes other pieces now.
    Project& p = lot.b.project;
    find(p, lot.b.sheet)->placements.front().piece = 7;
    CHECK(code(lot.give(TurnPlaced{{{lot.ids[0]}}, degrees(90)})) == "place.piece");
}
