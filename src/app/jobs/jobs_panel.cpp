#include "app/jobs/jobs_panel.h"

#include <QCoreApplication>
#include <QGridLayout>
#include <QHBoxLayout>

#include "app/jobs/job_tile.h"

namespace dotlane::app {

JobsPanel::JobsPanel(Workshop& workshop, QWidget* parent)
    : SidePanel(tr("New part"), parent) {
    auto* back = pill(tr("Cancel"), this);
    back->setObjectName("jobs-cancel");
    head()->addWidget(back);
    connect(back, &QPushButton::clicked, this, &JobsPanel::done);
    auto* grid = new QGridLayout;
    grid->setSpacing(8);
    const QSize size(126, 82);
    int at = 0;
    for (const SourceKind& kind : source_kinds()) {
        auto* tile =
            new JobTile(QString("job-") + kind.key, QCoreApplication::translate("Sources", kind.name), {},
                        example_of(kind, workshop), size, this);
        tile->setToolTip(QCoreApplication::translate("Sources", kind.about));
        connect(tile, &Card::pressed, this, [this, key = kind.key] { Q_EMIT made(key); });
        grid->addWidget(tile, at / 2, at % 2);
        ++at;
    }
    auto* drawing = new JobTile("job-drawing", tr("From a file"), {}, paint_drawing_job, size, this);
    drawing->setToolTip(tr("Open an SVG, DXF, HP-GL, PNG or JPEG file, or drop one anywhere here."));
    connect(drawing, &Card::pressed, this, &JobsPanel::drawing_wanted);
    grid->addWidget(drawing, at / 2, at % 2);
    body()->addLayout(grid);
    body()->addStretch(1);
}

} // namespace dotlane::app
