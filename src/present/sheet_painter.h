// Paints a sheet on its mat as it will be loaded, and the rehearsal on it.
#pragma once

#include <set>

#include "core/derive/workshop.h"
#include "core/machine/simulator.h"
#include "present/part_painter.h"

namespace dotlane::present {

struct SheetScene {
    const Project* project = nullptr;
    const Catalog* catalog = nullptr;
    const Derived* derived = nullptr;
    SheetId sheet;
    bool parts = true;                 ///< false for the rehearsal, which paints its own ink
    std::set<PlacementId> hidden = {}; ///< left out: they are being dragged
};

/// What the view must show: mat and loading arrow.
Box mat_box(const LaidSheet& laid);
void paint_mat(QPainter& painter, const SheetScene& scene, const View& view, bool details);
void paint_sheet(QPainter& painter, const SheetScene& scene, const View& view, const QRectF& visible);

/// One part, or one arrangement of it, where `to_sheet` puts it.
void paint_placed(QPainter& painter, const SheetScene& scene, const EvaluatedPart& part, int piece,
                  const Affine& to_sheet, const View& view, const QRectF& visible);

struct RehearsalScene {
    const Plan* plan = nullptr;
    Duration time;
    bool show_travel = true;
};
/// Ink at tip width of a pass's runs [from, to), repeats counted.
void paint_strokes(QPainter& painter, const PassMove& pass, std::size_t from, std::size_t to,
                   const View& view);
/// The ways with the tool up that lead to the runs [from, to), faintly.
void paint_travel(QPainter& painter, const Program& program, const PassMove& pass, std::size_t from,
                  std::size_t to, const View& view);
/// The moving rest: the stroke or travel under way, and the carriage as a ghost with its slots.
void paint_carriage(QPainter& painter, const RehearsalScene& scene, const MachineState& state,
                    const View& view, const QRectF& mat);

} // namespace dotlane::present
