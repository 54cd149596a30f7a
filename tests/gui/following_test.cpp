// Parts that follow others, parts taken apart, pieces kept or dropped on the bench, in the window.
#include <QComboBox>
#include <QMenu>

#include "app/bench/part_view.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

struct Follower : Driver {
    Follower()
        : Driver(false) {}
    const EvaluatedPart& chosen() { return *session().evaluated(); }
};

std::string picture_of_moons(const std::string& path) {
    QImage image(400, 200, QImage::Format_RGB32);
    image.fill(Qt::white);
    const QColor colours[] = {QColor(150, 110, 30), QColor(40, 70, 110)};
    for (int i = 0; i < 2; ++i)
        for (int x = 0; x < 400; ++x)
            for (int y = 0; y < 200; ++y)
                if (std::hypot(x - 100 - 200 * i, y - 100) < 60) image.setPixel(x, y, colours[i].rgb());
    REQUIRE(image.save(QString::fromStdString(path)));
    return path;
}

} // namespace

TEST_CASE_METHOD(Follower, "a layer is added to a card, follows it, and shows how wide its border is") {
    press("start-folded-card");
    type("width", "150 mm");
    type("height", "100 mm");
    press("add-layer");
    REQUIRE(project().parts.size() == 2);
    CHECK(chosen().box.width() == Approx(142));
    CHECK(find<QComboBox>("of")->currentText() == "Folded card");
    type("reveal", "10 mm");
    CHECK(chosen().box.width() == Approx(130));
    type("frame", "15 mm");
    CHECK(chosen().runs.front().lines.size() == 2); // a mat with an opening
    const PartId layer = session().choice().part;
    session().choose_part(project().parts.front().id);
    settle();
    type("width", "120 mm");
    CHECK(session().derived()->part(layer)->box.width() == Approx(100));
    // The card cannot be removed while the layer lies on it: it is said, nothing changes.
    trigger("remove-part");
    CHECK(project().parts.size() == 2);
    for (int i = 0; i < 5; ++i)
        trigger("undo");
    CHECK(project().parts.size() == 1);
}

TEST_CASE_METHOD(Follower, "a shape card and a pattern take the outline of the chosen part") {
    press("start-label");
    press("new-part");
    pick("job-picker", "Shape card");
    REQUIRE(project().parts.size() == 2);
    const auto& card = std::get<ShapeCard>(project().parts[1].source.spec);
    CHECK(card.of == project().parts[0].id);
    choose("fold", "top");
    CHECK(chosen().box.height() > chosen().box.width());
    CHECK(std::any_of(project().lanes.begin(), project().lanes.end(),
                      [](const Lane& l) { return l.action == Action::score; }));
    press("new-part");
    pick("job-picker", "Repeat pattern");
    choose("motif", "part");
    CHECK(borrows_from(project().parts[2].source.spec)); // found one by itself
    CHECK(session().derived()->findings.size() < 10);
    CHECK_FALSE(has(session().derived()->findings, "source.failed"));
}

TEST_CASE_METHOD(Follower, "a picture's colours become parts of their own, its pieces too, all live") {
    const QString path = QString::fromStdString(picture_of_moons(folder / "moons.png"));
    window->files().open_path(path);
    settle();
    press("part-per-piece");
    REQUIRE(project().parts.size() == 2);
    for (const Part& part : project().parts)
        CHECK(session().derived()->part(part.id)->lines.size() == 1);
    trigger("undo");
    choose("by", "colour");
    type("levels", "2");
    REQUIRE(project().parts.size() == 1);
    CHECK(chosen().lines.size() == 2);
    press("part-per-level");
    REQUIRE(project().parts.size() == 2);
    const Box left = session().derived()->part(project().parts[0].id)->box,
              right = session().derived()->part(project().parts[1].id)->box;
    CHECK(left.x1 < right.x0); // the lighter colour is the left moon
    type("width", "200 mm");
    CHECK(session().derived()->part(project().parts[0].id)->box.width() == Approx(60).margin(0.5));
}

TEST_CASE_METHOD(Follower, "pieces are dropped and kept by pressing them on the bench") {
    press("start-lettering");
    REQUIRE(chosen().lines.size() > 4);
    add_step("Pieces");
    const std::size_t before = chosen().lines.size();
    const Box first = chosen().lines.front().box;
    // On the stem of the "L": whichever piece lies under the hand goes, and comes back.
    const Region letter = region_of(chosen().lines.front().contours, FillRule::nonzero);
    Point stem = first.centre();
    for (stem.x = first.x0; !(contains(letter, stem) && contains(letter, {stem.x + 0.8, stem.y}));
         stem.x += 0.1)
        REQUIRE(stem.x < first.x1);
    stem.x += 0.4;
    click(stem);
    CHECK(chosen().lines.size() == before - 1);
    CHECK_FALSE(std::get<PiecesStep>(project().parts[0].steps[0].what).drop.empty());
    CHECK(session().choice().lines.empty()); // the press chose no line
    click(stem);
    CHECK(chosen().lines.size() == before);
    CHECK(std::get<PiecesStep>(project().parts[0].steps[0].what).drop.empty());
    trigger("undo");
    CHECK(chosen().lines.size() == before - 1);
}

TEST_CASE_METHOD(Follower,
                 "the source of an outline is set aside or sent to a lane from the outline's card") {
    press("start-lettering");
    add_step("Outline");
    const auto set_aside_now = [&] { return project().parts[0].sets[0].set_aside; };
    CHECK_FALSE(set_aside_now());
    press("sources-aside");
    CHECK(set_aside_now());
    CHECK(chosen().runs.size() == 1); // the rim alone
    press("sources-aside");
    CHECK_FALSE(set_aside_now());
}
