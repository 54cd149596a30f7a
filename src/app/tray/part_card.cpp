#include "app/tray/part_card.h"

#include <QCoreApplication>
#include <QPainter>

#include "app/widgets/size_text.h"
#include "core/checks/project_checks.h"
#include "core/commands/placing.h"
#include "present/part_painter.h"
#include "present/words.h"

namespace dotlane::app {
namespace {

constexpr int picture = 46;

QString made_of(const Session& session, const Part& part, const EvaluatedPart* evaluated) {
    QString stock;
    bool lies = false;
    for (const Sheet& sheet : session.project().sheets)
        for (const Placement& p : sheet.placements)
            if (p.part == part.id) {
                lies = true;
                if (const Stock* s = session.catalog().stock(sheet.stock); s && stock.isEmpty())
                    stock = present::words(word(*s));
            }
    if (!lies) return QCoreApplication::translate("PartCard", "on no sheet yet");
    if (!evaluated) return stock; // counted as soon as it has been worked out
    const int copies = placed_copies(session.project(), *evaluated);
    if (copies == part.quantity)
        return QCoreApplication::translate("PartCard", "%1 × %2").arg(copies).arg(stock);
    return QCoreApplication::translate("PartCard", "%1 of %2, %3").arg(copies).arg(part.quantity).arg(stock);
}

} // namespace

PartCard::PartCard(QWidget* parent)
    : Card(parent) {
    setFixedHeight(74);
    setCursor(Qt::PointingHandCursor);
    connect(&thumbnail_, &Thumbnail::ready, this, [this] { update(); });
}

void PartCard::show_part(const Session& session, const Part& part) {
    part_ = part.id;
    name_ = QString::fromStdString(part.name);
    const auto derived = session.derived();
    std::shared_ptr<const EvaluatedPart> evaluated;
    if (derived && derived->parts.contains(part.id)) evaluated = derived->parts.at(part.id);
    made_of_ = made_of(session, part, evaluated.get());
    const present::Theme& theme = present::Theme::current();
    dots_.clear();
    worst_.reset();
    size_.clear();
    if (evaluated) {
        size_ = size_text(mm(evaluated->box.width()), mm(evaluated->box.height()), session.project().unit);
        for (const Lane& lane : session.project().lanes)
            for (const RunSet& run : evaluated->runs)
                if (run.lane == lane.id) {
                    dots_.push_back({present::legible_on(present::to_qcolor(lane.colour), theme.card),
                                     QString::fromStdString(plate(session.project(), lane.id))});
                    break;
                }
        for (const Finding& f : derived->findings)
            if (f.place.part == part.id && f.grade != Grade::hint)
                worst_ = worst_ ? std::max(*worst_, f.grade) : f.grade;
    }
    if (evaluated)
        thumbnail_.request(
            evaluated, {picture, picture}, devicePixelRatioF(),
            [derived, id = part.id, evaluated, &catalog = session.catalog()](QPainter& painter) {
                present::PartScene scene{derived->project.get(), &catalog,
                                         dotlane::find(*derived->project, id), evaluated.get()};
                scene.ground = present::Theme::current().tile;
                present::paint_part_thumbnail(painter, scene, QRectF(0, 0, picture, picture));
            });
    setToolTip(name_);
    setAccessibleName(tr("Part %1, %2, %3").arg(name_, size_, made_of_));
    update();
}

void PartCard::paintEvent(QPaintEvent* event) {
    Card::paintEvent(event);
    const present::Theme& theme = present::Theme::current();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF tile(9, (height() - picture) / 2.0, picture, picture);
    painter.setPen(Qt::NoPen);
    painter.setBrush(theme.tile);
    painter.drawRoundedRect(tile, 5, 5);
    painter.drawImage(tile.topLeft(), thumbnail_.image());
    const double left = tile.right() + 9, room = width() - left - 10;
    const auto line = [&](double y, const QFont& font, QColor colour, const QString& text, double width) {
        painter.setFont(font);
        painter.setPen(colour);
        painter.drawText(QRectF(left, y, width, 17), Qt::AlignLeft | Qt::AlignVCenter,
                         QFontMetricsF(font).elidedText(text, Qt::ElideRight, width));
    };
    line(6, present::ui_font(10, QFont::DemiBold), theme.ink, name_, room - (worst_ ? 16 : 0));
    line(23, present::ui_font(9), theme.quiet, size_, room);
    line(38, present::ui_font(9), theme.quiet, made_of_, room);
    double x = left + 4;
    for (const LaneDot& dot : dots_) {
        if (x > width() - 14) break;
        painter.setPen(Qt::NoPen);
        painter.setBrush(dot.colour);
        painter.drawEllipse(QPointF(x, 61), 4, 4);
        x += 13;
    }
    if (worst_) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(*worst_ == Grade::error ? theme.error : theme.lamp);
        painter.drawEllipse(QPointF(width() - 16, 15), 4.5, 4.5);
    }
}

} // namespace dotlane::app
