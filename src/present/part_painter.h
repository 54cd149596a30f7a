// Paints a part at true proportions: its lines in their lanes' patterns, the chosen ones lit, its finished
// size written where a maker would write it.
#pragma once

#include <set>

#include "core/derive/workshop.h"
#include "present/lane_style.h"

namespace dotlane::present {

/// The look of a lane of a project; red dashes for "no lane".
LaneLook look_of(const Project& project, const Catalog& catalog, LaneId lane, QColor ground);

struct PartScene {
    const Project* project = nullptr;
    const Catalog* catalog = nullptr;
    const Part* part = nullptr;
    const EvaluatedPart* evaluated = nullptr;
    std::set<LineId> chosen;
    StepId lit; ///< a step whose result is lit
    bool dimensions = true;
    QColor ground; ///< what the lines are painted on
};

/// The stock the part is made of, with what is cut out of it missing: the closed lines of its cut lanes,
/// filled.
void paint_stock(QPainter& painter, const PartScene& scene, QColor stock, const View& view);
void paint_part(QPainter& painter, const PartScene& scene, const View& view, const QRectF& visible);
/// Thumbnail for the tray.
void paint_part_thumbnail(QPainter& painter, const PartScene& scene, const QRectF& area);
/// A place on the part (mm) with what lies around it, and a ring about it; for findings.
void paint_part_place(QPainter& painter, const PartScene& scene, const Box& place, const QRectF& area);
/// A drawing as its file drew it; used while a file is being opened.
void paint_drawing(QPainter& painter, const Drawing& drawing, const View& view, const QRectF& visible);

} // namespace dotlane::present
