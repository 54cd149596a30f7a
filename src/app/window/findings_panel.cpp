#include "app/window/findings_panel.h"

#include <QHBoxLayout>

namespace dotlane::app {

FindingsPanel::FindingsPanel(Session& session, QWidget* parent)
    : SidePanel(tr("Findings"), parent)
    , session_(session)
    , override_(new Card(this))
    , list_(new FindingList(session, this)) {
    auto* back = pill(tr("Done"), this);
    back->setObjectName("findings-done");
    head()->addWidget(back);
    override_->set_wrong(true);
    auto* text = label(tr("Nothing was exported, because errors stand. Mend them, or export in spite of "
                          "them: the run sheet will say so."),
                       TextRole::body, override_);
    text->setWordWrap(true);
    auto* anyway = pill(tr("Export in spite of them"), override_);
    anyway->setObjectName("override");
    override_->rows()->addWidget(text);
    override_->rows()->addWidget(anyway, 0, Qt::AlignLeft);
    override_->hide();
    body()->addWidget(override_);
    body()->addWidget(list_);
    body()->addStretch(1);
    connect(list_, &FindingList::chosen, this, &FindingsPanel::finding_chosen);
    connect(back, &QPushButton::clicked, this, &FindingsPanel::done);
    connect(anyway, &QPushButton::clicked, this, [this] {
        ask_override(false);
        Q_EMIT overridden();
    });
    connect(&session_, &Session::derivedChanged, this, &FindingsPanel::show_findings);
    show_findings();
}

void FindingsPanel::ask_override(bool asked) {
    override_->setVisible(asked);
}

void FindingsPanel::show_findings() {
    if (!isVisible()) return; // there may be many
    const auto derived = session_.derived();
    const Findings now = derived ? derived->findings : Findings{};
    if (count(now, Grade::error) == 0) override_->hide();
    list_->show_findings(now, tr("Nothing found. All is well."), FindingList::Whose::named);
}

void FindingsPanel::showEvent(QShowEvent* event) {
    SidePanel::showEvent(event);
    show_findings();
}

} // namespace dotlane::app
