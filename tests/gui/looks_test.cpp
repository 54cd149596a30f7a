// What a good look at a screen would find: words cut off, controls on one another, lists that change under
// the wheel, the keyboard lost. For every source, every step, every panel, in both themes.
#include <QAbstractButton>
#include <QCheckBox>
#include <QLabel>
#include <QScrollArea>
#include <QStyleOptionFrame>
#include <QWheelEvent>

#include "app/recipe/step_card.h"
#include "app/tray/part_card.h"
#include "app/widgets/card.h"
#include "app/widgets/number_field.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;
using View = app::WorkPage::View;

namespace {

struct Looker : Driver {
    explicit Looker(bool demo = false)
        : Driver(demo) {
        window->resize(1280, 800);
        settle();
    }

    static std::string called(const QWidget* w) {
        const auto* button = qobject_cast<const QAbstractButton*>(w);
        const auto* label = qobject_cast<const QLabel*>(w);
        const QString words = button ? button->text() : label ? label->text() : QString();
        return std::string(w->metaObject()->className()) + " " + w->objectName().toStdString() + " \"" +
               words.toStdString() + "\"";
    }

    /// Buttons, ticks and captions show all their words, fields their numbers with the unit.
    std::vector<std::string> cut_off() {
        std::vector<std::string> out;
        for (QWidget* w : window->findChildren<QWidget*>()) {
            if (!w->isVisible() || w->visibleRegion().isEmpty()) continue;
            bool shown = true;
            // With the room around the words that the style gives: less would cut them off.
            if (auto* button = qobject_cast<QAbstractButton*>(w); button && !button->text().isEmpty())
                shown = button->width() + 1 >= button->sizeHint().width();
            if (auto* label = qobject_cast<QLabel*>(w); label && label->pixmap().isNull())
                shown = label->wordWrap() ? label->height() + 2 >= label->heightForWidth(label->width())
                                          : label->width() + 1 >=
                                                QFontMetrics(label->font()).horizontalAdvance(label->text());
            if (auto* number = qobject_cast<app::NumberField*>(w)) {
                QStyleOptionFrame frame;
                frame.initFrom(number);
                const int room =
                    number->style()->subElementRect(QStyle::SE_LineEditContents, &frame, number).width();
                shown = room >= QFontMetrics(number->font()).horizontalAdvance(number->text());
            }
            if (!shown) out.push_back("cut off: " + called(w));
        }
        return out;
    }
    /// Fields and buttons are as high as their text needs, cards as high as what is in them.
    std::vector<std::string> squashed() {
        std::vector<std::string> out;
        for (QWidget* w : window->findChildren<QWidget*>()) {
            if (!w->isVisible()) continue;
            int least = 0;
            if ((qobject_cast<QLineEdit*>(w) && !qobject_cast<QComboBox*>(w->parentWidget())) ||
                qobject_cast<QComboBox*>(w) || qobject_cast<QAbstractButton*>(w))
                least = w->minimumSizeHint().height();
            if (auto* card = qobject_cast<app::Card*>(w);
                card && card->layout() && card->layout()->count() > 0)
                least = card->layout()->hasHeightForWidth()
                            ? card->layout()->minimumHeightForWidth(card->width())
                            : card->layout()->minimumSize().height();
            if (w->height() + 1 < least)
                out.push_back("squashed to " + std::to_string(w->height()) + " of " + std::to_string(least) +
                              " px: " + called(w));
        }
        return out;
    }
    /// Columns that only scroll up and down are as wide as what they show.
    std::vector<std::string> too_wide() {
        std::vector<std::string> out;
        for (auto* area : window->findChildren<QScrollArea*>())
            if (area->isVisible() && area->widget() &&
                area->horizontalScrollBarPolicy() == Qt::ScrollBarAlwaysOff &&
                area->widget()->width() > area->viewport()->width())
                out.push_back(std::to_string(area->widget()->width()) + " px in a column of " +
                              std::to_string(area->viewport()->width()));
        return out;
    }
    /// Controls beside one another in one parent do not lie on one another, nor outside it.
    std::vector<std::string> overlaps() {
        std::vector<std::string> out;
        for (QWidget* parent : window->findChildren<QWidget*>()) {
            if (!parent->isVisible() || !parent->layout()) continue;
            QList<QWidget*> children;
            for (QObject* child : parent->children())
                if (auto* w = qobject_cast<QWidget*>(child);
                    w && w->isVisible() && !w->isWindow() && parent->layout()->indexOf(w) >= 0)
                    children << w;
            for (int i = 0; i < children.size(); ++i) {
                if (!parent->rect().adjusted(-1, -1, 1, 1).contains(children[i]->geometry()))
                    out.push_back("outside: " + called(children[i]));
                for (int k = 0; k < i; ++k)
                    if (children[i]->geometry().intersects(children[k]->geometry()))
                        out.push_back(called(children[i]) + " lies on " + called(children[k]));
            }
        }
        return out;
    }
    void look(const std::string& where) {
        INFO(where);
        CHECK(cut_off() == std::vector<std::string>{});
        CHECK(overlaps() == std::vector<std::string>{});
        CHECK(squashed() == std::vector<std::string>{});
        CHECK(too_wide() == std::vector<std::string>{});
    }
};

} // namespace

TEST_CASE("the looks taken below see what they are meant to see") {
    Looker d;
    d.press("start-label");
    REQUIRE(d.cut_off().empty());
    auto* layers = d.find<QPushButton>("add-layer");
    layers->setFixedWidth(layers->sizeHint().width() - 6);
    d.settle();
    CHECK(d.cut_off().size() == 1);
    layers->setMaximumWidth(QWIDGETSIZE_MAX);
    layers->setMinimumWidth(0);
    d.settle();
    REQUIRE(d.squashed().empty());
    auto* width = d.find<QLineEdit>("width");
    width->setFixedWidth(width->fontMetrics().horizontalAdvance(width->text()));
    d.settle();
    CHECK(d.cut_off().size() == 1);
    width->setMaximumWidth(QWIDGETSIZE_MAX);
    width->setMinimumWidth(0);
    d.settle();
    REQUIRE(d.cut_off().empty());
    width->setFixedHeight(6); // a slit
    d.settle();
    CHECK_FALSE(d.squashed().empty());
    width->setMinimumHeight(0);
    width->setMaximumHeight(QWIDGETSIZE_MAX);
    d.settle();
    REQUIRE(d.squashed().empty());
    REQUIRE(d.overlaps().empty());
    layers->setFixedWidth(400);
    d.settle();
    CHECK_FALSE(d.too_wide().empty());
    layers->setMaximumWidth(QWIDGETSIZE_MAX);
    layers->setMinimumWidth(0);
    d.settle();
    layers->move(layers->x() + 30, layers->y()); // onto the number beside it
    CHECK_FALSE(d.overlaps().empty());
}

TEST_CASE("no source's card cuts words off or lies on itself, in either theme, in millimetres or inches") {
    for (const bool dark : {false, true}) {
        Looker d;
        app::apply_style(dark);
        d.press("start-label");
        if (dark) d.trigger("inches");
        for (const SourceKind& kind : source_kinds()) {
            if (std::string(kind.key) == "picture") continue; // it needs a file
            d.trigger((std::string("make-") + kind.key).c_str());
            REQUIRE(kind_of(d.session().part()->source.spec)->key == std::string_view(kind.key));
            d.look(kind.key);
        }
    }
    app::apply_style(false);
}

TEST_CASE("the card of a drawing shows its size to the hundredth of a millimetre") {
    Looker d(true);
    d.window->work().show_view(View::part);
    d.settle();
    d.type("finished-width", "288.88 mm");
    CHECK(d.find<QLineEdit>("finished-width")->text() == "288.88 mm");
    d.look("a size with decimals");
}

TEST_CASE("no step's card cuts words off or lies on itself, however it is set") {
    Looker d;
    d.answers.unsaved_answer = app::Dialogs::Unsaved::discard;
    for (const StepKind& kind : step_kinds()) {
        d.trigger("new");
        d.trigger("make-badge"); // another part, for the step that takes lines of one
        d.trigger("make-label");
        d.type("border", "3 mm");
        d.trigger("choose-all");
        if (kind.second == StepKind::Second::wanted) // what cuts the rest
            d.session().choose_lines({d.session().evaluated()->lines.back().id});
        const std::string key = kind.key;
        if (key == "fill")
            d.trigger("fill");
        else
            d.trigger(("step-" + key).c_str());
        INFO(key << ": " << d.window->notice_text().toStdString());
        REQUIRE(d.session().part()->steps.size() == 1);
        d.look(key);
        // Every choice of every list: the fields that come and go with it keep their places.
        auto* card = d.window->findChild<app::StepCard*>();
        REQUIRE(card);
        QStringList lists;
        for (QComboBox* box : card->findChildren<QComboBox*>())
            if (box->isVisible() && !box->isEditable() && box->objectName() != "second")
                lists << box->objectName();
        for (const QString& name : lists) {
            auto* box = card->findChild<QComboBox*>(name);
            for (int i = 0; box && i < box->count(); ++i) {
                box->setCurrentIndex(i);
                Q_EMIT box->activated(i);
                d.settle();
                d.look(key + ", " + name.toStdString() + " " + std::to_string(i));
                box = card->findChild<QComboBox*>(name); // the form may have been built anew
            }
        }
    }
}

TEST_CASE("panels, views and sheets with one part or several cut nothing off") {
    Looker d(true);
    for (const bool dark : {false, true}) {
        app::apply_style(dark);
        for (const View view : {View::part, View::sheets, View::rehearsal}) {
            d.window->work().show_view(view);
            d.settle();
            d.look("view " + std::to_string(static_cast<int>(view)));
        }
        d.window->work().show_view(View::sheets);
        d.settle();
        d.click(d.session().derived()->sheets.front().parts.front().box.centre());
        d.look("one part chosen");
        d.trigger("choose-all");
        d.look("several chosen");
        d.trigger("group");
        d.look("grouped");
        d.trigger("undo");
        for (const char* panel : {"lanes", "view-findings", "keys", "why"}) {
            d.trigger(panel);
            d.look(panel);
        }
    }
    app::apply_style(false);
}

TEST_CASE("the wheel is left to the column and changes no list that it passes over") {
    Looker d;
    d.press("start-lettering");
    auto* box = d.find<QComboBox>("kind");
    const int before = box->currentIndex();
    const QPointF at = box->rect().center();
    for (int i = 0; i < 4; ++i) {
        QWheelEvent wheel(at, box->mapToGlobal(at), {}, {0, -120}, Qt::NoButton, Qt::NoModifier,
                          Qt::NoScrollPhase, false);
        QApplication::sendEvent(box, &wheel);
        CHECK_FALSE(wheel.isAccepted()); // it goes on to the column
    }
    d.settle();
    CHECK(box->currentIndex() == before);
}

TEST_CASE("the keyboard stays in the field when its card is built anew, and the column does not jump") {
    Looker d;
    d.press("start-badge");
    auto* size = d.find<QComboBox>("size");
    size->setFocus();
    REQUIRE(QApplication::focusWidget() == size);
    size->setCurrentIndex(0); // own: two more fields come
    Q_EMIT size->activated(0);
    d.settle();
    QTest::qWait(1);
    REQUIRE(QApplication::focusWidget());
    CHECK(QApplication::focusWidget()->objectName() == "size");
    CHECK(d.shown("visible"));
    // New roles make new cards for line sets: the field keeps the keyboard through that too.
    auto* guides = d.find<QCheckBox>("guides");
    guides->setFocus();
    QTest::keyClick(guides, Qt::Key_Space);
    d.settle();
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_Space);
    d.settle();
    QTest::qWait(1);
    REQUIRE(QApplication::focusWidget());
    CHECK(QApplication::focusWidget()->objectName() == "guides");
}

TEST_CASE("a notice comes and goes without moving the bench, and covers none of its controls") {
    Driver d;
    QWidget* bench = d.canvas();
    const QRect before(bench->mapTo(d.window.get(), QPoint()), bench->size());
    const present::View view = d.canvas()->view();
    REQUIRE_FALSE(d.session().change(
        "nothing", [](Project&) -> Result<void> { return fail("test", say("What was to be told.")); }));
    d.settle();
    REQUIRE(d.notice_says("What was to be told"));
    auto* notice = d.find<QWidget>("notice");
    CHECK(QRect(bench->mapTo(d.window.get(), QPoint()), bench->size()) == before);
    CHECK(d.canvas()->view().scale == view.scale);
    CHECK(d.canvas()->view().shift == view.shift);
    const QRect there(notice->mapTo(d.window.get(), QPoint()), notice->size());
    CHECK(before.contains(there)); // on the bench, nowhere else
    CHECK(there.height() < 80);
    QWidget* hit = d.window->childAt(there.center());
    CHECK((hit == notice || notice->isAncestorOf(hit))); // and on top of it
    d.press_words("Close");
    CHECK_FALSE(notice->isVisible());
    CHECK(QRect(bench->mapTo(d.window.get(), QPoint()), bench->size()) == before);
}

TEST_CASE("small pictures of parts can be seen in both themes") {
    for (const bool dark : {false, true}) {
        Driver d;
        app::apply_style(dark);
        d.settle();
        QTest::qWait(200);
        const auto cards = d.window->findChildren<app::PartCard*>();
        REQUIRE_FALSE(cards.empty());
        const QImage image = cards.front()->grab().toImage();
        const QRect tile(12, image.height() / 2 - 18, 36, 36);
        double low = 1e9, high = 0;
        for (int y = tile.top(); y < tile.bottom(); ++y)
            for (int x = tile.left(); x < tile.right(); ++x) {
                const QColor c = image.pixelColor(x, y);
                const auto linear = [](double v) {
                    return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
                };
                const double l =
                    0.2126 * linear(c.redF()) + 0.7152 * linear(c.greenF()) + 0.0722 * linear(c.blueF());
                low = std::min(low, l), high = std::max(high, l);
            }
        INFO(dark);
        // WCAG 2.1, 1.4.11: graphical objects 3:1; thin lines lose half of it to smoothing.
        CHECK((high + 0.05) / (low + 0.05) >= 4.5);
        app::apply_style(false);
    }
}
