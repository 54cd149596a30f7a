// Paints the lane board: a track for each lane, time running right, a block for each pass, a white-centred
// dot for each stop, a bar where the sheet changes, and the totals.
#pragma once

#include <QPainter>

#include "present/board_layout.h"
#include "present/lane_style.h"

namespace dotlane::present {

void paint_board(QPainter& painter, const BoardScene& scene, const QRectF& area);
struct CalloutLine {
    QString text;
    bool care = false; ///< what can hurt at this stop
};
/// The text of a move's callout: heading and lines.
std::pair<QString, QList<CalloutLine>> callout(const Plan& plan, std::size_t move);

} // namespace dotlane::present
