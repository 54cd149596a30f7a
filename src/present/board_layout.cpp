#include "present/board_layout.h"

#include <algorithm>
#include <cmath>

namespace dotlane::present {
namespace {

constexpr double axis = 30;
constexpr double least_pitch = 20; ///< px; plates and names of neighbouring lanes do not touch
constexpr double told_apart = 34;  ///< px; a narrower sheet shows nothing of its passes

/// What makes sheets alike: their stock and the lanes that run over them.
std::vector<std::string> likeness(const Program& program, const BoardLayout::OfSheet& sheet) {
    std::vector<std::string> out;
    for (std::size_t m = sheet.begin; m < sheet.end; ++m)
        if (const auto* pass = std::get_if<PassMove>(&program.moves[m])) {
            if (out.empty())
                for (const ProgramSheet& s : program.sheets)
                    if (s.sheet == pass->sheet) out.push_back(s.stock.english());
            out.push_back(std::to_string(pass->lane.value));
        }
    return out;
}

std::vector<BoardLayout::OfSheet> sheets_of(const Plan& plan, const Project& project) {
    std::vector<BoardLayout::OfSheet> out;
    SheetId sheet;
    for (std::size_t m = 0; m < plan.program.moves.size(); ++m) {
        const MoveSpan span = plan.timeline.spans()[m];
        if (const auto* stop = std::get_if<StopMove>(&plan.program.moves[m]);
            stop && stop->sheet && stop->sheet != sheet) {
            sheet = stop->sheet;
            const auto it = std::find_if(project.sheets.begin(), project.sheets.end(),
                                         [&](const Sheet& s) { return s.id == sheet; });
            out.push_back({static_cast<int>(it - project.sheets.begin()) + 1, m, m, span.start, span.start});
        }
        if (!out.empty()) out.back().end = m + 1, out.back().stop = span.start + span.time;
    }
    return out;
}

} // namespace

BoardLayout::BoardLayout(const BoardScene& scene, const QRectF& whole)
    : area(whole) {
    total_left = area.right() - (scene.totals ? totals_width : -28);
    plot = QRectF(QPointF(area.left() + heads + 8, area.top() + axis),
                  QPointF(total_left - 28, area.bottom() - 18));
    if (!scene.derived) return;
    const auto add = [&](LaneId lane) {
        for (const Track& t : tracks)
            if (t.lane == lane) return;
        tracks.push_back({lane, 0});
    };
    // Lanes that run, in the order of their passes; then those that wait for lines.
    const std::shared_ptr<const Plan>& plan = scene.derived->plan;
    if (plan)
        for (const Move& move : plan->program.moves)
            if (const auto* pass = std::get_if<PassMove>(&move)) add(pass->lane);
    for (const Lane& lane : scene.derived->project->lanes)
        add(lane.id);
    const double count = static_cast<double>(std::max<std::size_t>(1, tracks.size()));
    pitch = std::clamp(plot.height() / count, least_pitch, 38.0);
    const double high = pitch * count, over = std::max(0.0, high - plot.height());
    const double first = plot.top() + std::max(0.0, plot.height() - high) / 2 + pitch / 2 -
                         std::clamp(scene.view.down, 0.0, over);
    for (std::size_t i = 0; i < tracks.size(); ++i)
        tracks[i].y = first + pitch * static_cast<double>(i);
    if (!plan) return;
    seconds_all = std::max(1.0, in_seconds(plan->timeline.total()) * 1.02);
    seconds_shown = seconds_all / std::clamp(scene.view.zoom, 1.0, most_zoom);
    seconds_from = std::clamp(in_seconds(scene.view.from), 0.0, seconds_all - seconds_shown);
    if (seconds_shown < seconds_all * 0.999) overview = QRectF(plot.left(), area.top() + 2, plot.width(), 4);
    sheets = sheets_of(*plan, *scene.derived->project);
    std::vector<std::vector<std::string>> like;
    for (const OfSheet& sheet : sheets)
        like.push_back(likeness(plan->program, sheet));
    for (std::size_t s = 0; s < sheets.size();) {
        std::size_t end = s + 1;
        while (end < sheets.size() && like[end] == like[s])
            ++end;
        if (end - s >= 3 &&
            (x(sheets[end - 1].stop) - x(sheets[s].start)) / static_cast<double>(end - s) < told_apart)
            groups.push_back({s, end - 1});
        s = end;
    }
}

std::optional<LaneId> BoardLayout::head_hit(QPointF at) const {
    if (at.y() < plot.top() - 4 || at.y() > plot.bottom() + 4) return std::nullopt;
    for (const Track& t : tracks)
        if (at.x() >= area.left() && at.x() < plot.left() - 8 &&
            std::abs(at.y() - t.y) <= std::min(16.0, pitch / 2))
            return t.lane;
    return std::nullopt;
}

Duration BoardLayout::time(double x_px) const {
    return seconds(
        std::clamp(seconds_from + (x_px - plot.left()) / plot.width() * seconds_shown, 0.0, seconds_all));
}

double BoardLayout::overview_x(Duration t) const {
    return overview.left() + overview.width() * in_seconds(t) / seconds_all;
}

Duration BoardLayout::overview_time(double x_px) const {
    return seconds(std::clamp((x_px - overview.left()) / std::max(1.0, overview.width()) * seconds_all, 0.0,
                              seconds_all));
}

std::optional<double> BoardLayout::track_y(LaneId lane) const {
    for (const Track& t : tracks)
        if (t.lane == lane) return t.y;
    return std::nullopt;
}

QRectF BoardLayout::block(const Plan& plan, std::size_t move) const {
    const auto& pass = std::get<PassMove>(plan.program.moves[move]);
    const MoveSpan span = plan.timeline.spans()[move];
    const double h = pitch < 26 ? 12 : 18;
    // A pass of seconds is a round dot about its own middle.
    const double w = std::max(h, x(span.start + span.time) - x(span.start));
    double x0 = x(span.start + span.time / 2) - w / 2;
    if (seconds_from == 0) x0 = std::max(plot.left(), x0);
    return {x0, track_y(pass.lane).value_or(plot.top()) - h / 2, w, h};
}

QPointF BoardLayout::stop(const Plan& plan, std::size_t move) const {
    const MoveSpan span = plan.timeline.spans()[move];
    // On the track of the pass it makes ready; the last one on the track of the pass before it.
    double y = plot.center().y();
    const std::size_t beside = move + 1 < plan.program.moves.size() ? move + 1 : move > 0 ? move - 1 : move;
    if (const auto* pass = std::get_if<PassMove>(&plan.program.moves[beside]))
        y = track_y(pass->lane).value_or(y);
    return {x(span.start + span.time / 2), y};
}

const BoardLayout::Group* BoardLayout::group_of(std::size_t move) const {
    for (const Group& group : groups)
        if (move >= sheets[group.first].begin && move < sheets[group.last].end) return &group;
    return nullptr;
}

QRectF BoardLayout::band(const Group& group) const {
    return {QPointF(x(sheets[group.first].start), plot.top() - 2),
            QPointF(x(sheets[group.last].stop), plot.bottom() + 2)};
}

std::optional<std::size_t> BoardLayout::hit(const Plan& plan, QPointF at) const {
    if (!plot.adjusted(-8, -8, 8, 8).contains(at)) return std::nullopt;
    for (std::size_t m = 0; m < plan.program.moves.size(); ++m)
        if (std::holds_alternative<StopMove>(plan.program.moves[m]) && !group_of(m)) {
            const QPointF d = at - stop(plan, m);
            if (std::hypot(d.x(), d.y()) < std::min(11.0, pitch / 2)) return m;
        }
    for (std::size_t m = 0; m < plan.program.moves.size(); ++m)
        if (std::holds_alternative<PassMove>(plan.program.moves[m]) && !group_of(m) &&
            block(plan, m).adjusted(-2, -4, 2, 4).contains(at))
            return m;
    return std::nullopt;
}

BoardView BoardLayout::zoomed(const BoardView& view, double factor, double x_px) const {
    BoardView out = view;
    out.zoom = std::clamp(view.zoom * factor, 1.0, most_zoom);
    const double at = in_seconds(time(x_px)),
                 share = std::clamp((x_px - plot.left()) / plot.width(), 0.0, 1.0);
    const double shown = seconds_all / out.zoom;
    out.from = seconds(std::clamp(at - share * shown, 0.0, seconds_all - shown));
    return out;
}

BoardView BoardLayout::scrolled(const BoardView& view, double right, double down) const {
    BoardView out = view;
    out.from = seconds(
        std::clamp(seconds_from + right / plot.width() * seconds_shown, 0.0, seconds_all - seconds_shown));
    const double over = std::max(0.0, pitch * static_cast<double>(tracks.size()) - plot.height());
    out.down = std::clamp(view.down + down, 0.0, over);
    return out;
}

BoardView BoardLayout::showing(const BoardView& view, Duration t) const {
    const double px = x(t), margin = std::min(40.0, plot.width() / 4);
    if (px < plot.left() + margin) return scrolled(view, px - plot.left() - margin, 0);
    if (px > plot.right() - margin) return scrolled(view, px - plot.right() + margin, 0);
    return view;
}

} // namespace dotlane::present
