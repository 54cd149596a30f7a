// Other ways to fill, heat and tones in the window.
#include <QFileInfo>
#include <QLineEdit>
#include <QListWidget>

#include "app/bench/part_view.h"
#include "app/recipe/fill_picker.h"
#include "core/derive/inking.h"
#include "present/lane_style.h"
#include "present/part_painter.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// Pixels of ink.
double inked(const std::function<void(QPainter&)>& paint, int side = 60) {
    QImage image(side, side, QImage::Format_ARGB32_Premultiplied);
    image.fill(Qt::transparent);
    {
        QPainter painter(&image);
        painter.setRenderHint(QPainter::Antialiasing);
        paint(painter);
    }
    double sum = 0;
    for (int y = 0; y < image.height(); ++y)
        for (int x = 0; x < image.width(); ++x)
            sum += qAlpha(image.pixel(x, y)) / 255.0;
    return sum;
}

struct Inker : Driver {
    /// The demo's foiled title.
    Inker() {
        Choice choice = session().choice();
        choice.step = session().part()->steps.front().id;
        session().choose(choice);
        settle();
    }
    using Choice = app::Choice;
    const Step& step() { return session().part()->steps.front(); }
    const InkReport& ink() { return *ink_of(*session().derived()->part(session().part()->id), step().id); }
    /// A drawing of 90 x 60 mm as a new part, filled.
    void fill_drawing(const std::string& path) {
        window->files().open_path(
            drawing_file("filled.svg", "<svg xmlns='http://www.w3.org/2000/svg' width='90mm' height='60mm' "
                                       "viewBox='0 0 90 60'><path fill='#333' d='" +
                                           path + "'/></svg>"));
        settle();
        press("take-in");
        trigger("fill");
        settle();
        window->work().part_view().fit();
    }
    QStringList open_ways() {
        press("fill-ways");
        auto* picker = find<app::FillPicker>("fill-picker");
        REQUIRE(QTest::qWaitFor([&] { return picker->ready(); }, 20'000));
        QStringList out;
        auto* list = picker->findChild<QListWidget*>("picker-list");
        for (int i = 0; i < list->count(); ++i) {
            INFO(list->item(i)->text().toStdString());
            CHECK_FALSE(list->item(i)->isHidden());
            out << list->item(i)->text();
        }
        CHECK(list->height() > 300); // all rows are seen
        return out;
    }
};

} // namespace

TEST_CASE("a dot is seen, as wide as its pen draws it") {
    const Polyline dot{{{3, 3}}, false};
    for (const double tip : {0.3, 0.5, 0.8}) {
        const double seen = inked([&](QPainter& painter) {
            present::paint_lines(painter, {dot}, {Action::draw, Qt::black, tip}, {10, {}}, {0, 0, 60, 60});
        });
        const double disc = 3.14159265 / 4 * tip * tip * 100;
        INFO(tip);
        CHECK(seen == Approx(disc).epsilon(0.1)); // the edge's pixels are inked in part
    }
    // In the tray, in rehearsals and in pictures of steps.
    CHECK(inked([&](QPainter& painter) { present::paint_way(painter, dot, {10, {}}); }) > 0.5);
    CHECK(inked([&](QPainter& painter) {
              painter.strokePath(present::path_of(dot, {10, {}}), QPen(Qt::black, 1.2));
          }) > 0.5);
}

TEST_CASE_METHOD(Inker, "a fill is seen as wide as its tip, whatever leaves it, lit or not") {
    for (const Action action : {Action::foil, Action::draw, Action::engrave, Action::emboss}) {
        REQUIRE(session().run("Action", ChangeLane{.lane = step().lane, .action = action}));
        settle();
        EvaluatedPart seen = *session().evaluated();
        const StepId fill = step().id;
        std::erase_if(seen.runs, [&](const RunSet& run) { return !run.ink || run.step != fill; });
        REQUIRE(seen.runs.size() == 1);
        Part part = *session().part();
        part.sets.clear(), part.steps.clear();
        present::PartScene scene{&project(), &session().catalog(), &part, &seen};
        scene.dimensions = false, scene.ground = Qt::white;
        constexpr int side = 1200;
        const auto view =
            present::View::fitting(bounds(seen.runs[0].lines).grown(2), QRectF(0, 0, side, side));
        const auto pixels = [&](StepId lit) {
            scene.lit = lit;
            return inked([&](QPainter& p) { present::paint_part(p, scene, view, {0, 0, side, side}); }, side);
        };
        const double surface = in_square_mm(area(*ink().surface)) * view.scale * view.scale,
                     told =
                         surface * (ink().coverage.covered_percent + ink().coverage.overspill_percent) / 100;
        INFO(static_cast<int>(action) << ", told " << told << " of " << surface);
        CHECK(pixels({}) == Approx(told).epsilon(0.03)); // flat ends, and pixels that are inked in part
        CHECK(pixels(fill) == Approx(pixels({})));
    }
}

TEST_CASE_METHOD(Inker, "other ways to fill are told with their figures, and taken") {
    const QStringList ways = open_ways();
    CHECK(ways == QStringList{"Ways to fill it", "Now: Parallel, ends joined", "Cross, ends joined",
                              "Contour, ends joined", "Parallel, one stroke a piece",
                              "Angles: all 180 were tried", "Fewest lifts", "Lose no corner", "Fastest"});
    auto* list = find<app::FillPicker>("fill-picker")->findChild<QListWidget*>("picker-list");
    std::set<QByteArray> pictures;
    for (int row = 1; row < 5; ++row) {
        const QImage picture = list->item(row)->data(Qt::UserRole + 2).value<QPixmap>().toImage();
        REQUIRE_FALSE(picture.isNull());
        pictures.insert(QByteArray(reinterpret_cast<const char*>(picture.bits()), picture.sizeInBytes()));
    }
    CHECK(pictures.size() >= 3);
    const std::size_t lifts = ink().lifts;
    QTest::keyClicks(find<QLineEdit>("picker-typed"), "one stroke");
    QTest::keyClick(find<QLineEdit>("picker-typed"), Qt::Key_Return);
    settle();
    CHECK(ink().lifts < lifts);
    CHECK_FALSE(window->findChild<app::FillPicker*>("fill-picker")->isVisible());
    trigger("undo");
    settle();
    CHECK(ink().lifts == lifts);
    open_ways();
    QTest::keyClicks(find<QLineEdit>("picker-typed"), "fewest");
    QTest::keyClick(find<QLineEdit>("picker-typed"), Qt::Key_Return);
    settle();
    CHECK(ink().lifts <= lifts);
    open_ways();
    QTest::keyClick(find<QLineEdit>("picker-typed"), Qt::Key_Escape);
    CHECK_FALSE(window->findChild<app::FillPicker*>("fill-picker")->isVisible());
}

TEST_CASE_METHOD(
    Inker, "ways to fill are shown where much is filled, and the figures beside the part or not at all") {
    // Four spikes: whatever lies at one end of it is nearly nothing.
    fill_drawing("M0 30L40 28 45 0 50 28 90 30 50 32 45 60 40 32Z");
    app::PartView& bench = window->work().part_view();
    Choice choice = session().choice();
    const auto drawn = [&](StepId chosen) {
        choice.step = chosen;
        session().choose(choice);
        settle();
        const Lane& lane = *dotlane::find(session().project(), step().lane);
        const QColor ink =
            present::legible_on(present::to_qcolor(lane.colour), present::Theme::current().paper);
        return colours_of(bench)[ink.rgb()];
    };
    const int alone = drawn({});
    CHECK(alone > 500);
    CHECK(drawn(step().id) == alone);
    open_ways();
    auto* list = find<app::FillPicker>("fill-picker")->findChild<QListWidget*>("picker-list");
    for (int row = 1; row < 5; ++row) {
        const QImage picture = list->item(row)->data(Qt::UserRole + 2).value<QPixmap>().toImage();
        const double share = inked([&](QPainter& p) { p.drawImage(0, 0, picture); },
                                   std::max(picture.width(), picture.height())) /
                             (picture.width() * picture.height());
        INFO(row << ": " << share);
        CHECK(share > 0.25); // 0.05 at its left end
    }
}

TEST_CASE_METHOD(Inker, "heat shows in its colours, with a key, and goes again") {
    app::PartView& bench = window->work().part_view();
    const auto colours = [&] { return colours_of(bench); };
    Box title;
    for (const RunSet& run : session().evaluated()->runs)
        if (run.ink) title = bounds(run.lines);
    title.x1 = title.x0 + 6;
    bench.show_area(title); // so near that squares are larger than pixels
    settle();
    const auto before = colours();
    trigger("heat");
    settle();
    CHECK(bench.shows_heat());
    const auto hot = colours();
    const auto count = [&](const std::map<QRgb, int>& list, const char* name) {
        const auto it = list.find(QColor(name).rgb());
        return it == list.end() ? 0 : it->second;
    };
    for (const char* name : {"#7fb0cf", "#1f4e79", "#ffd84d"}) {
        INFO(name);
        CHECK(count(before, name) == 0);
        CHECK(count(hot, name) > 300); // more than the key's 208
    }
    CHECK(count(hot, "#c2571a") > 100); // the key alone: nothing runs over the edge
    trigger("heat");
    settle();
    CHECK(count(colours(), "#7fb0cf") == 0);
}

TEST_CASE_METHOD(Inker, "a fill becomes as dark as a picture that is asked for") {
    answers.open = QString(DOTLANE_SOURCE "/data/demo/heron.png");
    trigger("tone");
    settle();
    CHECK(ink().coverage.covered_percent < 90);
    StepWhat what = step().what;
    REQUIRE(tone_in(what));
    CHECK(tone_in(what)->by == FillTone::By::picture);
    trigger("undo");
    settle();
    CHECK(ink().coverage.covered_percent > 90);
}

TEST_CASE_METHOD(Inker, "a piece that is filled alone leaves the others where a hand can press them") {
    fill_drawing("M0 0H40V40H0ZM60 20H90V60H60Z");
    app::PartView& bench = window->work().part_view();
    press("fill-pieces");
    const auto seen = [&] { return bench.view().map(Box{0, 0, 90, 60}); };
    const QRectF before = seen();
    const auto press_at = [&](Point p) {
        QTest::mouseClick(&bench, Qt::LeftButton, {}, bench.view().map(p).toPoint());
        settle();
        return places_for(*session().evaluated(), step().id).filled;
    };
    const std::vector<char> first = press_at({20, 20});
    CHECK(std::count(first.begin(), first.end(), 1) == 1);
    CHECK(seen() == before);
    CHECK(press_at({75, 40}) == std::vector<char>{1, 1});
    CHECK(press_at({20, 20}) != first);
    CHECK(seen() == before);
    QTest::keyClick(&bench, Qt::Key_Escape);
    settle();
    CHECK(seen() != before); // what is left fills the view again
}

TEST_CASE_METHOD(Inker, "pieces are pressed on the bench, and kept by their place") {
    app::PartView& bench = window->work().part_view();
    press("more-fields");
    CHECK(find<QLineEdit>("only")->placeholderText() == "all"); // what none means is said there
    press("fill-pieces");
    CHECK(bench.choosing_pieces() == step().id);
    const FillPlaces places = places_for(*session().evaluated(), step().id);
    REQUIRE(places.pieces.size() > 2);
    CHECK(std::count(places.filled.begin(), places.filled.end(), 1) ==
          static_cast<std::ptrdiff_t>(places.pieces.size()));
    const auto press_piece = [&](std::size_t k) {
        // Where a line of the fill runs within it.
        std::optional<Point> at;
        for (const RunSet& run : session().evaluated()->runs)
            for (const Polyline& line : run.lines)
                for (const Point p : line.points)
                    if (run.ink && !at && dotlane::contains(places.pieces[k], p)) at = p;
        const Box box = bounds(places.pieces[k]);
        for (double x = box.x0; x < box.x1 && !at; x += 0.2)
            for (double y = box.y0; y < box.y1 && !at; y += 0.2)
                if (dotlane::contains(places.pieces[k], {x, y})) at = Point{x, y};
        REQUIRE(at);
        bench.show_area({at->x - 4, at->y - 4, at->x + 4, at->y + 4});
        QTest::mouseClick(&bench, Qt::LeftButton, {}, bench.view().map(*at).toPoint());
        settle();
    };
    const auto filled = [&] {
        const FillPlaces now = places_for(*session().evaluated(), step().id);
        return std::vector<char>(now.filled);
    };
    press_piece(0);
    std::vector<char> wanted(places.pieces.size(), 0);
    wanted[0] = 1;
    CHECK(filled() == wanted);
    press_piece(2);
    wanted[2] = 1;
    CHECK(filled() == wanted);
    CHECK(ink().left_out.size() == places.pieces.size() - 2);
    press_piece(0);
    wanted[0] = 0;
    CHECK(filled() == wanted);
    QTest::keyClick(&bench, Qt::Key_Escape);
    CHECK_FALSE(bench.choosing_pieces());
    trigger("undo");
    settle();
    wanted[0] = 1;
    CHECK(filled() == wanted);
}
