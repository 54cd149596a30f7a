#include "app/recipe/finding_list.h"

#include <QBoxLayout>

#include "app/recipe/finding_card.h"

namespace dotlane::app {

FindingList::FindingList(Session& session, QWidget* parent)
    : StationColumn(parent)
    , session_(session) {
    layout()->setContentsMargins(4, 2, 4, 8);
}

void FindingList::show_findings(const Findings& findings, const QString& none) {
    if (shown_ == findings) return;
    shown_ = findings;
    clear();
    if (findings.empty() && !none.isEmpty()) add(label(none, TextRole::quiet, this), false);
    for (const Finding& f : findings) {
        auto* card = new FindingCard(session_, f, this);
        connect(card, &Card::pressed, this, [this, f] { Q_EMIT chosen(f); });
        add(card, false);
    }
}

} // namespace dotlane::app
