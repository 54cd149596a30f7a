#include "app/window/part_actions.h"

#include "core/commands/making.h"
#include "core/commands/parts.h"
#include "core/commands/samples.h"

namespace dotlane::app {

PartActions::PartActions(Session& session, QObject* parent)
    : QObject(parent)
    , session_(session) {}

void PartActions::make(const QString& key) {
    if (const SourceKind* kind = source_kind(key.toStdString())) make_from(kind->fresh, {});
}

void PartActions::make_from(const SourceSpec& spec, const QString& name) {
    show(session_.run(tr("New part"), MakePart{spec, name.toStdString(), session_.choice().part}));
}

void PartActions::add_samples() {
    const auto answer = session_.run(tr("Fill samples"), AddSamples{});
    if (!answer) return;
    Choice choice = session_.choice();
    choice.part = answer->part, choice.sheet = answer->sheet;
    session_.choose(choice);
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
