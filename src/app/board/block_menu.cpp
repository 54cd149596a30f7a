#include "app/board/block_menu.h"

#include <QMenu>
#include <QtConcurrent>

#include "core/base/caught.h"
#include "core/commands/ordering.h"
#include "core/commands/remedies.h"
#include "core/plan/compare.h"
#include "present/words.h"

namespace dotlane::app {

BlockMenu::BlockMenu(Session& session, QObject* parent)
    : QObject(parent)
    , session_(session) {
    connect(&watcher_, &QFutureWatcherBase::finished, this, [this] {
        if (!asking_ || asking_->cancelled()) return;
        const auto why = watcher_.result();
        QStringList text;
        if (!why) return Q_EMIT told(present::words(why.error().message));
        for (const Phrase& sentence : *why)
            text << present::words(sentence);
        Q_EMIT told(text.join(' '));
    });
}

BlockMenu::~BlockMenu() {
    if (asking_) asking_->cancel();
    watcher_.waitForFinished();
}

/// On another thread: the job is planned several times.
void BlockMenu::ask_why(std::size_t move) {
    const auto derived = session_.derived();
    if (!derived || !derived->plan || move >= derived->plan->program.moves.size()) return;
    const Machine* machine = session_.catalog().machine(derived->project->machine);
    if (asking_) asking_->cancel();
    watcher_.waitForFinished();
    asking_ = std::make_shared<Progress>();
    watcher_.setFuture(QtConcurrent::run([derived, machine, move, asking = asking_] {
        return caught([&] {
            return why_move(*derived->plan, *derived->works, *machine,
                            {derived->project->pass_order, derived->project->wishes}, move, *asking);
        });
    }));
}

void BlockMenu::add_sheet(QMenu& menu, const Plan& plan, SheetId id) {
    const Sheet* sheet = dotlane::find(session_.project(), id);
    if (!sheet) return;
    const QString name = QString::fromStdString(sheet->name);
    const auto& sheets = plan.program.sheets;
    const auto at =
        std::find_if(sheets.begin(), sheets.end(), [id](const ProgramSheet& s) { return s.sheet == id; });
    const int place = static_cast<int>(at - sheets.begin()) + 1;
    const auto& pins = session_.project().wishes.pins;
    const bool pinned =
        std::any_of(pins.begin(), pins.end(), [id](const SheetPin& pin) { return pin.sheet == id; });
    const auto pin = [this, id](int to) {
        session_.run(tr("Place of a sheet in the run"),
                     WishOrder{with_pin(session_.project().wishes, id, to)});
    };
    if (pinned)
        menu.addAction(tr("Let %1 run where it is best").arg(name), [pin] { pin(0); });
    else if (at != sheets.end())
        menu.addAction(tr("Pin %1 here, as number %2").arg(name).arg(place), [pin, place] { pin(place); });
    if (place > 1 && at != sheets.end()) menu.addAction(tr("Run %1 first").arg(name), [pin] { pin(1); });
    menu.addAction(tr("Leave %1 out of this run").arg(name),
                   [this, id] { session_.leave_out([&](NotThisRun& out) { out.sheets.insert(id); }); });
}

void BlockMenu::add_lane(QMenu& menu, const PassMove& pass) {
    const Project& project = session_.project();
    const auto name = [&](LaneId lane) {
        return QString("%1 %2").arg(QString::fromStdString(plate(project, lane)),
                                    QString::fromStdString(dotlane::find(project, lane)->name));
    };
    if (!dotlane::find(project, pass.lane)) return;
    menu.addSeparator();
    menu.addAction(tr("Leave %1 out of this run").arg(name(pass.lane)), [this, lane = pass.lane] {
        session_.leave_out([&](NotThisRun& out) { out.lanes.insert(lane); });
    });
    std::set<PartId> parts;
    for (const Stroke& stroke : pass.strokes)
        parts.insert(stroke.of.part);
    if (parts.size() > 1) {
        QMenu* split = menu.addMenu(tr("A lane of its own for"));
        for (const PartId id : parts)
            if (const Part* part = dotlane::find(project, id))
                split->addAction(QString::fromStdString(part->name), [this, lane = pass.lane, id] {
                    session_.run(tr("Split a lane"), SplitLane{lane, id});
                });
    }
    QMenu* merge = nullptr;
    for (const Lane& lane : project.lanes) {
        if (lane.id == pass.lane || lane.action != pass.action) continue;
        if (!merge) merge = menu.addMenu(tr("All its lines into"));
        merge->addAction(name(lane.id), [this, from = pass.lane, into = lane.id] {
            session_.run(tr("Merge lanes"), MergeLanes{from, into});
        });
    }
}

void BlockMenu::show(std::size_t move, const QPoint& global, QWidget* over) {
    const auto derived = session_.derived();
    if (!derived || !derived->plan || move >= derived->plan->program.moves.size()) return;
    auto* menu = new QMenu(over);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    menu->setObjectName("block-menu");
    menu->addAction(tr("Why is this here?"), [this, move] { ask_why(move); });
    for (const auto& [at, finding] : derived->plan->broken) {
        if (at != move) continue;
        menu->addAction(tr("Keep the rule: %1").arg(present::remedy_words(finding)), [this, one = finding] {
            session_.run(present::remedy_words(one), MendFinding{one});
        });
        break; // the usual order mends them all
    }
    menu->addSeparator();
    const Move& block = derived->plan->program.moves[move];
    if (const auto* pass = std::get_if<PassMove>(&block)) {
        add_sheet(*menu, *derived->plan, pass->sheet);
        add_lane(*menu, *pass);
    } else if (const SheetId sheet = std::get<StopMove>(block).sheet) {
        add_sheet(*menu, *derived->plan, sheet);
    }
    menu->popup(global);
}

} // namespace dotlane::app
