#include "app/jobs/jobs_panel.h"

#include <QCoreApplication>
#include <QHBoxLayout>
#include <QPainter>

#include "app/jobs/job_tile.h"
#include "app/widgets/picker.h"

namespace dotlane::app {
namespace {

const QString from_file = QStringLiteral("drawing");

QPixmap pixmap_of(const JobTile::Painting& painting, double ratio) {
    const QSize size = Picker::picture_size();
    QPixmap out(size * ratio);
    out.setDevicePixelRatio(ratio);
    out.fill(Qt::transparent);
    QPainter painter(&out);
    painter.setRenderHint(QPainter::Antialiasing);
    painting(painter, QRectF({0, 0}, size).adjusted(6, 5, -6, -5));
    return out;
}

} // namespace

JobsPanel::JobsPanel(Workshop& workshop, QWidget* parent)
    : SidePanel(tr("New part"), parent)
    , picker_(new Picker(tr("Sources"), this)) {
    auto* back = pill(tr("Cancel"), this);
    back->setObjectName("jobs-cancel");
    head()->addWidget(back);
    connect(back, &QPushButton::clicked, this, &JobsPanel::done);
    picker_->setObjectName("job-picker");
    std::map<SourceRow::Wanted, std::vector<Picker::Entry>> groups;
    for (const SourceKind& kind : source_kinds())
        groups[kind.wanted].push_back({kind.key, QCoreApplication::translate("Sources", kind.name),
                                       QCoreApplication::translate("Sources", kind.about)});
    std::map<StepRow::Wanted, std::vector<Picker::Entry>> begun;
    for (const StepKind& kind : step_kinds())
        if (kind.begins)
            begun[kind.wanted].push_back({kind.key, QCoreApplication::translate("Steps", kind.name),
                                          QCoreApplication::translate("Steps", kind.about)});
    groups[SourceRow::Wanted::files].push_back(
        {from_file, tr("From a file"), tr("SVG, DXF, HP-GL, PNG or JPEG; or drop one anywhere here.")});
    for (const auto& [wanted, entries] : groups)
        picker_->add_group(QCoreApplication::translate("Sources", title(wanted)), entries);
    for (const auto& [wanted, entries] : begun)
        picker_->add_group(QCoreApplication::translate("Steps", title(wanted)), entries);
    for (const SourceKind& kind : source_kinds())
        picker_->set_picture(kind.key, pixmap_of(example_of(kind, workshop), devicePixelRatioF()));
    for (const StepKind& kind : step_kinds())
        if (kind.begins)
            picker_->set_picture(kind.key, pixmap_of(example_of(kind, workshop), devicePixelRatioF()));
    picker_->set_picture(from_file, pixmap_of(paint_drawing_job, devicePixelRatioF()));
    body()->addWidget(picker_);
    body()->addStretch(1);
    connect(picker_, &Picker::given_up, this, &JobsPanel::done);
    connect(picker_, &Picker::row_wanted, this, [this](const QRect& row) { scroll_to(picker_, row); });
    connect(picker_, &Picker::chosen, this, [this](const QString& key) {
        if (key == from_file)
            Q_EMIT drawing_wanted();
        else
            Q_EMIT made(key);
    });
}

void JobsPanel::open() {
    picker_->open();
}

} // namespace dotlane::app
