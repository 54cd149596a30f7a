// The fill's heat on the bench: how often each place is inked, with its key; and what is said of a fill.
#include <QCoreApplication>
#include <QPainter>
#include <mutex>

#include "app/bench/part_view.h"
#include "core/base/text.h"
#include "core/derive/inking.h"
#include "present/heat_painter.h"
#include "present/part_painter.h"

namespace dotlane::app {
namespace {

struct Fill {
    Q_DECLARE_TR_FUNCTIONS(Fill)
};

} // namespace

/// Worked out by whichever thread paints it first.
struct PartView::HeatPicture {
    std::shared_ptr<const Derived> derived;
    StepId step;
    std::once_flag once;
    Heat heat;
    QImage image;
};

QStringList fill_figures(const InkReport& r, const Project& project, const Catalog& catalog,
                         const EvaluatedPart& part, StepId step) {
    const auto text = [](double v, int decimals) { return QString::fromStdString(number(v, decimals)); };
    const RunSet* run = ink_run(part, step);
    const Duration time = run ? ink_time(project, catalog, {part.part, run->lane}, run->lines) : Duration();
    const int passes = run ? passes_of(project, catalog, {part.part, run->lane}, r) : 1;
    QStringList out{
        QCoreApplication::translate("Fill", "inked %1 %, over the edge %2 %")
            .arg(text(r.coverage.covered_percent, 1), text(r.coverage.overspill_percent, 1)),
        QStringList{Fill::tr("%n line(s)", nullptr, static_cast<int>(r.pieces)),
                    Fill::tr("%n stroke(s)", nullptr, static_cast<int>(r.runs)),
                    Fill::tr("%n lift(s)", nullptr, static_cast<int>(r.lifts))}
            .join(", "),
        QCoreApplication::translate("Fill", "%1 m, %2")
            .arg(text(in_mm(r.length) / 1000, 2), QString::fromStdString(spoken_seconds(in_seconds(time))))};
    // What deepens a line is said as passes: how deep one goes is the tool's and the stock's affair.
    if (passes > 1) out.back() += QStringLiteral(", ") + Fill::tr("%n pass(es) deep", nullptr, passes);
    const Landing landing = landing_of(project, catalog, r);
    if (landing.gaps >= 0.5)
        out << QCoreApplication::translate("Fill", "about %1 gaps seen where it lands, none at %2")
                   .arg(text(landing.gaps, 0), QString::fromStdString(to_text(landing.closer, project.unit)));
    else if (in_mm(r.widest_gap) > 0)
        out << QCoreApplication::translate("Fill", "widest gap that is not joined %1")
                   .arg(QString::fromStdString(to_text(r.widest_gap, project.unit)));
    if (!r.left_out.empty())
        out << Fill::tr("%n piece(s) left out", nullptr, static_cast<int>(r.left_out.size()));
    return out;
}

void PartView::show_heat(bool on) {
    if (std::exchange(heat_, on) != on) refresh();
}

const RunSet* PartView::heated(const EvaluatedPart& part) const {
    const RunSet* out = nullptr;
    const StepId chosen = session_.choice().step;
    for (const RunSet& run : part.runs)
        if (run.ink && run.ink->surface && (!out || run.step == chosen)) out = &run;
    return out;
}

Canvas::Painting PartView::heat_content() const {
    const auto derived = session_.drawn();
    const PartId id = session_.choice().part;
    const RunSet* run = heated(*derived->part(id));
    if (!heat_picture_ || heat_picture_->derived != derived || heat_picture_->step != run->step) {
        const_cast<PartView*>(this)->heat_picture_ = std::make_shared<HeatPicture>();
        heat_picture_->derived = derived, heat_picture_->step = run->step;
    }
    return [picture = heat_picture_, run, id, &catalog = session_.catalog()](
               QPainter& painter, const present::View& view, const QRectF& visible) {
        std::call_once(picture->once, [&] {
            picture->heat = heat_of(*run->ink->surface, run->lines, run->ink->tip);
            picture->image = present::heat_image(picture->heat);
        });
        const Project& project = *picture->derived->project;
        present::PartScene scene{&project, &catalog, dotlane::find(project, id), picture->derived->part(id)};
        scene.ground = present::Theme::current().paper;
        present::paint_part(painter, scene, view, visible);
        present::paint_heat(painter, picture->heat, picture->image, view);
    };
}

void PartView::paint_heat_key(QPainter& painter) const {
    const EvaluatedPart* part = session_.evaluated();
    if (!part || !heated(*part)) return;
    const present::Theme& theme = present::Theme::current();
    const std::pair<Heat::Ink, QString> rows[] = {{Heat::once, tr("inked once")},
                                                  {Heat::twice, tr("inked twice or more")},
                                                  {Heat::bare, tr("not inked")},
                                                  {Heat::over, tr("over the edge")}};
    painter.save();
    painter.setFont(present::ui_font(9));
    double wide = 0;
    for (const auto& [ink, words] : rows)
        wide = std::max(wide, QFontMetricsF(painter.font()).horizontalAdvance(words));
    QRectF box(0, 0, wide + 48, 14 + 19 * std::size(rows));
    box.moveTopRight(QPointF(width() - 14, 34));
    painter.setPen(QPen(theme.hairline, 1));
    painter.setBrush(theme.card);
    painter.drawRoundedRect(box, 7, 7);
    double y = box.top() + 8;
    for (const auto& [ink, words] : rows) {
        painter.setPen(QPen(theme.hairline, 1));
        painter.setBrush(present::heat_colour(ink));
        painter.drawRect(QRectF(box.left() + 12, y + 2, 16, 13));
        painter.setPen(theme.ink);
        painter.drawText(QRectF(box.left() + 36, y, wide + 8, 18), Qt::AlignLeft | Qt::AlignVCenter, words);
        y += 19;
    }
    painter.restore();
}

} // namespace dotlane::app
