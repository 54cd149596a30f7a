#include "app/recipe/fill_picker.h"

#include <QPainter>
#include <QtConcurrent>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/commands/inking.h"
#include "core/commands/steps.h"
#include "present/lane_style.h"
#include "present/theme.h"
#include "present/words.h"

namespace dotlane::app {
namespace {

constexpr std::pair<AngleGoal, const char*> goals[] = {{AngleGoal::fewest_lifts, "fewest-lifts"},
                                                       {AngleGoal::no_corner, "no-corner"},
                                                       {AngleGoal::fastest, "fastest"}};

QString text(double value, int decimals) {
    return QString::fromStdString(number(value, decimals));
}

QString time_text(Duration time) {
    return QString::fromStdString(spoken_seconds(in_seconds(time))).replace(QLatin1Char(' '), QChar(0x00a0));
}

QPixmap blank(QSize size, double ratio) {
    QPixmap out(size * ratio);
    out.setDevicePixelRatio(ratio);
    out.fill(Qt::transparent);
    return out;
}

QRectF room_in(QSize size) {
    return QRectF({0, 0}, size).adjusted(3, 3, -3, -3);
}

/// Of a fill: where a window of this width and height holds about two thirds of the most that it holds
/// anywhere, so that lines are seen and their ends at the edge as well.
Box telling_place(const Polylines& strokes, double tip, double wide, double high) {
    const Box all = bounds(strokes).grown(tip / 2);
    if (all.width() <= wide && all.height() <= high) return all;
    constexpr int parts = 4; // of a window, each way
    const double across = wide / parts, down = high / parts;
    const int columns = std::max(parts, static_cast<int>(std::ceil(all.width() / across))),
              rows = std::max(parts, static_cast<int>(std::ceil(all.height() / down)));
    std::vector<double> drawn(static_cast<std::size_t>(columns) * rows, 0);
    const auto cell = [&](int c, int r) -> double& {
        return drawn[static_cast<std::size_t>(r) * columns + c];
    };
    for (const Polyline& line : strokes)
        for (std::size_t i = 0; i == 0 || i + 1 < line.points.size(); ++i) {
            const Point a = line.points[i], b = line.points[std::min(i + 1, line.points.size() - 1)];
            const double piece = line.points.size() == 1 ? tip : distance(a, b); // a dot is as long as wide
            const int steps = std::max(1, static_cast<int>(piece / std::min(across, down)));
            for (int k = 0; k < steps; ++k) {
                const Point p = mix(a, b, (k + 0.5) / steps);
                cell(std::clamp(static_cast<int>((p.x - all.x0) / across), 0, columns - 1),
                     std::clamp(static_cast<int>((p.y - all.y0) / down), 0, rows - 1)) += piece / steps;
            }
        }
    std::vector<std::pair<double, Point>> windows;
    double most = 0;
    for (int r = 0; r + parts <= rows; ++r)
        for (int c = 0; c + parts <= columns; ++c) {
            double held = 0;
            for (int y = r; y < r + parts; ++y)
                for (int x = c; x < c + parts; ++x)
                    held += cell(x, y);
            most = std::max(most, held);
            windows.emplace_back(held, Point{all.x0 + c * across, all.y0 + r * down});
        }
    const Point at = std::min_element(windows.begin(), windows.end(), [most](const auto& a, const auto& b) {
                         return std::abs(a.first - most * 2 / 3) < std::abs(b.first - most * 2 / 3);
                     })->second;
    const double x = all.width() < wide ? all.centre().x - wide / 2 : at.x,
                 y = all.height() < high ? all.centre().y - high / 2 : at.y;
    return {x, y, x + wide, y + high};
}

/// The place at the tip's real width, so near that its lines are told apart: what stays bare is seen.
QPixmap pixmap_of(const FillOption& option, const Box& box, const QColor& colour, QSize size, double ratio) {
    QPixmap out = blank(size, ratio);
    const double tip = in_mm(option.ink->tip);
    if (option.strokes.empty()) return out;
    const QRectF room = room_in(size);
    const present::View view = present::View::fitting(box, room);
    QPainter painter(&out);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setClipRect(room);
    QPainterPath path;
    for (const Polyline& line : option.strokes)
        if (bounds(line).grown(tip).meets(box)) path.addPath(present::path_of(line, view));
    QColor ink = colour;
    ink.setAlpha(110);
    painter.strokePath(path, QPen(ink, tip * view.scale, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    painter.strokePath(path, QPen(colour, 1, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    return out;
}

/// How lines lie at an angle.
QPixmap pixmap_at(Angle angle, const QColor& colour, QSize size, double ratio) {
    QPixmap out = blank(size, ratio);
    QPainter painter(&out);
    painter.setRenderHint(QPainter::Antialiasing);
    const double radius = size.height() / 2.0 - 4;
    const QPointF middle(size.width() / 2.0, size.height() / 2.0);
    QPainterPath disc;
    disc.addEllipse(middle, radius, radius);
    painter.setClipPath(disc);
    painter.translate(middle);
    painter.rotate(in_degrees(angle));
    painter.setPen(QPen(colour, 1.4));
    for (double y = -radius; y <= radius; y += 4.5)
        painter.drawLine(QPointF(-radius, y), QPointF(radius, y));
    return out;
}

} // namespace

FillPicker::FillPicker(Session& session, QWidget* parent)
    : Picker(tr("Other ways to fill"), parent)
    , session_(session) {
    setObjectName("fill-picker");
    connect(&watcher_, &QFutureWatcherBase::finished, this, [this] {
        if (working_ && working_->cancelled()) return;
        if (const auto ways = watcher_.result()) show(*ways);
    });
    connect(this, &Picker::given_up, this, [this] {
        if (working_) working_->cancel();
    });
    hide();
}

FillPicker::~FillPicker() {
    stop();
}

void FillPicker::open_for(StepId step) {
    stop();
    step_ = step;
    ready_ = false;
    clear();
    add_group(tr("Working out other ways..."), {});
    Picker::open();
    working_ = std::make_unique<Progress>();
    watcher_.setFuture(QtConcurrent::run([derived = session_.derived(), part = session_.choice().part, step,
                                          &catalog = session_.catalog(), progress = working_.get()] {
        auto out = std::make_shared<Ways>();
        const EvaluatedPart* evaluated = derived ? derived->part(part) : nullptr;
        if (!evaluated) return std::shared_ptr<const Ways>(out);
        out->options = options_for(*derived->project, catalog, *evaluated, step, *progress);
        if (const auto tried = angles_for(*derived->project, catalog, *evaluated, step, *progress))
            for (const auto& [goal, key] : goals)
                out->angles.emplace_back(goal, best_of(*tried, goal));
        return std::shared_ptr<const Ways>(out);
    }));
}

void FillPicker::show(const Ways& ways) {
    ways_ = ways;
    ready_ = true;
    clear();
    const QString names[] = {tr("Fewest lifts"), tr("Lose no corner"), tr("Fastest")};
    std::vector<Entry> styles, angles;
    for (std::size_t k = 0; k < ways.options.size(); ++k) {
        const FillOption& o = ways.options[k];
        const InkReport& r = *o.ink;
        const Landing landing = landing_of(session_.project(), session_.catalog(), r);
        QString about =
            !r.refused.empty()
                ? present::words(r.refused)
                : tr("inked %1\u00a0%, over %2\u00a0%, %3\u00a0lifts, %4\u00a0m, %5")
                      .arg(text(r.coverage.covered_percent, 1), text(r.coverage.overspill_percent, 1))
                      .arg(r.lifts)
                      .arg(text(in_mm(r.length) / 1000, 2), time_text(o.time));
        if (landing.gaps >= 0.5) about += tr(", %1 gaps seen").arg(text(landing.gaps, 0));
        const QString name = present::words(said_of(o));
        styles.push_back({QString("way-%1").arg(k), k == 0 ? tr("Now: %1").arg(name) : name, about});
    }
    for (std::size_t k = 0; k < ways.angles.size(); ++k) {
        const auto& [goal, search] = ways.angles[k];
        const AngleFigures& best = search.best;
        const bool stays = in_degrees(best.angle) == in_degrees(search.now.angle);
        angles.push_back({goals[static_cast<int>(goal)].second, names[static_cast<int>(goal)],
                          (stays ? tr("at %1° already: inked %2\u00a0%, %3\u00a0lifts, %4")
                                 : tr("at %1°: inked %2\u00a0%, %3\u00a0lifts, %4"))
                              .arg(text(in_degrees(best.angle), 1), text(best.covered * 100, 1))
                              .arg(best.lifts)
                              .arg(time_text(best.time))});
    }
    add_group(tr("Ways to fill it"), styles);
    if (!angles.empty()) add_group(tr("Angles: all 180 were tried"), angles);
    const Part* part = session_.part();
    const Step* step = part ? dotlane::find(*part, step_) : nullptr;
    const Lane* lane = step ? dotlane::find(session_.project(), step->lane) : nullptr;
    const present::Theme& theme = present::Theme::current();
    const QColor colour =
        lane ? present::legible_on(present::to_qcolor(lane->colour), theme.card) : theme.ink;
    const auto drawn = std::find_if(ways.options.begin(), ways.options.end(),
                                    [](const FillOption& o) { return !o.strokes.empty(); });
    if (drawn != ways.options.end()) { // the same place of each
        const double tip = in_mm(drawn->ink->tip), wide = tip * 22;
        const QRectF room = room_in(picture_size());
        const auto place = telling_place(drawn->strokes, tip, wide, wide * room.height() / room.width());
        for (std::size_t k = 0; k < ways.options.size(); ++k)
            set_picture(QString("way-%1").arg(k),
                        pixmap_of(ways.options[k], place, colour, picture_size(), devicePixelRatioF()));
    }
    for (const auto& [goal, search] : ways.angles)
        set_picture(goals[static_cast<int>(goal)].second,
                    pixmap_at(search.best.angle, colour, picture_size(), devicePixelRatioF()));
}

void FillPicker::take(const QString& key) {
    const PartId part = session_.choice().part;
    for (std::size_t k = 0; k < ways_.options.size(); ++k)
        if (key == QString("way-%1").arg(k))
            session_.run(tr("Another way to fill"), ChangeStep{part, step_, ways_.options[k].what});
    const Step* step = session_.part() ? dotlane::find(*session_.part(), step_) : nullptr;
    for (const auto& [goal, search] : ways_.angles)
        if (step && key == goals[static_cast<int>(goal)].second)
            session_.run(tr("Turn the fill"),
                         ChangeStep{part, step_, turned_to(step->what, search.best.angle)});
}

void FillPicker::stop() {
    if (!working_) return;
    working_->cancel();
    watcher_.waitForFinished();
}

} // namespace dotlane::app
