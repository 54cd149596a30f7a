// What is done with chosen lines: to a lane, filled, set aside, more of them chosen.
#include "app/bench/part_view.h"
#include "app/bench/sheets_view.h"
#include "app/widgets/notice.h"
#include "app/window/main_window.h"
#include "core/base/text.h"
#include "core/project/edits.h"
#include "core/workflow/filling.h"
#include "core/workflow/opening.h"
#include "core/workflow/selection.h"
#include "present/words.h"

namespace dotlane::app {

void MainWindow::send_to_action(Action action) {
    const Part* part = session_.part();
    const auto& chosen = session_.choice().lines;
    if (!part || chosen.empty()) return;
    const std::vector<LineId> lines(chosen.begin(), chosen.end());
    session_.change(tr("Send to %1").arg(present::action_title(action)), [&](Project& p) {
        LaneId lane = lane_for_letter(p, *part, lines, action);
        if (!lane) { // the first lane of this action: its usual tool, in the colour of the lines
            const Tool* tool = session_.catalog().first_tool(action);
            const Drawn& drawn = dotlane::find(*part->source.drawing, lines.front())->drawn;
            lane = lane_for(p, session_.catalog(), action, tool ? tool->id : "",
                            drawn.stroke ? *drawn.stroke : drawn.fill.value_or(Colour{}));
        }
        return assign(p, part->id, lines, lane);
    });
}

void MainWindow::fill(const std::vector<LineSetId>& sets) {
    const Part* part = session_.part();
    if (!part) return;
    StepId made;
    const auto& chosen = session_.choice().lines;
    const std::vector<LineId> lines(chosen.begin(), chosen.end());
    session_.change(tr("Add fill"), [&](Project& p) -> Result<void> {
        const auto step = sets.empty() ? fill_lines(p, session_.catalog(), part->id, lines)
                                       : fill_sets(p, session_.catalog(), part->id, sets);
        if (!step) return tl::make_unexpected(step.error());
        made = *step;
        return {};
    });
    if (!made) return;
    Choice choice = session_.choice();
    choice.step = made;
    choice.lines.clear();
    session_.choose(choice);
}

void MainWindow::choose_same_colour() {
    const Part* part = session_.part();
    if (!part || session_.choice().lines.empty()) return;
    std::set<LineId> all;
    for (const LineId like : session_.choice().lines)
        if (!all.contains(like))
            for (const LineId line : lines_of_same_colour(*part, like))
                all.insert(line);
    session_.choose_lines(std::move(all));
}

void MainWindow::choose_inside() {
    const EvaluatedPart* part = session_.evaluated();
    if (!part || session_.choice().lines.empty()) return;
    std::set<LineId> all;
    for (const LineId outline : session_.choice().lines)
        for (const LineId line : lines_inside(*part, outline))
            all.insert(line);
    session_.choose_lines(std::move(all));
}

void MainWindow::set_chosen_aside() {
    const Part* part = session_.part();
    const auto& chosen = session_.choice().lines;
    if (!part || chosen.empty()) return;
    const std::vector<LineId> lines(chosen.begin(), chosen.end());
    session_.change(tr("Set lines aside"), [&](Project& p) -> Result<void> {
        const auto set = gather(p, part->id, lines, tr("set aside").toStdString());
        if (!set) return tl::make_unexpected(set.error());
        return set_aside(p, part->id, *set, true);
    });
}

/// A block was dragged: once the new plan is there, says what the new order costs and breaks.
void MainWindow::tell_order_change(const QString& plate) {
    const auto before = session_.derived();
    if (!before || !before->plan) return;
    const PlanTotals old = before->plan->totals;
    connect(
        &session_, &Session::derivedChanged, this,
        [this, plate, old] {
            const auto now = session_.derived();
            if (!now || !now->plan) return;
            const PlanTotals& t = now->plan->totals;
            QStringList words;
            for (const Finding& f : now->plan->findings)
                words << present::words(f);
            const double hands = in_seconds(t.hands) - in_seconds(old.hands);
            if (t.stops != old.stops) words << tr("Stops: %1 instead of %2.").arg(t.stops).arg(old.stops);
            if (std::abs(hands) >= 1)
                words << tr("Hands on: %1 %2.")
                             .arg(QString::fromStdString(spoken_seconds(std::abs(hands))),
                                  hands > 0 ? tr("more") : tr("less"));
            if (words.isEmpty()) words << tr("It breaks no rule and costs nothing.");
            notice_action_ = [this] { session_.history().undo(); };
            notice_->tell(Notice::Kind::news, tr("%1 was moved. %2").arg(plate, words.join(' ')), tr("Undo"));
        },
        Qt::SingleShotConnection);
}

void MainWindow::show_finding(const Finding& finding) {
    const PlaceBox& b = finding.place.box;
    Choice choice = session_.choice();
    if (finding.place.sheet) {
        choice.sheet = finding.place.sheet;
        session_.choose(choice);
        show_view(View::sheets);
        if (b.valid()) sheets_view_->show_area({b.x0, b.y0, b.x1, b.y1});
    } else if (finding.place.part) {
        session_.choose_part(finding.place.part);
        show_view(View::part);
        if (b.valid()) part_view_->show_area({b.x0, b.y0, b.x1, b.y1});
    }
}

} // namespace dotlane::app
