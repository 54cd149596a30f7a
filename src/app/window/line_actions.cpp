#include "app/window/line_actions.h"

#include <QCoreApplication>
#include <QMenu>

#include "app/widgets/plate_button.h"
#include "app/window/actions.h"
#include "core/commands/lines.h"
#include "core/commands/selection.h"
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
    if (!session_.evaluated() || session_.choice().lines.empty()) return;
    session_.run(tr("Send to %1").arg(present::action_title(action)),
                 SendToAction{{session_.choice().part, chosen()}, action, {}, {}, true});
}

void LineActions::fill(const std::vector<LineSetId>& sets) {
    add(AddStep{session_.choice().part,
                step_kind("fill")->fresh,
                sets,
                {},
                sets.empty() ? chosen() : std::vector<LineId>{}});
}

void LineActions::add_step(const QString& key) {
    if (const StepKind* kind = step_kind(key.toStdString()))
        add(AddStep{session_.choice().part, kind->fresh, {}, {}, chosen()});
}

void LineActions::add(const AddStep& command) {
    if (!session_.evaluated()) return;
    const QString name = QCoreApplication::translate("Steps", kind_of(command.what).name).toLower();
    const auto done = session_.run(tr("Add %1").arg(name), command);
    if (done) Q_EMIT step_made(done->step);
}

void LineActions::set_chosen_aside() {
    if (!session_.evaluated() || session_.choice().lines.empty()) return;
    session_.run(tr("Set lines aside"), SetLinesAside{{session_.choice().part, chosen()}});
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
            session_.run(tr("Send lines to a lane"), SendLines{{session_.choice().part, chosen()}, lane});
        });
    }
    if (!menu.isEmpty()) menu.exec(at);
}

} // namespace dotlane::app
