#include "app/recipe/finding_list.h"

#include <QBoxLayout>

#include "app/recipe/finding_card.h"
#include "core/commands/remedies.h"

namespace dotlane::app {

FindingList::FindingList(Session& session, QWidget* parent)
    : StationColumn(parent)
    , session_(session) {
    layout()->setContentsMargins(4, 2, 4, 8);
}

void FindingList::show_findings(const Findings& findings, const QString& none, Whose whose) {
    std::vector<std::string> owners;
    for (const Finding& f : findings)
        owners.push_back(whose == Whose::named ? owner_of(session_.project(), f) : "");
    if (shown_ == findings && owners_ == owners) return;
    shown_ = findings, owners_ = owners;
    clear();
    if (findings.empty() && !none.isEmpty()) add(label(none, TextRole::quiet, this), false);
    for (std::size_t i = 0; i < findings.size(); ++i) {
        const Finding& f = findings[i];
        auto* card = new FindingCard(session_, f, this);
        card->name_owner(owners[i]);
        connect(card, &Card::pressed, this, [this, f] { Q_EMIT chosen(f); });
        add(card, false);
    }
}

} // namespace dotlane::app
