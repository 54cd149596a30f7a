#include "app/recipe/finding_card.h"
#include "core/commands/remedies.h"

#include <QHBoxLayout>
#include <QPainter>

#include "app/bench/thumbnail.h"
#include "present/part_painter.h"
#include "present/theme.h"
#include "present/words.h"

namespace dotlane::app {
namespace {

constexpr QSize picture_size(72, 54);
constexpr int row_width = 215; ///< px for remedies in one row

/// What is small or lies off is found by its picture sooner than by its words.
bool shows_place(const Finding& finding) {
    if (!finding.place.part || finding.place.sheet || !finding.place.box.valid()) return false;
    for (const char* kind : {"piece.", "marks.", "lines.", "open.stray"})
        if (finding.code.starts_with(kind)) return true;
    return false;
}

class PlacePicture : public QWidget {
  public:
    PlacePicture(Session& session, const FindingPlace& place, QWidget* parent)
        : QWidget(parent)
        , session_(session)
        , place_(place) {
        setObjectName("place");
        setFixedSize(picture_size);
        setAttribute(Qt::WA_TransparentForMouseEvents); // the card leads there
        connect(&thumbnail_, &Thumbnail::ready, this, [this] { update(); });
        // The finding may stay as it is while what is around it changes.
        connect(&session, &Session::derivedChanged, this, [this] { update(); });
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        look(); // of many, those that are scrolled into view only
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.drawImage(QPointF(), thumbnail_.image());
        painter.setPen(present::Theme::current().hairline);
        painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 4, 4);
    }

  private:
    void look() {
        const auto derived = session_.derived();
        const EvaluatedPart* evaluated = derived ? derived->part(place_.part) : nullptr;
        if (!evaluated) return;
        thumbnail_.request(
            derived, picture_size, devicePixelRatioF(),
            [derived, evaluated, place = place_, &catalog = session_.catalog()](QPainter& painter) {
                present::PartScene scene{derived->project.get(), &catalog,
                                         dotlane::find(*derived->project, place.part), evaluated};
                scene.ground = present::Theme::current().paper;
                const PlaceBox& b = place.box;
                present::paint_part_place(painter, scene, {b.x0, b.y0, b.x1, b.y1},
                                          QRectF(QPointF(), QSizeF(picture_size)));
            });
    }

    Session& session_;
    FindingPlace place_;
    Thumbnail thumbnail_;
};

} // namespace

FindingCard::FindingCard(Session& session, const Finding& finding, QWidget* parent)
    : FindingCard(
          finding,
          [&session](const Finding& one) { session.run(present::remedy_words(one), MendFinding{one}); },
          parent) {
    if (shows_place(finding)) add_picture(session, *words_);
}

FindingCard::FindingCard(const Finding& finding, const Mend& mend, QWidget* parent)
    : Card(parent)
    , finding_(finding) {
    set_wrong(finding.grade == Grade::error);
    rows()->setContentsMargins(30, 9, 10, 9);
    auto* text =
        label(present::words(finding), finding.grade == Grade::hint ? TextRole::quiet : TextRole::body, this);
    text->setWordWrap(true);
    words_ = new QHBoxLayout;
    words_->setSpacing(8);
    words_->addWidget(text, 1);
    rows()->addLayout(words_);
    setAccessibleName(text->text());
    if (finding.place.box.valid()) {
        setCursor(Qt::PointingHandCursor);
        setToolTip(tr("Press to see the place"));
    }
    if (finding.remedy.code.empty()) return;
    std::vector<Remedy> remedies{finding.remedy};
    remedies.insert(remedies.end(), finding.more.begin(), finding.more.end());
    QHBoxLayout* row = nullptr;
    int width = 0;
    for (std::size_t i = 0; i < remedies.size(); ++i) {
        auto* button =
            add_remedy(mend, remedies[i], i == 0 ? "remedy" : QStringLiteral("remedy-%1").arg(i + 1));
        width += button->sizeHint().width() + 6;
        if (!row || width > row_width) { // a panel is as wide as it is: what has no room goes below
            row = new QHBoxLayout;
            row->setSpacing(6);
            row->addStretch(1);
            rows()->addLayout(row);
            width = button->sizeHint().width() + 6;
        }
        row->insertWidget(row->count() - 1, button);
    }
}

void FindingCard::name_owner(const std::string& owner) {
    if (owner.empty()) return;
    auto* name = label(QString::fromStdString(owner), TextRole::quiet, this);
    name->setObjectName("owner");
    name->setWordWrap(true);
    rows()->insertWidget(0, name);
    setAccessibleName(tr("%1: %2").arg(name->text(), accessibleName()));
}

void FindingCard::add_picture(Session& session, QHBoxLayout& row) {
    row.addWidget(new PlacePicture(session, finding_.place, this), 0, Qt::AlignTop);
}

QPushButton* FindingCard::add_remedy(const Mend& mend, const Remedy& remedy, const QString& name) {
    Finding one = finding_;
    one.remedy = remedy;
    auto* button = pill(present::remedy_words(one), this);
    button->setObjectName(name);
    connect(button, &QPushButton::clicked, this, [mend, one] { mend(one); });
    return button;
}

void FindingCard::paintEvent(QPaintEvent* event) {
    Card::paintEvent(event);
    const present::Theme& theme = present::Theme::current();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(Qt::NoPen);
    // Told apart by shape as well as colour: square, triangle, ring.
    const QPointF c(17, 18);
    switch (finding_.grade) {
    case Grade::error:
        painter.setBrush(theme.error);
        painter.drawRoundedRect(QRectF(c - QPointF(5, 5), c + QPointF(5, 5)), 1.5, 1.5);
        break;
    case Grade::caution:
        painter.setBrush(theme.lamp);
        painter.drawPolygon(QPolygonF{c + QPointF(0, -6), c + QPointF(6, 5), c + QPointF(-6, 5)});
        break;
    case Grade::hint:
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(theme.hint, 1.8));
        painter.drawEllipse(c, 4.2, 4.2);
        break;
    }
}

} // namespace dotlane::app
