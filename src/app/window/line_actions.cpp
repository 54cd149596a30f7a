#include "app/window/line_actions.h"

#include <QCoreApplication>
#include <QMenu>

#include "app/widgets/plate_button.h"
#include "app/window/actions.h"
#include "core/project/edits.h"
#include "core/workflow/filling.h"
#include "core/workflow/making.h"
#include "core/workflow/opening.h"
#include "core/workflow/selection.h"
#include "present/words.h"

namespace dotlane::app {

LineActions::LineActions(Session& session, QWidget* window)
    : QObject(window)
    , session_(session)
    , window_(window) {}

std::vector<LineId> LineActions::chosen() const {
    const auto& lines = session_.choice().lines;
    return {lines.begin(), lines.end()};
}

void LineActions::choose_all() {
    const EvaluatedPart* part = session_.evaluated();
    if (!part) return;
    std::set<LineId> all;
    for (const FlatLine& line : part->lines)
        all.insert(line.id);
    session_.choose_lines(std::move(all));
}

void LineActions::choose_same_colour() {
    const EvaluatedPart* part = session_.evaluated();
    if (!part || session_.choice().lines.empty()) return;
    std::set<LineId> all;
    for (const LineId like : session_.choice().lines)
        if (!all.contains(like))
            for (const LineId line : lines_of_same_colour(*part, like))
                all.insert(line);
    session_.choose_lines(std::move(all));
}

void LineActions::choose_inside() {
    const EvaluatedPart* part = session_.evaluated();
    if (!part || session_.choice().lines.empty()) return;
    std::set<LineId> all;
    for (const LineId outline : session_.choice().lines)
        for (const LineId line : lines_inside(*part, outline))
            all.insert(line);
    session_.choose_lines(std::move(all));
}

void LineActions::send_to_action(Action action) {
    const EvaluatedPart* part = session_.evaluated();
    const std::vector<LineId> lines = chosen();
    if (!part || lines.empty()) return;
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

void LineActions::fill(const std::vector<LineSetId>& sets) {
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
    Q_EMIT step_made(made);
}

void LineActions::add_step(const QString& key) {
    const StepKind* kind = step_kind(key.toStdString());
    const EvaluatedPart* part = session_.evaluated();
    if (!kind || !part) return;
    if (kind->inks) return fill({});
    const std::vector<LineId> lines = chosen();
    StepId made;
    session_.change(
        tr("Add %1").arg(QCoreApplication::translate("Steps", kind->name).toLower()),
        [&](Project& p) -> Result<void> {
            std::vector<LineSetId> of, by;
            if (!lines.empty()) {
                const auto found = sets_of_lines(p, *part, lines, tr("chosen lines").toStdString());
                if (!found) return tl::make_unexpected(found.error());
                of = *found;
            }
            if (kind->second == StepKind::Second::wanted) {
                if (of.empty())
                    return fail("step.no-lines", "Choose what is to be cut out of the other lines first.");
                std::swap(of, by);
            }
            const auto step = append_step(p, session_.catalog(), *part, kind->fresh, of, by);
            if (!step) return tl::make_unexpected(step.error());
            made = *step;
            return {};
        });
    Q_EMIT step_made(made);
}

void LineActions::set_chosen_aside() {
    const EvaluatedPart* part = session_.evaluated();
    const std::vector<LineId> lines = chosen();
    if (!part || lines.empty()) return;
    session_.change(tr("Set lines aside"), [&](Project& p) -> Result<void> {
        const auto sets = sets_of_lines(p, *part, lines, tr("set aside").toStdString());
        if (!sets) return tl::make_unexpected(sets.error());
        for (const LineSetId set : *sets)
            if (const auto ok = set_aside(p, part->part, set, true); !ok) return ok;
        return {};
    });
}

void LineActions::offer(const Actions& actions, const QPoint& at, LineId under) {
    QMenu menu(window_);
    const bool any = !session_.choice().lines.empty();
    if (any || under)
        for (const char* id : {"same-colour", "inside", "fill", "aside"})
            menu.addAction(actions.find(id));
    if (any) {
        menu.addSeparator();
        add_lanes(menu, session_.project(), {}, tr("To %1, %2"), [this](LaneId lane) {
            session_.change(tr("Send lines to a lane"), [&](Project& p) {
                const EvaluatedPart* part = session_.evaluated();
                return part ? send_lines(p, *part, chosen(), lane) : Result<void>{};
            });
        });
    }
    if (!menu.isEmpty()) menu.exec(at);
}

} // namespace dotlane::app
