#include "app/window/part_actions.h"

#include "core/commands/making.h"
#include "core/commands/parts.h"

namespace dotlane::app {

PartActions::PartActions(Session& session, QObject* parent)
    : QObject(parent)
    , session_(session) {}

void PartActions::make(const QString& key) {
    if (const SourceKind* kind = source_kind(key.toStdString())) make_from(kind->fresh, {});
}

void PartActions::make_from(const SourceSpec& spec, const QString& name) {
    PartId part;
    session_.change(tr("New part"), [&](Project& p) -> Result<void> {
        const auto answer = make_part(p, session_.catalog(), session_.workshop().fonts(), spec,
                                      name.toStdString(), session_.choice().part);
        if (!answer) return tl::make_unexpected(answer.error());
        part = *answer;
        return {};
    });
    if (!part) return;
    session_.choose_part(part);
    Q_EMIT made();
}

void PartActions::add_layers(int count, Length reveal) {
    std::vector<PartId> parts;
    Layer layer;
    layer.reveal = reveal;
    if (!session_.change(tr("Add layers"), [&](Project& p) -> Result<void> {
            return dotlane::add_layers(p, session_.catalog(), session_.workshop().fonts(), layer, count, {},
                                       session_.choice().part)
                .map([&](std::vector<PartId> answer) { parts = std::move(answer); });
        }))
        return;
    session_.choose_part(parts.front());
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
