#include "present/source_picture.h"

#include "present/lane_style.h"

namespace dotlane::present {

void paint_source(QPainter& painter, const Drawing& drawing, const QRectF& area) {
    const Box box = bounds(drawing);
    if (box.empty()) return;
    const Theme& theme = Theme::current();
    const View view = View::fitting(box, area);
    const auto colour_of = [&](const std::string& role) {
        if (role.find("fold") != std::string::npos) return QColor("#5a6996");
        if (role == "border" || role == "strokes") return QColor("#a8462d");
        return theme.ink;
    };
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    QPainterPath stock;
    stock.setFillRule(Qt::OddEvenFill);
    std::vector<std::pair<QPainterPath, QColor>> lines;
    for (const DrawnLine& line : drawing.lines) {
        QPainterPath path;
        for (const Contour& c : line.shape.contours)
            path.addPath(path_of(flattened(c, mm(0.2 / view.scale)), view));
        path.setFillRule(Qt::WindingFill);
        const bool closed = !line.shape.contours.empty() && line.shape.contours.front().closed;
        if (closed && line.group != "border" && line.group != "guide") stock.addPath(path);
        lines.emplace_back(std::move(path), colour_of(line.group));
    }
    painter.fillPath(stock, QColor("#f4ecd8"));
    for (const auto& [path, colour] : lines) {
        QPen pen(legible_on(colour, theme.panel), colour == theme.ink ? 1.2 : 1.4);
        if (colour == QColor("#5a6996")) pen.setDashPattern({4, 2.5});
        painter.strokePath(path, pen);
    }
    painter.restore();
}

} // namespace dotlane::present
