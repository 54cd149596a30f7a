// Findings of a single part: lines twice, gaps, thin pieces, parts too large for any stock.
#include "core/base/text.h"
#include "core/checks/part_checks.h"
#include "core/commands/remedies.h"

#include "core/commands/making.h"
#include "core/geometry/doubled.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("lines that lie on one another are found, whatever their direction, and one press keeps one") {
    Bench b = bench(
        "<path d='M10,10h40v20h-40z' fill='none' stroke='#111'/>"
        "<path d='M50,30v-20h-40v20z' fill='none' stroke='#111'/>"
        "<path d='M10,50h40' fill='none' stroke='#111'/><path d='M50,50h-40' fill='none' stroke='#111'/>"
        "<path d='M10,60h40' fill='none' stroke='#111'/>");
    const auto d = b.derive();
    const Finding& f = get(d->findings, "lines.doubled");
    CHECK(f.message.english().find("2 lines") == 0);
    CHECK(f.place.box.x0 == Approx(10).margin(0.01));
    must(apply(MendFinding{f}, b.project, catalog(), *d));
    CHECK_FALSE(has(b.derive()->findings, "lines.doubled"));
    CHECK(b.derive()->part(b.part)->lines.size() == 3);
    // The same line cut and drawn is another matter.
    Bench two = bench(
        "<path d='M10,50h40' fill='none' stroke='#111'/><path d='M10,50h40' fill='none' stroke='#a8462d'/>");
    CHECK(has(two.derive()->findings, "lines.two-lanes"));
    CHECK_FALSE(has(two.derive()->findings, "lines.doubled"));
}

TEST_CASE("doubles of thousands of coincident and of side by side lines are found quickly") {
    Polylines lines;
    for (int i = 0; i < 20000; ++i)
        lines.push_back({{{5, 5}, {9, 7}}, false}); // all the same
    for (int i = 0; i < 20000; ++i)
        lines.push_back({{{20, i * 0.1}, {30, i * 0.1}}, false}); // none the same, all from one left edge
    std::vector<const Polyline*> all;
    for (const Polyline& l : lines)
        all.push_back(&l);
    const auto doubles = doubles_of(all);
    CHECK(std::count_if(doubles.begin(), doubles.end(), [](auto d) { return d >= 0; }) == 19999);
}

TEST_CASE("gaps between ends of cut lines are measured, lines that are drawn may end where they like") {
    const char* open =
        "<path d='M10,10h40' fill='none' stroke='#111'/><path d='M50.15,10v30' fill='none' stroke='#111'/>"
        "<path d='M50.15,40h-20' fill='none' stroke='#111'/>";
    Bench b = bench(open);
    const LaneId cut =
        add_lane(b.project, {{}, Action::cut, "blade", catalog().first_tool(Action::cut)->id, {}, 1});
    must(assign(b.project, b.part, b.lines(), cut));
    const Finding f = get(b.derive()->findings, "lines.gaps");
    CHECK(f.message.english().find("1 gap of up to 0.15 mm") == 0);
    CHECK(f.place.box.x0 == Approx(50).margin(0.01));
    const LaneId draw = add_lane(b.project, {{}, Action::draw, "pen", "pen-0.4", {}, 1});
    must(assign(b.project, b.part, b.lines(), draw));
    CHECK_FALSE(has(b.derive()->findings, "lines.gaps"));
}

TEST_CASE("cut pieces thinner than a blade can leave are told, rings with walls that hold are not") {
    Bench b = bench("<rect x='10' y='10' width='40' height='0.5' fill='none' stroke='#111'/>"
                    "<rect x='10' y='20' width='40' height='5' fill='none' stroke='#111'/>");
    const auto d = b.derive();
    const Finding& f = get(d->findings, "piece.thin");
    CHECK(f.message.english().find("40 x 0.5 mm is nowhere wider than 0.5 mm") != std::string::npos);
    CHECK(f.place.box.y0 == Approx(10).margin(0.01)); // where it is
    must(apply(MendFinding{f}, b.project, catalog(), *d));
    CHECK_FALSE(has(b.derive()->findings, "piece.thin"));
    Bench ring = bench("<path d='M10,10h30v30h-30z M10.3,10.3v29.4h29.4v-29.4z' fill='#111'/>");
    CHECK(has(ring.derive()->findings, "piece.thin"));
    Bench wide = bench("<path d='M10,10h30v30h-30z M12,12v26h26v-26z' fill='#111'/>");
    CHECK_FALSE(has(wide.derive()->findings, "piece.thin"));
}

TEST_CASE("a cut-out that leaves a sliver, a neck and a crumb: each is told where it is, with a remedy that "
          "takes it away") {
    // A plate that holds; two plates with a neck of 0.3 mm between them; a dot of 1.5 mm2.
    Bench b = bench("<path d='M10,10h30v8h-30z' fill='none' stroke='#111'/><path "
                    "d='M60,10h20v9h10v-9h20v20h-20v-10.7h-10v10.7h-20z' fill='none' stroke='#111'/>"
                    "<circle cx='20' cy='60' r='0.69' fill='none' stroke='#111'/>",
                    120, 100);
    const auto told = [&](const char* code) {
        const auto d = b.derive();
        std::vector<Finding> out;
        for (const Finding& f : d->findings)
            if (f.code == code) out.push_back(f);
        return out;
    };
    REQUIRE(told("piece.neck").size() == 1);
    CHECK(plain_number(told("piece.neck")[0].args[0].second).value_or(-1) == Approx(0.3).margin(0.02));
    CHECK(told("piece.neck")[0].place.box.x0 == Approx(80).margin(0.5));
    REQUIRE(told("piece.small").size() == 1); // 1.5 mm2
    CHECK(told("piece.small")[0].place.box.x0 == Approx(19.31).margin(0.02));
    const auto d = b.derive();
    must(apply(MendFinding{told("piece.small")[0]}, b.project, catalog(), *d));
    CHECK(told("piece.small").empty());
    const auto now = b.derive();
    Finding neck = told("piece.neck")[0];
    REQUIRE(neck.remedy.code == "piece.thicken");
    REQUIRE(neck.more.size() == 1);
    const auto across = [&](const Project& project) {
        const auto derived = Workshop(catalog()).derive(std::make_shared<const Project>(project));
        CHECK_FALSE(has(derived->findings, "piece.neck"));
        return derived->part(project.parts[0].id)->box.x1;
    };
    const double before = now->part(b.project.parts[0].id)->box.x1;
    for (const Remedy& remedy : {neck.remedy, neck.more[0]}) {
        Project mended = b.project;
        neck.remedy = remedy;
        must(apply(MendFinding{neck}, mended, catalog(), *now));
        const bool thicker = remedy.code == "piece.thicken";
        // Half of what is missing on each side: (0.8 - 0.3) / 2, and a little more.
        CHECK(across(mended) == Approx(before + (thicker ? 0.28 : 0)).margin(0.02));
    }
}

TEST_CASE("a crumb is dropped alone: a rivet's hole of its size stays") {
    Bench b =
        bench("<g fill='none' stroke='#111'><rect x='10' y='10' width='60' height='40'/><circle cx='20' "
              "cy='20' r='0.75'/><circle cx='40' cy='30' r='6'/><circle cx='40' cy='30' r='0.7'/></g>");
    const auto d = b.derive();
    const Finding& f = get(d->findings, "piece.small"); // in the window of 12 mm
    CHECK(f.place.box.x0 == Approx(39.3).margin(0.01));
    must(apply(MendFinding{f}, b.project, catalog(), *d));
    const auto mended = b.derive();
    CHECK_FALSE(has(mended->findings, "piece.small"));
    REQUIRE(mended->part(b.part)->runs.size() == 1);
    CHECK(mended->part(b.part)->runs[0].lines.size() == 3);
}

TEST_CASE("a neck between two lines of a set is opened, one between two sets is told without a remedy") {
    const char* hole = "<rect x='10' y='10' width='60' height='40' fill='none' stroke='#111'/>"
                       "<rect x='20' y='10.4' width='20' height='20' fill='none' stroke='#111'/>";
    Bench b = bench(hole);
    auto d = b.derive();
    Finding f = get(d->findings, "piece.neck");
    REQUIRE(f.more.size() == 1);
    f.remedy = f.more[0];
    must(apply(MendFinding{f}, b.project, catalog(), *d));
    d = b.derive();
    CHECK_FALSE(has(d->findings, "piece.neck"));
    CHECK_FALSE(has(d->findings, "piece.thin"));
    Bench two = bench(hole);
    Part& part = two.project.parts[0];
    const LineId inner = part.sets[0].lines[1];
    must(gather(two.project, part.id, {inner}, "window"));
    REQUIRE(part.sets.size() == 2);
    d = two.derive();
    CHECK(get(d->findings, "piece.neck").remedy.code.empty());
}

TEST_CASE(
    "lines of different lanes are joined into the lane of the set that was named first, and it is said") {
    Bench b = bench("<rect x='10' y='10' width='30' height='20' fill='none' stroke='#111'/>"
                    "<circle cx='40' cy='20' r='8' fill='none' stroke='#a8462d'/>");
    Part& part = b.project.parts[0];
    REQUIRE(part.sets.size() == 2);
    for (const bool swapped : {false, true}) {
        Bench one = b;
        const LineSet &first = part.sets[swapped ? 1 : 0], &second = part.sets[swapped ? 0 : 1];
        must(add_step(one.project, part.id, {{}, true, {}, JoinStep{}, {first.id, second.id}}));
        const auto d = one.derive();
        const auto& runs = d->part(b.part)->runs;
        REQUIRE(runs.size() == 1);
        CHECK(runs[0].lane == first.lane);
        CHECK(bounds(runs[0].lines).x1 == Approx(48).margin(0.02));
        const Finding& f = get(d->findings, "join.lanes");
        CHECK(f.grade == Grade::caution);
        CHECK(f.message.english().find('"' + first.name + "\" runs") != std::string::npos);
    }
    must(assign(b.project, part.id, part.sets[1].lines, part.sets[0].lane));
    must(add_step(b.project, part.id, {{}, true, {}, JoinStep{}, {}}));
    CHECK_FALSE(has(b.derive()->findings, "join.lanes"));
}

TEST_CASE("marks beyond what is cut out are told: how far, on which side, with ways to bring them in") {
    Workshop workshop(catalog());
    const auto words_on = [&](double width, double height, const char* text, double wide) {
        Project p = workshop.new_project("x");
        Label label;
        label.edge = Label::Edge::plain, label.width = mm(width), label.height = mm(height);
        const PartId id = must(make_part(p, catalog(), workshop.fonts(), label));
        WordsStep words;
        words.lettering.text = text;
        words.lettering.kind = Lettering::Kind::strokes;
        words.lettering.sized_by = Lettering::SizedBy::width, words.lettering.size = mm(wide);
        must(append_step(p, catalog(), id, words, {}));
        return p;
    };
    const auto beyond = [&](const Project& p) { return workshop.derive(std::make_shared<Project>(p)); };
    Project p = words_on(60, 40, "with warm thanks", 95);
    auto d = beyond(p);
    const Finding f = get(d->findings, "marks.beyond");
    CHECK(f.grade == Grade::caution);
    CHECK(f.message.english().find("17.5 mm beyond") != std::string::npos); // (95 - 60) / 2
    CHECK(f.message.english().find("left and right") != std::string::npos);
    REQUIRE(f.remedy.code == "beyond.smaller");
    REQUIRE(f.more.size() == 1); // too long to be turned
    CHECK(f.more[0].code == "beyond.wrap");
    for (const Remedy& remedy : {f.remedy, f.more[0]}) {
        Project mended = p;
        Finding one = f;
        one.remedy = remedy;
        must(apply(MendFinding{one}, mended, catalog(), *d));
        INFO(remedy.code);
        CHECK_FALSE(has(beyond(mended)->findings, "marks.beyond"));
    }
    Project tall = words_on(40, 120, "thanks", 95);
    d = beyond(tall);
    Finding turn = get(d->findings, "marks.beyond");
    REQUIRE(turn.more.size() == 1);
    CHECK(turn.more[0].code == "beyond.turn");
    turn.remedy = turn.more[0];
    must(apply(MendFinding{turn}, tall, catalog(), *d));
    CHECK_FALSE(has(beyond(tall)->findings, "marks.beyond"));
    CHECK_FALSE(has(beyond(words_on(60, 40, "thanks", 50))->findings, "marks.beyond"));
    // A drawn line over the edge of a drawing's own outline, and one in a window: only the first.
    Bench b = bench("<path d='M10,10h60v40h-60z M20,20v20h20v-20z' fill='#111' fill-rule='evenodd'/>"
                    "<path d='M30,25h5' stroke='#a8462d' fill='none'/>");
    CHECK_FALSE(has(b.derive()->findings, "marks.beyond"));
    Bench over = bench("<path d='M10,10h60v40h-60z' fill='none' stroke='#111'/><path d='M50,30h28' "
                       "stroke='#a8462d' fill='none'/>");
    const auto od = over.derive();
    const Finding& o = get(od->findings, "marks.beyond");
    CHECK(o.message.english().find("8 mm beyond") != std::string::npos);
    CHECK(o.message.english().find("on the right") != std::string::npos);
}

TEST_CASE("a part larger than what the machine reaches of any stock is told while it is made") {
    Workshop workshop(catalog());
    Project project = workshop.new_project("x");
    Label label;
    label.edge = Label::Edge::plain, label.width = mm(610), label.height = mm(100);
    const PartId id = must(make_part(project, catalog(), workshop.fonts(), label));
    CHECK(has(workshop.derive(std::make_shared<Project>(project))->findings, "part.too-large"));
    label.width = mm(100), label.height = mm(605.8); // what the machine reaches of the long stock
    must(change_source(project, catalog(), workshop.fonts(), id, label));
    CHECK_FALSE(has(workshop.derive(std::make_shared<Project>(project))->findings, "part.too-large"));
}

TEST_CASE("lettering too small for its lane's tip is found, and one press makes it legible") {
    Workshop workshop(catalog());
    Project project = workshop.new_project("small");
    Lettering spec;
    spec.text = "Saltmarsh", spec.kind = Lettering::Kind::strokes, spec.font = "Roman simplex";
    spec.size = mm(1.5);
    must(make_part(project, catalog(), workshop.fonts(), spec));
    const auto derive = [&] { return workshop.derive(std::make_shared<Project>(project)); };
    auto d = derive();
    const Tool* tool = catalog().tool(project.lanes.front().tool);
    const Finding& small = get(d->findings, "text.small");
    CHECK(small.place.box.valid());
    must(apply(MendFinding{small}, project, catalog(), *d));
    CHECK(std::get<Lettering>(project.parts[0].source.spec).size == mm(5 * in_mm(tool->tip)));
    d = derive();
    CHECK_FALSE(has(d->findings, "text.small"));
    for (const Figure& f : d->part(project.parts[0].id)->figures)
        if (std::string_view(f.key) == "capitals") CHECK(f.value == Approx(5 * in_mm(tool->tip)));
    spec.text = "m", spec.sized_by = Lettering::SizedBy::width, spec.size = mm(1); // no number to set
    must(make_part(project, catalog(), workshop.fonts(), spec));
    CHECK(get(derive()->findings, "text.small").remedy.code.empty());
}

TEST_CASE("art beyond a badge's visible ring is told with its millimetres") {
    Workshop workshop(catalog());
    Project project = workshop.new_project("badge");
    const PartId part =
        must(make_part(project, catalog(), workshop.fonts(), Badge{})); // 37 seen, 2 kept free
    WordsStep words;
    words.lettering.text = "I", words.lettering.font = "Roman simplex", words.lettering.size = mm(30);
    const StepId step = must(append_step(project, catalog(), part, words, {}));
    const auto derive = [&] { return workshop.derive(std::make_shared<Project>(project)); };
    CHECK_FALSE(has(derive()->findings, "badge.over")); // 15 mm each way of 16.5
    Step larger = *find(*find(project, part), step);
    std::get<WordsStep>(larger.what).lettering.size = mm(40);
    must(change_step(project, part, larger));
    const auto d = derive();
    const Finding& over = get(d->findings, "badge.over");
    for (const auto& [key, value] : over.args)
        if (key == "over_mm") CHECK(plain_number(value).value_or(-1) == Approx(20 - 16.5).margin(0.05));
    CHECK(over.place.box.valid());
}

TEST_CASE("a cut line that all but closes is found and closed by its remedy") {
    auto b = bench("<path d='M10,10 L40,10 L40,40 L10,40 L10,10.8' fill='none' stroke='#000'/>"
                   "<path d='M60,10 L90,10' fill='none' stroke='#000'/>");
    Lane cut;
    cut.action = Action::cut, cut.name = "blade", cut.tool = catalog().first_tool(Action::cut)->id;
    const LaneId blade = add_lane(b.project, cut);
    must(assign(b.project, b.part, b.lines(), blade));
    const auto derive = [&] { return b.workshop->derive(std::make_shared<Project>(b.project)); };
    auto d = derive();
    const Finding& open = get(d->findings, "lines.open");
    must(apply(MendFinding{open}, b.project, catalog(), *d));
    d = derive();
    CHECK_FALSE(has(d->findings, "lines.open"));
    int closed = 0;
    for (const RunSet& run : d->part(b.part)->runs)
        for (const Polyline& line : run.lines)
            closed += line.closed;
    CHECK(closed == 1); // the straight line stays as it is
}

TEST_CASE("how thin is too thin depends on the stock") {
    auto b = bench("<rect x='10' y='10' width='40' height='1.5' fill='none' stroke='#000'/>");
    const auto thin_on = [&](const char* stock) {
        Sheet& sheet = b.project.sheets.at(0);
        must(change_sheet(b.project, sheet.id, sheet.name, stock, sheet.mat));
        return has(b.workshop->derive(std::make_shared<Project>(b.project))->findings, "piece.thin");
    };
    CHECK_FALSE(thin_on("cream-card-12x12"));
    CHECK(thin_on("stencil-film-12x24"));
    CHECK_FALSE(thin_on("heavy-paper-12x12")); // and back again: the answer is not kept from another stock
}

TEST_CASE("outlines that cross are told as such, once, and joined by their remedy") {
    // Three discs in a row, each over the next by 4 mm: their outlines cross in four points.
    Bench b = bench(
        "<circle cx='30' cy='30' r='12'/><circle cx='50' cy='30' r='12'/><circle cx='70' cy='30' r='12'/>");
    const auto before = b.derive();
    const Finding told = get(before->findings, "piece.cross");
    CHECK(told.message.english().find("in 4 places") != std::string::npos);
    CHECK_FALSE(has(before->findings, "piece.neck"));
    must(apply(MendFinding{told}, b.project, catalog(), *before));
    const auto after = b.derive();
    CHECK_FALSE(has(after->findings, "piece.cross"));
    REQUIRE(after->part(b.part)->runs.size() == 1);
    CHECK(after->part(b.part)->runs[0].lines.size() == 1);
}

TEST_CASE("outlines of one drawing cross in as many places as their circles meet") {
    // Two circles meet in two points when their centres are farther apart than the difference of their radii
    // and nearer than the sum: a fact of geometry.
    Random random("circles that cross");
    struct Circle {
        Point at;
        double r;
    };
    int told_of = 0;
    for (int round = 0; round < 40; ++round) {
        std::vector<Circle> circles;
        std::vector<Point> meet;
        bool clear = true; // of one another: what nearly touches may be read either way
        std::string drawing;
        for (int i = random.whole(2, 6); i > 0; --i) {
            const Circle c{{random.real(30, 70), random.real(30, 70)}, random.real(5, 20)};
            for (const Circle& o : circles) {
                const double d = distance(c.at, o.at);
                clear = clear && std::abs(d - c.r - o.r) > 0.5 && std::abs(d - std::abs(c.r - o.r)) > 0.5;
                if (d > c.r + o.r || d < std::abs(c.r - o.r)) continue;
                const double along = (d * d + o.r * o.r - c.r * c.r) / (2 * d),
                             aside = std::sqrt(o.r * o.r - along * along);
                const Point way = (c.at - o.at) * (1 / d), across{-way.y, way.x};
                for (const double side : {aside, -aside})
                    meet.push_back(o.at + way * along + across * side);
            }
            circles.push_back(c);
            drawing += "<circle cx='" + number(c.at.x, 6) + "' cy='" + number(c.at.y, 6) + "' r='" +
                       number(c.r, 6) + "'/>";
        }
        for (std::size_t i = 0; i < meet.size(); ++i)
            for (std::size_t k = 0; k < i; ++k)
                clear = clear && distance(meet[i], meet[k]) > 0.3;
        if (!clear) continue;
        const auto findings = bench(drawing).derive()->findings;
        INFO("seed " << random.seed() << " round " << round << ": " << drawing);
        REQUIRE(has(findings, "piece.cross") == !meet.empty());
        if (meet.empty()) continue;
        CHECK(get(findings, "piece.cross").args[0].second == std::to_string(meet.size()));
        ++told_of;
    }
    CHECK(told_of > 10);
}
