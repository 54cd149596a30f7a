#include "app/recipe/step_picker.h"

#include <QCoreApplication>
#include <QPainter>
#include <QtConcurrent>

#include "present/lane_style.h"
#include "present/theme.h"

namespace dotlane::app {
namespace {

void paint_lines(QPainter& painter, const Polylines& lines, const present::View& view, const QPen& pen) {
    QPainterPath path;
    for (const Polyline& line : lines)
        path.addPath(present::path_of(line, view));
    painter.strokePath(path, pen);
}

QPixmap pixmap_of(const StepPicture& picture, QSize size, double ratio) {
    const present::Theme& theme = present::Theme::current();
    QPixmap out(size * ratio);
    out.setDevicePixelRatio(ratio);
    out.fill(Qt::transparent);
    if (picture.box.empty()) return out;
    QPainter painter(&out);
    painter.setRenderHint(QPainter::Antialiasing);
    const present::View view =
        present::View::fitting(picture.box, QRectF({0, 0}, size).adjusted(6, 5, -6, -5));
    QColor faint = theme.quiet;
    faint.setAlpha(110);
    paint_lines(painter, picture.before, view, QPen(faint, 1));
    paint_lines(painter, picture.after, view, QPen(theme.ink, 1.2));
    return out;
}

} // namespace

StepPicker::StepPicker(Session& session, QWidget* parent)
    : Picker(tr("Steps"), parent)
    , session_(session) {
    setObjectName("step-picker");
    std::map<StepRow::Wanted, std::vector<Entry>> groups;
    for (const StepKind& kind : step_kinds())
        groups[kind.wanted].push_back({kind.key, QCoreApplication::translate("Steps", kind.name),
                                       QCoreApplication::translate("Steps", kind.about)});
    for (const auto& [wanted, entries] : groups)
        add_group(QCoreApplication::translate("Steps", title(wanted)), entries);
    connect(&pictures_, &QFutureWatcherBase::finished, this, [this] {
        if (drawing_ && drawing_->cancelled()) return;
        const Pictures pictures = pictures_.result();
        for (std::size_t k = 0; k < pictures.size(); ++k)
            set_picture(step_kinds()[k].key, pixmap_of(pictures[k], picture_size(), devicePixelRatioF()));
    });
    hide();
}

StepPicker::~StepPicker() {
    stop_drawing();
}

void StepPicker::open() {
    Picker::open();
    draw_pictures();
}

void StepPicker::draw_pictures() {
    stop_drawing();
    drawing_ = std::make_unique<Progress>();
    pictures_.setFuture(QtConcurrent::run([derived = session_.derived(), choice = session_.choice(),
                                           &fonts = session_.workshop().fonts(), progress = drawing_.get()] {
        Pictures out;
        for (const StepKind& kind : step_kinds())
            out.push_back(picture_of(kind, derived ? derived->part(choice.part) : nullptr, choice.lines,
                                     fonts, *progress));
        return out;
    }));
}

void StepPicker::stop_drawing() {
    if (!drawing_) return;
    drawing_->cancel();
    pictures_.waitForFinished();
}

} // namespace dotlane::app
