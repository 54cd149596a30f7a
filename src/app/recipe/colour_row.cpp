#include "app/recipe/colour_row.h"

#include <QLabel>
#include <QPainter>
#include <QVBoxLayout>

#include "app/widgets/card.h"
#include "app/widgets/side_panel.h"
#include "present/words.h"

namespace dotlane::app {
namespace {

constexpr int finest = 10; ///< steps to one of CIEDE2000
constexpr int most_within = 15;

} // namespace

/// A chip for each colour; those that count as one touch, the one that stands for them first and larger.
class ColourRow::Chips : public QWidget {
  public:
    explicit Chips(QWidget* parent)
        : QWidget(parent) {
        setMinimumHeight(22);
        setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    }
    void show_groups(std::vector<ColourGroup> groups) {
        groups_ = std::move(groups);
        update();
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        double wide = 0;
        for (const ColourGroup& group : groups_)
            wide += 18 + 12.0 * static_cast<double>(group.members.size() - 1) + 6;
        const double scale = wide > width() ? width() / wide : 1;
        double x = 1;
        for (const ColourGroup& group : groups_) {
            for (std::size_t i = 0; i < group.members.size(); ++i) {
                const Colour c = group.members[i];
                const double w = (i == 0 ? 18 : 12) * scale, h = i == 0 ? 18 : 12;
                p.setPen(QPen(palette().color(QPalette::Mid), 1));
                p.setBrush(QColor(c.r, c.g, c.b));
                p.drawRoundedRect(QRectF(x, (height() - h) / 2, w - 1, h), 3, 3);
                x += w;
            }
            x += 6 * scale;
        }
    }

  private:
    std::vector<ColourGroup> groups_;
};

ColourRow::ColourRow(Session& session, QWidget* parent)
    : QWidget(parent)
    , session_(session)
    , slider_(new QSlider(Qt::Horizontal, this))
    , chips_(new Chips(this))
    , said_(label({}, TextRole::quiet, this)) {
    slider_->setObjectName("one-colour");
    slider_->setAccessibleName(tr("How different colours may be that count as one"));
    slider_->setToolTip(tr("Colours that differ by no more than this count as one"));
    slider_->setRange(0, most_within * finest);
    slider_->setPageStep(finest);
    said_->setWordWrap(true);
    said_->setObjectName("one-colour-said");
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(2);
    rows->addWidget(captioned(tr("colours that count as one"), slider_, this));
    rows->addWidget(chips_);
    rows->addWidget(said_);
    const auto commit = [this] {
        const Part* part = session_.part();
        const double within = slider_->value() / static_cast<double>(finest);
        if (part && within != part->one_colour)
            session_.run(tr("Colours as one"), JoinColours{part->id, within}, "one-colour");
    };
    connect(slider_, &QSlider::valueChanged, this, [this, commit](int tenths) {
        show_within(tenths);
        if (!slider_->isSliderDown()) commit();
    });
    connect(slider_, &QSlider::sliderReleased, this, commit);
}

void ColourRow::refresh() {
    const Part* part = session_.part();
    // Only where some of them are near enough to be meant.
    const auto groups = [&](double within) { return colour_groups(*part->source.drawing, within).size(); };
    const bool some = part && !is_made(*part) && (part->one_colour > 0 || groups(most_within) < groups(0));
    setVisible(some);
    if (!some) return;
    const QSignalBlocker quiet(slider_);
    const int at = static_cast<int>(std::lround(part->one_colour * finest));
    if (!slider_->isSliderDown()) slider_->setValue(at);
    show_within(slider_->value());
}

void ColourRow::show_within(int tenths) {
    const Part* part = session_.part();
    if (!part || is_made(*part)) return;
    const Drawing& drawing = *part->source.drawing;
    const auto groups = colour_groups(drawing, tenths / static_cast<double>(finest));
    std::size_t all = 0;
    for (const ColourGroup& group : groups)
        all += group.members.size();
    const int saved = static_cast<int>(all - groups.size());
    said_->setText(saved == 0
                       ? tr("%n colour(s), each of its own", nullptr, static_cast<int>(all))
                       : tr("%n colour(s) count as %1: ", nullptr, static_cast<int>(all)).arg(groups.size()) +
                             tr("%n sheet(s) fewer when each has its own", nullptr, saved));
    chips_->show_groups(groups);
}

} // namespace dotlane::app
