#include "app/window/part_actions.h"

#include "app/commands/dialogs.h"
#include "core/commands/inking.h"
#include "core/commands/making.h"
#include "core/commands/parts.h"
#include "core/commands/samples.h"

namespace dotlane::app {

PartActions::PartActions(Session& session, FileSystem& files, QObject* parent)
    : QObject(parent)
    , session_(session)
    , files_(files) {}

void PartActions::make(const QString& key) {
    if (const SourceKind* kind = source_kind(key.toStdString())) make_from(kind->fresh, {});
    if (const StepKind* kind = step_kind(key.toStdString()); kind && kind->begins)
        show(session_.run(tr("New part"), MakePart{source_kind("lettering")->fresh, {}, {}, {kind->fresh}}));
}

void PartActions::make_from(const SourceSpec& spec, const QString& name) {
    show(session_.run(tr("New part"), MakePart{spec, name.toStdString(), session_.choice().part}));
}

void PartActions::add_samples() {
    show_sheet(session_.run(tr("Fill samples"), AddSamples{}));
}

void PartActions::add_crosses() {
    const auto made = session_.run(tr("Tool crosses"), AddCrosses{});
    show_sheet(made);
    if (made) Q_EMIT done(*made);
}

void PartActions::show_sheet(const std::optional<Done>& made) {
    if (!made) return;
    Choice choice = session_.choice();
    choice.part = made->part, choice.sheet = made->sheet;
    session_.choose(choice);
}

void PartActions::tone(QWidget* window) {
    const Part* part = session_.part();
    if (!part) return;
    StepId target;
    for (const Step& step : part->steps)
        if (StepWhat what = step.what; tone_in(what) && (!target || step.id == session_.choice().step))
            target = step.id;
    if (!target) {
        Q_EMIT session_.failed(
            {"fill.no-tone",
             dotlane::say("This part has no fill that can be lighter and darker: parallel, "
                          "contour, stipple or scribble."),
             {}});
        return;
    }
    const auto path =
        dialogs().file_to_open(window, tr("A picture for the fill"), tr("Pictures (*.png *.jpg *.jpeg)"));
    if (!path) return;
    const auto bytes = files_.read(path->toStdString(), default_max_bytes);
    if (!bytes) {
        Q_EMIT session_.failed(bytes.error());
        return;
    }
    session_.run(tr("Fill as dark as a picture"), ToneFill{part->id, target, *bytes});
}

void PartActions::add_layers(int count, Length reveal) {
    Layer layer;
    layer.reveal = reveal;
    show(session_.run(tr("Add layers"), AddLayers{layer, count, {}, session_.choice().part}));
}

void PartActions::show(const std::optional<Done>& made_parts) {
    if (!made_parts) return;
    session_.choose_part(made_parts->part);
    Q_EMIT made();
}

void PartActions::copy() {
    const auto answer = session_.run(tr("Copy part"), CopyPart{session_.choice().part, {}});
    if (!answer) return;
    session_.choose_part(answer->part);
    Q_EMIT done(*answer);
}

void PartActions::remove() {
    if (const auto answer = session_.run(tr("Remove part"), RemovePart{session_.choice().part}))
        Q_EMIT done(*answer);
}

} // namespace dotlane::app
