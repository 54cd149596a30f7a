// How often each place of a surface is inked, in colours that are told apart without seeing red or green.
#pragma once

#include <QImage>
#include <QPainter>

#include "core/recipe/heat.h"
#include "present/lane_style.h"

namespace dotlane::present {

QColor heat_colour(Heat::Ink ink);
/// One pixel a square.
QImage heat_image(const Heat& heat);
void paint_heat(QPainter& painter, const Heat& heat, const QImage& image, const View& view);

} // namespace dotlane::present
