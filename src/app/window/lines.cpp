// Parts begun, and what is done with chosen lines: to a lane, filled, set aside, more of them chosen.
#include <QCoreApplication>

#include "app/bench/part_view.h"
#include "app/bench/sheets_view.h"
#include "app/jobs/jobs_panel.h"
#include "app/opening/opening_panel.h"
#include "app/widgets/notice.h"
#include "app/window/main_window.h"
#include "core/base/text.h"
#include "core/project/edits.h"
#include "core/workflow/filling.h"
#include "core/workflow/making.h"
#include "core/workflow/opening.h"
#include "core/workflow/selection.h"
#include "present/words.h"

namespace dotlane::app {

void MainWindow::send_to_action(Action action) {
    const EvaluatedPart* part = session_.evaluated();
    const auto& chosen = session_.choice().lines;
    if (!part || chosen.empty()) return;
    const std::vector<LineId> lines(chosen.begin(), chosen.end());
    session_.change(tr("Send to %1").arg(present::action_title(action)), [&](Project& p) {
        LaneId lane = lane_for_letter(p, *part, lines, action);
        if (!lane) { // the first lane of this action: its usual tool, in the colour of the lines
            const Tool* tool = session_.catalog().first_tool(action);
            const DrawnLine* line = dotlane::find(*part->drawing, lines.front());
            const Drawn drawn = line ? line->drawn : Drawn{};
            lane = lane_for(p, session_.catalog(), action, tool ? tool->id : "",
                            drawn.stroke ? *drawn.stroke : drawn.fill.value_or(Colour{0x22, 0x28, 0x2c}));
        }
        return send_lines(p, *part, lines, lane);
    });
}

void MainWindow::fill(const std::vector<LineSetId>& sets) {
    const EvaluatedPart* part = session_.evaluated();
    if (!part) return;
    const auto& chosen = session_.choice().lines;
    std::vector<LineId> closed;
    for (const FlatLine& line : part->lines)
        if (chosen.contains(line.id) && fillable(line)) closed.push_back(line.id);
    StepId made;
    session_.change(tr("Add fill"), [&](Project& p) -> Result<void> {
        auto of = sets;
        if (of.empty() && !chosen.empty()) {
            if (closed.empty())
                return fail("step.no-lines", "A fill needs closed lines, and none of the chosen ones is.");
            const auto found = sets_of_lines(p, *part, closed, "filled lines");
            if (!found) return tl::make_unexpected(found.error());
            of = *found;
        }
        const auto step = append_step(p, session_.catalog(), *part, step_kind("fill")->fresh, of);
        if (!step) return tl::make_unexpected(step.error());
        made = *step;
        return {};
    });
    choose_step(made);
}

/// The chosen lines are what a step works on; for one that works with others, the chosen ones are the others.
void MainWindow::add_step(const QString& key) {
    const StepKind* kind = step_kind(key.toStdString());
    const Part* part = session_.part();
    const EvaluatedPart* evaluated = session_.evaluated();
    if (!kind || !part || !evaluated) return;
    if (kind->inks) return fill({});
    const auto& chosen = session_.choice().lines;
    const std::vector<LineId> lines(chosen.begin(), chosen.end());
    StepId made;
    session_.change(
        tr("Add %1").arg(QCoreApplication::translate("Steps", kind->name).toLower()),
        [&](Project& p) -> Result<void> {
            std::vector<LineSetId> of, by;
            if (!lines.empty()) {
                const auto found = sets_of_lines(p, *evaluated, lines, tr("chosen lines").toStdString());
                if (!found) return tl::make_unexpected(found.error());
                of = *found;
            }
            if (kind->second == StepKind::Second::wanted) {
                if (of.empty())
                    return fail("step.no-lines", "Choose what is to be cut out of the other lines first.");
                std::swap(of, by);
            }
            const auto step = append_step(p, session_.catalog(), *evaluated, kind->fresh, of, by);
            if (!step) return tl::make_unexpected(step.error());
            made = *step;
            return {};
        });
    choose_step(made);
}

void MainWindow::choose_step(StepId step) {
    if (!step) return;
    Choice choice = session_.choice();
    choice.step = step;
    choice.lines.clear();
    session_.choose(choice);
}

void MainWindow::show_stroke(const StrokeOf& of) {
    if (!dotlane::find(session_.project(), of.part)) return;
    session_.choose_part(of.part);
    if (of.line)
        session_.choose_lines({of.line});
    else
        choose_step(of.step);
    show_view(View::part);
}

void MainWindow::tell_done(const Done& done) {
    QString text = QString::fromStdString(done.said);
    for (const std::string& lost : done.lost)
        text += " " + QString::fromStdString(lost);
    notice_->tell(Notice::Kind::news, text);
}

void MainWindow::show_jobs() {
    if (file_waiting()) return show_view(view_); // which says why not
    if (!session_.is_open()) return show_start();
    show_side(jobs_panel_);
}

void MainWindow::make(const QString& key) {
    const SourceKind* kind = source_kind(key.toStdString());
    if (kind) make_from(kind->fresh, {});
}

void MainWindow::make_from(const SourceSpec& spec, const QString& name) {
    if (!session_.is_open()) start_project(session_.workshop().new_project(tr("Untitled").toStdString()), {});
    offer_recovery();
    PartId made;
    session_.change(tr("New part"), [&](Project& p) -> Result<void> {
        const auto part = make_part(p, session_.catalog(), session_.workshop().fonts(), spec,
                                    name.toStdString(), session_.choice().part);
        if (!part) return tl::make_unexpected(part.error());
        made = *part;
        return {};
    });
    if (!made) return;
    session_.choose_part(made);
    show_view(View::part);
}

void MainWindow::add_layers(int count, Length reveal) {
    std::vector<PartId> made;
    Layer layer;
    layer.reveal = reveal;
    if (!session_.change(tr("Add layers"), [&](Project& p) -> Result<void> {
            return dotlane::add_layers(p, session_.catalog(), session_.workshop().fonts(), layer, count, {},
                                       session_.choice().part)
                .map([&](std::vector<PartId> parts) { made = std::move(parts); });
        }))
        return;
    session_.choose_part(made.front());
    show_view(View::part);
}

void MainWindow::choose_same_colour() {
    const EvaluatedPart* part = session_.evaluated();
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
    const EvaluatedPart* part = session_.evaluated();
    const auto& chosen = session_.choice().lines;
    if (!part || chosen.empty()) return;
    const std::vector<LineId> lines(chosen.begin(), chosen.end());
    session_.change(tr("Set lines aside"), [&](Project& p) -> Result<void> {
        const auto sets = sets_of_lines(p, *part, lines, tr("set aside").toStdString());
        if (!sets) return tl::make_unexpected(sets.error());
        for (const LineSetId set : *sets)
            if (const auto ok = set_aside(p, part->part, set, true); !ok) return ok;
        return {};
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
            notice_->tell(Notice::Kind::news, tr("%1 was moved. %2").arg(plate, words.join(' ')),
                          {{tr("Undo"), [this] { session_.history().undo(); }}});
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
